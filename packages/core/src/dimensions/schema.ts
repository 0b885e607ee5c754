/** Dimensions as the file holds them. */
import { z } from 'zod';
import { Id } from '../document/ids.ts';
import { MAX_EXPRESSION_LENGTH } from './lexer.ts';

export const Expr = z
  .string()
  .min(1)
  .max(MAX_EXPRESSION_LENGTH)
  .describe('An expression such as "6 mm", "$plate_thk / 2" or "2 1/8 in". `$id` refers to a dimension by id.');

export const DimensionName = z
  .string()
  .regex(/^[\p{L}_][\p{L}\p{N}_]{0,39}$/u, 'a dimension’s name starts with a letter and has only letters, digits and _')
  .describe('Shown and typed in expressions; can change freely.');

export const Dial = z
  .strictObject({
    min: Expr.optional(),
    max: Expr.optional(),
  })
  .describe('Marks a driving dimension, with its usual range.');

export const Dimension = z
  .strictObject({
    name: DimensionName,
    value: Expr,
    note: z.string().max(500).optional(),
    dial: Dial.optional(),
  })
  .describe('A named number of the design or of one part.');
export type Dimension = z.infer<typeof Dimension>;

export const Dimensions = z.record(Id, Dimension);
