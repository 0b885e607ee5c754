/** What can be measured on a part and used as a dimension. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { EdgeRef, FaceRef } from '../references/references.ts';

const onPart = {
  part: Id,
  after: Id.optional().describe('The step after which it is measured; the finished part when left out.'),
};

const Thing = z.union([FaceRef, EdgeRef]);

export const Measure = z
  .discriminatedUnion('what', [
    z.strictObject({ what: z.enum(['volume', 'mass', 'surface']), ...onPart }),
    z.strictObject({ what: z.literal('size'), ...onPart, along: z.enum(['x', 'y', 'z']) }),
    z.strictObject({ what: z.enum(['area', 'radius']), ...onPart, face: FaceRef }),
    z.strictObject({ what: z.literal('length'), ...onPart, edge: EdgeRef }),
    z.strictObject({ what: z.literal('distance'), ...onPart, between: z.tuple([Thing, Thing]) }),
    z.strictObject({ what: z.literal('angle'), ...onPart, between: z.tuple([FaceRef, FaceRef]) }),
  ])
  .describe('A quantity read from a part: mass in kg as a plain number, lengths shortest between two things.');
export type Measure = z.infer<typeof Measure>;
