/** Edits of the table of variants. */
import { EditRefused, type Edit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { plain } from '../document/plain.ts';
import { cellFrom, columnTitle } from './apply.ts';
import type { ColumnKey, Variant, Variants } from '../document/variants.ts';

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

export function addVariant(id: string, name: string): Edit {
  return {
    command: 'add-variant',
    label: `Add variant ${name}`,
    run(draft) {
      const table = tableOf(draft);
      table.rows[id] = { name: freeName(draft, name), cells: {} };
      table.order.push(id);
    },
  };
}

export function renameVariant(id: string, name: string): Edit {
  return {
    command: 'rename-variant',
    label: `Rename a variant to ${name}`,
    run(draft) {
      rowOf(draft, id).name = freeName(draft, name, id);
    },
  };
}

export function deleteVariant(id: string): Edit {
  return {
    command: 'delete-variant',
    label: 'Delete a variant',
    run(draft) {
      rowOf(draft, id);
      const table = tableOf(draft);
      delete table.rows[id];
      table.order.splice(table.order.indexOf(id), 1);
    },
  };
}

export function addVariantColumn(key: ColumnKey): Edit {
  return {
    command: 'add-variant-column',
    label: 'Add a column to the variants',
    run(draft) {
      const { columns } = tableOf(draft);
      if (columns.includes(key)) throw new EditRefused(`${columnTitle(plain(draft), key)} has a column already.`);
      columns.push(key);
    },
  };
}

export function deleteVariantColumn(key: ColumnKey): Edit {
  return {
    command: 'delete-variant-column',
    label: 'Delete a column of the variants',
    run(draft) {
      const table = tableOf(draft);
      table.columns = table.columns.filter((k) => k !== key);
      for (const row of Object.values(table.rows)) delete row.cells[key];
    },
  };
}

/** Fill a cell as typed; empty text gives it back to the design. */
export function setVariantCell(id: string, key: ColumnKey, typed: string): Edit {
  return {
    command: 'set-variant-cell',
    label: 'Change a variant',
    run(draft) {
      const row = rowOf(draft, id);
      if (typed.trim() === '') delete row.cells[key];
      else row.cells[key] = cellFrom(plain(draft), key, typed);
    },
  };
}

/** Take in the rows of a table; a row of a known name changes that variant. */
export function putVariants(
  columns: readonly ColumnKey[],
  rows: readonly { readonly id: string; readonly name: string; readonly cells: Readonly<Record<string, string>> }[],
): Edit {
  return {
    command: 'put-variants',
    label: `Take in ${rows.length} ${rows.length === 1 ? 'variant' : 'variants'}`,
    run(draft) {
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
  };
}
