/** What becomes of a design with some of its numbers changed. */
import { tryDimensions } from '../commands/dimensions.ts';
import { applyEdit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { refused, standing, type Attempt } from './standing.ts';

/** Numbers tried, by reference: mm, rad or plain, as expressions. */
export type Tried = readonly (readonly [ref: string, text: string])[];

/** Evaluates the whole design so. Only what `hooks` throws stops it. */
export async function attempt(
  design: Design,
  tried: Tried,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<Attempt> {
  const applied = applyEdit(design, tryDimensions(tried));
  return applied.ok ? standing(applied.design, evaluator, kernel, hooks) : refused(applied.message);
}
