/** Where views stand on the paper and at which scale, before anyone moves them. */
import { paperSize, type Look, type Sheet, type SheetIssue } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { isMain, standsFree } from './view-kinds.ts';
import type { Flat4 } from './piece-places.ts';

/** Enlargements and reductions of ISO 5455, largest first. */
export const SCALES: readonly (readonly [number, number])[] = [
  [50, 1], [20, 1], [10, 1], [5, 1], [2, 1], [1, 1], [1, 2], [1, 5], [1, 10], [1, 20], [1, 50], [1, 100], [1, 200], [1, 500], [1, 1000],
]; // prettier-ignore

/** From the edge of the paper to the frame: the binding side of ISO 5457 is wider. */
export const MARGINS = { left: 20, other: 10 } as const;
/** Of the title block in the lower right corner, mm. */
export const TITLE_BLOCK: Vec2 = [170, 36];
/** Of each row of issues above it, the newest on top. */
export const ISSUE_ROW = 6;
const MOST_ISSUES_SHOWN = 5;
export const shownIssues = ({ issues = [] }: Pick<Sheet, 'issues'>): readonly SheetIssue[] =>
  issues.slice(-MOST_ISSUES_SHOWN);

/** Left round each view, and more for each row of sizes beside it, mm on the paper. */
const ROOM = 14;
const ROOM_FOR_BALLOONS = 22;
export const ROOM_A_ROW = 7;
const MOST_ROOM = 45;

/** Columns and rows round the front, by where one stands to see it: what is seen from the right stands right. */
const THIRD: Readonly<Record<Look, readonly [number, number]>> = {
  front: [0, 0], right: [1, 0], left: [-1, 0], top: [0, 1], bottom: [0, -1], rear: [2, 0], oblique: [2, 1],
}; // prettier-ignore

/** Column and row of a look; in first-angle projection what is seen from the right stands left. */
export function standsAt(angle: Sheet['angle'], look: Look): readonly [number, number] {
  const [column, row] = THIRD[look];
  if (angle === 'third') return [column, row];
  if (look === 'oblique') return [2, -1];
  return look === 'rear' ? [2, 0] : [-column || 0, -row || 0];
}

export interface LaidOut {
  readonly scale: readonly [number, number];
  /** Where each view’s middle stands, mm on the paper. */
  readonly at: ReadonlyMap<string, Vec2>;
  /** Of views that stand at another scale than the sheet. */
  readonly own: ReadonlyMap<string, readonly [number, number]>;
  /** They have no room at this scale. */
  readonly crowded: boolean;
}

/** @param boxes of each view, mm of the model. @param listed rows of a parts list above the title block */
export function layOut(sheet: Sheet, boxes: ReadonlyMap<string, Flat4>, listed = 0): LaidOut {
  const views = sheet.viewOrder.flatMap((id): Sized[] => {
    const box = boxes.get(id);
    if (!box) return [];
    return [
      {
        id,
        look: sheet.views[id]!.look,
        free: standsFree(sheet.views[id]!),
        width: box[2] - box[0],
        height: box[3] - box[1],
        room: roomOf(sheet, id),
      },
    ];
  });
  const square = views.filter((v) => !v.free);
  const scales = sheet.scale ? [sheet.scale] : SCALES;
  let placed: Placed | null = null;
  let own = new Map<string, readonly [number, number]>();
  for (const scale of scales) {
    placed = placedAt(sheet, square, scale, listed);
    const rest = obliquesIn(sheet, views.filter((v) => v.free), placed, listed); // prettier-ignore
    own = rest.own;
    if (placed.fits && rest.fits) break;
    placed.fits = false;
  }
  const { at, scale } = placed ?? { at: new Map<string, Vec2>(), scale: sheet.scale ?? ([1, 1] as const) };
  return { scale, at: shifted(sheet, at), own, crowded: placed !== null && !placed.fits };
}

/** For as many rows of lengths as stand on its fuller side. */
function roomOf({ sizes, parts }: Sheet, view: string): number {
  const own = Object.values(sizes).filter((s) => s.view === view);
  const of = (kind: string) => own.filter((s) => s.kind === kind && !s.ordinate).length + (own.some((s) => s.kind === kind && s.ordinate) ? 2 : 0); // prettier-ignore
  return Math.min(
    MOST_ROOM,
    (parts ? ROOM_FOR_BALLOONS : ROOM) + ROOM_A_ROW * Math.max(0, Math.max(of('up'), of('across')) - 1),
  );
}

interface Sized {
  readonly id: string;
  readonly look: Look;
  readonly free: boolean;
  readonly width: number;
  readonly height: number;
  readonly room: number;
}
interface Placed {
  readonly scale: readonly [number, number];
  readonly at: Map<string, Vec2>;
  /** What is taken of the paper. */
  readonly taken: readonly Flat4[];
  fits: boolean;
}

function innerOf(sheet: Sheet, listed: number): { inner: Flat4; block: Flat4 } {
  const [width, height] = paperSize(sheet);
  const inner: Flat4 = [MARGINS.left, MARGINS.other, width - MARGINS.other, height - MARGINS.other];
  return {
    inner,
    block: [
      inner[2] - TITLE_BLOCK[0],
      inner[1],
      inner[2],
      inner[1] + TITLE_BLOCK[1] + (shownIssues(sheet).length + listed) * ISSUE_ROW,
    ],
  };
}

const meet = (a: Flat4, b: Flat4): boolean => a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1];

/** Straight-on views in their rows and columns: over the whole paper, above the title block, or left of it. */
function placedAt(sheet: Sheet, views: readonly Sized[], scale: readonly [number, number], listed: number): Placed {
  const by = scale[0] / scale[1];
  const cells = views.map((v) => ({ id: v.id, cell: standsAt(sheet.angle, v.look), w: v.width * by + 2 * v.room, h: v.height * by + 2 * v.room })); // prettier-ignore
  const columns = largest(cells.map((c) => [c.cell[0], c.w]));
  const rows = largest(cells.map((c) => [c.cell[1], c.h]));
  const [width, height] = [sum(columns), sum(rows)];
  const { inner, block } = innerOf(sheet, listed);
  const over = (floor: number, right: number): Placed => {
    const left = (inner[0] + right) / 2 - width / 2;
    const low = (floor + inner[3]) / 2 - height / 2;
    const at = new Map(cells.map((c) => [c.id, [left + before(columns, c.cell[0]), low + before(rows, c.cell[1])] as const])); // prettier-ignore
    const taken = cells.map((c): Flat4 => {
      const [x, y] = at.get(c.id)!;
      return [x - c.w / 2, y - c.h / 2, x + c.w / 2, y + c.h / 2];
    });
    const fits = width <= right - inner[0] && height <= inner[3] - floor && !taken.some((t) => meet(t, block));
    return { scale, at, taken, fits };
  };
  const ways = [over(inner[1], inner[2]), over(block[3], inner[2]), over(inner[1], block[0])];
  return ways.find((w) => w.fits) ?? ways[1]!;
}

const GRID = 5;
/** An oblique view may be this much smaller than the others, in steps of the scales there are. */
const SMALLER = 2;

/** Oblique views where there is room for them, smaller if need be. */
function obliquesIn(
  sheet: Sheet,
  views: readonly Sized[],
  placed: Placed,
  listed: number,
): { own: Map<string, readonly [number, number]>; fits: boolean } {
  const own = new Map<string, readonly [number, number]>();
  const { inner, block } = innerOf(sheet, listed);
  const from = SCALES.findIndex(([on, truth]) => on / truth <= placed.scale[0] / placed.scale[1] + 1e-9);
  const offered = [placed.scale, ...SCALES.slice(from < 0 ? SCALES.length - 1 : from + 1).slice(0, SMALLER)];
  let fits = true;
  const kept: Flat4[] = [];
  for (const v of views) {
    const found = (sheet.views[v.id]!.detail ? detailScales(sheet, v.id, from) : offered).flatMap((scale) => {
      const at = freePlace(
        v,
        scale[0] / scale[1],
        inner,
        [block, ...placed.taken, ...kept],
        standsAt(sheet.angle, 'oblique')[1],
      );
      return at ? [{ scale, at }] : [];
    })[0];
    if (!found) fits = false;
    else kept.push(around(v, found.scale[0] / found.scale[1], found.at));
    placed.at.set(v.id, found?.at ?? [inner[2] - (v.width * placed.scale[0]) / placed.scale[1] / 2 - ROOM, (inner[1] + inner[3]) / 2]); // prettier-ignore
    if (found && found.scale !== placed.scale) own.set(v.id, found.scale);
  }
  return { own, fits };
}

/** Larger than the sheet by two steps, or less where there is no room. */
function detailScales({ views }: Sheet, id: string, from: number): readonly (readonly [number, number])[] {
  const own = views[id]!.detail!.scale;
  const at = from < 0 ? SCALES.length : from;
  return own ? [own] : [2, 1, 0].map((up) => SCALES[Math.max(0, at - up)]!);
}

const around = ({ width, height }: Sized, by: number, [x, y]: Vec2): Flat4 => [x - (width * by) / 2 - GRID, y - (height * by) / 2 - GRID - 8, x + (width * by) / 2 + GRID, y + (height * by) / 2 + GRID]; // prettier-ignore

/** @param side above 0 rather high, below 0 rather low; right before left */
function freePlace(
  { width, height }: Sized,
  by: number,
  inner: Flat4,
  taken: readonly Flat4[],
  side: number,
): Vec2 | null {
  const [w, h] = [(width * by) / 2 + GRID, (height * by) / 2 + GRID];
  let best: { at: Vec2; away: number } | null = null;
  for (let x = inner[0] + w; x <= inner[2] - w; x += GRID)
    for (let y = inner[1] + h; y <= inner[3] - h; y += GRID) {
      const own: Flat4 = [x - w, y - h, x + w, y + h];
      if (taken.some((t) => meet(own, t))) continue;
      // In the middle of what is free on that side.
      const wanted: Vec2 = [inner[0] + (inner[2] - inner[0]) * 0.8, inner[1] + (inner[3] - inner[1]) * (side > 0 ? 0.7 : 0.4)]; // prettier-ignore
      const away = Math.hypot(x - wanted[0], y - wanted[1]);
      if (!best || away < best.away) best = { at: [x, y], away };
    }
  return best?.at ?? null;
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
  const front = Object.values(sheet.views).find((v) => v.look === 'front' && isMain(v))?.shift ?? [0, 0];
  return new Map(
    [...at].map(([id, [x, y]]) => {
      const { look, shift = [0, 0] } = sheet.views[id]!;
      if (look === 'front' && isMain(sheet.views[id]!)) return [id, [x + front[0], y + front[1]]];
      if (standsFree(sheet.views[id]!)) return [id, [x + shift[0], y + shift[1]]];
      const [column, row] = standsAt(sheet.angle, look);
      const [dx, dy] = [column === 0 ? 0 : shift[0], row === 0 ? 0 : shift[1]];
      return [id, [x + front[0] + dx, y + front[1] + dy]];
    }),
  );
}
