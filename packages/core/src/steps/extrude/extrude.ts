/** Regions of a sketch, a flat face or an open outline pushed straight into a solid. */
import { StepFailure } from '../../names/body.ts';
import { expressionOf } from '../../units/units.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import { point } from '../../slots/point/point.ts';
import { regions } from '../../slots/regions/regions.ts';
import type { StepData } from '../../slots/slot.ts';
import { raised } from '../../space/planes.ts';
import { dot, minus, type Frame } from '../../space/vector.ts';
import { chainPicked, liesOnBody, profilePicked, sketchPicked } from '../begin.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { sweep } from '../result/sweep.ts';
import { areasWithWall, wallSentence, wallSlots } from '../result/wall.ts';
import { cutOff, extentOf, tapered, WAYS, type Way } from './ends.ts';

/** Thinner than this, mm, is nothing. */
const LEAST_THICKNESS = 1e-6;
const MOST_TAPER = (80 * Math.PI) / 180;
const FIRST_DISTANCE_MM = 10;

const by = (...ways: Way[]) => holds('way', ...ways);
const measured = by('one_way', 'both_ways', 'symmetric');
/** Something that is there stops it. */
const stopped = by('to_next', 'to_plane', 'to_point', 'to_face', 'to_body');

export const extrude = declareTools({
  kind: 'extrude',
  version: 3,
  label: 'Extrude',
  key: 'x',
  says: 'Regions of a sketch, a flat face or an open outline pushed straight into a solid.',
  slots: {
    profile: { of: regions(), says: 'What is extruded.' },
    ...wallSlots,
    way: {
      of: choice<Way>(WAYS),
      says: 'one_way: by distance. both_ways: distance forward, back_distance backward. symmetric: distance in all, half each way. through_all, through_both: past all it acts on. to_next: up to the first face met; where it cuts, to where it comes out of the body it begins in. to_plane, to_point, to_face, to_body: up to until, until_point, until_face or until_body. To what stops it less gap.',
    },
    distance: { of: expression('length'), when: measured, otherwise: () => `${FIRST_DISTANCE_MM} mm` },
    back_distance: {
      of: expression('length'),
      when: by('both_ways'),
      otherwise: (step: StepData) => step.distance as string,
      says: 'Only with both_ways; as much as distance when left out.',
    },
    until: { of: plane(), when: by('to_plane'), otherwise: () => ({ datum: 'floor' as const }) },
    until_point: { of: point(), when: by('to_point'), otherwise: () => ({ origin: true as const }) },
    until_face: {
      of: faces('The face this goes up to'),
      when: by('to_face'),
      otherwise: () => [],
      says: 'One face; a cylinder or sphere is taken whole, a plane endless.',
    },
    until_body: { of: bodies(), when: by('to_body'), otherwise: () => 'all' as const },
    gap: {
      of: expression('length'),
      when: stopped,
      otherwise: () => '0 mm',
      says: 'By how much it stops before, below 0 how much farther it goes: of a face square to that, else along its way.',
    },
    reversed: {
      of: flag('forward', 'reversed'),
      otherwise: () => false,
      says: 'true: forward is against the plane’s normal.',
    },
    start_at: {
      of: plane(),
      when: (step: StepData) => isSet(step.start_at),
      says: 'A flat face or plane, parallel to the profile, at which it starts instead.',
    },
    start: {
      of: expression('length'),
      when: (step: StepData) => isSet(step.start),
      says: 'How far off the profile, or off start_at, it starts, along the normal.',
    },
    taper: {
      of: expression('angle'),
      when: (step: StepData) => isSet(step.taper),
      says: 'By how much it narrows on its way; below 0 it widens.',
    },
    ...resultSlots,
  },
  first: 'distance',
  begin(from) {
    const profile = profilePicked(from) ?? chainPicked(from) ?? sketchPicked(from);
    if (!profile) return null;
    return {
      profile,
      way: 'one_way',
      distance: expressionOf(FIRST_DISTANCE_MM, 'length', from.units),
      result: liesOnBody(profile, from) ? 'join' : 'new_body',
    };
  },
  sentence: (step) => [
    'Extrude',
    { slot: 'profile' },
    ...wallSentence(step),
    ...(measured(step) ? ['by', { slot: 'distance' }] : []),
    { slot: 'way' },
    ...(by('both_ways')(step) ? ['and back', { slot: 'back_distance' }] : []),
    ...(by('to_plane')(step) ? [{ slot: 'until' }] : []),
    ...(by('to_point')(step) ? [{ slot: 'until_point' }] : []),
    ...(by('to_face')(step) ? [{ slot: 'until_face' }] : []),
    ...(by('to_body')(step) ? [{ slot: 'until_body' }] : []),
    ...(stopped(step) ? ['less', { slot: 'gap' }] : []),
    ...(by('symmetric', 'through_both', 'to_plane', 'to_point')(step) ? [] : [{ slot: 'reversed' }]),
    ...(isSet(step.start_at) ? ['starting at', { slot: 'start_at' }] : []),
    ...(isSet(step.start) ? ['starting', { slot: 'start' }, 'off'] : []),
    ...(isSet(step.taper) ? ['tapering by', { slot: 'taper' }] : []),
    ...resultSentence(step),
  ],
  extras: (step) => [
    ...(isSet(step.start_at)
      ? []
      : [{ label: 'start at a face or plane', slot: 'start_at', stored: { datum: 'floor' } }]),
    ...(isSet(step.start) ? [] : [{ label: 'start off the profile', slot: 'start', stored: '5 mm' }]),
    ...(isSet(step.taper) ? [] : [{ label: 'taper', slot: 'taper', stored: '3 deg' }]),
  ],
  tools(inputs, context) {
    const { profile, taper = 0 } = inputs;
    const start = (inputs.start ?? 0) + (inputs.start_at ? heightOf(frameOf(inputs.start_at), profile.frame) : 0);
    const targets = inputs.bodies ?? context.bodies;
    const areas = areasWithWall(profile, inputs.wall, inputs.wall_side);
    const extent = extentOf({ ...inputs, start }, profile.frame, areas[0]!.at, targets, inputs.result === 'cut');
    if (extent.to - extent.from < LEAST_THICKNESS)
      throw new StepFailure('An extrude of zero makes nothing; give it a distance.');
    if (Math.abs(taper) > MOST_TAPER) throw new StepFailure('A taper leans by less than 80°; give a smaller angle.');
    if (taper !== 0 && extent.from < start && extent.to > start)
      throw new StepFailure('A taper starts at the profile and goes one way only; extrude it one way.');
    if (taper !== 0 && extent.cut?.by === 'bodies' && extent.cut.gap !== 0)
      throw new StepFailure('A tapered extrude ends where it meets something; take the gap or the taper away.');
    const about = raised(profile.frame, start);
    return sweep(context.stepId, areas, extent.swapped, (area) =>
      context.kernel.extrude(profile.frame, area.loops, extent.from, extent.to),
    ).map((fresh) => cutOff(tapered(fresh, taper, about, extent.swapped, context), extent, context));
  },
});

const isSet = (stored: unknown) => stored !== undefined;

/** Of a plane over the profile. @throws StepFailure where it is not parallel to that */
function heightOf(plane: Frame, profile: Frame): number {
  if (Math.abs(dot(plane.normal, profile.normal)) < 1 - PARALLEL)
    throw new StepFailure('The face or plane it starts at lies at a slant to what is drawn; pick a parallel one.');
  return dot(minus(plane.origin, profile.origin), profile.normal);
}
/** Less than this off, the cosine of an angle is that of none. */
const PARALLEL = 1e-9;
