/** Where sizes stand that nobody placed: outside their view, row by row, none over another. */
import type { SheetSize } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { widthOfText } from './draw-size.ts';
import type { Flat4 } from './piece-places.ts';
import { ROOM_A_ROW } from './layout.ts';
import type { Measured } from './measured.ts';

const FIRST = 9;
const NEXT = ROOM_A_ROW;

export interface ToPlace {
  readonly id: string;
  readonly size: SheetSize;
  readonly measured: Measured;
  readonly text: string;
}

/**
 * @param box of the view, mm on the paper from its middle, as all places are
 * @returns of each the place of its text
 */
export function placeSizes(all: readonly ToPlace[], box: Flat4, height: number): Map<string, Vec2> {
  const places = new Map<string, Vec2>();
  /** Taken stretches of each row: below, left, and others by direction. */
  const rows = new Map<string, [number, number][][]>();
  const rowFor = (side: string, from: number, to: number): number => {
    const taken = rows.get(side) ?? [];
    rows.set(side, taken);
    let row = taken.findIndex((stretches) => stretches.every(([a, b]) => to < a || from > b));
    if (row < 0) row = taken.push([]) - 1;
    taken[row]!.push([from, to]);
    return row;
  };
  const lengths = all.filter((s) => lengthOf(s.measured) !== null).sort((a, b) => value(a) - value(b));
  for (const { id, measured, text } of lengths) {
    const { from, to, along } = lengthOf(measured)!;
    const ends = [from, to].map((p) => p[0] * along[0] + p[1] * along[1]).sort((a, b) => a - b);
    const middle = (ends[0]! + ends[1]!) / 2;
    const half = Math.max(ends[1]! - ends[0]!, widthOfText(text, height) + 2, 7) / 2;
    if (Math.abs(along[1]) < 1e-9) {
      const row = rowFor('below', middle - half, middle + half);
      places.set(id, [middle * along[0], box[1] - FIRST - NEXT * row]);
    } else if (Math.abs(along[0]) < 1e-9) {
      const row = rowFor('left', middle - half, middle + half);
      places.set(id, [box[0] - FIRST - NEXT * row, middle * along[1]]);
    } else {
      // Slanted: off to the side of its normal that leads out of the view.
      const out: Vec2 = [-along[1], along[0]];
      const mid: Vec2 = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      const sign = mid[0] * out[0] + mid[1] * out[1] >= 0 ? 1 : -1;
      const row = rowFor(`slanted ${out.map((c) => (c * sign).toFixed(3)).join()}`, middle - half, middle + half);
      const by = sign * (FIRST + NEXT * row);
      places.set(id, [mid[0] + out[0] * by, mid[1] + out[1] * by]);
    }
  }
  const led = all.filter((s) => lengthOf(s.measured) === null && s.measured.is !== 'angle');
  const taken: Vec2[] = [];
  for (const { id, measured, text } of led) {
    if (measured.is === 'length' || measured.is === 'angle') continue;
    const at = measured.is === 'note' ? measured.at : measured.center;
    // On the right: lengths stand left and below.
    const x = box[2] + 7 + widthOfText(text, height) / 2;
    let y = Math.max(at[1] + 6, box[3] - 2);
    while (taken.some((t) => Math.abs(t[1] - y) < height * 2)) y -= height * 2;
    taken.push([x, y]);
    places.set(id, [x, y]);
  }
  for (const { id, measured } of all)
    if (measured.is === 'angle') {
      const t = measured.from + measured.value / 2;
      places.set(id, [measured.apex[0] + 14 * Math.cos(t), measured.apex[1] + 14 * Math.sin(t)]);
    }
  return places;
}

function lengthOf(m: Measured): { from: Vec2; to: Vec2; along: Vec2 } | null {
  if (m.is === 'length') return m;
  if ((m.is === 'diameter' || m.is === 'radius') && m.ends) {
    const [from, to] = m.ends;
    const long = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
    return { from, to, along: [(to[0] - from[0]) / long, (to[1] - from[1]) / long] };
  }
  return null;
}

const value = ({ measured }: ToPlace) => ('value' in measured ? measured.value : 0);
