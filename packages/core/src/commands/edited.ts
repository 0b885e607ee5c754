/** Edits in a row, for tests. */
import { applyEdit, type Edit } from '../document/change.ts';
import { emptyDesign, type Design } from '../document/schema.ts';

/** The design after these edits. @throws Error when one is refused */
export function edited(design: Design, ...edits: Edit[]): Design {
  return edits.reduce((now, edit) => {
    const outcome = applyEdit(now, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, design);
}

/** A design of these edits alone. */
export const made = (...edits: Edit[]): Design => edited(emptyDesign('Test'), ...edits);

/** Why an edit is refused; “made” when it is not. */
export function refusalOf(design: Design, edit: Edit): string {
  const outcome = applyEdit(design, edit);
  return outcome.ok ? 'made' : outcome.message;
}
