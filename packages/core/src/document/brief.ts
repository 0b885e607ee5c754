/** What a part was given to be: numbers of a drawing with their kind, and pictures of the drawing itself. */
import { z } from 'zod';
import { Expr } from '../dimensions/expression.ts';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';

export const MAX_GIVEN = 500;
export const MAX_DRAWINGS = 8;
/** Letters of base64 of one picture: with a few of them the design stays small. */
export const MAX_PICTURE = 1_500_000;
const MAX_PIXELS = 8192;

/** Sizes of the shape, and what the finished part as a whole comes to. */
export const GIVEN_SIZES = ['diameter', 'radius', 'length', 'angle', 'count'] as const;
export const GIVEN_RESULTS = ['mass', 'box_x', 'box_y', 'box_z', 'centre_x', 'centre_y', 'centre_z'] as const;
export const GIVEN_KINDS = [...GIVEN_SIZES, ...GIVEN_RESULTS] as const;
export type GivenKind = (typeof GIVEN_KINDS)[number];

export const GivenNumber = z
  .strictObject({
    kind: z.enum(GIVEN_KINDS),
    value: Expr.describe('As it was given, with its unit; a mass in kg.'),
    times: z.number().int().min(2).max(1000).optional().describe('How many there are of it: 4× Ø6.'),
    note: z.string().max(120).optional().describe('Where it stands, or what it is of.'),
  })
  .describe('A number that a drawing gives.');
export type GivenNumber = z.infer<typeof GivenNumber>;

export const GivenDrawing = z
  .strictObject({
    name: Name,
    picture: z.string().regex(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+=*$/).max(MAX_PICTURE), // prettier-ignore
    width: z.number().int().min(1).max(MAX_PIXELS),
    height: z.number().int().min(1).max(MAX_PIXELS).describe('Of the picture, pixels.'),
    pixel: z
      .number()
      .positive()
      .max(1000)
      .optional()
      .describe('mm on the paper that a pixel is, where the file tells.'),
  })
  .describe('A picture of a drawing, or a page of one.');
export type GivenDrawing = z.infer<typeof GivenDrawing>;

export const Underlay = z
  .strictObject({
    drawing: Id,
    at: z.tuple([z.number(), z.number()]).describe('Where the picture’s upper left corner lies in the sketch, mm.'),
    pixel: z.number().min(1e-6).max(1e4).describe('mm in the sketch that a pixel is.'),
    turn: z.number().min(-10).max(10).describe('rad, counter-clockwise, about that corner.'),
    seen: z.number().min(0).max(1).describe('How much of it is seen: 0 nothing, 1 all.'),
  })
  .describe('A drawing laid under a sketch.');
export type Underlay = z.infer<typeof Underlay>;

export const Brief = z
  .strictObject({
    numbers: mapOf(Id, GivenNumber, MAX_GIVEN),
    numberOrder: z.array(Id).max(MAX_GIVEN),
    drawings: mapOf(Id, GivenDrawing, MAX_DRAWINGS),
    drawingOrder: z.array(Id).max(MAX_DRAWINGS),
    underlays: mapOf(Id, Underlay, 200).describe('By the sketch they lie under.'),
  })
  .describe('What a part was given to be.');
export type Brief = z.infer<typeof Brief>;

export const emptyBrief = (): Brief => ({ numbers: {}, numberOrder: [], drawings: {}, drawingOrder: [], underlays: {} }); // prettier-ignore
