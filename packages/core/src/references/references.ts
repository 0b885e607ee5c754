/** How a design refers to faces, edges, bodies and regions: by durable names, with what was seen when they were picked. */
import { z } from 'zod';

const vector = z.tuple([z.number(), z.number(), z.number()]);

/** Longer than any name a recipe makes: names nest. */
const MOST_NAME = 2000;

const Name = z
  .string()
  .min(1)
  .max(MOST_NAME)
  .describe(
    'Where a thing came from: step:role, and behind another colon what it came from, several in brackets: plate:side:l3, plate:end:(+l1 +l2 +l3).',
  );
const Beside = z.array(Name).max(400);

export const FaceRef = z
  .strictObject({
    name: Name.describe(
      'Where the face came from: step:start, step:end or step:side:curve; a shorter beginning will do if only one face fits. `end` is the cap forward of the sketch, `start` the other.',
    ),
    beside: Beside.optional().describe('Names of the faces next to it when it was picked; tells pieces apart.'),
    piece: z.literal(true).optional().describe('true: it was one of several pieces of that name.'),
    near: vector.optional().describe('Its centre when it was picked, mm.'),
    normal: vector.optional().describe('Outward normal when it was picked; flat faces only.'),
  })
  .describe('A face, by durable name.');
export type FaceRef = z.infer<typeof FaceRef>;

export const EdgeRef = z
  .strictObject({
    faces: z.array(Name).min(1).max(2).describe('Names of the faces it lies between; one for a seam.'),
    ends: Beside.optional().describe('Names of the faces its ends run into; tells pieces apart.'),
    piece: z.literal(true).optional().describe('true: it was one of several edges between these faces.'),
    near: vector.describe('Its middle when it was picked, mm.'),
  })
  .describe('An edge, by the faces it lies between.');
export type EdgeRef = z.infer<typeof EdgeRef>;

export const VertexRef = z
  .strictObject({
    faces: z.array(Name).min(1).max(100).describe('Names of the faces that meet there.'),
    piece: z.literal(true).optional().describe('true: it was one of several corners at which these faces meet.'),
    near: vector.describe('Where it was when it was picked, mm.'),
  })
  .describe('A corner of a body, by the faces that meet there.');
export type VertexRef = z.infer<typeof VertexRef>;

export const BodyRef = z
  .strictObject({
    name: Name.describe('step, where it began only one body; else step:body:(curves round its region).'),
    has: Beside.optional().describe('Names of faces that only this piece of the body has.'),
    near: vector.optional().describe('Its centre when it was picked, mm.'),
  })
  .describe('A body, by what began it.');
export type BodyRef = z.infer<typeof BodyRef>;

export const RegionRef = z
  .strictObject({
    outer: z
      .array(z.string().regex(/^[+-]?[A-Za-z][A-Za-z0-9_]{0,199}$/))
      .min(1)
      .max(400)
      .describe(
        'Ids of the curves around the region, in any order; a sign tells on which side of the curve it lies (+ left, - right).',
      ),
    at: z.tuple([z.number(), z.number()]).optional().describe('A point inside, mm; tells equals apart.'),
    piece: z.literal(true).optional().describe('true: it was one of several regions between these curves.'),
  })
  .describe('A closed region of a sketch, by the curves around it.');
export type RegionRef = z.infer<typeof RegionRef>;

/** How surely a reference was found. `probably` is said to the user, and mended by one pick. */
export type Finding<T> =
  | { readonly how: 'one'; readonly found: T }
  | { readonly how: 'probably'; readonly found: T; readonly why: string }
  | { readonly how: 'lost'; readonly why: string; /** Nearest first. */ readonly candidates: readonly T[] };
