/** Threads on rods and in bores, marked: the recipe tells of them and checks what they go on; the geometry stays. */
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { roundFace, type RoundFace } from '../../slots/faces/round-face.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { StepData } from '../../slots/slot.ts';
import { StepFailure } from '../../names/body.ts';
import { THREADS } from '../../standards/threads.ts';
import { facesPicked } from '../begin.ts';
import { inMm, refuseNone } from '../rework/rework.ts';
import { declareStep, type Inputs } from '../step.ts';
import { fittingThread, ownThread, threadOf, type Thread } from './form.ts';

const FITTING = 'fitting';
const OWN = 'own';
const SIZES: Readonly<Record<string, string>> = {
  [FITTING]: 'the thread that fits',
  [OWN]: 'a thread of pitch',
  ...Object.fromEntries(Object.entries(THREADS).map(([key, { label }]) => [key, label])),
};
const isOwn = (step: StepData) => step.size === OWN;
const isShort = (step: StepData) => step.whole === false;

const slots = {
  faces: { of: faces('A face this step threads'), says: 'Cylinders: rods or bores.' },
  size: { of: choice(SIZES), says: 'fitting: the size of the tables that comes nearest. own: pitch is given.' },
  pitch: { of: expression('length'), when: isOwn, otherwise: () => '2 mm' },
  whole: { of: flag('for a length of', 'all along'), otherwise: () => true },
  length: { of: expression('length'), when: isShort, otherwise: () => '10 mm' },
  left: { of: flag('right-handed', 'left-handed'), otherwise: () => false },
};

export const thread = declareStep({
  kind: 'thread',
  version: 1,
  label: 'Thread',
  says: 'Threads on rods and in bores, marked: the recipe tells of them, the geometry stays.',
  slots,
  first: 'pitch',
  begin(from) {
    const picked = facesPicked(from);
    if (!picked || !from.picks.every((p) => p.kind === 'face' && p.round)) return null;
    return { faces: picked, size: FITTING, whole: true, left: false };
  },
  sentence: (step) => [
    'Thread on',
    { slot: 'faces' },
    'with',
    { slot: 'size' },
    ...(isOwn(step) ? [{ slot: 'pitch' }] : []),
    { slot: 'whole' },
    ...(isShort(step) ? [{ slot: 'length' }] : []),
    { slot: 'left' },
  ],
  make(inputs, { kernel }) {
    const rounds = inputs.faces.map(({ body, face }) => roundFace(body, face, kernel));
    const labels = [...new Set(rounds.map((round) => formOf(inputs, round).label))].join(', ');
    if (!inputs.whole) refuseLength(inputs.length!, rounds);
    return { made: [], used: [], note: `${labels}: marked, not modelled.` };
  },
});

/** @throws StepFailure when the size does not go with the face */
function formOf({ size, pitch }: Inputs<typeof slots>, { radius, hollow }: RoundFace): Thread {
  if (size === OWN) {
    refuseNone(pitch!, 'The pitch');
    return ownThread(pitch!, 2 * radius, hollow);
  }
  return size === FITTING ? fittingThread(2 * radius, hollow) : threadOf(size, 2 * radius, hollow);
}

function refuseLength(length: number, rounds: readonly RoundFace[]): void {
  refuseNone(length, 'The length');
  const shortest = Math.min(...rounds.map(({ low, high }) => high - low));
  if (length > shortest * (1 + 1e-9))
    throw new StepFailure(`The thread is longer than its face, which is ${inMm(shortest)} long; give less, or make the face longer.`); // prettier-ignore
}
