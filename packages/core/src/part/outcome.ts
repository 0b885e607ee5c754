/** What came of evaluating a part, step by step. */
import type { Body, Cure } from '../names/body.ts';
import type { Handle } from '../steps/step.ts';
import type { Datum, Doubt, SketchOutcome } from '../slots/resolving.ts';

export interface StepOutcome {
  readonly id: string;
  readonly status: 'ok' | 'failed' | 'suppressed';
  /** Stands for all it was made from; null when it was not made. */
  readonly key: string | null;
  /** Why it failed, or a note about how it was made. */
  readonly message: string | null;
  /** What came of it in numbers, as a sentence. */
  readonly tells: string | null;
  /** What would work in its place, when that was found by trying. */
  readonly cure: Cure | null;
  /** References that were not found for sure. */
  readonly doubts: readonly Doubt[];
  readonly handles: readonly Handle[];
  readonly sketch: SketchOutcome | null;
  readonly datum: Datum | null;
  /** All bodies after this step. */
  readonly bodies: readonly Body[];
}

export interface PartOutcome {
  readonly part: string;
  readonly steps: readonly StepOutcome[];
  readonly bodies: readonly Body[];
}
