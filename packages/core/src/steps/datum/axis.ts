/** An axis of one's own, to turn about or repeat around. */
import { StepFailure } from '../../names/body.ts';
import { axis } from '../../slots/axis/axis.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { frameOf, plane, type PlaneFound } from '../../slots/plane/plane.ts';
import { point } from '../../slots/point/point.ts';
import { meeting } from '../../space/planes.ts';
import { cross, minus, unit, type Axis, type Vec3 } from '../../space/vector.ts';
import { declareStep } from '../step.ts';

const WAYS = {
  along: 'along', points: 'through two points', planes: 'where two planes meet', square: 'straight out of a plane, through',
} as const; // prettier-ignore
type Way = keyof typeof WAYS;
const by = (...ways: Way[]) => holds('way', ...ways);
const origin = () => ({ origin: true as const });

export const datumAxis = declareStep({
  kind: 'datum_axis',
  version: 1,
  label: 'Axis',
  verb: 'Datum axis',
  says: 'An axis of one’s own, to turn about or repeat around.',
  slots: {
    way: { of: choice<Way>(WAYS) },
    line: { of: axis(), when: by('along'), otherwise: () => ({ datum: 'z' as const }) },
    point: { of: point(), when: by('points', 'square'), otherwise: origin },
    second: { of: point(), when: by('points'), otherwise: origin },
    plane: { of: plane(), when: by('planes', 'square'), otherwise: () => ({ datum: 'floor' as const }) },
    other: { of: plane(), when: by('planes'), otherwise: () => ({ datum: 'wall' as const }) },
  },
  begin({ picks }) {
    const lines = picks.flatMap((p) => axis().take(undefined, p) ?? []);
    const places = picks.flatMap((p) =>
      p.kind === 'vertex' || p.kind === 'sketch_point' ? (point().take(undefined, p) ?? []) : [],
    );
    const planes = picks.flatMap((p) => plane().take(undefined, p) ?? []);
    if (picks.length === 1 && lines.length === 1) return { way: 'along', line: lines[0] };
    if (picks.length === 2 && places.length === 2) return { way: 'points', point: places[0], second: places[1] };
    if (picks.length === 2 && planes.length === 2) return { way: 'planes', plane: planes[0], other: planes[1] };
    if (picks.length === 2 && planes.length === 1 && places.length === 1)
      return { way: 'square', point: places[0], plane: planes[0] };
    return null;
  },
  sentence: (step) => [
    'Axis',
    { slot: 'way' },
    ...(by('along')(step) ? [{ slot: 'line' }] : []),
    ...(by('points', 'square')(step) ? [{ slot: 'point' }] : []),
    ...(by('points')(step) ? ['and', { slot: 'second' }] : []),
    ...(by('square')(step) ? ['from'] : []),
    ...(by('planes', 'square')(step) ? [{ slot: 'plane' }] : []),
    ...(by('planes')(step) ? ['and', { slot: 'other' }] : []),
  ],
  make: ({ way, line, point: p, second, plane: a, other: b }) => ({
    made: [],
    used: [],
    datum: { kind: 'axis', axis: axisOf(way, line, p?.at, second?.at, a, b) },
  }),
});

function axisOf(
  way: Way,
  line: Axis | undefined,
  p: Vec3 | undefined,
  q: Vec3 | undefined,
  a: PlaneFound | undefined,
  b: PlaneFound | undefined,
): Axis {
  // prettier-ignore
  if (way === 'along') return line!;
  if (way === 'points') {
    const direction = unit(minus(q!, p!));
    if (!direction) throw new StepFailure('The two points lie in one place; pick another for one of them.');
    return { origin: p!, direction };
  }
  if (way === 'square') return { origin: p!, direction: frameOf(a!).normal };
  const [one, other] = [frameOf(a!), frameOf(b!)];
  const direction = unit(cross(one.normal, other.normal));
  if (!direction) throw new StepFailure('The two planes are parallel and meet nowhere; pick another for one of them.');
  return { origin: meeting(one, other), direction };
}
