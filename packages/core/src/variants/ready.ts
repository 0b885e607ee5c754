/** A variant as it is exported. */
import type { Design } from '../document/schema.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import { withReadings } from '../readings/read.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { asVariant } from './apply.ts';

/** The variant as a design with all its readings true. @throws Error with a sentence when it cannot be had */
export async function readyVariant(
  design: Design,
  variant: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<Design> {
  const outcome = asVariant(design, variant);
  if ('message' in outcome) throw new Error(outcome.message);
  return withReadings(outcome.design, evaluator, kernel);
}
