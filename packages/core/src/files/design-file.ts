/** Reading and writing the design file. */
import { produce } from 'immer';
import { Ledger } from '../ledger/ledger.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import { numbersOf, setNumber } from '../steps/slots-of.ts';
import { scopeOf } from '../ledger/names.ts';
import type { QuantityKind } from '../units/units.ts';
import { columnOf } from '../document/variants.ts';
import { checkConsistency } from '../document/consistency.ts';
import { firstIssue } from '../document/change.ts';
import { oddKey } from './odd-keys.ts';
import { MAX_FILE_BYTES } from '../ids/limits.ts';
import { Design, FORMAT, FORMAT_VERSION } from '../document/schema.ts';
import { upgraded } from '../upgrade/upgrade.ts';

export type ReadResult =
  { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly message: string };

const refuse = (message: string): ReadResult => ({ ok: false, message });

/** Read the text of a design file; every fault comes back as a sentence. */
export function readDesign(text: string): ReadResult {
  if (text.length > MAX_FILE_BYTES) {
    return refuse(`This file is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB, the most a design file can be.`);
  }
  // Some editors put a mark of the byte order before everything else.
  const bare = text.replace(/^\uFEFF/, '');
  let data: unknown;
  try {
    data = JSON.parse(bare);
  } catch {
    return refuse('This is not a design file: it is not JSON, or it was cut short.');
  }
  const odd = oddKey(bare);
  if (odd) return refuse(`This design file contradicts itself: ${odd}`);
  return parseDesign(data);
}

/** The same for data that is already parsed. Names in expressions become references. */
export function parseDesign(data: unknown): ReadResult {
  const head = data as { format?: unknown; version?: unknown } | null;
  if (typeof head !== 'object' || head === null || head.format !== FORMAT) {
    return refuse(`This is not a design file: its “format” is not “${FORMAT}”.`);
  }
  if (typeof head.version === 'number' && head.version > FORMAT_VERSION) {
    return refuse(`This file was written by a newer Helb (format version ${head.version}); update to open it.`);
  }
  const parsed = Design.safeParse(upgraded(data));
  if (!parsed.success) return refuse(`This design file does not follow the format: ${firstIssue(parsed.error)}`);
  const faults = checkConsistency(parsed.data);
  if (faults.length > 0) return refuse(`This design file contradicts itself: ${faults[0]}`);
  return { ok: true, design: bindAllNames(parsed.data) };
}

export function writeDesign(design: Design): string {
  return `${JSON.stringify(design, null, 2)}\n`;
}

/** Expressions that use names, as a hand-written file may, are stored by reference from here on. */
function bindAllNames(design: Design): Design {
  const ledger = Ledger.of(design);
  const bind = (text: string, scope: { part?: string; step?: string }, kind: QuantityKind | null = null): string => {
    try {
      return ledger.bind(text, scope, kind);
    } catch (error) {
      if (error instanceof ExpressionError) return text;
      throw error;
    }
  };
  return produce(design, (bound) => {
    for (const d of Object.values(bound.dimensions)) d.value = bind(d.value, {});
    for (const [part, p] of Object.entries(bound.parts)) {
      for (const d of Object.values(p.dimensions)) d.value = bind(d.value, { part });
      for (const [step, s] of Object.entries(p.steps)) {
        for (const { key, expression, kind } of numbersOf(s)) setNumber(s, key, bind(expression, { part, step }, kind));
      }
    }
    for (const { cells } of Object.values(bound.variants?.rows ?? {})) {
      for (const [key, cell] of Object.entries(cells)) {
        const column = columnOf(key);
        const entry = column.kind === 'dimension' ? ledger.index.byReference(column.ref) : undefined;
        if (entry) cells[key] = bind(cell, scopeOf(entry), entry.kind);
      }
    }
  });
}
