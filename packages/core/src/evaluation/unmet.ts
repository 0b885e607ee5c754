/** What of an assembly does not hold together at home, or not for sure, as sentences. */
import type { Assembled, LookAt } from '../assembly/assembled.ts';
import { lookOfOutcome } from '../assembly/look.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { formatQuantity } from '../units/units.ts';
import type { EvaluationHooks, PartEvaluator } from './evaluate.ts';
import { standTogether } from './stand-together.ts';
import { strayedIn, strayedSentence } from './strayed.ts';

export interface Unmet {
  readonly assembly: string;
  /** The joint it is said of, by its key; null where it is said of the whole. */
  readonly joint: string | null;
  /** Its name, or that of the coupling; null where it is said of the whole. */
  readonly name: string | null;
  /** `doubt`: it holds, but may sit on something else. */
  readonly how: 'unmet' | 'doubt';
  readonly message: string;
  /** Tells what is said of the whole from what else is, whatever the numbers in its sentence. */
  readonly about?: string;
}

/** @param it the assembly as it stands at home */
export function unmetIn(design: Design, ledger: Ledger, it: Assembled, lookAt: LookAt): Unmet[] {
  const { assembly } = it;
  const whole = (message: string, how: Unmet['how'] = 'unmet'): Unmet => ({
    assembly,
    joint: null,
    name: null,
    how,
    message,
  });
  // A miss is small beside the parts.
  const closely = { ...design.units, decimals: Math.max(4, design.units.decimals) };
  const found: Unmet[] = it.faults.map((fault) => whole(fault));
  for (const { key, joint, fault, misses, reversed, doubts } of it.joints) {
    const of = { assembly, joint: key, name: joint.name };
    if (fault !== null) found.push({ ...of, how: 'unmet', message: fault });
    else if (misses !== null)
      found.push({ ...of, how: 'unmet', message: `It misses by ${formatQuantity(misses, 'length', closely)}; change a number, or leave out a joint.` }); // prettier-ignore
    else if (reversed) found.push({ ...of, how: 'unmet', message: 'It would be met the other way round.' });
    else for (const { says } of doubts) found.push({ ...of, how: 'doubt', message: says });
  }
  for (const { coupling, fault } of it.couplings)
    if (fault !== null) found.push({ assembly, joint: null, name: coupling.name, how: 'unmet', message: fault });
  if (!it.closed && it.joints.every((j) => j.fault === null && j.misses === null && !j.reversed))
    found.push(whole('Its joints cannot all be met; change a number, or leave out a joint.'));
  for (const one of strayedIn(design, ledger, it, lookAt))
    found.push({ ...whole(strayedSentence(design, one), 'doubt'), about: `${one.part} ${one.step}` });
  return found;
}

/** Of all assemblies of a design. Only what `hooks` throws stops it. */
export async function unmetOfAll(
  design: Design,
  evaluator: PartEvaluator,
  hooks: EvaluationHooks = {},
): Promise<Unmet[]> {
  const found: Unmet[] = [];
  for (const id of design.assemblyOrder ?? []) {
    await hooks.breathe?.();
    const { it, outcomes } = await standTogether(design, id, evaluator, hooks);
    const lookAt: LookAt = (part) => {
      const outcome = outcomes.get(part);
      return outcome ? lookOfOutcome(outcome) : null;
    };
    found.push(...unmetIn(design, Ledger.of(design), it, lookAt));
  }
  return found;
}
