/** What a part rests on of other parts. */
import type { Design } from './schema.ts';
import type { Outside } from '../slots/slot.ts';
import { outsideOf } from '../steps/slots-of.ts';

/** Of its steps that are not suppressed; nothing for a part that is not there. */
export function outsideOfPart(design: Design, part: string): Outside[] {
  const own = design.parts[part];
  return own ? own.stepOrder.flatMap((id) => (own.steps[id]!.suppressed ? [] : outsideOf(own.steps[id]!))) : [];
}

/** What of other parts decides the shape of a part, or of its first steps, through any depth of borrowing. */
export interface Lenders {
  readonly parts: ReadonlySet<string>;
  /** Their steps: of a sketch that is borrowed, those up to it. */
  readonly steps: ReadonlySet<string>;
}

export function lendersOf(design: Design, part: string, first = design.parts[part]?.stepOrder ?? []): Lenders {
  const [parts, steps] = [new Set<string>(), new Set<string>()];
  const take = (of: string, order: readonly string[]): void => {
    for (const id of order) {
      const step = design.parts[of]?.steps[id];
      if (!step || step.suppressed) continue;
      for (const { part: other, sketch } of outsideOf(step)) {
        const lent = design.parts[other]?.stepOrder ?? [];
        const fresh = lent.slice(0, sketch ? lent.indexOf(sketch) + 1 : undefined).filter((s) => !steps.has(s));
        parts.add(other);
        for (const s of fresh) steps.add(s);
        take(other, fresh);
      }
    }
  };
  take(part, first);
  return { parts, steps };
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
