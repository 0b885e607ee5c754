/** A plane of one's own, to sketch on, mirror in or cut along. */
import { StepFailure } from '../../names/body.ts';
import { axis } from '../../slots/axis/axis.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { frameOf, plane, type PlaneFound } from '../../slots/plane/plane.ts';
import { point } from '../../slots/point/point.ts';
import { frameOfFace, meeting, raised } from '../../space/planes.ts';
import { movedDirection, turnAbout } from '../../space/transform.ts';
import { cross, dot, minus, opposite, unit, type Axis, type Frame, type Vec3 } from '../../space/vector.ts';
import { expressionOf } from '../../units/units.ts';
import { declareStep, type Beginning } from '../step.ts';

const FIRST_DISTANCE_MM = 10;
/** Directions nearer than this are one; sines. */
const SAME = 1e-9;

const WAYS = {
  offset: 'off', middle: 'midway between', angled: 'through a line, leaning from', through: 'through a point, along', square: 'square to a line, through', points: 'through three points',
} as const; // prettier-ignore
type Way = keyof typeof WAYS;
const by = (...ways: Way[]) => holds('way', ...ways);

const origin = () => ({ origin: true as const });

export const datumPlane = declareStep({
  kind: 'datum_plane',
  version: 1,
  label: 'Plane',
  verb: 'Datum plane',
  key: 'd',
  says: 'A plane of one’s own, to sketch on, mirror in or cut along.',
  slots: {
    way: {
      of: choice<Way>(WAYS),
      says: 'offset: distance from plane along its normal. middle: between plane and other. angled: through line, turned by angle from plane. through: parallel to plane through point. square: square to line at point. points: through point, second and third.',
    },
    plane: {
      of: plane(),
      when: by('offset', 'middle', 'angled', 'through'),
      otherwise: () => ({ datum: 'floor' as const }),
    },
    distance: { of: expression('length'), when: by('offset'), otherwise: () => `${FIRST_DISTANCE_MM} mm` },
    other: { of: plane(), when: by('middle'), otherwise: () => ({ datum: 'floor' as const }) },
    line: { of: axis(), when: by('angled', 'square'), otherwise: () => ({ datum: 'x' as const }) },
    angle: { of: expression('angle'), when: by('angled'), otherwise: () => '45 deg' },
    point: { of: point(), when: by('through', 'square', 'points'), otherwise: origin },
    second: { of: point(), when: by('points'), otherwise: origin },
    third: { of: point(), when: by('points'), otherwise: origin },
    flipped: {
      of: flag('looking ahead', 'looking back'),
      otherwise: () => false,
      says: 'true: its normal is turned about.',
    },
  },
  first: 'distance',
  begin: (from) => beginning(from),
  sentence: (step) => [
    'Plane',
    ...(by('offset')(step) ? [{ slot: 'distance' }] : []),
    { slot: 'way' },
    ...(by('angled', 'square')(step) ? [{ slot: 'line' }] : []),
    ...(by('points')(step) ? [{ slot: 'point' }, { slot: 'second' }, { slot: 'third' }] : []),
    ...(by('square')(step) ? [{ slot: 'point' }] : []),
    ...(by('angled')(step) ? ['by', { slot: 'angle' }, 'from'] : []),
    ...(by('offset', 'middle', 'angled', 'through')(step) ? [{ slot: 'plane' }] : []),
    ...(by('middle')(step) ? ['and', { slot: 'other' }] : []),
    ...(by('through')(step) ? ['at', { slot: 'point' }] : []),
    { slot: 'flipped' },
  ],
  make(inputs) {
    const { at, normal } = placed(inputs);
    return {
      made: [],
      used: [],
      datum: { kind: 'plane', frame: frameOfFace(at, inputs.flipped ? opposite(normal) : normal) },
    };
  },
});

interface Inputs {
  readonly way: Way;
  readonly plane: PlaneFound | undefined;
  readonly other: PlaneFound | undefined;
  readonly distance: number | undefined;
  readonly line: Axis | undefined;
  readonly angle: number | undefined;
  readonly point: { readonly at: Vec3 } | undefined;
  readonly second: { readonly at: Vec3 } | undefined;
  readonly third: { readonly at: Vec3 } | undefined;
}

interface Placed {
  readonly at: Vec3;
  readonly normal: Vec3;
}

/** @throws StepFailure where no plane follows */
function placed({ way, plane: base, other, distance, line, angle, point: p, second, third }: Inputs): Placed {
  if (way === 'square') return { at: p!.at, normal: line!.direction };
  if (way === 'points') {
    const normal = unit(cross(minus(second!.at, p!.at), minus(third!.at, p!.at)));
    if (!normal)
      throw new StepFailure('The three points lie in one line, and many planes run through it; pick another point.');
    return { at: p!.at, normal };
  }
  const frame = frameOf(base!);
  if (way === 'offset') return { at: raised(frame, distance!).origin, normal: frame.normal };
  if (way === 'through') return { at: p!.at, normal: frame.normal };
  if (way === 'angled') return leaning(frame, line!, angle!);
  return midway(frame, frameOf(other!));
}

/** The plane through the line that is parallel to the base, turned about the line. */
function leaning({ normal }: Frame, line: Axis, angle: number): Placed {
  if (Math.abs(dot(normal, line.direction)) > SAME)
    throw new StepFailure('The line does not run along the plane it leans from; pick a line parallel to it.');
  return { at: line.origin, normal: movedDirection(turnAbout(line, angle), normal) };
}

/** Of two parallel planes the one between them, of others the one that halves their angle. */
function midway(a: Frame, b: Frame): Placed {
  const turn = cross(a.normal, b.normal);
  const sense = dot(a.normal, b.normal) < 0 ? -1 : 1;
  if (Math.hypot(...turn) < SAME) {
    const gap = dot(minus(b.origin, a.origin), a.normal);
    return { at: raised(a, gap / 2).origin, normal: a.normal };
  }
  // Faces that look away from each other have the middle plane between them, like those that look alike.
  const across = unit([
    a.normal[0] + sense * b.normal[0],
    a.normal[1] + sense * b.normal[1],
    a.normal[2] + sense * b.normal[2],
  ])!;
  return { at: meeting(a, b), normal: across };
}

function beginning({ picks, units }: Beginning): Record<string, unknown> | null {
  const planes = picks.flatMap((p) => plane().take(undefined, p) ?? []);
  const lines = picks.flatMap((p) => (p.kind === 'face' ? [] : (axis().take(undefined, p) ?? [])));
  const places = picks.flatMap((p) =>
    p.kind === 'vertex' || p.kind === 'sketch_point' ? (point().take(undefined, p) ?? []) : [],
  );
  if (picks.length === 1 && planes.length === 1)
    return { way: 'offset', plane: planes[0], distance: expressionOf(FIRST_DISTANCE_MM, 'length', units) };
  if (picks.length === 2 && planes.length === 2) return { way: 'middle', plane: planes[0], other: planes[1] };
  if (picks.length === 2 && planes.length === 1 && lines.length === 1)
    return { way: 'angled', line: lines[0], plane: planes[0], angle: expressionOf(Math.PI / 4, 'angle', units) };
  if (picks.length === 2 && planes.length === 1 && places.length === 1)
    return { way: 'through', plane: planes[0], point: places[0] };
  if (picks.length === 2 && lines.length === 1 && places.length === 1)
    return { way: 'square', line: lines[0], point: places[0] };
  if (picks.length === 3 && places.length === 3)
    return { way: 'points', point: places[0], second: places[1], third: places[2] };
  return null;
}
