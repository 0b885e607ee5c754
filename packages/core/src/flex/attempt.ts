/** What becomes of a design with some of its numbers changed. */
import { tryDimensions } from '../commands/dimensions.ts';
import { applyEdit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { Cure } from '../names/body.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import { settledReadings } from '../readings/read.ts';
import { judgeRequirements } from '../requirements/judge.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { massOf } from '../standards/materials.ts';

/** Something that does not stand. */
export interface Fault {
  /** `refused`: the numbers cannot be had. `fails`: a step. `doubt`: a reference not found for sure. `slow`: given up. */
  readonly how: 'refused' | 'fails' | 'doubt' | 'requirement' | 'slow';
  readonly part?: string;
  readonly step?: string;
  readonly requirement?: string;
  readonly message: string;
  readonly cure?: Cure;
}

/** Numbers tried, by reference: mm, rad or plain, as expressions. */
export type Tried = readonly (readonly [ref: string, text: string])[];

export interface Attempt {
  readonly faults: readonly Fault[];
  /**
   * All numbers there are with these, by reference: mm, rad or plain. Besides, `volume`, mm³; `mass`, kg, where parts
   * have a material; and the size of each part's box, mm, by `sizeKey`.
   */
  readonly numbers: Readonly<Record<string, number>>;
}

/** What the size of a part's box along an axis stands under. */
export const sizeKey = (part: string, axis: 'x' | 'y' | 'z'): string => `size ${part} ${axis}`;

/** Evaluates the whole design so. Only what `hooks` throws stops it. */
export async function attempt(
  design: Design,
  tried: Tried,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<Attempt> {
  const applied = applyEdit(design, tryDimensions(tried));
  if (!applied.ok) return { faults: [{ how: 'refused', message: applied.message }], numbers: {} };
  const { design: own, faults: unread, adrift } = await settledReadings(applied.design, evaluator, kernel, hooks);
  const [moving] = adrift;
  if (moving !== undefined) return { faults: [{ how: 'refused', message: unread.get(moving)! }], numbers: {} };
  const ledger = Ledger.of(own);
  const faults: Fault[] = [];
  const numbers: Record<string, number> = {};
  for (const [ref, why] of unread)
    faults.push({ how: 'doubt', message: `${ledger.index.byReference(ref)?.path.join('.') ?? ref}: ${why}` });
  for (const part of own.partOrder) {
    const { steps, bodies } = await evaluator.evaluate(own, ledger, part, hooks);
    for (const { id, status, message, doubts, cure } of steps) {
      const at = { part, step: id };
      if (status === 'failed')
        faults.push({ ...at, how: 'fails', message: message ?? 'It fails.', ...(cure ? { cure } : {}) });
      else for (const { says } of doubts) faults.push({ ...at, how: 'doubt', message: says });
    }
    numbers.volume = bodies.reduce((sum, b) => sum + b.facts.volume, numbers.volume ?? 0);
    for (const [i, axis] of (['x', 'y', 'z'] as const).entries()) {
      const [min, max] = [bodies.map((b) => b.facts.box.min[i]!), bodies.map((b) => b.facts.box.max[i]!)];
      if (bodies.length > 0) numbers[sizeKey(part, axis)] = Math.max(...max) - Math.min(...min);
    }
    const { material } = own.parts[part]!;
    if (material) numbers.mass = bodies.reduce((sum, b) => sum + massOf(b.facts.volume, material), numbers.mass ?? 0);
  }
  for (const { id, holds, says, because } of judgeRequirements(own))
    if (holds !== true)
      faults.push({
        how: 'requirement',
        requirement: id,
        message: holds === null ? `${says} cannot be told: ${because}` : `${says} is not kept: ${because}`,
      });
  for (const entry of ledger.entries) {
    const value = ledger.valueOfEntry(entry);
    if (value.ok) numbers[entry.ref] = value.quantity.value;
  }
  return { faults, numbers };
}
