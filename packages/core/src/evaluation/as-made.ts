/** A part as it will be made: where an allowance says so, its faces have given way; other parts stay nominal. */
import type { Design, Part } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { findFace } from '../names/find-face.ts';
import type { Body } from '../names/body.ts';
import type { PartOutcome } from '../part/outcome.ts';
import type { FaceRef } from '../references/references.ts';
import type { Step } from '../steps/schema.ts';
import { gapAcross, sizeOf, type AllowedFit, type Applied } from '../steps/allowance/allowance.ts';
import type { Process } from '../standards/fits.ts';
import type { EvaluationHooks, PartEvaluator } from './evaluate.ts';

type AllowanceStep = Step & {
  readonly kind: 'allowance';
  readonly faces: readonly FaceRef[];
  readonly fit?: AllowedFit;
  readonly process?: Process;
  readonly applied?: Applied;
};
const isAllowance = (step: Step): step is AllowanceStep => step.kind === 'allowance';
/** Taken when it is made. */
const isTaken = (step: Step): step is AllowanceStep =>
  isAllowance(step) && !step.suppressed && step.applied !== 'neither';

const made = new WeakMap<Part, Part>();

function partAsMade(part: Part): Part {
  const known = made.get(part);
  if (known) return known;
  const steps = Object.entries(part.steps).map(([id, step]): [string, Step] => [id, isTaken(step) ? { ...step, applied: 'model' } : step]); // prettier-ignore
  const own = Object.values(part.steps).some(isTaken) ? { ...part, steps: Object.fromEntries(steps) } : part;
  made.set(part, own);
  return own;
}

/** The design with this part’s allowances taken. Others are as they were: what borrows from them borrows nominal sizes. */
export function asMade(design: Design, part: string): Design {
  const own = design.parts[part];
  const to = own && partAsMade(own);
  return !to || to === own ? design : { ...design, parts: { ...design.parts, [part]: to } };
}

/** A face that gives way, where it is now, and by how much across, mm. */
export interface AllowedFace {
  readonly body: number;
  readonly face: number;
  readonly across: number;
}

export interface MadePart {
  readonly outcome: PartOutcome;
  readonly allowed: readonly AllowedFace[];
}

/** A part evaluated as it will be made, with the faces that have given way. @throws as evaluate */
export async function evaluateAsMade(
  design: Design,
  part: string,
  evaluator: PartEvaluator,
  hooks: EvaluationHooks = {},
): Promise<MadePart> {
  const own = asMade(design, part);
  const ledger = Ledger.of(own);
  const outcome = await evaluator.evaluate(own, ledger, part, hooks);
  const allowed = outcome.steps.flatMap((s, i) => {
    const step = own.parts[part]!.steps[s.id]!;
    if (!isTaken(step) || s.status !== 'ok') return [];
    return allowedBy(step, s.id, outcome.steps[i - 1]?.bodies ?? [], outcome.bodies, (ref) => {
      const value = ledger.valueOf(ref);
      return value.ok ? value.quantity.value : undefined;
    });
  });
  return { outcome, allowed };
}

function allowedBy(
  { faces, fit = 'sliding', process = 'milled' }: AllowanceStep,
  id: string,
  before: readonly Body[],
  after: readonly Body[],
  number: (ref: string) => number | undefined,
): AllowedFace[] {
  const found = faces.flatMap((ref) => {
    const was = findFace(ref, before);
    return was.how !== 'lost' ? [{ ref, facts: was.found.body.facts.faces[was.found.face]! }] : [];
  });
  const all = found.map((f) => f.facts);
  return found.flatMap(({ ref, facts }): AllowedFace[] => {
    const is = findFace(ref, after);
    if (is.how === 'lost') return [];
    const cut = fit !== 'own' && process === 'laser' ? (number(`${id}.cut`) ?? 0) : 0;
    const across = gapAcross({ fit, across: number(`${id}.across`), process, cut }, sizeOf(facts, all));
    return [{ body: after.indexOf(is.found.body), face: is.found.face, across }];
  });
}
