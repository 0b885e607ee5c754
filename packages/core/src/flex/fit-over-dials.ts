/** The fit with each dial at the ends of its range: what fits now may not then. */
import { tryDimensions } from '../commands/dimensions.ts';
import { applyEdit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import type { FitFinding, FitHooks } from '../fit/check-fit.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { dialRanges, dialText } from './dials.ts';
import { fitAtHome } from './fit-at-home.ts';

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
  const now = (await fitAtHome(design, assembly, clearance, evaluator, kernel, hooks)).findings;
  for (const [i, dial] of dials.entries())
    for (const [j, end] of [dial.min, dial.max].entries()) {
      hooks.progress?.(2 * i + j, 2 * dials.length);
      await hooks.breathe?.();
      const value = dialText(dial, end);
      const applied = applyEdit(design, tryDimensions([[dial.ref, value]]));
      const own = applied.ok
        ? await fitAtHome(applied.design, assembly, clearance, evaluator, kernel, hooks)
        : { findings: [], fault: applied.message };
      const findings = own.findings.filter((f) => !now.some((known) => isSame(known, f)));
      found.push({ dial: dial.name, value, fault: own.fault, findings });
    }
  return found;
}
