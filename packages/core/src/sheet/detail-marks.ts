/** Round what a detail enlarges, on the view it is of: a circle and its letter, from the end of the alphabet on. */
import type { Sheet } from '../document/sheet.ts';
import type { DrawnView } from './drawn-view.ts';
import type { OnPaper } from './paper.ts';
import type { PlacedView } from './placed.ts';
import { words } from './title-block.ts';

const HEIGHT = 5;
/** Z, and on towards A, where sections begin. */
const LAST = 'Z'.charCodeAt(0);

export const detailLetters = ({ viewOrder, views }: Sheet): ReadonlyMap<string, string> =>
  new Map(viewOrder.filter((id) => views[id]!.detail).map((id, i) => [id, String.fromCharCode(LAST - (i % 20))]));

export function detailMarks(
  sheet: Sheet,
  drawn: ReadonlyMap<string, DrawnView>,
  views: readonly PlacedView[],
): PlacedView[] {
  // prettier-ignore
  const letters = detailLetters(sheet);
  return views.map((view) => {
    const marks = sheet.viewOrder.flatMap((id): OnPaper[] => {
      const round = drawn.get(id)?.round;
      if (!round || sheet.views[id]!.detail?.of !== view.id) return [];
      const [x, y] = [round.center[0] * view.by + view.move[0], round.center[1] * view.by + view.move[1]];
      const radius = round.radius * view.by;
      const off = (radius + 2) * Math.SQRT1_2;
      return [
        { is: 'curve', pen: 'smooth', piece: { kind: 'circle', points: [[x, y]], radius } },
        words(x + off, y + off, letters.get(id)!, HEIGHT, 'strong'),
      ];
    });
    return marks.length > 0 ? { ...view, items: [...view.items, ...marks] } : view;
  });
}
