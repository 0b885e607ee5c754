/** What belongs to a project and is shared by its designs: dimensions, and what stands in their title blocks. */
import { z } from 'zod';
import { Dimensions, type Dimension } from './dimension.ts';
import { Id } from '../ids/ids.ts';

export const MAX_SHARED = 1000;

export const TitleBlock = z
  .strictObject({
    firm: z.string().max(60).optional(),
    drawn: z.string().max(60).optional(),
    checked: z.string().max(60).optional(),
    tolerances: z.string().max(120).optional(),
  })
  .describe('What stands in the title block of every sheet of the project that does not say it itself.');
export type TitleBlock = z.infer<typeof TitleBlock>;
export type TitleField = keyof TitleBlock;

export const Shared = z
  .strictObject({
    dimensions: Dimensions,
    dimensionOrder: z.array(Id).max(MAX_SHARED),
    titleBlock: TitleBlock.optional(),
  })
  .refine((s) => s.dimensionOrder.every((id) => id in s.dimensions), 'the order names dimensions that are not there')
  .refine((s) => s.dimensionOrder.length === Object.keys(s.dimensions).length, 'every dimension has one place')
  .describe(
    'The project’s own dimensions and title block, as this design last saw them; what the design says itself wins over it.',
  );
export type Shared = z.infer<typeof Shared>;

export const NOTHING_SHARED: Shared = { dimensions: {}, dimensionOrder: [] };

/** Shared dimensions that stand in a design's ledger: those it does not have itself. */
export function sharedIn(design: {
  readonly dimensions: Readonly<Record<string, Dimension>>;
  readonly shared?: Shared | undefined;
}): string[] {
  return (design.shared?.dimensionOrder ?? []).filter((id) => !(id in design.dimensions));
}
