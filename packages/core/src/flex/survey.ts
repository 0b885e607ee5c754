/** What becomes of a design in one of its variants. */
import type { Design } from '../document/schema.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { asVariant } from '../variants/apply.ts';
import { refused, standing, type Attempt } from './standing.ts';

export interface VariantSurvey extends Attempt {
  readonly variant: string;
}

/** Evaluates all of a variant. What does not stand is told, and stops nothing; only what `hooks` throws does. */
export async function surveyVariant(
  design: Design,
  variant: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<VariantSurvey> {
  const outcome = asVariant(design, variant);
  const found =
    'message' in outcome ? refused(outcome.message) : await standing(outcome.design, evaluator, kernel, hooks);
  return { variant, ...found };
}
