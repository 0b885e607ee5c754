/** A sheet as it is proposed: its front, and the views that are mostly wanted. */
import type { Sheet, Side, Look } from '../document/sheet.ts';
import { newId } from '../ids/ids.ts';
import type { Box } from '../solid/kernel.ts';

const LOOKS: readonly Look[] = ['front', 'top', 'right', 'oblique'];

/** The side that shows most: of the three straight-on areas of its box the largest, standing sides before lying ones. */
function frontOf({ min, max }: Box): Side {
  const [x, y, z] = [0, 1, 2].map((i) => max[i]! - min[i]!) as [number, number, number];
  const areas: readonly (readonly [Side, number])[] = [['front', x * z], ['right', y * z], ['top', x * y]]; // prettier-ignore
  return areas.reduce((best, own) => (own[1] > best[1] * 1.05 ? own : best))[0];
}

/** @param box of what is drawn, mm; null where it is not known yet */
export function newSheet(name: string, of: Sheet['of'], box: Box | null): Sheet {
  const views = LOOKS.map((look) => [newId('v'), { look }] as const);
  return {
    name,
    of,
    paper: 'A3',
    angle: 'first',
    front: box ? frontOf(box) : 'front',
    views: Object.fromEntries(views),
    viewOrder: views.map(([id]) => id),
    sizes: {},
    fields: {},
  };
}
