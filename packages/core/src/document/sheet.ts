/** Sheets as the file holds them: views of a part or an assembly on paper, and the sizes that stand on them. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';
import { EdgeRef, FaceRef, VertexRef } from '../references/references.ts';

export const MAX_SHEETS = 100;
export const MAX_VIEWS = 30;
export const MAX_SIZES = 500;
/** Of a section. */
export const MAX_CUT_STEPS = 10;

/** Width and height upright, mm: ISO 216, and ASME Y14.1 (inches). */
export const PAPERS = {
  A4: [210, 297],
  A3: [297, 420],
  A2: [420, 594],
  A1: [594, 841],
  A0: [841, 1189],
  'ANSI A': [215.9, 279.4],
  'ANSI B': [279.4, 431.8],
  'ANSI C': [431.8, 558.8],
  'ANSI D': [558.8, 863.6],
  'ANSI E': [863.6, 1117.6],
} as const;
export type PaperKey = keyof typeof PAPERS;
export const PAPER_KEYS = Object.keys(PAPERS) as [PaperKey, ...PaperKey[]];

/** Straight-on looks at a part or an assembly as it stands. */
export const SIDES = ['front', 'rear', 'left', 'right', 'top', 'bottom'] as const;
export type Side = (typeof SIDES)[number];
/** Looks of a sheet: by its front, which may be any side of the part; oblique from the upper right. */
export const LOOKS = [...SIDES, 'oblique'] as const;
export type Look = (typeof LOOKS)[number];

const place = z.tuple([z.number().min(-2000).max(2000), z.number().min(-2000).max(2000)]);

export const SheetSpot = z
  .union([
    z.strictObject({ edge: EdgeRef }).describe('Straight, where it lies; round, its centre.'),
    z.strictObject({ vertex: VertexRef }),
  ])
  .describe('A place of the model that is seen in a view.');
export type SheetSpot = z.infer<typeof SheetSpot>;

const MAX_CUT_LINES = 100;
export const SizeSpot = z
  .union([
    SheetSpot,
    z
      .strictObject({
        cut: FaceRef,
        nth: z.number().int().min(0).max(MAX_CUT_LINES - 1),
        of: z.number().int().min(1).max(MAX_CUT_LINES),
      })
      .describe('Of a section: a line in which it cuts this face, which one of how many, along the view’s x, then its y.'), // prettier-ignore
  ])
  .describe('What a size is taken at.');
export type SizeSpot = z.infer<typeof SizeSpot>;

export const SheetView = z
  .strictObject({
    look: z.enum(LOOKS),
    shift: place.optional().describe('How far it was moved from where it is laid out, mm on the paper; what stands in line with the front keeps so.'), // prettier-ignore
    hidden: z
      .boolean()
      .optional()
      .describe('Hidden lines are dashed; left out, in straight-on views that are not cut only.'),
    tangent: z.literal(true).optional().describe('Edges over which faces run on smoothly are drawn as well.'),
    detail: z
      .strictObject({
        of: Id.describe('The view it enlarges.'),
        at: SheetSpot,
        radius: z.number().min(0.01).max(10_000).describe('Of what it shows round that place, mm of the model.'),
        scale: z.tuple([z.number().int().min(1).max(1000), z.number().int().min(1).max(1000)]).optional().describe('Left out, two steps larger than the sheet’s.'), // prettier-ignore
      })
      .optional(),
    onto: z
      .strictObject({ of: Id.describe('The view it is told from.'), face: FaceRef })
      .optional()
      .describe('It looks straight onto a flat face that stands at a slant there.'),
    broken: z
      .strictObject({ from: SheetSpot, to: SheetSpot, axis: z.enum(['x', 'y']) })
      .optional()
      .describe(
        'Most of what lies between these two along an axis of the view is left out; in views that stand in line, the same.',
      ),
    cut: z
      .strictObject({
        at: SheetSpot.optional().describe('Through this; left out, through the middle.'),
        more: z
          .array(SheetSpot)
          .max(MAX_CUT_STEPS)
          .optional()
          .describe('Through these as well, in steps: each halfway to the next.'),
        half: z.literal(true).optional().describe('Only what lies right of the middle is taken away.'),
      })
      .optional()
      .describe('A section: what lies before a plane square to the look is taken away.'),
  })
  .describe('A view on a sheet.');
export type SheetView = z.infer<typeof SheetView>;

export const SIZE_KINDS = ['across', 'up', 'straight', 'diameter', 'hole', 'radius', 'pitch', 'angle', 'chamfer', 'surface', 'note'] as const; // prettier-ignore
export type SizeKind = (typeof SIZE_KINDS)[number];

export const SheetSize = z
  .strictObject({
    kind: z.enum(SIZE_KINDS).describe('hole: how many are alike, their diameter, depth, and what is bored or sunk. pitch: how wide the circle is on which the first of two rounds lies, about the other. chamfer: how far a slanted edge or a cone goes along both sides. surface: how a face is to be finished, as its text says. across, up and straight: how far two spots are apart along the view’s x, along its y, or the shortest way.'), // prettier-ignore
    view: Id,
    of: z.array(SizeSpot).min(1).max(2),
    ordinate: z
      .literal(true)
      .optional()
      .describe('Of across and up: told by one line at its second spot, as how far that is from the first.'),
    place: place.optional().describe('Of its text from the middle of the view, mm on the paper; left out, it finds one itself.'), // prettier-ignore
    limits: z
      .union([
        z.strictObject({ plus: z.number().min(-100).max(100), minus: z.number().min(-100).max(100) }).describe('By how much it may be larger and smaller, mm or rad.'), // prettier-ignore
        z
          .strictObject({ fit: z.string().regex(/^[A-Za-z]{1,2}\d{1,2}$/) })
          .describe('A tolerance class of ISO 286: H7.'),
      ])
      .optional(),
    text: z.string().max(300).optional().describe('Before and after the number, which stands where <> does: 4× <> THRU; of a note, all of it.'), // prettier-ignore
  })
  .describe('A size, or a note with a leader, on a view.');
export type SheetSize = z.infer<typeof SheetSize>;

export const MAX_ISSUES = 60;

export const SheetIssue = z
  .strictObject({
    letter: z.string().regex(/^[A-Z]{1,2}$/),
    revision: z.number().int().min(0).describe('Of the design: its state then can be looked at and gone back to.'),
    date: z.string().regex(/^\d{4}-\d\d-\d\d$/),
    note: z.string().max(120).optional(),
    sizes: z.record(Id, z.string().max(400)).describe('How each size read.'),
  })
  .describe('A state of the sheet that was given away.');
export type SheetIssue = z.infer<typeof SheetIssue>;

export const Sheet = z
  .strictObject({
    name: Name,
    of: z.union([z.strictObject({ part: Id }), z.strictObject({ assembly: Id })]),
    shown: z
      .union([
        z.strictObject({ pose: Id }).describe('In a position that is kept with the assembly.'),
        z.strictObject({ apart: z.literal(true) }).describe('Taken apart by itself.'),
      ])
      .optional()
      .describe('Of an assembly how it stands; left out, at home.'),
    variant: Id.optional().describe('As which variant it is drawn; left out, as the design is.'),
    paper: z.enum(PAPER_KEYS),
    upright: z.literal(true).optional(),
    angle: z.enum(['first', 'third']).describe('Where views stand round the front, as ISO 5456-2 names them.'),
    front: z.enum(SIDES).describe('Which side of the part or assembly is its front here.'),
    scale: z
      .tuple([z.number().int().min(1).max(1000), z.number().int().min(1).max(1000)])
      .optional()
      .describe('On paper to in truth; left out, the largest standard one that has room.'),
    views: mapOf(Id, SheetView, MAX_VIEWS),
    viewOrder: z.array(Id).max(MAX_VIEWS),
    sizes: mapOf(Id, SheetSize, MAX_SIZES),
    parts: z
      .strictObject({
        view: Id.optional().describe('Round which the balloons stand; left out, the one in which most parts are seen.'),
        places: mapOf(Id, place, 500).describe('Of balloons that were moved, by part, from the middle of the view, mm on the paper.'), // prettier-ignore
      })
      .optional()
      .describe('Of an assembly: its parts are listed above the title block, and balloons bear their numbers.'),
    issues: z.array(SheetIssue).max(MAX_ISSUES).optional(),
    fields: z
      .strictObject({
        title: z.string().max(120).optional(),
        number: z.string().max(60).optional(),
        drawn: z.string().max(60).optional(),
        checked: z.string().max(60).optional(),
        tolerances: z.string().max(120).optional(),
      })
      .describe('What stands in the title block besides what follows from the model.'),
  })
  .describe('A sheet of drawing.');
export type Sheet = z.infer<typeof Sheet>;

export const Sheets = mapOf(Id, Sheet, MAX_SHEETS);

/** Width and height of its paper as it lies, mm. */
export function paperSize({ paper, upright }: Pick<Sheet, 'paper' | 'upright'>): readonly [number, number] {
  const [short, long] = PAPERS[paper];
  return upright ? [short, long] : [long, short];
}
