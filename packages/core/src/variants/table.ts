/** The variants as a table of text: to and from a spreadsheet, or a CSV file. */
import Papa from 'papaparse';
import { parseExpression } from '../dimensions/parser.ts';
import { EditRefused } from '../document/change.ts';
import { newId, type RandomSource } from '../ids/ids.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { MATERIALS, type MaterialKey } from '../standards/materials.ts';
import { kindOfPowers, unitNamed } from '../units/units.ts';
import { cellFrom, columnTitle } from './apply.ts';
import { columnOf, type ColumnKey } from '../document/variants.ts';
import { FORMULA } from '../standards/csv.ts';

export type Separator = ',' | '\t' | ';';

/** What a stored cell says to people. */
export function shownCell(design: Design, key: ColumnKey, cell: string): string {
  const column = columnOf(key);
  if (column.kind === 'material') return MATERIALS[cell as MaterialKey]?.label ?? cell;
  if (column.kind === 'step') return cell;
  const ledger = Ledger.of(design);
  const entry = ledger.index.byReference(column.ref);
  return entry ? ledger.shownText(cell, entry) : cell;
}

/** The table with its heading; a column of lengths or angles names its unit, and plain cells leave it out. */
export function writeTable(design: Design, separator: Separator): string {
  const { columns, rows, order } = design.variants ?? { columns: [], rows: {}, order: [] };
  const units = columns.map((key) => unitOf(design, key));
  const head = ['variant', ...columns.map((key, i) => columnTitle(design, key) + (units[i] ? ` (${units[i]})` : ''))];
  const body = order.map((id) => {
    const { name, cells } = rows[id]!;
    return [
      name,
      ...columns.map((key, i) => {
        const cell = cells[key];
        if (cell === undefined) return '';
        const shown = shownCell(design, key, cell);
        const unit = units[i];
        const bare = unit && shown.endsWith(` ${unit}`) ? shown.slice(0, -unit.length - 1) : null;
        return bare !== null && /^-?[\d.]+$/.test(bare) ? bare : shown;
      }),
    ];
  });
  // A spreadsheet runs what begins with = + @; text from here never does.
  return Papa.unparse([head, ...body], { delimiter: separator, newline: '\r\n', escapeFormulae: FORMULA });
}

function unitOf(design: Design, key: ColumnKey): string | null {
  const column = columnOf(key);
  if (column.kind !== 'dimension') return null;
  const value = Ledger.of(design).valueOf(column.ref);
  const kind = value.ok ? kindOfPowers(value.quantity.powers) : null;
  return kind === 'length' ? design.units.length : kind === 'angle' ? design.units.angle : null;
}

export interface CellFault {
  /** Line of the table, the heading being 1. */
  readonly line: number;
  /** Column heading as written; empty for the row as a whole. */
  readonly column: string;
  readonly typed: string;
  /** What is wrong and what to do, as a sentence. */
  readonly message: string;
}

export interface ReadTable {
  readonly columns: readonly ColumnKey[];
  readonly rows: readonly {
    readonly id: string;
    readonly line: number;
    readonly name: string;
    readonly cells: Readonly<Record<ColumnKey, string>>;
    /** No cell of it is at fault. */
    readonly sound: boolean;
  }[];
  readonly faults: readonly CellFault[];
}

const MOST_ROWS = 1000;

/** Read a table, comma, semicolon or tab apart. Faults are listed by cell; nothing is left out silently. */
export function readTable(design: Design, text: string, random: RandomSource = Math.random): ReadTable {
  const delimiter = text.split('\n', 1)[0]!.includes('\t') ? '\t' : '';
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimiter, skipEmptyLines: false });
  const [head, ...body] = parsed.data;
  const faults: CellFault[] = [];
  if (!head || head.length < 2)
    return {
      columns: [],
      rows: [],
      faults: [
        {
          line: 1,
          column: '',
          typed: head?.join(' ') ?? '',
          message: 'The first line has no columns; begin with “variant” and the names of dimensions.',
        },
      ],
    };
  const columns = head.slice(1).map((title) => headed(design, title));
  columns.forEach((column, i) => {
    if (column === null)
      faults.push({
        line: 1,
        column: head[i + 1]!,
        typed: head[i + 1]!,
        message: `Nothing in this design is called “${head[i + 1]!.trim()}”; write a dimension, “Part: Step” or “material of Part”.`,
      });
  });
  const rows: ReadTable['rows'][number][] = [];
  const names = new Set<string>();
  for (const [i, line] of body.slice(0, MOST_ROWS).entries()) {
    if (line.every((cell) => cell.trim() === '')) continue;
    const number = i + 2;
    const before = faults.length;
    const name = (line[0] ?? '').trim();
    const wrong = (column: string, typed: string, message: string) =>
      faults.push({ line: number, column, typed, message });
    if (!name) wrong('variant', '', 'This row has no name; give the variant one.');
    else if (names.has(name)) wrong('variant', name, `“${name}” stands in the table twice; rename one of them.`);
    names.add(name);
    if (line.length > head.length && line.slice(head.length).some((c) => c.trim()))
      wrong('', line.slice(head.length).join(' '), 'This row is longer than the heading; look for a stray separator.');
    const cells: Record<ColumnKey, string> = {};
    columns.forEach((column, k) => {
      const typed = (line[k + 1] ?? '').trim();
      if (!column || typed === '') return;
      try {
        cells[column.key] = cellFrom(design, column.key, withUnit(typed, column.unit));
      } catch (error) {
        if (!(error instanceof EditRefused)) throw error;
        wrong(head[k + 1]!.trim(), typed, error.message);
      }
    });
    rows.push({ id: newId('v', random), line: number, name, cells, sound: faults.length === before });
  }
  if (body.length > MOST_ROWS)
    faults.push({
      line: MOST_ROWS + 2,
      column: '',
      typed: '',
      message: `Only ${MOST_ROWS} rows are read; split the table.`,
    });
  return { columns: columns.flatMap((c) => (c ? [c.key] : [])), rows, faults };
}

interface Headed {
  readonly key: ColumnKey;
  /** Unit of bare numbers in it, if the heading names one. */
  readonly unit: string | null;
}

/** The column a heading means; null when it means none. */
function headed(design: Design, title: string): Headed | null {
  const [, name, unit] = /^(.*?)(?:\s*\(([^()]*)\))?\s*$/s.exec(title.trim())!;
  const wanted = name!.trim();
  if (unit && !unitNamed(unit)) return null;
  const found = Ledger.of(design).index.find(wanted, {});
  if (found.kind === 'one') return { key: `dimension:${found.entry.ref}`, unit: unit ?? null };
  for (const [id, part] of Object.entries(design.parts)) {
    if (wanted === `material of ${part.name}`) return { key: `material:${id}`, unit: null };
    for (const [step, { name: own }] of Object.entries(part.steps))
      if (wanted === `${part.name}: ${own}`) return { key: `step:${step}`, unit: null };
  }
  return null;
}

/** A plain number under a heading with a unit is in that unit. */
function withUnit(typed: string, unit: string | null): string {
  if (!unit) return typed;
  try {
    const { kind } = parseExpression(typed);
    return kind === 'number' ? `${typed} ${unit}` : typed;
  } catch {
    return typed;
  }
}
