/** Where sizes stand that nobody placed: outside their view, row by row, none over another. */
import type { SheetSize } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { widthOfText } from './draw-size.ts';
import type { Flat4 } from './piece-places.ts';
import { ROOM_A_ROW } from './layout.ts';
import type { Measured } from './measured.ts';

const FIRST = 9;
const NEXT = ROOM_A_ROW;
const TOUCH = 1e-6;
/** Of words on a leader: beyond the view, and above what they tell of. */
const BESIDE = 7;
const LIFT = 6;
/** Of a view’s size: how far from its apex an angle is told, and at least and at most, mm. */
const ANGLE_SHARE = 0.12;
const ANGLE = [12, 24] as const;
/** mm above a section that its letter takes. */
const LETTER = 12;

export interface ToPlace {
  readonly id: string;
  readonly size: SheetSize;
  readonly measured: Measured;
  readonly text: string;
}

/**
 * @param box of the view, mm on the paper from its middle, as all places are
 * @param above whether there is room for words above it
 * @returns of each the place of its text
 */
export function placeSizes(all: readonly ToPlace[], box: Flat4, height: number, above = true): Map<string, Vec2> {
  const places = new Map<string, Vec2>();
  /** Taken stretches of each row: below, left, and others by direction. */
  const rows = new Map<string, [number, number][][]>();
  const rowFor = (side: string, from: number, to: number): number => {
    const taken = rows.get(side) ?? [];
    rows.set(side, taken);
    // Those of a chain touch.
    let row = taken.findIndex((stretches) => stretches.every(([a, b]) => to < a + TOUCH || from > b - TOUCH));
    if (row < 0) row = taken.push([]) - 1;
    taken[row]!.push([from, to]);
    return row;
  };
  const lengths = all
    .filter((s) => lengthOf(s.measured) !== null && !s.size.ordinate)
    .sort((a, b) => value(a) - value(b));
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
  for (const kind of ['across', 'up'] as const) placeOrdinates(all.filter((s) => s.size.ordinate && s.size.kind === kind), kind, box, rows.get(kind === 'across' ? 'below' : 'left')?.length ?? 0, height, places); // prettier-ignore
  placeLed(all, box, height, above, places);
  for (const { id, measured } of all)
    if (measured.is === 'angle') {
      const t = measured.from + measured.value / 2;
      const usual = Math.min(ANGLE[1], Math.max(ANGLE[0], ANGLE_SHARE * Math.hypot(box[2] - box[0], box[3] - box[1])));
      // Edges that would meet far away: just before they begin.
      const begin = Math.max(...(measured.edges ?? []).map(([near]) => near), 0);
      const at = (off: number): Vec2 => [measured.apex[0] + off * Math.cos(t), measured.apex[1] + off * Math.sin(t)];
      const before = begin - FIRST;
      const inLetter = !above && before > usual && at(before)[1] > box[3];
      places.set(id, at(Math.max(usual, inLetter ? before - LETTER : before)));
    }
  return places;
}

/** Beyond the rows of lengths on their side, all in line, and none nearer to the next than their words are high. */
function placeOrdinates(
  own: readonly ToPlace[],
  kind: 'across' | 'up',
  box: Flat4,
  rows: number,
  height: number,
  places: Map<string, Vec2>,
): void {
  const k = kind === 'across' ? 0 : 1;
  const at = ({ measured }: ToPlace) => (measured.is === 'length' ? measured.to[k] : 0);
  const sorted = [...own].sort((a, b) => at(a) - at(b));
  const wide = Math.max(0, ...own.map((s) => widthOfText(s.text, height)));
  const level = box[1 - k]! - FIRST - NEXT * rows - wide / 2;
  const least = height * 1.6;
  const spots = inLine(sorted.map((s) => ({ at: at(s), wide: least })));
  sorted.forEach((s, i) => {
    const spot = spots[i]!;
    places.set(s.id, k === 0 ? [spot, level] : [level, spot]);
  });
}

/** Beyond the right or the upper side of the view, whichever is nearer, each as near to what it tells of as can be: leaders do not cross. */
function placeLed(
  all: readonly ToPlace[],
  box: Flat4,
  height: number,
  above: boolean,
  places: Map<string, Vec2>,
): void {
  const led = all.flatMap(({ id, measured: m, text }) => {
    if (lengthOf(m) !== null || m.is === 'length' || m.is === 'angle') return [];
    const at = 'at' in m ? m.at : m.center;
    const wide = widthOfText(text, height);
    return [{ id, at, wide, up: above && box[3] - at[1] < box[2] - at[0] }];
  });
  const right = led.filter((l) => !l.up).sort((a, b) => a.at[1] - b.at[1]);
  const ys = inLine(right.map((l) => ({ at: l.at[1] + LIFT, wide: height * 2 })));
  right.forEach(({ id, wide }, i) => places.set(id, [box[2] + BESIDE + wide / 2, ys[i]!]));
  const up = led.filter((l) => l.up).sort((a, b) => a.at[0] - b.at[0]);
  const xs = inLine(up.map((l) => ({ at: l.at[0] + BESIDE + l.wide / 2, wide: l.wide + BESIDE })));
  up.forEach(({ id }, i) => places.set(id, [xs[i]!, box[3] + BESIDE]));
}

/** Spread along a line in their order so that none touch, moved as little as can be: isotonic regression, by pooling neighbours that would come too near. */
function inLine(all: readonly { readonly at: number; readonly wide: number }[]): number[] {
  const pools: { sum: number; count: number }[] = [];
  let off = 0;
  const offs = all.map(({ wide }, i) => (off += i === 0 ? 0 : (wide + all[i - 1]!.wide) / 2));
  all.forEach(({ at }, i) => {
    pools.push({ sum: at - offs[i]!, count: 1 });
    for (let last = pools.at(-1)!, before = pools.at(-2); before && before.sum / before.count > last.sum / last.count; last = pools.at(-1)!, before = pools.at(-2)) pools.splice(-2, 2, { sum: before.sum + last.sum, count: before.count + last.count }); // prettier-ignore
  });
  return pools
    .flatMap(({ sum, count }) => Array.from({ length: count }, () => sum / count))
    .map((d, i) => d + offs[i]!);
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
