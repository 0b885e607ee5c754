/** Where views stand on the paper and at which scale, before anyone moves them. */
import { paperSize, type Look, type Sheet } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { Flat4 } from './piece-places.ts';

/** Enlargements and reductions of ISO 5455, largest first. */
export const SCALES: readonly (readonly [number, number])[] = [
  [50, 1], [20, 1], [10, 1], [5, 1], [2, 1], [1, 1], [1, 2], [1, 5], [1, 10], [1, 20], [1, 50], [1, 100], [1, 200], [1, 500], [1, 1000],
]; // prettier-ignore

/** From the edge of the paper to the frame: the binding side of ISO 5457 is wider. */
export const MARGINS = { left: 20, other: 10 } as const;
/** Of the title block in the lower right corner, mm. */
export const TITLE_BLOCK: Vec2 = [170, 36];
/** Left round each view for its sizes, mm on the paper. */
const ROOM = 16;

/** Columns and rows round the front, by where one stands to see it: what is seen from the right stands right. */
const THIRD: Readonly<Record<Look, readonly [number, number]>> = {
  front: [0, 0], right: [1, 0], left: [-1, 0], top: [0, 1], bottom: [0, -1], rear: [2, 0], oblique: [1, 1],
}; // prettier-ignore

/** Column and row of a look; in first-angle projection what is seen from the right stands left. */
export function standsAt(angle: Sheet['angle'], look: Look): readonly [number, number] {
  const [column, row] = THIRD[look];
  if (angle === 'third') return [column, row];
  if (look === 'oblique') return [1, -1];
  return look === 'rear' ? [2, 0] : [-column || 0, -row || 0];
}

export interface LaidOut {
  readonly scale: readonly [number, number];
  /** Where each view’s middle stands, mm on the paper. */
  readonly at: ReadonlyMap<string, Vec2>;
  /** They have no room at this scale. */
  readonly crowded: boolean;
}

/** @param boxes of each view, mm of the model */
export function layOut(sheet: Sheet, boxes: ReadonlyMap<string, Flat4>): LaidOut {
  const views = sheet.viewOrder.flatMap((id) => {
    const box = boxes.get(id);
    return box ? [{ id, look: sheet.views[id]!.look, width: box[2] - box[0], height: box[3] - box[1] }] : [];
  });
  const scales = sheet.scale ? [sheet.scale] : SCALES;
  let last: Placed | null = null;
  for (const scale of scales) {
    last = placedAt(sheet, views, scale);
    if (last.fits) break;
  }
  const { at, scale } = last ?? { at: new Map<string, Vec2>(), scale: sheet.scale ?? ([1, 1] as const) };
  return { scale, at: shifted(sheet, at), crowded: last !== null && !last.fits };
}

interface Sized {
  readonly id: string;
  readonly look: Look;
  readonly width: number;
  readonly height: number;
}
interface Placed {
  readonly scale: readonly [number, number];
  readonly at: Map<string, Vec2>;
  readonly fits: boolean;
}

function placedAt(sheet: Sheet, views: readonly Sized[], scale: readonly [number, number]): Placed {
  const [paperWidth, paperHeight] = paperSize(sheet);
  const by = scale[0] / scale[1];
  const cells = views.map((v) => ({ ...v, cell: standsAt(sheet.angle, v.look), w: v.width * by + 2 * ROOM, h: v.height * by + 2 * ROOM })); // prettier-ignore
  const columns = largest(cells.map((c) => [c.cell[0], c.w]));
  const rows = largest(cells.map((c) => [c.cell[1], c.h]));
  const width = sum(columns);
  const height = sum(rows);
  const inner: Flat4 = [MARGINS.left, MARGINS.other, paperWidth - MARGINS.other, paperHeight - MARGINS.other];
  const block: Flat4 = [inner[2] - TITLE_BLOCK[0], inner[1], inner[2], inner[1] + TITLE_BLOCK[1]];
  // Over the whole paper first, then above the title block.
  for (const floor of [inner[1], block[3]]) {
    const left = (inner[0] + inner[2]) / 2 - width / 2;
    const low = (floor + inner[3]) / 2 - height / 2;
    const at = new Map<string, Vec2>();
    for (const c of cells) at.set(c.id, [left + before(columns, c.cell[0]), low + before(rows, c.cell[1])]);
    const clear = cells.every((c) => {
      const [x, y] = at.get(c.id)!;
      return x + c.w / 2 <= block[0] || y - c.h / 2 >= block[3];
    });
    const fits = width <= inner[2] - inner[0] && height <= inner[3] - floor && clear;
    if (fits || floor === block[3]) return { scale, at, fits };
  }
  throw new Error('one of two floors is taken');
}

/** Of each column or row the most that stands in it, in order. */
function largest(of: readonly (readonly [number, number])[]): [number, number][] {
  const most = new Map<number, number>();
  for (const [key, size] of of) most.set(key, Math.max(most.get(key) ?? 0, size));
  return [...most].sort(([a], [b]) => a - b);
}
const sum = (sizes: readonly (readonly [number, number])[]) => sizes.reduce((total, [, s]) => total + s, 0);
/** To the middle of a column or row. */
function before(sizes: readonly (readonly [number, number])[], key: number): number {
  let at = 0;
  for (const [k, size] of sizes) {
    if (k === key) return at + size / 2;
    at += size;
  }
  return at;
}

/** Moved by hand: the front takes all along, what stands in a row or column with it keeps in line. */
function shifted(sheet: Sheet, at: ReadonlyMap<string, Vec2>): Map<string, Vec2> {
  const front = Object.values(sheet.views).find((v) => v.look === 'front')?.shift ?? [0, 0];
  return new Map(
    [...at].map(([id, [x, y]]) => {
      const { look, shift = [0, 0] } = sheet.views[id]!;
      if (look === 'front') return [id, [x + front[0], y + front[1]]];
      const [column, row] = standsAt(sheet.angle, look);
      const [dx, dy] = [column === 0 ? 0 : shift[0], row === 0 ? 0 : shift[1]];
      return [id, [x + front[0] + dx, y + front[1] + dy]];
    }),
  );
}
