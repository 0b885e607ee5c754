/** Regions of a sketch or a flat face carried along a path. */
import { StepFailure } from '../../names/body.ts';
import { choice } from '../../slots/choice/choice.ts';
import { direction } from '../../slots/direction/direction.ts';
import { expression } from '../../slots/expression/expression.ts';
import { path } from '../../slots/path/path.ts';
import { regions } from '../../slots/regions/regions.ts';
import type { StepData } from '../../slots/slot.ts';
import type { Upright } from '../../solid/kernel.ts';
import type { Vec3 } from '../../space/vector.ts';
import { liesOnBody, profilePicked } from '../begin.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { refuseTight } from './tight.ts';
import { sweep as swept } from '../result/sweep.ts';

const WAYS = { even: 'evenly', curvature: 'turning as it bends', along: 'held level to' } as const;
const MOST_GROWN = 100;

export const sweep = declareTools({
  kind: 'sweep',
  version: 1,
  label: 'Sweep',
  key: 'w',
  says: 'Regions of a sketch or a flat face carried along a path.',
  slots: {
    profile: { of: regions(), says: 'What is carried; it lies where the path begins.' },
    path: { of: path() },
    held: {
      of: choice<keyof typeof WAYS>(WAYS),
      otherwise: () => 'even' as const,
      says: 'even: with as little turning as can be. curvature: as the path bends. along: level to a direction.',
    },
    direction: {
      of: direction(),
      when: (step: StepData) => step.held === 'along',
      otherwise: () => ({ datum: 'z' as const }),
    },
    grown: {
      of: expression('number'),
      when: (step: StepData) => step.grown !== undefined,
      says: 'Its size at the end of the path, 1 being what it is at the beginning.',
    },
    ...resultSlots,
  },
  begin(from) {
    const along = from.picks.flatMap((p) => (p.kind === 'region' ? [] : (path().take(undefined, p) ?? [])));
    const profile = profilePicked({
      ...from,
      picks: from.picks.filter((p) => p.kind === 'region' || p.kind === 'face'),
    });
    if (!profile || along.length !== 1) return null;
    return { profile, path: along[0], held: 'even', result: liesOnBody(profile, from) ? 'join' : 'new_body' };
  },
  sentence: (step) => [
    'Sweep',
    { slot: 'profile' },
    'along',
    { slot: 'path' },
    { slot: 'held' },
    ...(step.held === 'along' ? [{ slot: 'direction' }] : []),
    ...(step.grown === undefined ? [] : ['growing to', { slot: 'grown' }, 'times']),
    ...resultSentence(step),
  ],
  extras: (step) => (step.grown === undefined ? [{ label: 'grow on the way', slot: 'grown', stored: '0.5' }] : []),
  tools({ profile, path: along, held, direction: level, grown = 1 }, context) {
    if (!(grown > 1 / MOST_GROWN && grown < MOST_GROWN))
      throw new StepFailure('A swept profile ends at between 0.01 and 100 times its size; give such a number.');
    for (const area of profile.areas) refuseTight(along, area, profile.frame, grown);
    return swept(context.stepId, profile.areas, false, (area) =>
      context.kernel.sweep(profile.frame, area.loops, along.pieces, uprightOf(held, level), grown),
    );
  },
});

function uprightOf(held: keyof typeof WAYS, level: Vec3 | undefined): Upright {
  return held === 'along' ? { kind: 'along', direction: level! } : { kind: held };
}
