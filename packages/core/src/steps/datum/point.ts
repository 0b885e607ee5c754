/** A point of one's own. */
import { point } from '../../slots/point/point.ts';
import { expression } from '../../slots/expression/expression.ts';
import { direction } from '../../slots/direction/direction.ts';
import { declareStep } from '../step.ts';

export const datumPoint = declareStep({
  kind: 'datum_point',
  version: 1,
  label: 'Point',
  verb: 'Datum point',
  says: 'A point of one’s own: at another, or some way off it.',
  slots: {
    point: { of: point() },
    distance: { of: expression('length'), otherwise: () => '0 mm' },
    direction: { of: direction(), otherwise: () => ({ datum: 'z' as const }) },
  },
  begin({ picks }) {
    const [pick] = picks;
    const at = pick && picks.length === 1 && pick.kind !== 'face' ? point().take(undefined, pick) : null;
    return at && { point: at, distance: '0 mm', direction: { datum: 'z' } };
  },
  sentence: () => ['Point at', { slot: 'point' }, 'and', { slot: 'distance' }, 'along', { slot: 'direction' }],
  make({ point: { at }, distance, direction: [x, y, z] }) {
    return {
      made: [],
      used: [],
      datum: { kind: 'point', at: [at[0] + x * distance, at[1] + y * distance, at[2] + z * distance] },
    };
  },
});
