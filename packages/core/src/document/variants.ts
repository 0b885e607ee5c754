/** Variants as the file holds them: the same design in several sizes, one a row. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';

const MAX_VARIANTS = 1000;
const MAX_COLUMNS = 200;

/** What a column sets, and in what: `dimension:d1`, `dimension:s1.c2`, `step:s3`, `material:p1`. */
export const ColumnKey = z
  .string()
  .regex(/^(dimension:[A-Za-z][A-Za-z0-9_.]{0,80}|(step|material):[A-Za-z][A-Za-z0-9_]{0,39})$/)
  .describe('dimension:ref, step:id (a cell is “in” or “out”) or material:part (a cell is a material).');
export type ColumnKey = z.infer<typeof ColumnKey>;

/** What a column sets: a dimension, whether a step is in, or a part's material. */
export type Column =
  | { readonly kind: 'dimension'; readonly ref: string }
  | { readonly kind: 'step'; readonly step: string }
  | { readonly kind: 'material'; readonly part: string };

export function columnOf(key: ColumnKey): Column {
  const [kind, id] = [key.slice(0, key.indexOf(':')), key.slice(key.indexOf(':') + 1)];
  if (kind === 'dimension') return { kind, ref: id };
  return kind === 'step' ? { kind, step: id } : { kind: 'material', part: id };
}

export const Variant = z.strictObject({
  name: z.string().trim().min(1).max(80),
  cells: mapOf(ColumnKey, z.string().min(1).max(500), MAX_COLUMNS).describe('What is missing is as in the design.'),
});
export type Variant = z.infer<typeof Variant>;

export const Variants = z
  .strictObject({
    columns: z.array(ColumnKey).max(MAX_COLUMNS),
    rows: mapOf(Id, Variant, MAX_VARIANTS),
    order: z.array(Id).max(MAX_VARIANTS),
  })
  .describe('Named sets of values that give the same design in other sizes.');
export type Variants = z.infer<typeof Variants>;
