/** Sections to look into a part by, as the file keeps them. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';

const MOST_SECTIONS = 100;
export const MOST_SECTION_PLANES = 3;
const Component = z.number().min(-1).max(1);

export const SectionPlane = z.strictObject({
  normal: z.tuple([Component, Component, Component]).describe('Unit; what lies on this side is cut away.'),
  at: z.number().min(-1e6).max(1e6).describe('How far the plane lies along its normal from the part’s origin, mm.'),
});

export const KeptSection = z.strictObject({
  name: Name,
  planes: z
    .array(SectionPlane)
    .min(1)
    .max(MOST_SECTION_PLANES)
    .describe('With several, what lies on the cut side of all of them is cut away.'),
});
export type KeptSection = z.infer<typeof KeptSection>;

export const KeptSections = z
  .strictObject({ rows: mapOf(Id, KeptSection, MOST_SECTIONS), order: z.array(Id).max(MOST_SECTIONS) })
  .describe('Sections kept by name; they change nothing but what is seen.');
