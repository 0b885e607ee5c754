/** Regions of a sketch, a flat face or an open outline carried along a path. */
import { StepFailure } from '../../names/body.ts';
import { choice } from '../../slots/choice/choice.ts';
import { direction } from '../../slots/direction/direction.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { path } from '../../slots/path/path.ts';
import { regions } from '../../slots/regions/regions.ts';
import type { StepData } from '../../slots/slot.ts';
import type { Upright } from '../../solid/kernel.ts';
import type { Vec3 } from '../../space/vector.ts';
import { chainPicked, liesOnBody, profilePicked } from '../begin.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { sweep as swept } from '../result/sweep.ts';
import { thinExtras, thinned, thinSentence, thinSlots } from '../result/thin.ts';
import { areasWithWall, isWall, wallSentence, wallSlots } from '../result/wall.ts';
import { carried } from './carried.ts';
import { refuseTight } from './tight.ts';

const WAYS = { even: 'evenly', curvature: 'turning as it bends', along: 'held level to', guide: 'turned by' } as const;
const isGuided = (step: StepData) => step.held === 'guide';
const MOST_GROWN = 100;
/** Ten turns, rad. */
const MOST_TWIST = 20 * Math.PI;

export const sweep = declareTools({
  kind: 'sweep',
  version: 2,
  label: 'Sweep',
  key: 'w',
  says: 'Regions of a sketch, a flat face or an open outline carried along a path.',
  slots: {
    profile: { of: regions(), says: 'What is carried; it lies where the path begins.' },
    ...wallSlots,
    path: { of: path() },
    held: {
      of: choice<keyof typeof WAYS>(WAYS),
      otherwise: () => 'even' as const,
      says: 'even: with as little turning as can be. curvature: as the path bends. along: level to a direction. guide: the side towards a guide stays towards it.',
    },
    direction: {
      of: direction(),
      when: (step: StepData) => step.held === 'along',
      otherwise: () => ({ datum: 'z' as const }),
    },
    guide: {
      of: path(),
      when: isGuided,
      otherwise: () => ({ edges: [] }),
      says: 'Curves beside the path, beginning and ending level with it.',
    },
    meeting: {
      of: flag('keeping its size', 'growing to meet it'),
      when: isGuided,
      otherwise: () => false,
      says: 'What is carried grows and shrinks as the guide goes away and comes near.',
    },
    grown: {
      of: expression('number'),
      when: (step: StepData) => step.grown !== undefined,
      says: 'Its size at the end of the path, 1 being what it is at the beginning.',
    },
    twist: {
      of: expression('angle'),
      when: (step: StepData) => step.twist !== undefined,
      says: 'By how much it is turned on its way, counter-clockwise about it.',
    },
    ...thinSlots,
    ...resultSlots,
  },
  begin(from) {
    const areas = from.picks.filter((p) => p.kind === 'region' || p.kind === 'face');
    const lines = from.picks.filter((p) => p.kind !== 'region');
    // With no area picked, what is picked first is carried as an open outline.
    const outline = areas.length === 0 ? chainPicked({ ...from, picks: lines.slice(0, 1) }) : null;
    const profile = outline ?? profilePicked({ ...from, picks: areas });
    const along = (outline ? lines.slice(1) : lines).flatMap((p) => path().take(undefined, p) ?? []);
    if (!profile || along.length !== 1) return null;
    return { profile, path: along[0], held: 'even', result: liesOnBody(profile, from) ? 'join' : 'new_body' };
  },
  sentence: (step) => [
    'Sweep',
    { slot: 'profile' },
    ...wallSentence(step),
    'along',
    { slot: 'path' },
    { slot: 'held' },
    ...(step.held === 'along' ? [{ slot: 'direction' }] : []),
    ...(isGuided(step) ? [{ slot: 'guide' }, { slot: 'meeting' }] : []),
    ...(step.grown === undefined ? [] : ['growing to', { slot: 'grown' }, 'times']),
    ...(step.twist === undefined ? [] : ['twisted by', { slot: 'twist' }]),
    ...thinSentence(step),
    ...resultSentence(step),
  ],
  extras: (step) => [
    ...(step.grown === undefined ? [{ label: 'grow on the way', slot: 'grown', stored: '0.5' }] : []),
    ...(step.twist === undefined ? [{ label: 'twist on the way', slot: 'twist', stored: '90 deg' }] : []),
    ...(isWall(step) ? [] : thinExtras(step)),
  ],
  tools(
    {
      profile, path: along, held, direction: level, guide, meeting, grown = 1, twist = 0, wall, wall_side, thin, thin_side,
    }, // prettier-ignore
    context,
  ) {
    if (!(grown > 1 / MOST_GROWN && grown < MOST_GROWN))
      throw new StepFailure('A swept profile ends at between 0.01 and 100 times its size; give such a number.');
    if (Math.abs(twist) > MOST_TWIST)
      throw new StepFailure('A profile is twisted by ten turns at most; give a smaller angle.');
    if (twist !== 0 && held !== 'even')
      throw new StepFailure('A twist is told against going evenly; hold the profile evenly, or take the twist away.');
    if (meeting && grown !== 1)
      throw new StepFailure(
        'A profile that grows to meet its guide does not grow by a number as well; take that away.',
      );
    const areas = areasWithWall(profile, wall, wall_side);
    const { kernel, stepId } = context;
    const { frame } = profile;
    const solids = swept(stepId, areas, false, (area) => {
      if (guide || twist !== 0)
        return kernel.woven(carried(along, frame, area, { grown, twist, guide: guide ?? null, met: meeting ?? false }, kernel)); // prettier-ignore
      refuseTight(along, area, frame, grown);
      return kernel.sweep(frame, area.loops, along.pieces, uprightOf(held, level), grown);
    });
    return thinned(solids, thin, thin_side, context);
  },
});

function uprightOf(held: keyof typeof WAYS, level: Vec3 | undefined): Upright {
  if (held === 'along') return { kind: 'along', direction: level! };
  return { kind: held === 'curvature' ? 'curvature' : 'even' };
}
