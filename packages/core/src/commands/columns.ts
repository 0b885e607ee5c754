/** Edits of the columns that a design adds to its parts list. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { Id } from '../ids/ids.ts';

const MOST_COLUMNS = 12;
/** The list’s own columns, as it and its file call them. */
const ITS_OWN: ReadonlySet<string> = new Set(['item', 'part', 'name', 'count', 'material', 'each', 'all', 'size', 'mass_each_kg', 'mass_kg', 'x_mm', 'y_mm', 'z_mm']); // prettier-ignore

const columnCommand = declareCommand({
  name: 'set-column',
  args: z.strictObject({ id: Id, name: z.string().max(200).nullable() }),
  label: ({ name }) =>
    name === null ? 'Take away a column of the parts list' : `Call a column of the parts list ${name}`,
  run(draft, { id, name }) {
    const columns = draft.columns ?? [];
    if (name === null) {
      if (!columns.some((c) => c.id === id)) throw new EditRefused('This column is not there any more.');
      draft.columns = columns.filter((c) => c.id !== id);
      for (const part of Object.values(draft.parts)) if (part.cells) delete part.cells[id];
      return;
    }
    const called = name.trim().slice(0, 80);
    if (!called) throw new EditRefused('A column needs a name.');
    if (ITS_OWN.has(called.toLowerCase()) || columns.some((c) => c.id !== id && c.name === called)) throw new EditRefused(`There is a column called ${called} already.`); // prettier-ignore
    const known = columns.find((c) => c.id === id);
    if (known) known.name = called;
    else if (columns.length >= MOST_COLUMNS)
      throw new EditRefused(`A parts list has at most ${MOST_COLUMNS} columns of its own.`); // prettier-ignore
    else draft.columns = [...columns, { id, name: called }];
  },
});

/** A column of the parts list, new or renamed; null takes it away with all that stands in it. */
export const setColumn = (id: string, name: string | null): Edit => columnCommand({ id, name });

const cellCommand = declareCommand({
  name: 'set-cell',
  args: z.strictObject({ part: Id, column: Id, text: z.string().max(200) }),
  label: () => 'Write in the parts list',
  run(draft, { part, column, text }) {
    const own = draft.parts[part];
    if (!own) throw new EditRefused('This part no longer exists.');
    if (!draft.columns?.some((c) => c.id === column)) throw new EditRefused('This column is not there any more.');
    if (text.trim()) (own.cells ??= {})[column] = text.trim();
    else delete own.cells?.[column];
  },
});

/** What stands of a part in a column. */
export const setCell = (part: string, column: string, text: string): Edit => cellCommand({ part, column, text });
