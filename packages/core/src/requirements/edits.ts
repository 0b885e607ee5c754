/** Edits of what must hold of a design. */
import { z } from 'zod';
import { ExpressionError } from '../dimensions/lexer.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { plain } from '../document/plain.ts';
import type { Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { Ledger } from '../ledger/ledger.ts';
import { comparisonOf, judgeRequirements, kindCompared } from './judge.ts';

const Typed = z.string().trim().min(1).max(500);

/** Names become references, bare numbers get the unit of what they are compared with. @throws EditRefused */
function boundIn(design: Design, typed: string): string {
  const ledger = Ledger.of(design);
  try {
    const { terms, signs } = comparisonOf(typed);
    const kind = kindCompared(ledger, terms);
    const bound = terms.map((term) => {
      const value = ledger.read(term, {}, null);
      return ledger.bind(term, {}, value.ok && value.quantity.bare ? kind : null);
    });
    return bound.map((term, i) => (i < signs.length ? `${term} ${signs[i]}` : term)).join(' ');
  } catch (error) {
    if (error instanceof ExpressionError) throw new EditRefused(error.message);
    throw error;
  }
}

/** A requirement that cannot be read is refused when it is written; one that is not kept is not. */
function refuseUnreadable(design: Design, id: string): void {
  const own = judgeRequirements(design).find((j) => j.id === id)!;
  if (own.holds === null) throw new EditRefused(own.because);
}

const addCommand = declareCommand({
  name: 'add-requirement',
  args: z.strictObject({ id: Id, says: Typed }),
  label: ({ says }) => `Require ${says}`,
  bound: ({ id, says }, after) => ({ id, says: after.requirements?.rows[id]?.says ?? says }),
  run(draft, { id, says }) {
    const own = (draft.requirements ??= { rows: {}, order: [] });
    own.rows[id] = { says: boundIn(plain(draft), says) };
    own.order.push(id);
    refuseUnreadable(plain(draft), id);
  },
});

/** Ask that a comparison hold, as typed: `wall >= 2 mm`. */
export const addRequirement = (id: string, says: string): Edit => addCommand({ id, says });

const changeCommand = declareCommand({
  name: 'change-requirement',
  args: z.strictObject({ id: Id, says: Typed }),
  label: ({ says }) => `Require ${says}`,
  bound: ({ id, says }, after) => ({ id, says: after.requirements?.rows[id]?.says ?? says }),
  run(draft, { id, says }) {
    const row = draft.requirements?.rows[id];
    if (!row) throw new EditRefused('This requirement no longer exists.');
    row.says = boundIn(plain(draft), says);
    refuseUnreadable(plain(draft), id);
  },
});

export const changeRequirement = (id: string, says: string): Edit => changeCommand({ id, says });

const deleteCommand = declareCommand({
  name: 'delete-requirement',
  args: z.strictObject({ id: Id }),
  label: () => 'Delete a requirement',
  run(draft, { id }) {
    const own = draft.requirements;
    if (!own?.rows[id]) throw new EditRefused('This requirement no longer exists.');
    delete own.rows[id];
    own.order.splice(own.order.indexOf(id), 1);
  },
});

export const deleteRequirement = (id: string): Edit => deleteCommand({ id });
