/** Balloons with the numbers of a parts list, round a view and none over another, and the list itself (ISO 6433, ISO 7573). */
import type { Vec2 } from '../sketch/curves/spline.ts';
import { ISSUE_ROW, TITLE_BLOCK } from './layout.ts';
import type { ListedPart } from './listed-part.ts';
import { line, type OnPaper } from './paper.ts';
import type { Flat4 } from './piece-places.ts';
import { placeOn, type PlacedSize, type PlacedView } from './placed.ts';
import { words } from './title-block.ts';

const RADIUS = 4.5;
/** From the view, and from each other, mm on the paper. */
const OFF = 12;
const APART = 2 * RADIUS + 4;
const TEXT = 3.5;
const DOT = 0.6;

/** By which a size on the page is told to be a balloon. */
export const balloonId = (part: string): string => `balloon ${part}`;
export const partOfBalloon = (id: string): string | null => (id.startsWith('balloon ') ? id.slice(8) : null);

/**
 * @param anchors where each part is seen in the view, mm of the model
 * @param moved places of balloons from the middle of the view, mm on the paper
 */
export function balloonsRound(
  view: PlacedView,
  rows: readonly ListedPart[],
  anchors: ReadonlyMap<string, Vec2>,
  moved: Readonly<Record<string, Vec2>>,
): PlacedSize[] {
  const { id, at, box } = view;
  const seen = rows.flatMap(({ part }, i) => {
    const anchor = anchors.get(part);
    return anchor ? [{ part, number: i + 1, anchor: placeOn(view, anchor) }] : [];
  }); // prettier-ignore
  const free = onRing(seen.filter((s) => !moved[s.part]), box); // prettier-ignore
  return seen.map(({ part, number, anchor }) => {
    const own = moved[part];
    const place: Vec2 = own ? [own[0] + at[0], own[1] + at[1]] : free.get(part)!;
    return { id: balloonId(part), view: id, place, items: balloon(place, anchor, String(number)) };
  });
}

function balloon(place: Vec2, to: Vec2, number: string): OnPaper[] {
  const long = Math.hypot(to[0] - place[0], to[1] - place[1]);
  const rim: Vec2 = long > RADIUS ? [place[0] + ((to[0] - place[0]) * RADIUS) / long, place[1] + ((to[1] - place[1]) * RADIUS) / long] : place; // prettier-ignore
  const dot = Array.from({ length: 8 }, (_, i): Vec2 => [to[0] + DOT * Math.cos((i * Math.PI) / 4), to[1] + DOT * Math.sin((i * Math.PI) / 4)]); // prettier-ignore
  return [
    { is: 'curve', pen: 'size', piece: { kind: 'circle', points: [place], radius: RADIUS } },
    line('size', rim, to),
    { is: 'filled', points: dot },
    { is: 'text', at: [place[0], place[1] - TEXT / 2], text: number, height: TEXT, anchor: 'middle', turn: 0, face: 'numbers' }, // prettier-ignore
  ];
}

/** Places on a ring round the view, in the order in which what they name lies round it, so that leaders do not cross. */
function onRing(all: readonly { readonly part: string; readonly anchor: Vec2 }[], [x0, y0, x1, y1]: Flat4): Map<string, Vec2> {
  const [cx, cy, w, h] = [(x0 + x1) / 2, (y0 + y1) / 2, x1 - x0 + 2 * OFF, y1 - y0 + 2 * OFF];
  const around = 2 * (w + h);
  const sorted = all.map((one) => ({ ...one, along: alongRing(Math.atan2(one.anchor[1] - cy, one.anchor[0] - cx), w, h) })).sort((a, b) => a.along - b.along); // prettier-ignore
  const apart = Math.min(APART, around / Math.max(1, sorted.length));
  let last = -Infinity;
  const along = sorted.map((one) => (last = Math.max(one.along, last + apart)));
  // What was pushed round past the first is pushed back, and those before it as far as need be.
  const end = (along[0] ?? 0) + around - apart;
  const fitting = along.map((at, i) => Math.min(at, end - (sorted.length - 1 - i) * apart));
  return new Map(sorted.map(({ part }, i) => [part, placeOnRing(fitting[i]!, cx, cy, w, h)])); // prettier-ignore
} // prettier-ignore

/** From the middle of the right side counter-clockwise, where a ray at this angle leaves the ring. */
function alongRing(angle: number, w: number, h: number): number {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const t = Math.min(w / 2 / Math.max(Math.abs(c), 1e-9), h / 2 / Math.max(Math.abs(s), 1e-9));
  const [x, y] = [t * c, t * s];
  if (x >= w / 2 - 1e-9) return y >= 0 ? y : 2 * (w + h) + y;
  if (y >= h / 2 - 1e-9) return h / 2 + (w / 2 - x);
  if (x <= -w / 2 + 1e-9) return h / 2 + w + (h / 2 - y);
  return 1.5 * h + w + (x + w / 2);
}

function placeOnRing(along: number, cx: number, cy: number, w: number, h: number): Vec2 {
  const around = 2 * (w + h);
  let left = ((along % around) + around) % around;
  const sides: readonly (readonly [number, (by: number) => Vec2])[] = [
    [h / 2, (by) => [cx + w / 2, cy + by]],
    [w, (by) => [cx + w / 2 - by, cy + h / 2]],
    [h, (by) => [cx - w / 2, cy + h / 2 - by]],
    [w, (by) => [cx - w / 2 + by, cy - h / 2]],
    [h / 2, (by) => [cx + w / 2, cy - h / 2 + by]],
  ];
  for (const [long, at] of sides) {
    if (left <= long) return at(left);
    left -= long;
  }
  return [cx + w / 2, cy];
}

const COLUMNS = [0, 11, 28, 96, 146] as const;
const SMALL = 2.6;
/** Rows beyond these do not stand on the sheet, which is said there. */
export const MOST_LISTED = 40;

/** Above the title block, from below: number one stands at its foot. @param corner lower left of the list */
export function partsTable(rows: readonly ListedPart[], [x, y]: Vec2): OnPaper[] {
  const shown = rows.slice(0, MOST_LISTED);
  const told = rows.length > shown.length ? [['', '', `and ${rows.length - shown.length} parts more`, '', '']] : [];
  const cells = [
    ['No.', 'Count', 'Part', 'Material', 'kg each'],
    ...shown.map((r, i) => [String(i + 1), String(r.count), r.name, r.material, r.each === null ? '' : r.each.toPrecision(3)]), // prettier-ignore
    ...told,
  ];
  const [width] = TITLE_BLOCK;
  const top = y + cells.length * ISSUE_ROW;
  return [
    ...cells.flatMap((row, i): OnPaper[] => {
      const foot = y + i * ISSUE_ROW;
      return [line('rule', [x, foot], [x + width, foot]), ...row.map((text, c) => words(x + COLUMNS[c]! + 2, foot + 1.8, text, SMALL, i === 0 ? 'strong' : 'words'))]; // prettier-ignore
    }),
    ...[x, ...COLUMNS.slice(1).map((c) => x + c), x + width].map((at) => line('rule', [at, y], [at, top])),
    line('rule', [x, top], [x + width, top]),
  ];
}

/** How many rows the list takes. */
export const listedRows = (rows: readonly ListedPart[]): number =>
  1 + Math.min(rows.length, MOST_LISTED) + (rows.length > MOST_LISTED ? 1 : 0);
