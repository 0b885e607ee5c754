/** The fit with each dial at the ends of its range: what fits now may not then. */
import { assembled } from '../assembly/assembled.ts';
import { lookOfOutcome } from '../assembly/look.ts';
import { tryDimensions } from '../commands/dimensions.ts';
import { applyEdit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { evaluateAsMade, type MadePart } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import { checkFit, type FitFinding, type FitHooks } from '../fit/check-fit.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { PartOutcome } from '../part/outcome.ts';
import { partsIn } from '../document/outside.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { poseWithin } from '../space/pose.ts';
import { dialRanges, dialText } from './dials.ts';

export interface DialFit {
  /** The dial, and its value as an expression. */
  readonly dial: string;
  readonly value: string;
  readonly findings: readonly FitFinding[];
  /** Why it could not be checked so, as a sentence; null where it could. */
  readonly fault: string | null;
}

/** How much there is of what is found: mm³ or mm; none where it is not known. */
function sizeOf(f: FitFinding): number {
  if (f.kind === 'overlap' || f.kind === 'not_mirrored') return f.volume;
  if (f.kind === 'close') return f.gap;
  return f.kind === 'unknown' ? 0 : f.by;
}

/** Of what there is of it: what differs by less was found already. */
const SAME = 1e-3;
const isSame = (a: FitFinding, b: FitFinding): boolean =>
  a.kind === b.kind && a.members.join() === b.members.join() && Math.abs(sizeOf(a) - sizeOf(b)) <= SAME * sizeOf(b);

/**
 * What is found at the design’s own numbers already is not told again.
 * @returns one for each end of each dial’s range, in the order of the ledger; those with nothing to tell as well
 */
export async function fitOverDials(
  design: Design,
  assembly: string,
  clearance: number,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: FitHooks = {},
): Promise<DialFit[]> {
  const { dials } = dialRanges(design);
  const found: DialFit[] = [];
  const now = (await fitOf(design, assembly, clearance, evaluator, kernel, hooks)).findings;
  for (const [i, dial] of dials.entries())
    for (const [j, end] of [dial.min, dial.max].entries()) {
      hooks.progress?.(2 * i + j, 2 * dials.length);
      await hooks.breathe?.();
      const value = dialText(dial, end);
      const applied = applyEdit(design, tryDimensions([[dial.ref, value]]));
      const own = applied.ok
        ? await fitOf(applied.design, assembly, clearance, evaluator, kernel, hooks)
        : { findings: [], fault: applied.message };
      const findings = own.findings.filter((f) => !now.some((known) => isSame(known, f)));
      found.push({ dial: dial.name, value, fault: own.fault, findings });
    }
  return found;
}

async function fitOf(
  design: Design,
  assembly: string,
  clearance: number,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  { breathe }: FitHooks,
): Promise<Pick<DialFit, 'findings' | 'fault'>> {
  const ledger = Ledger.of(design);
  const parts = new Map<string, MadePart>();
  // Joints sit on the sizes as drawn, as they do everywhere else.
  const drawn = new Map<string, PartOutcome>();
  for (const part of partsIn(design, assembly))
    if (design.parts[part]) {
      drawn.set(part, await evaluator.evaluate(design, ledger, part, breathe ? { breathe } : {}));
      parts.set(part, await evaluateAsMade(design, part, evaluator, breathe ? { breathe } : {}));
    }
  const none = (fault: string) => ({ findings: [], fault });
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
  return { findings: await checkFit(standing, clearance, kernel, breathe ? { breathe } : {}), fault: null };
}
