/** Parts and assemblies of other designs that stand in this one: copied as they were at a revision, and locked here. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { Name } from '../ids/name.ts';

export const MAX_GUESTS = 50;

export const Guest = z
  .strictObject({
    design: z.string().min(1).max(64).describe('The other design, as its server calls it.'),
    name: Name.describe('Of the other design, when they were taken.'),
    revision: z.int().min(0).describe('Of the other design, as which they stand here.'),
    follows: z
      .enum(['newest', 'fixed'])
      .describe('Newest: what has changed there since is offered. Fixed: it stays as it is.'),
    parts: z
      .array(Id)
      .max(500)
      .describe('Parts that were asked for, by their ids there; others came as these need them.'),
    assemblies: z.array(Id).max(200).describe('Assemblies that were asked for, likewise.'),
    renamed: z
      .record(Id, Id)
      .optional()
      .describe('Ids that were taken here already, and what stands here in place of them.'),
  })
  .describe('Another design of which parts or assemblies stand here.');
export type Guest = z.infer<typeof Guest>;
