/** Regions of a sketch turned about an axis into a solid. */
import { StepFailure } from '../../names/body.ts';
import { axis, type AxisRef } from '../../slots/axis/axis.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { Area, Profile } from '../../slots/regions/profile.ts';
import { regions, type ProfileRef } from '../../slots/regions/regions.ts';
import type { StepData } from '../../slots/slot.ts';
import { findRegion } from '../../sketch/regions/find-region.ts';
import { findRegions, type Region } from '../../sketch/regions/regions.ts';
import { sideOfLine } from '../../sketch/regions/side.ts';
import { ontoFrame } from '../../space/planes.ts';
import { minus, unit, type Axis } from '../../space/vector.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import { expressionOf } from '../../units/units.ts';
import { chainPicked, liesOnBody, profilePicked, sketchPicked } from '../begin.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { reachOf, sweep, type Reach } from '../result/sweep.ts';
import { areasWithWall, wallSentence, wallSlots } from '../result/wall.ts';
import type { Beginning } from '../step.ts';

/** Less than this, rad, is no turn. */
const LEAST_TURN = 1e-9;
/** An axis farther than this share from the sketch's plane, or over its profile by as much, is not in place. */
const SLACK = 1e-7;

const WAYS = { whole: 'all round', one_way: 'by an angle', both_ways: 'both ways', symmetric: 'symmetric' } as const;

const turned = (step: StepData) => step.way !== 'whole';

export const revolve = declareTools({
  kind: 'revolve',
  version: 1,
  label: 'Revolve',
  key: 'v',
  says: 'Regions of a sketch turned about an axis into a solid.',
  slots: {
    profile: { of: regions(), says: 'What is turned; it may touch the axis, not cross it.' },
    ...wallSlots,
    axis: { of: axis(), says: 'What it is turned about; it lies in the plane of the sketch.' },
    way: {
      of: choice<keyof typeof WAYS>(WAYS),
      says: 'whole: a full turn. one_way: by angle, counter-clockwise about the axis. both_ways: angle forward, back_angle backward. symmetric: angle in all, half each way.',
    },
    angle: { of: expression('angle'), when: turned, otherwise: () => '90 deg' },
    back_angle: {
      of: expression('angle'),
      when: (step: StepData) => step.way === 'both_ways',
      otherwise: (step: StepData) => step.angle as string | undefined,
    },
    reversed: { of: flag('forward', 'reversed'), when: turned, otherwise: () => false },
    ...resultSlots,
  },
  begin(from) {
    const profile = profilePicked(from) ?? chainPicked(from) ?? sketchPicked(from);
    if (!profile) return null;
    return {
      profile,
      axis: proposedAxis(profile, from),
      way: 'whole',
      angle: expressionOf(TAU / 4, 'angle', from.units),
      result: liesOnBody(profile, from) ? 'join' : 'new_body',
    };
  },
  sentence: (step) => [
    'Revolve',
    { slot: 'profile' },
    ...wallSentence(step),
    'about',
    { slot: 'axis' },
    { slot: 'way' },
    ...(step.way === 'whole' ? [] : [{ slot: 'angle' }]),
    ...(step.way === 'both_ways' ? ['and back', { slot: 'back_angle' }] : []),
    ...(step.way === 'whole' || step.way === 'symmetric' ? [] : [{ slot: 'reversed' }]),
    ...resultSentence(step),
  ],
  tools({ profile, axis: about, way, angle, back_angle, reversed, wall, wall_side }, context) {
    const { from, to, swapped } = reach(way, angle, back_angle, reversed ?? false);
    const areas = areasWithWall(profile, wall, wall_side);
    refuseAxis(profile, areas, about);
    return sweep(context.stepId, areas, swapped, (area) =>
      context.kernel.revolve(profile.frame, area.loops, about, from, to),
    );
  },
});

/** Angles about the axis, rad, between which the solid lies. */
function reach(
  way: keyof typeof WAYS,
  angle: number | undefined,
  backAngle: number | undefined,
  reversed: boolean,
): Reach {
  if (way === 'whole') return { from: 0, to: TAU, swapped: false };
  if (angle === undefined) throw new StepFailure('This turn needs an angle; give one, or turn it all round.');
  const { from, to, swapped } = reachOf(way, angle, backAngle, reversed);
  if (to - from < LEAST_TURN) throw new StepFailure('A turn of nothing makes nothing; give it an angle.');
  if (to - from > TAU + LEAST_TURN)
    throw new StepFailure('This turns by more than a whole turn; give it 360° at most.');
  return { from, to: Math.min(to, from + TAU), swapped };
}

/** @throws StepFailure when the axis leaves the plane of the profile, or crosses it */
function refuseAxis({ frame, of }: Profile, areas: readonly Area[], { origin, direction }: Axis): void {
  const [u, v, w] = ontoFrame(frame, origin);
  const ahead = ontoFrame(frame, [origin[0] + direction[0], origin[1] + direction[1], origin[2] + direction[2]]);
  const along = unit(minus(ahead, [u, v, w]));
  const size = Math.max(1, ...areas.map((a) => Math.sqrt(Math.abs(a.area))));
  if (!along || Math.abs(along[2]) > SLACK || Math.abs(w) > SLACK * size)
    throw new StepFailure(`The axis does not lie in the plane of ${of}; pick one that does.`);
  for (const area of areas) {
    const [least, most] = sideOfLine(area.loops[0]!, [u, v], [along[0], along[1]]);
    if (least < -SLACK * size && most > SLACK * size)
      throw new StepFailure(`The axis crosses the profile in ${of}; keep the profile on one side of it.`);
  }
}

/** A construction line that the profile keeps to one side of: the longest; else an axis of the sketch. */
function proposedAxis(profile: ProfileRef, from: Beginning): AxisRef {
  const sketch = 'face' in profile ? null : from.sketch(profile.sketch)?.geometry;
  if ('face' in profile || !sketch) return { datum: 'z' };
  const map = findRegions(sketch);
  const picked: Region[] =
    typeof profile.regions === 'string'
      ? [...map.regions]
      : profile.regions.flatMap((ref) => {
          const finding = findRegion(ref, map);
          return finding.how === 'lost' ? [] : [...finding.found];
        });
  const clear = (at: readonly [number, number], along: readonly [number, number]) =>
    picked.every((r) => {
      const [least, most] = sideOfLine(r.loops[0]!, at, along);
      return least >= -SLACK * Math.abs(most) || most <= SLACK * Math.abs(least);
    });
  const lines = Object.entries(sketch.curves).flatMap(([id, c]) => {
    if (c.kind !== 'line') return [];
    const place = (p: string) => sketch.points[p] ?? ([0, 0] as const);
    const [from, to] = [place(c.from), place(c.to)];
    const size = Math.hypot(to[0] - from[0], to[1] - from[1]);
    if (size === 0 || !clear(from, [(to[0] - from[0]) / size, (to[1] - from[1]) / size])) return [];
    return [{ id, size, drawn: !c.construction }];
  });
  const [best] = lines.filter((l) => !l.drawn).sort((a, b) => b.size - a.size);
  if (best) return { sketch: profile.sketch, line: best.id };
  return { sketch: profile.sketch, line: clear([0, 0], [0, 1]) || !clear([0, 0], [1, 0]) ? 'y_axis' : 'x_axis' };
}
