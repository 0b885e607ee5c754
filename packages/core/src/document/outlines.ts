/** Outlines as the file holds them: flat faces of parts that are cut from boards, and how they are laid there. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';
import { FaceRef } from '../references/references.ts';

export const MAX_OUTLINES = 50;
export const MAX_CUT_PIECES = 200;
/** Of one piece, and of all together. */
export const MAX_COPIES = 500;
export const MAX_LAID = 2000;
export const MAX_BOARDS = 100;

export const TURN_KEYS = ['none', 'half', 'quarter', 'eighth'] as const;

export const CutPiece = z
  .strictObject({
    part: Id,
    face: FaceRef.optional().describe('Left out: the largest flat face of the finished part.'),
    count: z.number().int().min(0).max(MAX_COPIES).optional().describe('Left out: as often as the assembly holds the part, or once.'), // prettier-ignore
    sketch: z
      .strictObject({ id: Id, as: z.enum(['engraving', 'mark']) })
      .optional()
      .describe('A sketch on the face that is engraved or marked, on a layer of its own.'),
  })
  .describe('A flat face that is cut out.');
export type CutPiece = z.infer<typeof CutPiece>;

export const LaidPlace = z.strictObject({
  piece: Id,
  board: z
    .number()
    .int()
    .min(0)
    .max(MAX_BOARDS - 1),
  turn: z.number().min(0).max(360).describe('Degrees.'),
  x: z.number().min(-10_000).max(10_000),
  y: z.number().min(-10_000).max(10_000).describe('Where the turned outline’s own corner stands on the board, mm.'),
});
export type LaidPlace = z.infer<typeof LaidPlace>;

const mm = (least: number, most: number) => z.number().min(least).max(most);

export const CutBoard = z
  .strictObject({
    width: mm(10, 10_000),
    height: mm(10, 10_000),
    boards: z.number().int().min(1).max(MAX_BOARDS).optional().describe('How many there are; left out, as many as it takes.'), // prettier-ignore
  })
  .describe('Stock, mm.');
export type CutBoard = z.infer<typeof CutBoard>;

export const Outlines = z
  .strictObject({
    name: Name,
    of: Id.optional().describe('The assembly whose counts are followed.'),
    board: CutBoard,
    gap: mm(0, 200).describe('Between pieces, mm.'),
    margin: mm(0, 500).describe('From the edges of a board, mm.'),
    cut: mm(0, 20).describe('Width of the cut, mm: outlines are drawn larger by half of it, holes smaller.'),
    turns: z.enum(TURN_KEYS).describe('By what a piece may be turned: not at all where the grain matters.'),
    names: z.enum(['none', 'engraving', 'mark']).describe('Names of the parts, written on them.'),
    pieces: mapOf(Id, CutPiece, MAX_CUT_PIECES),
    pieceOrder: z.array(Id).max(MAX_CUT_PIECES),
    laid: z.array(LaidPlace).max(MAX_LAID).optional().describe('How they lie, kept; left out, it is worked out each time.'), // prettier-ignore
  })
  .describe('Outlines to cut from boards.');
export type Outlines = z.infer<typeof Outlines>;

export const AllOutlines = mapOf(Id, Outlines, MAX_OUTLINES);

/** A half sheet of ply, laser cut. */
export const newOutlines = (name: string, of?: string): Outlines => ({
  name,
  ...(of === undefined ? {} : { of }),
  board: { width: 1200, height: 600 },
  gap: 3,
  margin: 5,
  cut: 0,
  turns: 'quarter',
  names: 'none',
  pieces: {},
  pieceOrder: [],
});
