/** Where sections are cut, on the views that show their plane edge-on, and their letters (ISO 128-3). */
import type { Sheet } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { dot, type Frame } from '../space/vector.ts';
import type { CutPlan } from './cut-open.ts';
import type { SheetGeometry } from './geometry.ts';
import { ROOM_A_ROW } from './layout.ts';
import { line, type OnPaper } from './paper.ts';
import { placeOn, type PlacedView } from './placed.ts';
import { words } from './title-block.ts';
import { standsFree } from './view-kinds.ts';

/** mm on the paper: how far the line stands out of the view, its arrows, and its thick ends and corners. */
const OUT = 7;
const ARROW = 6;
const THICK = 4;
const HEIGHT = 5;

/** Marked on the first view that shows the plane edge-on, with its steps: once is enough to find it. */
export function cutMarks(
  sheet: Sheet,
  { cuts, views: drawn }: Pick<SheetGeometry, 'cuts' | 'views'>,
  views: readonly PlacedView[],
): PlacedView[] {
  // prettier-ignore
  const added = new Map<string, OnPaper[]>(views.map((v) => [v.id, []]));
  [...cuts].forEach(([id, cut], i) => {
    const letter = String.fromCharCode(65 + (i % 26));
    const own = views.find((v) => v.id === id);
    if (!own) return;
    added.get(id)!.push(words(own.at[0], own.box[3] + 8, `${letter}–${letter}`, HEIGHT, 'strong', 'middle'));
    for (const view of views) {
      if (view.id === id || standsFree(sheet.views[view.id]!)) continue;
      const marks = markOn(sheet, view, drawn.get(view.id)!.frame, drawn.get(id)!.frame, cut, letter);
      added.get(view.id)!.push(...marks);
      if (marks.length > 0) break;
    }
  });
  return views.map((view) => ({ ...view, items: [...view.items, ...added.get(view.id)!] }));
}

/** Beyond the rows of lengths that stand on a side. */
const outOf = (sheet: Sheet, view: string, kind: 'across' | 'up'): number => {
  const rows = Object.values(sheet.sizes).filter((s) => s.view === view && s.kind === kind).length;
  return OUT + (rows > 0 ? 4 + ROOM_A_ROW * rows : 0);
};

/** Of a half section the cut goes as far as what stays whole. */
const cutStrips = ({ strips }: CutPlan) => strips.flatMap(({ to, depth }, i) => (depth === null ? [] : [{ from: strips[i - 1]?.to ?? -Infinity, to, depth }])); // prettier-ignore

function markOn(sheet: Sheet, view: PlacedView, own: Frame, section: Frame, cut: CutPlan, letter: string): OnPaper[] {
  const [x, y] = [dot(section.normal, own.x), dot(section.normal, own.y)];
  const upright = Math.abs(x) > 1 - 1e-9;
  if (!upright && Math.abs(y) < 1 - 1e-9) return [];
  const sign = Math.sign(upright ? x : y);
  const [k, other] = upright ? [0, 1] : [1, 0];
  const onAxis = (at: number, axis: number) => placeOn(view, axis === 0 ? [at, 0] : [0, at])[axis]!;
  const across = (depth: number) => onAxis(depth * sign, k!);
  const [low, high] = upright
    ? [view.box[1] - outOf(sheet, view.id, 'across'), view.box[3] + OUT]
    : [view.box[0] - outOf(sheet, view.id, 'up'), view.box[2] + OUT];
  const strips = cutStrips(cut);
  // Steps run along the line only where the view shows their axis.
  const runs = dot(section[cut.axis], upright ? own.y : own.x);
  if (strips.length > 1 && Math.abs(runs) < 1 - 1e-9) return [];
  const [first, last] = runs < 0 ? [high, low] : [low, high];
  const along = (at: number, end: number) => Number.isFinite(at) && Math.abs(runs) > 0.5 ? onAxis(at * runs, other!) : end; // prettier-ignore
  const place = (at: number, depth: number): Vec2 => (upright ? [depth, at] : [at, depth]);
  const path = strips.flatMap(({ from, to, depth }) => [place(along(from, first), across(depth)), place(along(to, last), across(depth))]); // prettier-ignore
  // One looks against the normal.
  const looking = -sign;
  const ends = [path[0]!, path.at(-1)!].map((end) => {
    const at = (by: number, aside = 0): Vec2 => (upright ? [end[0] + looking * by, end[1] + aside] : [end[0] + aside, end[1] + looking * by]); // prettier-ignore
    const [lx, ly] = at(ARROW + 3);
    return [
      line('size', end, at(ARROW)),
      { is: 'filled', points: [at(ARROW), at(ARROW - 3, 0.8), at(ARROW - 3, -0.8)] } as OnPaper,
      words(lx, ly - HEIGHT / 2, letter, HEIGHT, 'strong', 'middle'),
    ];
  });
  const thin = path.slice(1).map((to, i) => line('center', path[i]!, to));
  const thick = path.flatMap((from, i) => [path[i - 1], path[i + 1]].flatMap((to) => (to ? [line('visible', from, towards(from, to, THICK))] : []))); // prettier-ignore
  return [...thin, ...thick, ...ends.flat()];
}

/** So far on the way to another place, at most a third of it. */
function towards([x, y]: Vec2, [u, v]: Vec2, by: number): Vec2 {
  const long = Math.hypot(u - x, v - y);
  const t = long === 0 ? 0 : Math.min(by, long / 3) / long;
  return [x + (u - x) * t, y + (v - y) * t];
}
