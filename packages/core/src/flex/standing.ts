/** Does a design stand: its steps, its readings, its requirements, and what is put together of its parts? */
import type { Design } from '../document/schema.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import { unmetOfAll } from '../evaluation/unmet.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { Cure } from '../names/body.ts';
import { settledReadings } from '../readings/read.ts';
import { judgeRequirements } from '../requirements/judge.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { massOf } from '../standards/materials.ts';

/** Something that does not stand. */
export interface Fault {
  /**
   * `refused`: the numbers cannot be had. `fails`: a step. `unmet`: a joint, or an assembly as a whole. `doubt`: a
   * reference not found for sure. `slow`: given up.
   */
  readonly how: 'refused' | 'fails' | 'unmet' | 'doubt' | 'requirement' | 'slow';
  readonly part?: string;
  readonly step?: string;
  readonly assembly?: string;
  /** What it is said of in the assembly: a joint or a coupling. */
  readonly joint?: { readonly key: string; readonly name: string };
  /** As `Unmet` has it. */
  readonly about?: string;
  readonly requirement?: string;
  readonly message: string;
  readonly cure?: Cure;
}

export interface Attempt {
  readonly faults: readonly Fault[];
  /**
   * All numbers there are, by reference: mm, rad or plain. Besides, `volume`, mm³; `mass`, kg, where parts have a
   * material; and the size of each part's box, mm, by `sizeKey`.
   */
  readonly numbers: Readonly<Record<string, number>>;
}

/** Numbers that cannot be had at all. */
export const refused = (message: string): Attempt => ({ faults: [{ how: 'refused', message }], numbers: {} });

/** What the size of a part's box along an axis stands under. */
export const sizeKey = (part: string, axis: 'x' | 'y' | 'z'): string => `size ${part} ${axis}`;

/** Evaluates the whole design. Only what `hooks` throws stops it. */
export async function standing(
  given: Design,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<Attempt> {
  const { design, faults: unread, adrift } = await settledReadings(given, evaluator, kernel, hooks);
  const [moving] = adrift;
  if (moving !== undefined) return refused(unread.get(moving)!);
  const ledger = Ledger.of(design);
  const faults: Fault[] = [];
  const numbers: Record<string, number> = {};
  for (const [ref, why] of unread)
    faults.push({ how: 'doubt', message: `${ledger.index.byReference(ref)?.path.join('.') ?? ref}: ${why}` });
  for (const part of design.partOrder) {
    const { steps, bodies } = await evaluator.evaluate(design, ledger, part, hooks);
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
    const { material } = design.parts[part]!;
    if (material) numbers.mass = bodies.reduce((sum, b) => sum + massOf(b.facts.volume, material), numbers.mass ?? 0);
  }
  for (const { assembly, joint, name, how, message, about } of await unmetOfAll(design, evaluator, hooks))
    faults.push({
      assembly,
      how,
      message,
      ...(about === undefined ? {} : { about }),
      ...(name === null ? {} : { joint: { key: joint ?? name, name } }),
    });
  for (const { id, holds, says, because } of judgeRequirements(design))
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
