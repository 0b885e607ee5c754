/** Bodies put elsewhere, turned or enlarged; themselves or a copy. */
import { StepFailure } from '../../names/body.ts';
import { axis } from '../../slots/axis/axis.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { direction } from '../../slots/direction/direction.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { enlargeAbout, shiftBy, turnAbout, type Transform } from '../../space/transform.ts';
import { expressionOf } from '../../units/units.ts';
import { bodiesPicked } from '../begin.ts';
import { repeatBodies } from '../repeat/repeat.ts';
import { declareStep } from '../step.ts';

const FIRST_DISTANCE_MM = 10;
/** Enlarged by more, or made smaller by more, a part is no part any more. */
const MOST_FACTOR = 1000;
const WAYS = { shift: 'along', turn: 'about', enlarge: 'in size' } as const;
const by = (way: keyof typeof WAYS) => holds('way', way);

export const move = declareStep({
  kind: 'move',
  version: 1,
  label: 'Move',
  says: 'Bodies put elsewhere, turned, or made larger or smaller about the origin; themselves or a copy.',
  slots: {
    bodies: { of: bodies() },
    way: { of: choice<keyof typeof WAYS>(WAYS) },
    direction: { of: direction(), when: by('shift'), otherwise: () => ({ datum: 'x' as const }) },
    distance: { of: expression('length'), when: by('shift'), otherwise: () => `${FIRST_DISTANCE_MM} mm` },
    axis: { of: axis(), when: by('turn'), otherwise: () => ({ datum: 'z' as const }) },
    angle: { of: expression('angle'), when: by('turn'), otherwise: () => '90 deg' },
    factor: { of: expression('number'), when: by('enlarge'), otherwise: () => '2' },
    copy: { of: flag('themselves', 'a copy'), otherwise: () => false },
  },
  begin(from) {
    const picked = bodiesPicked(from);
    return (
      picked && {
        bodies: picked,
        way: 'shift',
        direction: { datum: 'x' },
        distance: expressionOf(FIRST_DISTANCE_MM, 'length', from.units),
      }
    );
  },
  sentence: (step) => [
    'Move',
    { slot: 'bodies' },
    { slot: 'way' },
    ...(by('shift')(step) ? [{ slot: 'direction' }, 'by', { slot: 'distance' }] : []),
    ...(by('turn')(step) ? [{ slot: 'axis' }, 'by', { slot: 'angle' }] : []),
    ...(by('enlarge')(step) ? [{ slot: 'factor' }, 'times'] : []),
    { slot: 'copy' },
  ],
  make(inputs, context) {
    const to = placeOf(inputs);
    if (inputs.copy) return repeatBodies(inputs.bodies, [{ key: '2', to }], false, context);
    const made = inputs.bodies.map((from) => ({
      body: context.body(from.name, context.kernel.placed(from.solid, to).solid, from.faceNames),
      from,
    }));
    return { made, used: inputs.bodies };
  },
});

type Inputs = Parameters<(typeof move)['make']>[0];

function placeOf({
  way,
  direction: along,
  distance,
  axis: about,
  angle,
  factor,
}: Pick<Inputs, 'way' | 'direction' | 'distance' | 'axis' | 'angle' | 'factor'>): Transform {
  // prettier-ignore
  if (way === 'shift') {
    const [x, y, z] = along!;
    return shiftBy([x * distance!, y * distance!, z * distance!]);
  }
  if (way === 'turn') return turnAbout(about!, angle!);
  if (!(factor! > 1 / MOST_FACTOR && factor! < MOST_FACTOR))
    throw new StepFailure(`A size of ${factor} times cannot be made; give a number between 0.001 and 1000.`);
  return enlargeAbout([0, 0, 0], factor!);
}
