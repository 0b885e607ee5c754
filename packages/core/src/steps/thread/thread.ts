/** Threads on rods and in bores: marked, so that the recipe tells of them and checks what they go on, or modelled. */
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { roundFace, type RoundFace } from '../../slots/faces/round-face.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { StepData } from '../../slots/slot.ts';
import { StepFailure, type Body } from '../../names/body.ts';
import type { MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { dot, minus } from '../../space/vector.ts';
import { THREADS } from '../../standards/threads.ts';
import { facesPicked } from '../begin.ts';
import { byBody, inMm, inTurn, refuseNone, rework } from '../rework/rework.ts';
import { declareStep, type Inputs } from '../step.ts';
import { fittingThread, ownThread, threadOf, type Thread } from './form.ts';
import { withThread, type ThreadedFace } from './modelled.ts';

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
  modelled: {
    of: flag('marked', 'modelled'),
    otherwise: () => false,
    says: 'true: as geometry, which takes some seconds; else the geometry stays.',
  },
  far: {
    of: flag('from its free end', 'from its other end'),
    when: (step: StepData) => isShort(step) && step.modelled === true,
    otherwise: () => false,
  },
};

export const thread = declareStep({
  kind: 'thread',
  version: 2,
  label: 'Thread',
  says: 'Threads on rods and in bores: marked, the geometry staying as it is, or modelled.',
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
    { slot: 'modelled' },
    ...(isShort(step) && step.modelled === true ? [{ slot: 'far' }] : []),
  ],
  make(inputs, context) {
    const { kernel } = context;
    const rounds = inputs.faces.map(({ body, face }) => roundFace(body, face, kernel));
    const labels = [...new Set(rounds.map((round) => formOf(inputs, round).label))].join(', ');
    if (!inputs.whole) refuseLength(inputs.length!, rounds);
    if (!inputs.modelled) return { made: [], used: [], note: `${labels}: marked, not modelled.` };
    const result = rework(
      byBody(inputs.faces),
      { inner: 'thread' },
      context,
      (body, own) =>
      threaded(body, own.map(({ face }) => runOf(inputs, body, face, roundFace(body, face, kernel))), kernel), // prettier-ignore
    );
    return { ...result, note: `${labels}, modelled.` };
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

/** Where along the face its thread runs. */
function runOf(inputs: Inputs<typeof slots>, body: Body, face: number, round: RoundFace): ThreadedFace {
  const { low, high } = round;
  const run = { face, round, thread: formOf(inputs, round), left: inputs.left };
  if (inputs.whole) return { ...run, from: low, to: high };
  const fromHigh = endsFree(body, face, round, high) !== (inputs.far ?? false);
  return { ...run, from: fromHigh ? high - inputs.length! : low, to: fromHigh ? high : low + inputs.length! };
}

/** Does a face end at this height in an outer edge, as at the end of a rod or the mouth of a bore? */
function endsFree({ facts }: Body, face: number, { axis, low, high }: RoundFace, height: number): boolean {
  return facts.edges.some((edge, i) => {
    const at = dot(minus(edge.middle, axis.origin), axis.direction);
    return edge.faces.includes(face) && Math.abs(at - height) < (high - low) / 100 && facts.bends[i]! > 0;
  });
}

/** @throws StepFailure, KernelError */
const threaded = (body: Body, all: readonly ThreadedFace[], kernel: SolidKernel): MadeSolid =>
  inTurn(
    body,
    all,
    (now, face) => {
      const next = withThread(now, face, kernel);
      // Of the thread it is told which face it took the place of; of all else, what it was before.
      return { ...next, faces: next.faces.map((parents) => parents.flatMap((p) => (p.how === 'inner' ? [p] : now.faces[p.index]!))) }; // prettier-ignore
    },
    kernel,
  );
