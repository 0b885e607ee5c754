/** Where sections are cut, on the views that show their plane edge-on, and their letters (ISO 128-3). */
import type { Sheet } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { dot } from '../space/vector.ts';
import { standsFree } from './view-kinds.ts';
import type { PlacedView } from './placed.ts';
import { ROOM_A_ROW } from './layout.ts';
import { frameOfLook } from './looks.ts';
import { line, type OnPaper } from './paper.ts';
import { words } from './title-block.ts';

/** mm on the paper: how far the line stands out of the view, and its arrows. */
const OUT = 7;
const ARROW = 6;
const HEIGHT = 5;

/** Marked on the first view that shows the plane edge-on: once is enough to find it. */
export function cutMarks(sheet: Sheet, cuts: ReadonlyMap<string, number>, views: readonly PlacedView[]): PlacedView[] {
  const added = new Map<string, OnPaper[]>(views.map((v) => [v.id, []]));
  [...cuts].forEach(([id, depth], i) => {
    const letter = String.fromCharCode(65 + (i % 26));
    const own = views.find((v) => v.id === id);
    if (!own) return;
    added.get(id)!.push(words(own.at[0], own.box[3] + 8, `${letter}–${letter}`, HEIGHT, 'strong', 'middle'));
    for (const view of views) {
      if (view.id === id || standsFree(sheet.views[view.id]!)) continue;
      const marks = markOn(sheet, view, sheet.views[id]!.look, depth, letter);
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

function markOn(
  sheet: Sheet,
  view: PlacedView,
  cutLook: Sheet['views'][string]['look'],
  depth: number,
  letter: string,
): OnPaper[] {
  const own = frameOfLook(sheet.front, sheet.views[view.id]!.look);
  const { normal } = frameOfLook(sheet.front, cutLook);
  const [x, y] = [dot(normal, own.x), dot(normal, own.y)];
  const upright = Math.abs(x) > 1 - 1e-9;
  if (!upright && Math.abs(y) < 1 - 1e-9) return [];
  const sign = Math.sign(upright ? x : y);
  const k = upright ? 0 : 1;
  const at = depth * sign * view.by + view.move[k];
  const [low, high] = upright
    ? [view.box[1] - outOf(sheet, view.id, 'across'), view.box[3] + OUT]
    : [view.box[0] - outOf(sheet, view.id, 'up'), view.box[2] + OUT];
  const place = (along: number, across = 0): Vec2 => (upright ? [at + across, along] : [along, at + across]);
  // One looks against the normal.
  const looking = -sign;
  return [low, high]
    .flatMap((end, i) => [
      line('visible', place(end), place(end + (i === 0 ? 4 : -4))),
      line('size', place(end), place(end, looking * ARROW)),
      { is: 'filled', points: [place(end, looking * ARROW), place(end + 0.8, looking * (ARROW - 3)), place(end - 0.8, looking * (ARROW - 3))] } as OnPaper, // prettier-ignore
      words(...letterAt(place(end, looking * (ARROW + 3))), letter, HEIGHT, 'strong', 'middle'),
    ])
    .concat(line('center', place(low), place(high)));
}

const letterAt = ([x, y]: Vec2): [number, number] => [x, y - HEIGHT / 2];
