/** What does not fit in an assembly as it stands at home, parts as they will be made. */
import { assembled } from '../assembly/assembled.ts';
import { lookOfOutcome } from '../assembly/look.ts';
import { partsIn } from '../document/outside.ts';
import type { Design } from '../document/schema.ts';
import { evaluateAsMade, type MadePart } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import { checkFit, type FitFinding, type FitHooks } from '../fit/check-fit.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { PartOutcome } from '../part/outcome.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { poseWithin } from '../space/pose.ts';

export interface FitAtHome {
  /** Of the members, by key. */
  readonly names: ReadonlyMap<string, string>;
  readonly findings: readonly FitFinding[];
  /** Why it could not be checked, as a sentence; null where it could. */
  readonly fault: string | null;
}

/** @param clearance gaps below this are told, mm; 0 for none */
export async function fitAtHome(
  design: Design,
  assembly: string,
  clearance: number,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  { breathe }: FitHooks = {},
): Promise<FitAtHome> {
  const ledger = Ledger.of(design);
  const parts = new Map<string, MadePart>();
  // Joints sit on the sizes as drawn, as they do everywhere else.
  const drawn = new Map<string, PartOutcome>();
  for (const part of partsIn(design, assembly))
    if (design.parts[part]) {
      drawn.set(part, await evaluator.evaluate(design, ledger, part, breathe ? { breathe } : {}));
      parts.set(part, await evaluateAsMade(design, part, evaluator, breathe ? { breathe } : {}));
    }
  const none = (fault: string): FitAtHome => ({ names: new Map(), findings: [], fault });
  for (const [part, { outcome }] of parts) {
    const failed = outcome.steps.find((s) => s.status === 'failed');
    if (failed)
      return none(`${design.parts[part]!.steps[failed.id]!.name} of ${design.parts[part]!.name}: ${failed.message ?? 'it fails'}`); // prettier-ignore
  }
  const it = assembled(design, ledger, assembly, (part) => {
    const outcome = drawn.get(part);
    return outcome ? lookOfOutcome(outcome) : null;
  });
  const fault = it.joints.find((j) => j.fault !== null);
  if (fault) return none(`${fault.joint.name}: ${fault.fault}`);
  if (!it.closed) return none('The joints cannot be met.');
  const standing = it.members.map((m) => ({
    member: m,
    bodies: parts.get(m.part)!.outcome.bodies,
    allowed: parts.get(m.part)!.allowed,
    pose: poseWithin(it.home.poses[m.link]!, m.within),
  }));
  const names = new Map(it.members.map((m) => [m.key, m.name]));
  return { names, findings: await checkFit(standing, clearance, kernel, breathe ? { breathe } : {}), fault: null };
}
