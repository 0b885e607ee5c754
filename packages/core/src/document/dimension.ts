/** Dimensions as the file holds them. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { mapOf, MAX_DIMENSIONS } from '../ids/limits.ts';
import { Measure } from './measure.ts';
import { DimensionName, Expr } from '../dimensions/expression.ts';

export const Dial = z
  .strictObject({
    min: Expr.optional(),
    max: Expr.optional(),
    step: Expr.optional().describe('It moves by this much.'),
  })
  .describe('Marks a driving dimension, with its allowed range.');
export type Dial = z.infer<typeof Dial>;

export const Dimension = z
  .strictObject({
    name: DimensionName,
    value: Expr,
    note: z.string().max(500).optional(),
    group: z.string().trim().min(1).max(40).optional().describe('Heading it stands under in the ledger.'),
    dial: Dial.optional(),
    measured: Measure.optional().describe('Read from the model; `value` then holds the last reading.'),
  })
  .describe('A named number of the design or of one part.');
export type Dimension = z.infer<typeof Dimension>;

export const Dimensions = mapOf(Id, Dimension, MAX_DIMENSIONS);
