/** Which overlaps and small gaps are meant: those of faces that give way for a fit, as far as it goes. */
import type { AllowedFace } from '../evaluation/as-made.ts';
import { dot, type Vec3 } from '../space/vector.ts';
import type { Standing } from './standing.ts';
import { flatsOf, type Flat } from './standing-faces.ts';
import { awayOf, overlapAlong, roundsOf, type Round } from './lining-up.ts';

/** The faces of one member, where they stand. */
export interface StandingFaces {
  readonly rounds: readonly Round[];
  readonly flats: readonly Flat[];
  readonly allowed: readonly AllowedFace[];
  /** Of a face of its bodies, mm². */
  areaOf(body: number, face: number): number;
}

/** @param member its place among those that stand */
export const facesOf = (
  { bodies, pose, allowed }: Pick<Standing, 'bodies' | 'pose' | 'allowed'>,
  member: number,
): StandingFaces => ({
  rounds: bodies.flatMap((body, nth) => roundsOf(body, pose, member, nth)),
  flats: bodies.flatMap((body, nth) => flatsOf(body, pose, member, nth)),
  allowed: allowed ?? [],
  areaOf: (body, face) => bodies[body]!.facts.faces[face]!.area,
});

/** Solved sketches are rounded: so far, mm, a fit may be off. */
const ROUNDED = 1e-4;
const PARALLEL = 1e-4;
/** No fit leaves more, mm. */
const FIT_REACH = 2;
/** What a press has in common is a thin skin over the face; how much more its ends and curving may add. */
const SKIN = 1.1;

interface Meeting {
  /** Of the outer part less the inner one, off one face, mm; negative where they press. */
  readonly gap: number;
  readonly allowed: number;
  readonly area: number;
}

/** How the faces of one that give way meet those of the other. */
function meetings(own: StandingFaces, other: StandingFaces): Meeting[] {
  return own.allowed.flatMap(({ body, face, across }): Meeting[] => {
    const is = (f: { readonly body: number; readonly face: number }) => f.body === body && f.face === face;
    const area = own.areaOf(body, face);
    const round = own.rounds.find(is);
    if (round)
      return other.rounds
        .filter((r) => r.hollow !== round.hollow && Math.max(...awayOf(round, r)) < PARALLEL && overlapAlong(round, r))
        .map((r) => ({ gap: (round.radius - r.radius) * (round.hollow ? 1 : -1), allowed: across / 2, area }));
    const flat = own.flats.find(is);
    if (!flat) return [];
    return other.flats
      .filter((f) => dot(f.normal, flat.normal) < -1 + 1e-9 && areBeside(f.spots, flat.spots))
      .map((f) => ({ gap: -f.height - flat.height, allowed: across / 2, area }));
  });
}

/** Do boxes round places come within reach of a fit? */
const areBeside = (a: readonly Vec3[], b: readonly Vec3[]): boolean =>
  ([0, 1, 2] as const).every((k) => {
    const reach = (all: readonly Vec3[]) =>
      [Math.min(...all.map((p) => p[k])), Math.max(...all.map((p) => p[k]))] as const;
    const [[from, to], [least, most]] = [reach(a), reach(b)];
    return from < most + FIT_REACH && least < to + FIT_REACH;
  });

/** Is what two members have in common no more than their press fits mean? @param volume mm³ */
export function isMeantOverlap(one: StandingFaces, other: StandingFaces, volume: number): boolean {
  const presses = [...meetings(one, other), ...meetings(other, one)].filter(
    ({ gap, allowed }) => allowed < 0 && gap < 0 && gap >= allowed - ROUNDED,
  );
  return volume <= presses.reduce((sum, { gap, area }) => sum - gap * area, 0) * SKIN;
}

/** Is the smallest gap between two members one that a fit means? @param least mm */
export function isMeantGap(one: StandingFaces, other: StandingFaces, least: number): boolean {
  return [...meetings(one, other), ...meetings(other, one)].some(
    ({ gap, allowed }) => allowed > 0 && gap >= allowed - ROUNDED && Math.abs(gap - least) < ROUNDED,
  );
}
