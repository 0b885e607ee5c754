/** Edits of the table of variants. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { Id } from '../ids/ids.ts';
import type { Design } from '../document/schema.ts';
import { plain } from '../document/plain.ts';
import { cellFrom, columnTitle } from './apply.ts';
import { ColumnKey, Variant, type Variants } from '../document/variants.ts';

const Typed = z.string().max(2000);

function tableOf(draft: Design): Variants {
  return (draft.variants ??= { columns: [], rows: {}, order: [] });
}

function rowOf(draft: Design, id: string): Variant {
  const row = draft.variants?.rows[id];
  if (!row) throw new EditRefused('This variant no longer exists.');
  return row;
}

function freeName(draft: Design, name: string, but?: string): string {
  const wanted = name.trim();
  if (!wanted) throw new EditRefused('A variant needs a name.');
  const taken = Object.entries(tableOf(draft).rows).some(([id, r]) => id !== but && r.name === wanted);
  if (taken) throw new EditRefused(`There is a variant “${wanted}” already; choose another name.`);
  return wanted.slice(0, 80);
}

const addVariantCommand = declareCommand({
  name: 'add-variant',
  args: z.strictObject({ id: Id, name: Typed }),
  label: ({ name }) => `Add variant ${name}`,
  run(draft, { id, name }) {
    const table = tableOf(draft);
    table.rows[id] = { name: freeName(draft, name), cells: {} };
    table.order.push(id);
  },
});

export const addVariant = (id: string, name: string): Edit => addVariantCommand({ id, name });

const renameVariantCommand = declareCommand({
  name: 'rename-variant',
  args: z.strictObject({ id: Id, name: Typed }),
  label: ({ name }) => `Rename a variant to ${name}`,
  run(draft, { id, name }) {
    rowOf(draft, id).name = freeName(draft, name, id);
  },
});

export const renameVariant = (id: string, name: string): Edit => renameVariantCommand({ id, name });

const deleteVariantCommand = declareCommand({
  name: 'delete-variant',
  args: z.strictObject({ id: Id }),
  label: () => 'Delete a variant',
  run(draft, { id }) {
    rowOf(draft, id);
    const table = tableOf(draft);
    delete table.rows[id];
    table.order.splice(table.order.indexOf(id), 1);
  },
});

export const deleteVariant = (id: string): Edit => deleteVariantCommand({ id });

const addVariantColumnCommand = declareCommand({
  name: 'add-variant-column',
  args: z.strictObject({ key: ColumnKey }),
  label: () => 'Add a column to the variants',
  run(draft, { key }) {
    const { columns } = tableOf(draft);
    if (columns.includes(key)) throw new EditRefused(`${columnTitle(plain(draft), key)} has a column already.`);
    columns.push(key);
  },
});

export const addVariantColumn = (key: ColumnKey): Edit => addVariantColumnCommand({ key });

const deleteVariantColumnCommand = declareCommand({
  name: 'delete-variant-column',
  args: z.strictObject({ key: ColumnKey }),
  label: () => 'Delete a column of the variants',
  run(draft, { key }) {
    const table = tableOf(draft);
    table.columns = table.columns.filter((k) => k !== key);
    for (const row of Object.values(table.rows)) delete row.cells[key];
  },
});

export const deleteVariantColumn = (key: ColumnKey): Edit => deleteVariantColumnCommand({ key });

const setVariantCellCommand = declareCommand({
  name: 'set-variant-cell',
  args: z.strictObject({ id: Id, key: ColumnKey, typed: Typed }),
  label: () => 'Change a variant',
  bound: (args, after) => ({ ...args, typed: after.variants?.rows[args.id]?.cells[args.key] ?? '' }),
  run(draft, { id, key, typed }) {
    const row = rowOf(draft, id);
    if (typed.trim() === '') delete row.cells[key];
    else row.cells[key] = cellFrom(plain(draft), key, typed);
  },
});

/** Fill a cell as typed; empty text gives it back to the design. */
export const setVariantCell = (id: string, key: ColumnKey, typed: string): Edit =>
  setVariantCellCommand({ id, key, typed });

const putVariantsCommand = declareCommand({
  name: 'put-variants',
  args: z.strictObject({ columns: z.array(ColumnKey).max(200), rows: z.array(Variant.extend({ id: Id })).max(1000) }),
  label: ({ rows }) => `Take in ${rows.length} ${rows.length === 1 ? 'variant' : 'variants'}`,
  run(draft, { columns, rows }) {
    const table = tableOf(draft);
    for (const key of columns) if (!table.columns.includes(key)) table.columns.push(key);
    for (const { id, name, cells } of rows) {
      const known = table.order.find((k) => table.rows[k]!.name === name);
      if (known) {
        const own = table.rows[known]!.cells;
        for (const key of columns) {
          const cell = cells[key];
          if (cell === undefined) delete own[key];
          else own[key] = cell;
        }
      } else {
        table.rows[id] = { name: freeName(draft, name), cells: { ...cells } };
        table.order.push(id);
      }
    }
  },
});

/** Take in the rows of a table; a row of a known name changes that variant. */
export const putVariants = (
  columns: readonly ColumnKey[],
  rows: readonly { readonly id: string; readonly name: string; readonly cells: Readonly<Record<string, string>> }[],
): Edit =>
  putVariantsCommand({
    columns: [...columns],
    rows: rows.map(({ id, name, cells }) => ({ id, name, cells: { ...cells } })),
  });
