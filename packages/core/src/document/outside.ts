/** What a part rests on of other parts. */
import type { Design } from './schema.ts';
import type { Outside } from '../slots/slot.ts';
import { outsideOf } from '../steps/slots-of.ts';

/** Of its steps that are not suppressed; nothing for a part that is not there. */
export function outsideOfPart(design: Design, part: string): Outside[] {
  const own = design.parts[part];
  return own ? own.stepOrder.flatMap((id) => (own.steps[id]!.suppressed ? [] : outsideOf(own.steps[id]!))) : [];
}

/** Other parts whose shapes decide the shape of a part, or of its first steps: what it borrows from, through any depth. */
export function lendersOf(design: Design, part: string, steps = design.parts[part]?.stepOrder ?? []): Set<string> {
  const own = design.parts[part];
  const lenders = new Set(steps.flatMap((id) => (own?.steps[id] && !own.steps[id].suppressed ? outsideOf(own.steps[id]).map((o) => o.part) : []))); // prettier-ignore
  for (const lender of lenders) for (const next of outsideOfPart(design, lender)) lenders.add(next.part);
  return lenders;
}

/** What another part takes of a part. */
export interface Lent {
  /** Who takes it, and in which step. */
  readonly part: string;
  readonly step: string;
  /** One of the sketches; null for the bodies. */
  readonly sketch: string | null;
}

/** In the order of the design’s parts; of steps that are suppressed too, as they may come back. */
export function lentBy(design: Design, part: string): Lent[] {
  return design.partOrder.flatMap((other) => {
    const { steps, stepOrder } = design.parts[other]!;
    return stepOrder.flatMap((step) =>
      outsideOf(steps[step]!).flatMap((o): Lent[] =>
        o.part === part ? [{ part: other, step, sketch: o.sketch }] : [],
      ),
    );
  });
}

/** Parts that stand in an assembly, through any depth. */
export function partsIn(
  design: Design,
  assembly: string,
  into = new Set<string>(),
  seen = new Set<string>(),
): Set<string> {
  if (seen.has(assembly)) return into;
  seen.add(assembly);
  for (const { of } of Object.values(design.assemblies?.[assembly]?.instances ?? {})) {
    if ('part' in of) into.add(of.part);
    else partsIn(design, of.assembly, into, seen);
  }
  return into;
}
