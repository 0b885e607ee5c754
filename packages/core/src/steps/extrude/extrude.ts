/** Regions of a sketch pushed straight into a solid. */
import { StepFailure } from '../../names/body.ts';
import { expressionOf } from '../../units/units.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { regions } from '../../slots/regions/regions.ts';
import type { StepData } from '../../slots/slot.ts';
import { regionsPicked } from '../begin.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { reachOf, sweep } from '../result/sweep.ts';

/** Thinner than this, mm, is nothing. */
const LEAST_THICKNESS = 1e-6;
const FIRST_DISTANCE_MM = 10;

const WAYS = { one_way: 'one way', both_ways: 'both ways', symmetric: 'symmetric' } as const;

export const extrude = declareTools({
  kind: 'extrude',
  version: 1,
  label: 'Extrude',
  key: 'x',
  says: 'Regions of a sketch pushed straight into a solid.',
  slots: {
    profile: { of: regions(), says: 'What is extruded.' },
    way: {
      of: choice<keyof typeof WAYS>(WAYS),
      says: 'one_way: by distance. both_ways: distance forward, back_distance backward. symmetric: distance in all, half each way.',
    },
    distance: { of: expression('length') },
    back_distance: {
      of: expression('length'),
      when: (step: StepData) => step.way === 'both_ways',
      otherwise: (step: StepData) => step.distance as string,
      says: 'Only with both_ways; as much as distance when left out.',
    },
    reversed: {
      of: flag('forward', 'reversed'),
      otherwise: () => false,
      says: 'true: forward is against the plane’s normal.',
    },
    ...resultSlots,
  },
  first: 'distance',
  begin(from) {
    const profile = regionsPicked(from);
    if (!profile) return null;
    return {
      profile,
      way: 'one_way',
      distance: expressionOf(FIRST_DISTANCE_MM, 'length', from.units),
      result: from.bodies > 0 && from.sketch(profile.sketch)?.onFace ? 'join' : 'new_body',
    };
  },
  sentence: (step) => [
    'Extrude',
    { slot: 'profile' },
    'by',
    { slot: 'distance' },
    { slot: 'way' },
    ...(step.way === 'both_ways' ? ['and back', { slot: 'back_distance' }] : []),
    ...(step.way === 'symmetric' ? [] : [{ slot: 'reversed' }]),
    ...resultSentence(step),
  ],
  tools({ profile, way, distance, back_distance, reversed }, context) {
    const { from, to, swapped } = reachOf(way, distance, back_distance, reversed);
    if (to - from < LEAST_THICKNESS) throw new StepFailure('An extrude of zero makes nothing; give it a distance.');
    return sweep(context.stepId, profile.areas, swapped, (area) =>
      context.kernel.extrude(profile.frame, area.loops, from, to),
    );
  },
});
