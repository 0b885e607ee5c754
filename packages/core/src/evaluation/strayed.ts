/** Parts that their own joints have elsewhere than where they were drawn: what they borrow was taken from there. */
import type { Assembled } from '../assembly/assembled.ts';
import type { PartLook } from '../assembly/look.ts';
import type { Design } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { StepFailure } from '../names/body.ts';
import type { Source } from '../references/source.ts';
import { posesApart } from '../space/pose.ts';
import { slotsOf } from '../steps/slots-of.ts';
import { formatQuantity } from '../units/units.ts';
import { between, placedWithout, type At } from './beyond.ts';

export interface Strayed {
  readonly part: string;
  /** The step that borrows. */
  readonly step: string;
  /** The instance of the borrowing part, outermost first. */
  readonly own: readonly string[];
  /** How far it stands from where it was drawn, mm, and rad. */
  readonly by: number;
  readonly turn: number;
}

/** Solved twice, places differ by rounding; mm and rad. */
const SAME = 1e-6;

/** @param it the assembly as it stands, with all joints */
export function strayedIn(
  design: Design,
  ledger: Ledger,
  it: Assembled,
  lookAt: (part: string) => PartLook | null,
): Strayed[] {
  const found: Strayed[] = [];
  if (!it.closed || it.waiting.length > 0) return found;
  for (const part of new Set(it.members.map((m) => m.part)))
    for (const [step, { at, part: other }] of borrowsIn(design, part, it.assembly)) {
      try {
        const drawn = between(design, placedWithout(design, ledger, it.assembly, part, lookAt), at, other, part);
        const { by, turn } = posesApart(drawn, between(design, it, at, other, part));
        if (by > SAME || turn > SAME) found.push({ part, step, own: at.own, by, turn });
      } catch (error) {
        // The step itself says what is missing.
        if (!(error instanceof StepFailure)) throw error;
      }
    }
  return found;
}

/** What is said of it at the assembly. */
export function strayedSentence({ parts, units }: Design, { part, step, by, turn }: Strayed): string {
  const far = by > SAME ? formatQuantity(by, 'length', units) : formatQuantity(turn, 'angle', units);
  const { name, steps } = parts[part]!;
  return `${name} stands ${far} from where ${steps[step]!.name} was taken: its joints have it elsewhere.`;
}

/** Steps of a part that borrow by how things stand in this assembly. */
function borrowsIn(design: Design, part: string, assembly: string): [string, Source & { readonly at: At }][] {
  const own = design.parts[part];
  return (own?.stepOrder ?? []).flatMap((id) => {
    const step = own!.steps[id]!;
    if (step.suppressed) return [];
    return slotsOf(step).flatMap(({ slot, stored }): [string, Source & { readonly at: At }][] => {
      if (slot.of.kind !== 'source') return [];
      const source = stored as Source;
      return source.at && 'assembly' in source.at && source.at.assembly === assembly ? [[id, { ...source, at: source.at }]] : []; // prettier-ignore
    });
  });
}
