/** A plane of one's own, to sketch on, mirror in or cut along. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { FoundFace } from '../../names/find-face.ts';
import { axis } from '../../slots/axis/axis.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import { path, type PathFound } from '../../slots/path/path.ts';
import { walkAlong } from '../../slots/path/walk.ts';
import { frameOf, plane, type PlaneFound } from '../../slots/plane/plane.ts';
import { point } from '../../slots/point/point.ts';
import type { StepData } from '../../slots/slot.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import { frameOfFace, meeting, raised } from '../../space/planes.ts';
import { movedDirection, turnAbout } from '../../space/transform.ts';
import { cross, dot, minus, opposite, unit, type Axis, type Frame, type Vec3 } from '../../space/vector.ts';
import { expressionOf } from '../../units/units.ts';
import { inMm } from '../rework/rework.ts';
import { declareStep, type Beginning } from '../step.ts';

const FIRST_DISTANCE_MM = 10;
/** Directions nearer than this are one; sines. */
const SAME = 1e-9;

const WAYS = {
  offset: 'off', middle: 'midway between', angled: 'through a line, leaning from', through: 'through a point, along', square: 'square to a line, through', points: 'through three points', touching: 'touching', along: 'square to the path',
} as const; // prettier-ignore
type Way = keyof typeof WAYS;
const by = (...ways: Way[]) => holds('way', ...ways);

const origin = () => ({ origin: true as const });

export const datumPlane = declareStep({
  kind: 'datum_plane',
  version: 2,
  label: 'Plane',
  verb: 'Datum plane',
  key: 'd',
  says: 'A plane of one’s own, to sketch on, mirror in or cut along.',
  slots: {
    way: {
      of: choice<Way>(WAYS),
      says: 'offset: distance from plane along its normal. middle: between plane and other. angled: through line, turned by angle from plane. through: parallel to plane through point. square: square to line at point. points: through point, second and third. touching: parallel to plane, touching the cylinder round; of a cone, on the line along which it looks as plane does. along: square to path, at distance from its beginning or end.',
    },
    plane: {
      of: plane(),
      when: by('offset', 'middle', 'angled', 'through', 'touching'),
      otherwise: () => ({ datum: 'floor' as const }),
    },
    distance: {
      of: expression('length'),
      when: by('offset', 'along'),
      otherwise: (step: StepData) => (step.way === 'along' ? '0 mm' : `${FIRST_DISTANCE_MM} mm`),
    },
    other: { of: plane(), when: by('middle'), otherwise: () => ({ datum: 'floor' as const }) },
    line: { of: axis(), when: by('angled', 'square'), otherwise: () => ({ datum: 'x' as const }) },
    angle: { of: expression('angle'), when: by('angled'), otherwise: () => '45 deg' },
    point: { of: point(), when: by('through', 'square', 'points'), otherwise: origin },
    second: { of: point(), when: by('points'), otherwise: origin },
    third: { of: point(), when: by('points'), otherwise: origin },
    round: {
      of: faces('The round face this touches'),
      when: by('touching'),
      otherwise: () => [],
      says: 'A cylinder or a cone.',
    },
    behind: {
      of: flag('on the side that looks to', 'on the side that looks from'),
      when: by('touching'),
      otherwise: () => false,
    },
    path: { of: path(), when: by('along'), otherwise: () => ({ edges: [] }) },
    from_end: { of: flag('its beginning', 'its end'), when: by('along'), otherwise: () => false },
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
    ...(by('touching')(step) ? [{ slot: 'round' }, 'and turned as'] : []),
    ...(by('along')(step) ? [{ slot: 'path' }, { slot: 'distance' }, 'from', { slot: 'from_end' }] : []),
    ...(by('angled', 'square')(step) ? [{ slot: 'line' }] : []),
    ...(by('points')(step) ? [{ slot: 'point' }, { slot: 'second' }, { slot: 'third' }] : []),
    ...(by('square')(step) ? [{ slot: 'point' }] : []),
    ...(by('angled')(step) ? ['by', { slot: 'angle' }, 'from'] : []),
    ...(by('offset', 'middle', 'angled', 'through', 'touching')(step) ? [{ slot: 'plane' }] : []),
    ...(by('middle')(step) ? ['and', { slot: 'other' }] : []),
    ...(by('through')(step) ? ['at', { slot: 'point' }] : []),
    ...(by('touching')(step) ? [{ slot: 'behind' }] : []),
    { slot: 'flipped' },
  ],
  make(inputs, { kernel }) {
    const { at, normal } = placed(inputs, kernel);
    const frame = frameOfFace(at, inputs.flipped ? opposite(normal) : normal);
    // What is drawn square to a path belongs about the path.
    return { made: [], used: [], datum: { kind: 'plane', frame: inputs.way === 'along' ? { ...frame, origin: at } : frame } }; // prettier-ignore
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
  readonly round: readonly FoundFace<Body>[] | undefined;
  readonly behind: boolean | undefined;
  readonly path: PathFound | undefined;
  readonly from_end: boolean | undefined;
}

interface Placed {
  readonly at: Vec3;
  readonly normal: Vec3;
}

/** @throws StepFailure where no plane follows */
function placed(inputs: Inputs, kernel: SolidKernel): Placed {
  const { way, plane: base, other, distance, line, angle, point: p, second, third } = inputs;
  if (way === 'along') return onPath(inputs.path!, distance!, inputs.from_end!, kernel);
  if (way === 'square') return { at: p!.at, normal: line!.direction };
  if (way === 'points') {
    const normal = unit(cross(minus(second!.at, p!.at), minus(third!.at, p!.at)));
    if (!normal)
      throw new StepFailure('The three points lie in one line, and many planes run through it; pick another point.');
    return { at: p!.at, normal };
  }
  const frame = frameOf(base!);
  if (way === 'touching') return touching(frame, inputs.round!, inputs.behind!);
  if (way === 'offset') return { at: raised(frame, distance!).origin, normal: frame.normal };
  if (way === 'through') return { at: p!.at, normal: frame.normal };
  if (way === 'angled') return leaning(frame, line!, angle!);
  return midway(frame, frameOf(other!));
}

/** Square to a path, where one is after so many mm from its beginning or before its end. @throws StepFailure */
function onPath({ pieces, of }: PathFound, distance: number, fromEnd: boolean, kernel: SolidKernel): Placed {
  const walk = walkAlong(pieces, kernel);
  if (distance < 0 || distance > walk.length * (1 + 1e-9))
    throw new StepFailure(`${of} is ${inMm(walk.length)} long; give a distance from 0 to that.`);
  const { at, way } = walk.on(fromEnd ? walk.length - distance : Math.min(distance, walk.length));
  return { at, normal: way };
}

/** Touching a cylinder or a cone where it looks as a plane does that runs along its axis. @throws StepFailure */
function touching({ normal }: Frame, [found, ...more]: readonly FoundFace<Body>[], behind: boolean): Placed {
  if (!found || more.length > 0) throw new StepFailure(found ? 'A plane touches one face; pick one alone.' : 'No round face is chosen yet to touch; pick one.'); // prettier-ignore
  const { axis: middle, radius, cone, center } = found.body.facts.faces[found.face]!;
  const along = cone?.direction ?? middle?.direction;
  if (!along) throw new StepFailure('The face it touches is no cylinder and no cone; pick a round one.');
  if (Math.abs(dot(along, normal)) > SAME)
    throw new StepFailure(`The ${cone ? 'cone' : 'cylinder'} does not run along the plane it is turned as; pick a plane along its axis.`); // prettier-ignore
  const out = behind ? opposite(normal) : normal;
  if (!cone) return { at: middle!.origin.map((o, k) => o + radius! * out[k]!) as unknown as Vec3, normal: out };
  const [sine, cosine] = [Math.sin(cone.halfAngle), Math.cos(cone.halfAngle)];
  const far = dot(minus(center, cone.tip), along) / cosine;
  const on = (side: number, axial: number): Vec3 => out.map((o, k) => side * o + axial * along[k]!) as unknown as Vec3;
  const line = on(sine, cosine);
  return { at: cone.tip.map((t, k) => t + far * line[k]!) as unknown as Vec3, normal: on(cosine, -sine) };
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
  const rounds = picks.flatMap((p) => (p.kind === 'face' && (p.round || p.cone) ? [p.ref] : []));
  const paths = picks.flatMap((p) => (p.kind === 'step' && p.is === 'curve' ? [{ step: p.step }] : []));
  const planes = picks.flatMap((p) => plane().take(undefined, p) ?? []);
  const lines = picks.flatMap((p) => (p.kind === 'face' ? [] : (axis().take(undefined, p) ?? [])));
  const places = picks.flatMap((p) =>
    p.kind === 'vertex' || p.kind === 'sketch_point' ? (point().take(undefined, p) ?? []) : [],
  );
  if (picks.length === 1 && planes.length === 1)
    return { way: 'offset', plane: planes[0], distance: expressionOf(FIRST_DISTANCE_MM, 'length', units) };
  if (picks.length === 1 && rounds.length === 1) return { way: 'touching', round: rounds, plane: { datum: 'floor' } };
  if (picks.length === 2 && rounds.length === 1 && planes.length === 1)
    return { way: 'touching', round: rounds, plane: planes[0] };
  if (picks.length === 1 && paths.length === 1) return { way: 'along', path: paths[0], from_end: true };
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
