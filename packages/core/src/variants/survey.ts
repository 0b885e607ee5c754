/** What becomes of a design in one of its variants. */
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { settledReadings, withReadings } from '../readings/read.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { massOf } from '../standards/materials.ts';
import { judgeRequirements, type Judgement } from '../requirements/judge.ts';
import { asVariant } from './apply.ts';

export interface VariantSurvey {
  readonly variant: string;
  /** Why the variant's values cannot be had at all, as a sentence. */
  readonly refusal: string | null;
  readonly failures: readonly { readonly part: string; readonly step: string; readonly message: string }[];
  /** Requirements this variant does not keep. */
  readonly unkept: readonly Judgement[];
  /** kg, of the parts that have a material; null when none has. */
  readonly mass: number | null;
}

/** Evaluates every part of a variant. What fails is told, and stops nothing but what `hooks` throws. */
export async function surveyVariant(
  design: Design,
  variant: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<VariantSurvey> {
  const outcome = asVariant(design, variant);
  if ('message' in outcome) return { variant, refusal: outcome.message, failures: [], unkept: [], mass: null };
  const { design: own, faults, adrift } = await settledReadings(outcome.design, evaluator, kernel, hooks);
  const [moving] = adrift;
  if (moving !== undefined) return { variant, refusal: faults.get(moving)!, failures: [], unkept: [], mass: null };
  const failures: VariantSurvey['failures'][number][] = [];
  let mass: number | null = null;
  for (const part of own.partOrder) {
    const { steps, bodies } = await evaluator.evaluate(own, Ledger.of(own), part, hooks);
    for (const { id, status, message } of steps)
      if (status === 'failed') failures.push({ part, step: id, message: message ?? 'It fails.' });
    const { material } = own.parts[part]!;
    if (material) mass = bodies.reduce((sum, b) => sum + massOf(b.facts.volume, material), mass ?? 0);
  }
  const unkept = judgeRequirements(own).filter((j) => j.holds !== true);
  return { variant, refusal: null, failures, unkept, mass };
}

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
