/** A point of one's own. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { FoundFace } from '../../names/find-face.ts';
import { axis } from '../../slots/axis/axis.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { direction } from '../../slots/direction/direction.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { point } from '../../slots/point/point.ts';
import { cross, dot, minus, opposite, type Axis, type Vec3 } from '../../space/vector.ts';
import { expressionOf } from '../../units/units.ts';
import { declareStep, type Beginning } from '../step.ts';

const FIRST_DISTANCE_MM = 10;
const WAYS = { off: 'at', face: 'on' } as const;
const isOnFace = holds('way', 'face');
/** Lines nearer to parallel than this, sine, meet nowhere near. */
const PARALLEL = 1e-6;
/** A line that leaves the face by more than this, sine, is none of its edges. */
const IN_FACE = 1e-6;

export const datumPoint = declareStep({
  kind: 'datum_point',
  version: 2,
  label: 'Point',
  verb: 'Datum point',
  says: 'A point of one’s own: at another, some way off it, or on a flat face by its distances from two edges.',
  slots: {
    way: {
      of: choice<keyof typeof WAYS>(WAYS),
      otherwise: () => 'off' as const,
      says: 'off: distance along direction from point. face: on the flat face, first_distance from the first line and second_distance from the second, towards its middle.',
    },
    point: { of: point(), when: (step) => !isOnFace(step), otherwise: () => ({ origin: true as const }) },
    distance: { of: expression('length'), when: (step) => !isOnFace(step), otherwise: () => '0 mm' },
    direction: { of: direction(), when: (step) => !isOnFace(step), otherwise: () => ({ datum: 'z' as const }) },
    face: { of: faces('The face this point lies on'), when: isOnFace, otherwise: () => [] },
    first_distance: { of: expression('length'), when: isOnFace, otherwise: () => `${FIRST_DISTANCE_MM} mm` },
    first_line: { of: axis(), when: isOnFace, otherwise: () => ({ datum: 'x' as const }) },
    second_distance: { of: expression('length'), when: isOnFace, otherwise: () => `${FIRST_DISTANCE_MM} mm` },
    second_line: { of: axis(), when: isOnFace, otherwise: () => ({ datum: 'y' as const }) },
  },
  first: 'first_distance',
  begin: (from) => onFacePicked(from) ?? pointPicked(from),
  sentence: (step) =>
    isOnFace(step)
      ? ['Point', { slot: 'way' }, { slot: 'face' }, { slot: 'first_distance' }, 'from', { slot: 'first_line' }, 'and', { slot: 'second_distance' }, 'from', { slot: 'second_line' }]
      : ['Point', { slot: 'way' }, { slot: 'point' }, 'and', { slot: 'distance' }, 'along', { slot: 'direction' }], // prettier-ignore
  make(inputs) {
    if (inputs.way === 'face') return { made: [], used: [], datum: { kind: 'point', ...onFace(inputs) } };
    const { at } = inputs.point!;
    const [x, y, z] = inputs.direction!;
    const d = inputs.distance!;
    return { made: [], used: [], datum: { kind: 'point', at: [at[0] + x * d, at[1] + y * d, at[2] + z * d], into: null } }; // prettier-ignore
  },
});

interface OnFace {
  readonly face: readonly FoundFace<Body>[] | undefined;
  readonly first_line: Axis | undefined;
  readonly first_distance: number | undefined;
  readonly second_line: Axis | undefined;
  readonly second_distance: number | undefined;
}

/**
 * Where two lines beside the edges cross, each so far off its edge towards the face’s middle:
 * of planes n₁·p = c₁, n₂·p = c₂, n·p = c the point (c₁ n₂×n + c₂ n×n₁ + c n₁×n₂) / (n₁·n₂×n).
 * @throws StepFailure
 */
function onFace({ face, first_line, first_distance, second_line, second_distance }: OnFace): { at: Vec3; into: Vec3 } {
  const [found, ...more] = face!;
  if (!found || more.length > 0) throw new StepFailure(found ? 'The point lies on one face; pick one alone.' : 'No face is chosen yet for the point; pick a flat one.'); // prettier-ignore
  const { normal: n, center } = found.body.facts.faces[found.face]!;
  if (!n) throw new StepFailure('The face of the point is not flat; pick another.');
  const beside = ({ origin, direction }: Axis, distance: number) => {
    if (Math.abs(dot(direction, n)) > IN_FACE)
      throw new StepFailure('One of the lines does not run along the face; pick edges of the face.');
    const across = cross(n, direction);
    const inwards = dot(minus(center, origin), across) < 0 ? opposite(across) : across;
    return { inwards, height: dot(inwards, origin) + distance };
  };
  const [a, b] = [beside(first_line!, first_distance!), beside(second_line!, second_distance!)];
  const [bn, na, ab] = [cross(b.inwards, n), cross(n, a.inwards), cross(a.inwards, b.inwards)];
  const size = dot(a.inwards, bn);
  if (Math.abs(size) < PARALLEL) throw new StepFailure('The two lines are parallel, and any point between them would do; pick another edge.'); // prettier-ignore
  const height = dot(n, center);
  const at = [0, 1, 2].map((i) => (a.height * bn[i]! + b.height * na[i]! + height * ab[i]!) / size) as unknown as Vec3;
  return { at, into: opposite(n) };
}

/** A flat face and two straight edges of it. */
function onFacePicked({ picks, units }: Beginning): Record<string, unknown> | null {
  const flat = picks.flatMap((p) => (p.kind === 'face' && p.flat ? [p.ref] : []));
  const lines = picks.flatMap((p) =>
    p.kind === 'edge' && p.curve === 'line' ? (axis().take(undefined, p) ?? []) : [],
  );
  if (picks.length !== 3 || flat.length !== 1 || lines.length !== 2) return null;
  const distance = expressionOf(FIRST_DISTANCE_MM, 'length', units);
  return { way: 'face', face: flat, first_line: lines[0], first_distance: distance, second_line: lines[1], second_distance: distance }; // prettier-ignore
}

function pointPicked({ picks }: Beginning): Record<string, unknown> | null {
  const [pick] = picks;
  const at = pick && picks.length === 1 && pick.kind !== 'face' ? point().take(undefined, pick) : null;
  return at && { way: 'off', point: at, distance: '0 mm', direction: { datum: 'z' } };
}
