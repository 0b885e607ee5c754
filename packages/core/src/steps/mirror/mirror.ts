/** Steps or bodies repeated on the other side of a plane, or of two. */
import { flag } from '../../slots/flag/flag.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import type { StepData } from '../../slots/slot.ts';
import { followedBy, mirrorIn } from '../../space/transform.ts';
import type { Member } from '../repeat/members.ts';
import { repeat, whatPicked, whatSentence, whatSlots } from '../repeat/what.ts';
import { declareStep, type Inputs } from '../step.ts';

const isTwice = (step: StepData) => step.twice === true;

const slots = {
  ...whatSlots,
  plane: { of: plane() },
  twice: {
    of: flag('once', 'and at once in'),
    otherwise: () => false,
    says: 'true: in second_plane too, and in both.',
  },
  second_plane: { of: plane(), when: isTwice, otherwise: () => ({ datum: 'wall' as const }) },
};

export const mirror = declareStep({
  kind: 'mirror',
  version: 1,
  label: 'Mirror',
  key: 'i',
  says: 'Steps or bodies repeated on the other side of a plane, or of two planes at once.',
  slots,
  begin(from) {
    const what = whatPicked(from);
    return what && { ...what, plane: { datum: 'side' } };
  },
  sentence: (step) => [
    'Mirror',
    ...whatSentence(step),
    'in',
    { slot: 'plane' },
    { slot: 'twice' },
    ...(isTwice(step) ? [{ slot: 'second_plane' }] : []),
    ...(step.what === 'bodies' ? [{ slot: 'joined' }] : []),
  ],
  places: ({ what, steps, adapting, ...planes }) =>
    what === 'steps' ? { steps: steps!, members: membersOf(planes), adapting: adapting! } : null,
  make: (inputs, context) => repeat(inputs, membersOf(inputs), context),
});

function membersOf({ plane, second_plane }: Pick<Inputs<typeof slots>, 'plane' | 'second_plane'>): Member[] {
  const first = mirrorIn(frameOf(plane));
  const members: Member[] = [{ key: '2', to: first }];
  if (second_plane) {
    const second = mirrorIn(frameOf(second_plane));
    members.push({ key: '3', to: second }, { key: '4', to: followedBy(first, second) });
  }
  return members;
}
