/** By which faces two parts that stand in each other do so the least: there the number is looked for that frees them. */
import type { Vec3 } from '../space/vector.ts';
import { awayOf, overlapAlong, type Round } from './lining-up.ts';
import { facing, type Flat } from './standing-faces.ts';
import type { StandingFaces } from './wanted.ts';

export interface Freeing {
  readonly one: Flat | Round;
  readonly other: Flat | Round;
  /** How far the other has to go, mm; where it is a shank too large for its bore, by how much of its diameter. */
  readonly by: number;
  /** Which way the other has to go; null for shank and bore. */
  readonly towards: Vec3 | null;
}

/** Less, mm, is no more than the rounding of solved sketches. */
const ROUNDED = 1e-4;

/** @returns null where no flat faces look at each other and no shank is in a bore */
export function freeingOf(one: StandingFaces, other: StandingFaces): Freeing | null {
  const flats = facing(one.flats, other.flats)
    .filter((p) => p.by < -ROUNDED)
    .map((p): Freeing => ({ one: p.one, other: p.other, by: -p.by, towards: p.one.normal }));
  const [first] = [...flats, ...tooLarge(one.rounds, other.rounds)].sort((a, b) => a.by - b.by);
  return first ?? null;
}

function tooLarge(ones: readonly Round[], others: readonly Round[]): Freeing[] {
  return ones.flatMap((one) =>
    others.flatMap((other): Freeing[] => {
      if (one.hollow === other.hollow) return [];
      const by = 2 * (one.radius - other.radius) * (one.hollow ? -1 : 1);
      return by > ROUNDED && Math.max(...awayOf(one, other)) < ROUNDED && overlapAlong(one, other) ? [{ one, other, by, towards: null }] : []; // prettier-ignore
    }),
  );
}
