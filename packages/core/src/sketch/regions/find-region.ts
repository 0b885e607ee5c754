/** Finding a referenced region: the one, probably these and why, or lost. */
import type { Finding, RegionRef } from '../../references/references.ts';
import { isInside } from './loop.ts';
import { isUnmoved, mergeRegions, type Region, type RegionMap } from './regions.ts';

/** Regions that share less than this of their curves with what was picked are others. */
const LEAST_LIKENESS = 0.5;

const bare = (curve: string) => curve.replace(/^[+-]/, '');

/**
 * One region as a rule; several where the one picked has since been divided by a line,
 * and all its parts together are what was picked.
 */
export function findRegion(ref: RegionRef, map: RegionMap): Finding<readonly Region[]> {
  const { regions } = map;
  const full = regions.filter((r) => bounds(ref, r.outer));
  // Of several between the same curves only the one that nothing has changed about is found without a word.
  const unmoved = full.filter((r) => isUnmoved(r, ref));
  if (unmoved.length === 1) return { how: 'one', found: unmoved };
  if (full.length === 1)
    return ref.piece
      ? { how: 'probably', found: full, why: 'it was one of several regions between these curves, and only this one is left' } // prettier-ignore
      : { how: 'one', found: full };
  if (full.length > 1) {
    const there = full.filter((r) => ref.at && isInside(r.loops, ref.at));
    const why = `${full.length} regions lie between the same curves, and this one is where it was picked`;
    return there.length === 1
      ? { how: 'probably', found: there, why }
      : { how: 'lost', why: `${full.length} regions lie between the same curves`, candidates: full.map((r) => [r]) };
  }
  const parts = dividedInto(ref, map);
  if (parts)
    return { how: 'probably', found: parts, why: `a line now divides it, and all its ${parts.length} parts are taken` };
  const scored = regions
    .map((region) => ({ region, likeness: likeness(ref, region), sides: sides(ref, region) }))
    .filter((c) => c.likeness >= LEAST_LIKENESS && c.sides)
    .sort((a, b) => b.likeness - a.likeness);
  const best = scored.filter((c) => c.likeness === scored[0]!.likeness);
  const chosen = best.length === 1 ? best : best.filter((c) => ref.at && isInside(c.region.loops, ref.at));
  return chosen.length === 1
    ? { how: 'probably', found: [chosen[0]!.region], why: 'the curves round it have changed' }
    : { how: 'lost', why: 'it is no longer closed', candidates: scored.map((c) => [c.region]) };
}

/** Do these signed curves say what the reference says? A curve without a sign stands for either side. */
function bounds(ref: RegionRef, outer: readonly string[]): boolean {
  const own = new Set(outer);
  const either = new Set(outer.map(bare));
  const wanted = new Set(ref.outer);
  return (
    ref.outer.every((c) => (c === bare(c) ? either.has(c) : own.has(c))) &&
    outer.every((c) => wanted.has(c) || wanted.has(bare(c)))
  );
}

function likeness(ref: RegionRef, region: Region): number {
  const [own, wanted] = [new Set(region.outer.map(bare)), new Set(ref.outer.map(bare))];
  const shared = [...own].filter((c) => wanted.has(c)).length;
  return shared / (own.size + wanted.size - shared);
}

/** Does it lie on the wanted side of every curve they share? */
function sides(ref: RegionRef, region: Region): boolean {
  const own = new Set(region.outer);
  const either = new Set(region.outer.map(bare));
  return ref.outer.every((c) => c === bare(c) || !either.has(bare(c)) || own.has(c));
}

/** A closed outline drawn inside is a hole, even where it touches; a cell between lines that go on beyond it is a part. */
function isHole(region: Region, wanted: ReadonlySet<string>, map: RegionMap): boolean {
  if (region.outer.some((c) => wanted.has(bare(c)))) return false;
  const share = new Map<string, number>();
  for (const h of region.halves) {
    const { primitive, t0, t1 } = map.arrangement.halves[h]!;
    share.set(primitive.curve, (share.get(primitive.curve) ?? 0) + Math.abs(t1 - t0));
  }
  return [...share.values()].every((s) => s > 1 - 1e-9);
}

/** The regions that together fill the outline that was picked; null when there is no such outline any more. */
function dividedInto(ref: RegionRef, map: RegionMap): readonly Region[] | null {
  const { halves } = map.arrangement;
  const wanted = new Set(ref.outer.map(bare));
  const owner = new Map<number, Region>();
  for (const region of map.regions) for (const h of region.halves) owner.set(h, region);
  const tried = new Set<Region>();
  const whole: (readonly Region[])[] = [];
  for (const first of map.regions) {
    if (tried.has(first) || !first.outer.some((c) => wanted.has(bare(c)))) continue;
    // Spread over every line that was not part of the outline.
    const inside = new Set([first]);
    const waiting = [first];
    let open = false;
    for (let region = waiting.pop(); region; region = waiting.pop()) {
      for (const h of region.halves) {
        const half = halves[h]!;
        if (wanted.has(half.primitive.curve)) continue;
        const next = owner.get(half.twin);
        if (!next) open = true;
        else if (!inside.has(next) && !isHole(next, wanted, map)) {
          inside.add(next);
          waiting.push(next);
        }
      }
    }
    inside.forEach((r) => tried.add(r));
    if (open || inside.size < 2) continue;
    const merged = mergeRegions(map, [...inside]);
    if (merged.length === 1 && bounds(ref, merged[0]!.outer)) whole.push([...inside]);
  }
  return whole.length === 1 ? whole[0]! : null;
}
