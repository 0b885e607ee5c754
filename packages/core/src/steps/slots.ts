/** The slots from which steps are made, as the file holds them. */
import { z } from 'zod';
import { DimensionName } from '../dimensions/expression.ts';
import { Id } from '../document/ids.ts';
import { RegionRef } from '../sketch/schema.ts';

export const Name = z.string().trim().min(1).max(80);

export const stepBase = {
  name: Name,
  suppressed: z.boolean().optional().describe('true: left out as if it were not there'),
};

/** For steps whose slots hold numbers. */
export const namedNumbers = {
  names: z
    .record(z.string().max(40), DimensionName)
    .optional()
    .describe('Names of its numbers in the ledger, by slot, where they are not the slot’s own.'),
};

const vector = z.tuple([z.number(), z.number(), z.number()]);

export const FaceRef = z
  .strictObject({
    name: z
      .string()
      .min(1)
      .max(500)
      .describe(
        'Where the face came from: step:start, step:end or step:side:curve; a shorter beginning will do if only one face fits.',
      ),
    near: vector.optional().describe('A point on the face when it was picked, mm; tells equals apart.'),
    normal: vector.optional().describe('Outward normal when it was picked.'),
  })
  .describe('A face, by durable name.');
export type FaceRef = z.infer<typeof FaceRef>;

export const Regions = z.union([z.literal('all'), z.array(RegionRef).min(1).max(2000)]);

export const Bodies = z
  .union([z.literal('all'), z.array(z.string().max(60)).min(1).max(200)])
  .describe('"all", or the ids of the steps that made them.');

export const StepId = Id;
