/** An assembly put together from parts that are evaluated for it. */
import { assembled, type Assembled } from '../assembly/assembled.ts';
import { lookOfOutcome } from '../assembly/look.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { PartOutcome } from '../part/outcome.ts';
import { partsIn } from '../document/outside.ts';
import type { EvaluationHooks, PartEvaluator } from './evaluate.ts';

/** As it stands at home, with nominal sizes. @throws Superseded */
export async function standTogether(
  design: Design,
  assembly: string,
  evaluator: PartEvaluator,
  hooks: EvaluationHooks = {},
): Promise<{ readonly it: Assembled; readonly outcomes: ReadonlyMap<string, PartOutcome> }> {
  const ledger = Ledger.of(design);
  const outcomes = new Map<string, PartOutcome>();
  for (const part of partsIn(design, assembly))
    if (design.parts[part]) outcomes.set(part, await evaluator.evaluate(design, ledger, part, hooks));
  const it = assembled(design, ledger, assembly, (part) => {
    const outcome = outcomes.get(part);
    return outcome ? lookOfOutcome(outcome) : null;
  });
  return { it, outcomes };
}
