/** Dimensions that belong to a project and are shared by its designs. */
import { z } from 'zod';
import { Dimensions, type Dimension } from './dimension.ts';
import { Id } from '../ids/ids.ts';

export const MAX_SHARED = 1000;

export const Shared = z
  .strictObject({ dimensions: Dimensions, dimensionOrder: z.array(Id).max(MAX_SHARED) })
  .refine((s) => s.dimensionOrder.every((id) => id in s.dimensions), 'the order names dimensions that are not there')
  .refine((s) => s.dimensionOrder.length === Object.keys(s.dimensions).length, 'every dimension has one place')
  .describe(
    'The project’s own dimensions, as this design last saw them; a dimension of the design wins over one here.',
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
