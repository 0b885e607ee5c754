/** What a part rests on of other parts. */
import type { Design } from '../document/schema.ts';
import type { Outside } from '../slots/slot.ts';
import { outsideOf } from '../steps/slots-of.ts';

/** Of its steps that are not suppressed; nothing for a part that is not there. */
export function outsideOfPart(design: Design, part: string): Outside[] {
  const own = design.parts[part];
  return own ? own.stepOrder.flatMap((id) => (own.steps[id]!.suppressed ? [] : outsideOf(own.steps[id]!))) : [];
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
