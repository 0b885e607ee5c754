/**
 * Which thread goes on a rod or into a bore. The basic form of metric and unified threads, ISO 68-1 and ASME B1.1,
 * is cut 5/8 H deep, with H = P √3 / 2. Lengths mm.
 */
import { StepFailure } from '../../names/body.ts';
import { THREADS } from '../../standards/threads.ts';
import { inMm } from '../rework/rework.ts';

/** 2 × 5/8 H, as a share of the pitch: by how much the smallest diameter is less than the largest. */
export const DEPTH = (5 / 4) * (Math.sqrt(3) / 2);

export interface Thread {
  readonly label: string;
  /** The largest diameter. */
  readonly diameter: number;
  readonly pitch: number;
}

/** A rod is turned to at most its thread's diameter, and to less by no more than this share of the pitch. */
const ROD_UNDER = 0.35;
/** A bore is drilled to the smallest diameter or a little more, or less by this share of the pitch. */
const BORE_UNDER = 0.2;
const BORE_OVER = 0.5;
/** A diameter over a rod's thread by this share of it is rounding. */
const SAME = 1e-6;

const fits = ({ diameter, pitch }: Thread, across: number, hollow: boolean): boolean =>
  hollow
    ? across >= diameter - DEPTH * pitch - BORE_UNDER * pitch && across <= diameter - DEPTH * pitch + BORE_OVER * pitch
    : across <= diameter * (1 + SAME) && across >= diameter - ROD_UNDER * pitch;

/** How far a diameter is from the one the thread is cut into: for a bore its tapping drill. */
const misfit = (key: string, across: number, hollow: boolean): number =>
  Math.abs(across - (hollow ? THREADS[key]!.tapping : THREADS[key]!.diameter));

/** The size whose rod or bore comes nearest: coarse before fine. @throws StepFailure when none fits */
export function fittingThread(across: number, hollow: boolean): Thread {
  const fitting = Object.keys(THREADS).filter((key) => fits(THREADS[key]!, across, hollow));
  // Of equally near ones the first in the table is the coarse one.
  const [best] = fitting.sort((a, b) => misfit(a, across, hollow) - misfit(b, across, hollow));
  if (best === undefined)
    throw new StepFailure(`The table has no thread for ${hollow ? 'a bore' : 'a rod'} ${inMm(across)} across; give a pitch of your own, or another diameter.`); // prettier-ignore
  return THREADS[best]!;
}

/** A size by its key. @throws StepFailure when it does not go with the diameter */
export function threadOf(key: string, across: number, hollow: boolean): Thread {
  const thread = THREADS[key]!;
  if (fits(thread, across, hollow)) return thread;
  throw new StepFailure(
    hollow
      ? `${thread.label} is cut into a bore of about ${inMm(thread.tapping)}, and this one is ${inMm(across)} across; choose another size, or change the bore.`
      : `${thread.label} is cut on a rod of ${inMm(thread.diameter)}, and this one is ${inMm(across)} across; choose another size, or change the rod.`,
  );
}

/** A pitch of one's own, on whatever diameter there is. @throws StepFailure when it does not go with it */
export function ownThread(pitch: number, across: number, hollow: boolean): Thread {
  const diameter = hollow ? across + DEPTH * pitch : across;
  if (diameter - DEPTH * pitch < pitch)
    throw new StepFailure(`A pitch of ${inMm(pitch)} is too coarse for a diameter of ${inMm(across)}; give a smaller one.`); // prettier-ignore
  return { label: `Ø${Number(diameter.toFixed(3))} × ${Number(pitch.toFixed(3))}`, diameter, pitch };
}
