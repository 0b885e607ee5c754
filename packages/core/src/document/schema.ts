/** The design document: the one definition of types, validation and the published JSON Schema. */
import { z } from 'zod';
import { Dimensions } from './dimension.ts';
import { Name } from '../ids/name.ts';
import { Step } from '../steps/schema.ts';
import { LENGTH_UNITS, ANGLE_UNITS, FRACTIONS } from '../units/units.ts';
import { Requirements } from './requirement.ts';
import { KeptSections } from './sections.ts';
import { Variants } from './variants.ts';
import { MATERIAL_KEYS } from '../standards/materials.ts';
import { Id } from '../ids/ids.ts';
import { mapOf, MAX_DIMENSIONS, MAX_PARTS, MAX_STEPS } from '../ids/limits.ts';
import { Assemblies, MAX_ASSEMBLIES } from './assembly.ts';
import { Guest, MAX_GUESTS } from './guest.ts';
import { Shared } from './shared.ts';
import { Brief } from './brief.ts';
import { AllOutlines, MAX_OUTLINES } from './outlines.ts';
import { MAX_SHEETS, Sheets } from './sheet.ts';

export const FORMAT = 'helb-design';
/** Raised when stored designs have to be changed to be read; `upgrade/` has the way from each version to the next. */
export const FORMAT_VERSION = 2;

export const Color = z.string().regex(/^#[0-9A-Fa-f]{6}$/);
export const Opacity = z.number().min(0.1).max(1);

export const Part = z
  .strictObject({
    name: Name,
    color: Color.optional(),
    opacity: Opacity.optional().describe('How much of its colour is seen: 1, or left out, all of it.'),
    material: z.enum(MATERIAL_KEYS).optional(),
    sections: KeptSections.optional(),
    dimensions: Dimensions,
    dimensionOrder: z.array(Id).max(MAX_DIMENSIONS),
    steps: mapOf(Id, Step, MAX_STEPS),
    stepOrder: z.array(Id).max(MAX_STEPS).describe('Step ids in the order they are made.'),
    brief: Brief.optional(),
    guest: Id.optional().describe('It is of another design, and changed there.'),
    cells: z
      .record(Id, z.string().max(200))
      .optional()
      .describe('What stands of it in the design’s own columns of a parts list, by column.'),
  })
  .describe('One part: a recipe of steps.');
export type Part = z.infer<typeof Part>;

export const Units = z
  .strictObject({
    length: z.enum(LENGTH_UNITS),
    angle: z.enum(ANGLE_UNITS),
    decimals: z.number().int().min(0).max(8),
    fractions: z
      .union(FRACTIONS.map((n) => z.literal(n)))
      .optional()
      .describe('With inches: lengths that are whole parts of this are shown as fractions.'),
  })
  .describe('How numbers are shown, and the unit of a bare number in an expression. Geometry is always in mm.');

export const Design = z
  .strictObject({
    format: z.literal(FORMAT),
    version: z.literal(FORMAT_VERSION),
    name: Name,
    units: Units,
    dimensions: Dimensions,
    dimensionOrder: z.array(Id).max(MAX_DIMENSIONS),
    parts: mapOf(Id, Part, MAX_PARTS),
    partOrder: z.array(Id).max(MAX_PARTS),
    assemblies: Assemblies.optional(),
    assemblyOrder: z.array(Id).max(MAX_ASSEMBLIES).optional(),
    guests: mapOf(Id, Guest, MAX_GUESTS).optional(),
    sheets: Sheets.optional(),
    sheetOrder: z.array(Id).max(MAX_SHEETS).optional(),
    outlines: AllOutlines.optional(),
    outlinesOrder: z.array(Id).max(MAX_OUTLINES).optional(),
    columns: z
      .array(z.strictObject({ id: Id, name: Name }))
      .max(12)
      .optional()
      .describe('Columns of the parts list besides its own: suppliers, order numbers, finishes.'),
    shared: Shared.optional(),
    variants: Variants.optional(),
    requirements: Requirements.optional(),
    tries: z
      .array(z.string().trim().min(1).max(300))
      .max(5)
      .optional()
      .describe('Things to try, written beside the design for whoever opens it first.'),
  })
  .describe('A design.');
export type Design = z.infer<typeof Design>;

export function emptyDesign(name: string): Design {
  return {
    format: FORMAT,
    version: FORMAT_VERSION,
    name,
    units: { length: 'mm', angle: 'deg', decimals: 3 },
    dimensions: {},
    dimensionOrder: [],
    parts: {},
    partOrder: [],
  };
}

export function emptyPart(name: string): Part {
  return { name, dimensions: {}, dimensionOrder: [], steps: {}, stepOrder: [] };
}
