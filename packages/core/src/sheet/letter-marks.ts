/** What tells on a view where another is taken from it: a circle round what is enlarged, an arrow at a face that is looked onto. */
import type { Sheet } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { flatPoint } from '../slots/regions/flatten.ts';
import { dot } from '../space/vector.ts';
import type { DrawnView } from './drawn-view.ts';
import { line, type OnPaper } from './paper.ts';
import { placeOn, type PlacedView } from './placed.ts';
import { words } from './title-block.ts';
import { isMain } from './view-kinds.ts';

const HEIGHT = 5;
/** Z, and on towards A, where sections begin. */
const LAST = 'Z'.charCodeAt(0);

/** Of views that are taken from another. */
export const lettersOf = ({ viewOrder, views }: Sheet): ReadonlyMap<string, string> =>
  new Map(viewOrder.filter((id) => !isMain(views[id]!)).map((id, i) => [id, String.fromCharCode(LAST - (i % 20))]));

type Marks = (id: string, drawn: DrawnView, on: PlacedView, letter: string) => OnPaper[];

function marked(
  sheet: Sheet,
  drawn: ReadonlyMap<string, DrawnView>,
  views: readonly PlacedView[],
  marks: Marks,
): PlacedView[] {
  const letters = lettersOf(sheet);
  return views.map((view) => {
    const items = sheet.viewOrder.flatMap((id) => (drawn.has(id) ? marks(id, drawn.get(id)!, view, letters.get(id) ?? '') : [])); // prettier-ignore
    return items.length > 0 ? { ...view, items: [...view.items, ...items] } : view;
  });
}

export const detailMarks = (sheet: Sheet, drawn: ReadonlyMap<string, DrawnView>, views: readonly PlacedView[]) =>
  marked(sheet, drawn, views, (id, { round }, on, letter) => {
    if (!round || sheet.views[id]!.detail?.of !== on.id) return [];
    const [x, y] = placeOn(on, round.center);
    const radius = round.radius * on.by;
    const off = (radius + 2) * Math.SQRT1_2;
    return [
      { is: 'curve', pen: 'smooth', piece: { kind: 'circle', points: [[x, y]], radius } },
      words(x + off, y + off, letter, HEIGHT, 'strong'),
    ];
  });

/** mm on the paper: how far before the face its arrow ends, and how long it is. */
const BEFORE = 3;
const ARROW = 9;

/** Of views straight onto slanted faces: an arrow at the face, in the way one looks (ISO 128-3). */
export const slantMarks = (sheet: Sheet, drawn: ReadonlyMap<string, DrawnView>, views: readonly PlacedView[]) =>
  marked(sheet, drawn, views, (id, { onto, frame }, on, letter) => {
    const own = drawn.get(on.id);
    if (!onto || !own || sheet.views[id]!.onto?.of !== on.id || sheet.views[id]!.detail) return [];
    const [x, y] = placeOn(on, flatPoint(own.frame, onto));
    const out: Vec2 = [dot(frame.normal, own.frame.x), dot(frame.normal, own.frame.y)];
    const at = (by: number, aside = 0): Vec2 => [x + out[0] * by - out[1] * aside, y + out[1] * by + out[0] * aside]; // prettier-ignore
    const [u, v] = at(BEFORE + ARROW + 4);
    return [
      line('size', at(BEFORE + ARROW), at(BEFORE)),
      { is: 'filled', points: [at(BEFORE), at(BEFORE + 3, 0.8), at(BEFORE + 3, -0.8)] },
      words(u, v - HEIGHT / 2, letter, HEIGHT, 'strong', 'middle'),
    ];
  });

const DEGREES = 180 / Math.PI;
/** Turned by less, rad, a view stands as it is seen. */
const TURNED = 1e-6;

/** How far a view onto a slanted face was turned from the way it is looked at, counter-clockwise, rad: its own x stands level. */
export function turnOf({ views }: Sheet, drawn: ReadonlyMap<string, DrawnView>, id: string): number {
  const from = drawn.get(views[id]!.onto?.of ?? '');
  const own = drawn.get(id);
  if (!from || !own) return 0;
  return -Math.atan2(dot(own.frame.x, from.frame.y), dot(own.frame.x, from.frame.x));
}

/** A bent arrow the way a view was turned, with its angle (ISO 128-3). @param at its left, on the line of the letter, mm */
export function turnedSign([x, y]: Vec2, turn: number): OnPaper[] {
  if (Math.abs(turn) < TURNED) return [];
  const radius = HEIGHT / 2;
  const center: Vec2 = [x + radius, y + radius];
  const at = (t: number): Vec2 => [center[0] + radius * Math.cos(t), center[1] + radius * Math.sin(t)];
  const [right, left] = [at(0), at(Math.PI)];
  // Over the top, counter-clockwise from right to left; its head points down at the end of it.
  const [hx, hy] = turn > 0 ? left : right;
  return [
    { is: 'curve', pen: 'size', piece: { kind: 'arc', points: [center, right, left] } },
    { is: 'filled', points: [[hx, hy - 1.2], [hx - 0.7, hy + 1], [hx + 0.7, hy + 1]] },
    words(x + 2 * radius + 2, y, `${Number((Math.abs(turn) * DEGREES).toFixed(1))}°`, 3.5, 'numbers'),
  ]; // prettier-ignore
}
