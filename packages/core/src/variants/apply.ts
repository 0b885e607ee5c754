/** A variant as a design of its own. */
import { z } from 'zod';
import { applyEdit, EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { Id } from '../ids/ids.ts';
import { boundFor, refuseOutsideRange, setDimensions } from '../commands/dimensions.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { scopeOf } from '../ledger/names.ts';
import { MATERIAL_KEYS, MATERIALS, type MaterialKey } from '../standards/materials.ts';
import { columnOf, type ColumnKey } from '../document/variants.ts';

/** A column's heading as people read it, unique in the design. */
export function columnTitle(design: Design, key: ColumnKey): string {
  const column = columnOf(key);
  if (column.kind === 'dimension') {
    const entry = Ledger.of(design).index.byReference(column.ref);
    return entry ? entry.path.join('.') : 'deleted dimension';
  }
  if (column.kind === 'material') return `material of ${design.parts[column.part]?.name ?? 'deleted part'}`;
  const part = Object.values(design.parts).find((p) => column.step in p.steps);
  return part ? `${part.name}: ${part.steps[column.step]!.name}` : 'deleted step';
}

/** What stands in a cell that is left empty: the design's own. */
export function ownCell(design: Design, key: ColumnKey): string {
  const column = columnOf(key);
  if (column.kind === 'dimension') {
    const ledger = Ledger.of(design);
    const entry = ledger.index.byReference(column.ref);
    return entry ? ledger.shown(entry) : '';
  }
  if (column.kind === 'material') {
    const material = design.parts[column.part]?.material;
    return material ? MATERIALS[material].label : '';
  }
  const part = Object.values(design.parts).find((p) => column.step in p.steps);
  return part?.steps[column.step]?.suppressed ? 'out' : 'in';
}

const IN = new Set(['in', 'yes', 'true', '1', 'on']);
const OUT = new Set(['out', 'no', 'false', '0', 'off']);

/** A typed cell as it is stored. @throws EditRefused with a sentence for the cell */
export function cellFrom(design: Design, key: ColumnKey, typed: string): string {
  const column = columnOf(key);
  const text = typed.trim();
  if (column.kind === 'step') {
    if (IN.has(text.toLowerCase())) return 'in';
    if (OUT.has(text.toLowerCase())) return 'out';
    throw new EditRefused(`“${text}” says neither in nor out; write one of these.`);
  }
  if (column.kind === 'material') {
    const wanted = text.toLowerCase();
    const found = MATERIAL_KEYS.find((k) => k === wanted || MATERIALS[k].label.toLowerCase() === wanted);
    if (found) return found;
    throw new EditRefused(
      `There is no material “${text}”; choose among ${MATERIAL_KEYS.map((k) => MATERIALS[k].label).join(', ')}.`,
    );
  }
  return numberCell(Ledger.of(design), column.ref, text);
}

function numberCell(ledger: Ledger, ref: string, text: string): string {
  const entry = ledger.index.byReference(ref);
  if (!entry) throw new EditRefused('The dimension of this column no longer exists.');
  const { bound, kind } = boundFor(ledger, entry, text);
  const value = ledger.read(bound, scopeOf(entry), kind);
  if (!value.ok) throw new EditRefused(value.message);
  refuseOutsideRange(ledger, entry, value.quantity);
  return bound;
}

const becomeCommand = declareCommand({
  name: 'become-variant',
  args: z.strictObject({ variant: Id }),
  label: () => 'Take a variant’s values',
  run(draft, { variant }) {
    const row = draft.variants?.rows[variant];
    if (!row) throw new EditRefused('This variant no longer exists.');
    const numbers: [string, string][] = [];
    for (const key of draft.variants!.columns) {
      const cell = row.cells[key];
      if (cell === undefined) continue;
      const column = columnOf(key);
      if (column.kind === 'dimension') numbers.push([column.ref, cell]);
      else if (column.kind === 'material') {
        const part = draft.parts[column.part];
        if (part) part.material = cell as MaterialKey;
      } else {
        const step = Object.values(draft.parts).find((p) => column.step in p.steps)?.steps[column.step];
        if (!step) continue;
        if (cell === 'out') step.suppressed = true;
        else delete step.suppressed;
      }
    }
    setDimensions(numbers).run(draft);
  },
});

/** The edit that turns the design into one of its variants. */
export const becomeVariant = (variant: string): Edit => becomeCommand({ variant });

/** The design as the variant has it, or the sentence that says why it cannot be had. */
export function asVariant(design: Design, variant: string): { design: Design } | { message: string } {
  const outcome = applyEdit(design, becomeVariant(variant));
  return outcome.ok ? { design: outcome.design } : { message: outcome.message };
}
