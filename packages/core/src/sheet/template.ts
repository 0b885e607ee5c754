/** Templates of sheets as open JSON: paper, projection, views and what stands in the title block, of whatever is drawn. */
import { z } from 'zod';
import { firstIssue } from '../document/change.ts';
import { isMain } from './view-kinds.ts';
import { LOOKS, PAPER_KEYS, Sheet, type SheetView } from '../document/sheet.ts';

const FORMAT = 'helb-sheet-template';
/** Letters; a longer file is no template. */
const MOST = 200_000;

const Template = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(1),
  paper: z.enum(PAPER_KEYS),
  upright: z.boolean().optional(),
  angle: Sheet.shape.angle,
  scale: Sheet.shape.scale,
  views: z
    .array(z.strictObject({ look: z.enum(LOOKS), hidden: z.boolean().optional(), tangent: z.boolean().optional() }))
    .max(LOOKS.length)
    .refine((views) => new Set(views.map((v) => v.look)).size === views.length, 'a look stands in it twice'),
  fields: Sheet.shape.fields,
});
export type SheetTemplate = z.infer<typeof Template>;

/** What of a sheet another may begin with; what is of its part alone (sections, details, sizes) is left out. */
export function templateOf({ paper, upright, angle, scale, views, viewOrder, fields }: Sheet): string {
  const kept = viewOrder.map((id) => views[id]!).filter((v) => !v.cut && isMain(v));
  const { title: _, ...rest } = fields;
  const template: SheetTemplate = {
    format: FORMAT,
    version: 1,
    paper,
    ...(upright ? { upright } : {}),
    angle,
    ...(scale ? { scale } : {}),
    views: kept.map(({ look, hidden, tangent }) => ({ look, ...(hidden === undefined ? {} : { hidden }), ...(tangent ? { tangent } : {}) })), // prettier-ignore
    fields: rest,
  };
  return `${JSON.stringify(template, null, 2)}\n`;
}

/** The template, or a sentence that says what of the file cannot be read. */
export function readTemplate(text: string): SheetTemplate | string {
  if (text.length > MOST) return 'This file is too large for a template of sheets.';
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return 'This file is no template of sheets: it is not JSON.';
  }
  const read = Template.safeParse(json);
  return read.success ? read.data : `This file is no template of sheets: ${firstIssue(read.error)}`;
}

/** A view as a template has it. */
export const viewOfTemplate = ({ look, hidden, tangent }: SheetTemplate['views'][number]): SheetView => ({ look, ...(hidden === undefined ? {} : { hidden }), ...(tangent ? { tangent: true as const } : {}) }); // prettier-ignore
