/** Expressions and names as the file holds them. */
import { z } from 'zod';
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
