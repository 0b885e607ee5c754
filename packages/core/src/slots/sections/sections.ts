/** Sections to go through, in order: regions, flat faces, and a place at either end. */
import { z } from 'zod';
import { StepFailure } from '../../names/body.ts';
import type { Name } from '../../names/name.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import type { Frame, Vec3 } from '../../space/vector.ts';
import { placeOf, pointOfPick, pointRewritten, PointRef, stepsOfPoint } from '../point/point.ts';
import { leaningOf, type Leaning } from '../regions/leaning.ts';
import { FaceAsProfile, keyOfRegion, regions, RegionsOfSketch } from '../regions/regions.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_SECTIONS = 100;
const start = z.number().min(-360).max(360).optional().describe('Which way from its middle it begins: degrees from x towards y.'); // prettier-ignore
const SectionRef = z.union([
  RegionsOfSketch.extend({ start }),
  FaceAsProfile.extend({ start }),
  z.strictObject({ at: PointRef }).describe('A place; first or last only.'),
]);
export type SectionRef = z.infer<typeof SectionRef>;

export type Section =
  | { readonly at: Vec3 }
  | {
      readonly frame: Frame;
      readonly pieces: readonly LoopPiece[];
      readonly parents: readonly (Name | string)[];
      readonly called: ReadonlyMap<string, Name | string> | undefined;
      readonly of: string;
      /** Of a face, by its curves: how the faces beside it lean. */
      readonly leaning: Leaning | null;
      /** Which way from its middle it begins, rad; null as it fits the one before. */
      readonly start: number | null;
    };

const profile = regions();

export function sections(): SlotKind<readonly SectionRef[], readonly Section[]> {
  return slotKind<readonly SectionRef[], readonly Section[]>({
    kind: 'sections',
    schema: z.array(SectionRef).min(2).max(MOST_SECTIONS),
    steps: (stored) => stored.flatMap((s) => ('at' in s ? stepsOfPoint(s.at) : [...profile.steps(s)])),
    rewritten: (stored, change) =>
      stored.map((s) =>
        'at' in s
          ? { at: pointRewritten(s.at, change) }
          : { ...profile.rewritten(s, change), ...(s.start === undefined ? {} : { start: s.start }) },
      ),
    resolve(stored, slot, context) {
      const all = stored.map((s, index): { value: Section; digest: string } => {
        if ('at' in s) {
          const instead = (ref: PointRef) => stored.map((o, i) => (i === index ? { at: ref } : o));
          const { at } = placeOf(s.at, { slot, index, instead }, context);
          return { value: { at }, digest: JSON.stringify(at) };
        }
        const { value, digest } = profile.resolve(s, slot, {
          ...context,
          doubt: (d) =>
            context.doubt({ ...d, index, ...(d.proposed === undefined ? {} : { proposed: stored.map((o, i) => (i === index ? { ...(d.proposed as object), ...(s.start === undefined ? {} : { start: s.start }) } : o)) }) }), // prettier-ignore
        });
        const [area] = value.areas;
        if (!area || value.areas.length > 1)
          throw new StepFailure(`A section is one region; choose one of ${value.of}.`);
        if (area.loops.length > 1)
          throw new StepFailure(`A section has no holes, and that of ${value.of} has; loft each outline, and cut one from the other.`); // prettier-ignore
        const { frame, of } = value;
        const start = s.start === undefined ? null : (s.start * Math.PI) / 180;
        const leaning = value.on ? leaningOf(value.on.body, value.on.edges) : null;
        return {
          value: {
            frame,
            pieces: area.loops[0]!.pieces,
            parents: area.parents,
            called: area.called,
            of,
            leaning,
            start,
          },
          digest: JSON.stringify([digest, leaning && [...leaning], start]),
        };
      });
      return { value: all.map((a) => a.value), digest: all.map((a) => a.digest).join() };
    },
    label: (stored) => ({ label: `${stored.length} sections` }),
    take(stored, pick) {
      const own = pick.kind === 'region' || pick.kind === 'face' ? profile.take(undefined, pick) : null;
      const place = own ? null : pointOfPick(pick);
      const section: SectionRef | null = own ?? (place && { at: place });
      if (!section) return null;
      const before = stored ?? [];
      const rest = before.filter((s) => keyOf(s) !== keyOf(section));
      // Two it needs; a pick more than that can be taken away again.
      return rest.length < before.length && rest.length > 1
        ? rest
        : rest.length < before.length
          ? before
          : [...before, section];
    },
  });
}

function keyOf(section: SectionRef): string {
  if ('sketch' in section && typeof section.regions !== 'string')
    return `${section.sketch} ${section.regions.map(keyOfRegion).join()}`;
  return JSON.stringify({ ...section, start: undefined });
}
