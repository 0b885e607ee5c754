/** Regions of a sketch: a profile to sweep. */
import { z } from 'zod';
import { hashText } from '../../ids/hash.ts';
import { Id } from '../../ids/ids.ts';
import { StepFailure } from '../../names/body.ts';
import { curvesAsParents } from '../../names/name.ts';
import { RegionRef } from '../../references/references.ts';
import { findRegion } from '../../sketch/regions/find-region.ts';
import { isInside } from '../../sketch/regions/loop.ts';
import { mergeRegions, refOf, touchingPoint, type Region, type RegionMap } from '../../sketch/regions/regions.ts';
import type { Frame } from '../../space/vector.ts';
import { foundOrFail } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_REGIONS = 2000;

export const RegionsOfSketch = z.strictObject({
  sketch: Id.describe('The sketch step.'),
  regions: z.union([z.literal('all'), z.array(RegionRef).min(1).max(MOST_REGIONS)]),
});
export type RegionsOfSketch = z.infer<typeof RegionsOfSketch>;

/** An area to sweep, with what it is told apart by in names. */
export interface Area extends Region {
  readonly parents: readonly string[];
}

export interface Profile {
  /** The sketch step's id. */
  readonly sketch: string;
  readonly frame: Frame;
  readonly areas: readonly Area[];
  readonly map: RegionMap;
}

const digestOf = (text: string) => hashText(text).slice(0, 8);

export function regions(): SlotKind<RegionsOfSketch, Profile> {
  return slotKind<RegionsOfSketch, Profile>({
    kind: 'regions',
    schema: RegionsOfSketch,
    steps: (stored) => [stored.sketch],
    rewritten: (stored, change) => ({ ...stored, sketch: change.step(stored.sketch) }),
    resolve(stored, slot, context) {
      const { name, outcome } = context.sketch(stored.sketch);
      const areas = areasOf(stored, slot, name, outcome.regions, context);
      const digest = hashText(JSON.stringify([outcome.frame, areas.map((a) => [a.loops, a.parents])]));
      return { value: { sketch: stored.sketch, frame: outcome.frame, areas, map: outcome.regions }, digest };
    },
    label(stored, _, reading) {
      const n = stored.regions.length;
      const which = stored.regions === 'all' ? 'all regions' : `${n} region${n === 1 ? '' : 's'}`;
      return { label: `${reading.stepName(stored.sketch) ?? 'a deleted sketch'}, ${which}` };
    },
    take(stored, pick) {
      if (pick.kind !== 'region') return null;
      if (!stored || stored.sketch !== pick.sketch || stored.regions === 'all')
        return { sketch: pick.sketch, regions: [pick.ref] };
      const key = (r: RegionRef) => [...r.outer].sort().join();
      const rest = stored.regions.filter((r) => key(r) !== key(pick.ref));
      const next = rest.length < stored.regions.length ? rest : [...rest, pick.ref];
      return next.length > 0 ? { sketch: pick.sketch, regions: next } : null;
    },
  });
}

function areasOf(
  stored: RegionsOfSketch,
  slot: string,
  sketchName: string,
  map: RegionMap,
  context: Resolving,
): readonly Area[] {
  if (map.regions.length === 0) throw new StepFailure(openProfile(sketchName, map));
  const chosen = new Map<Region, readonly string[]>();
  if (stored.regions === 'all') for (const region of map.regions) chosen.set(region, region.outer);
  else
    for (const [index, ref] of stored.regions.entries()) {
      const found = foundOrFail(
        findRegion(ref, map),
        {
          slot,
          index,
          what: `A region of ${sketchName}`,
          stored: (found) => ({
            ...stored,
            regions: withInstead(stored.regions as RegionRef[], index, found.map(refOf)),
          }),
        },
        context,
      );
      // Its own name for it, so that faces keep theirs while the sketch changes round it.
      for (const region of found) chosen.set(region, ref.outer);
    }
  return mergeRegions(map, [...chosen.keys()]).map((area) => {
    refuseTouching(area, sketchName, map);
    if (stored.regions === 'all') return { ...area, parents: curvesAsParents(area.outer, digestOf) };
    const within = [...chosen].filter(([region]) => isInside(area.loops, region.at)).flatMap(([, outer]) => outer);
    return { ...area, parents: curvesAsParents([...new Set(within)], digestOf) };
  });
}

function withInstead(all: readonly RegionRef[], index: number, refs: readonly RegionRef[]): RegionRef[] {
  return [...all.slice(0, index), ...refs, ...all.slice(index + 1)];
}

function refuseTouching(area: Region, sketchName: string, map: RegionMap): void {
  const touch = touchingPoint(area, map.arrangement);
  if (!touch) return;
  const [x, y] = touch.map((n) => Number(n.toFixed(3)));
  throw new StepFailure(
    `A region of ${sketchName} touches itself at ${x}, ${y} mm; part its lines there or make them overlap.`,
  );
}

function openProfile(sketchName: string, map: RegionMap): string {
  const gap = [...map.gaps].sort((a, b) => a.size - b.size)[0];
  if (gap)
    return `${sketchName} has no closed region: there is a gap of ${Number(gap.size.toPrecision(3))} mm at ${place(gap.from)}; join the two ends.`;
  const end = map.openEnds[0];
  if (end) return `${sketchName} has no closed region: a line ends in the open at ${place(end)}; close the outline.`;
  return `${sketchName} has no closed region yet; draw a closed outline in it.`;
}

function place([x, y]: readonly [number, number]): string {
  return `${Number(x.toFixed(2))}, ${Number(y.toFixed(2))} mm`;
}
