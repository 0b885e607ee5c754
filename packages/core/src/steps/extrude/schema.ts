import { z } from 'zod';
import { Expr } from '../../dimensions/expression.ts';
import { Bodies, namedNumbers, Regions, stepBase, StepId } from '../slots.ts';

export const EXTRUDE_WAYS = ['one_way', 'both_ways', 'symmetric'] as const;
export const BODY_RESULTS = ['new_body', 'join', 'cut'] as const;

export const ExtrudeStep = z
  .strictObject({
    ...stepBase,
    ...namedNumbers,
    kind: z.literal('extrude'),
    sketch: StepId.describe('The sketch step whose regions are extruded.'),
    regions: Regions,
    way: z
      .enum(EXTRUDE_WAYS)
      .describe(
        'one_way: by distance. both_ways: distance forward, back_distance backward. symmetric: distance in all, half each way.',
      ),
    distance: Expr,
    back_distance: Expr.optional().describe('Only with both_ways.'),
    reversed: z.boolean().optional().describe('true: forward is against the plane’s normal.'),
    result: z.enum(BODY_RESULTS),
    bodies: Bodies.optional().describe('What is joined to or cut; all when left out.'),
  })
  .describe('Regions of a sketch pushed straight into a solid.');
export type ExtrudeStep = z.infer<typeof ExtrudeStep>;
