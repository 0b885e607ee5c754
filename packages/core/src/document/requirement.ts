/** What must hold of a design, as the file keeps it. */
import { z } from 'zod';
import { Expr } from '../dimensions/expression.ts';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';

const MAX_REQUIREMENTS = 500;

export const Requirement = z.strictObject({
  says: Expr.describe('Two to four expressions with comparisons between them: `2 mm <= $d1`, `0 < $d2 <= 1 mm`.'),
  note: z.string().max(500).optional().describe('Why it must hold.'),
});
export type Requirement = z.infer<typeof Requirement>;

export const Requirements = z
  .strictObject({
    rows: mapOf(Id, Requirement, MAX_REQUIREMENTS),
    order: z.array(Id).max(MAX_REQUIREMENTS),
  })
  .describe('Conditions over the ledger that the design, and each of its variants, must meet.');
export type Requirements = z.infer<typeof Requirements>;

/** The stored text of the first requirement that names a dimension for which this holds. */
export function requirementNaming(requirements: Requirements | undefined, is: (ref: string) => boolean): string | null {
  for (const { says } of Object.values(requirements?.rows ?? {}))
    for (const [, ref] of says.matchAll(/\$([A-Za-z][A-Za-z0-9_.]*)/g)) if (is(ref!)) return says;
  return null;
}
