/** Regions of a sketch: a profile to sweep. */
import { z } from 'zod';
import { hashText } from '../../ids/hash.ts';
import { Id } from '../../ids/ids.ts';
import { StepFailure } from '../../names/body.ts';
import { curvesAsParents, stepsIn, type Name } from '../../names/name.ts';
import { FaceRef, RegionRef } from '../../references/references.ts';
import { findRegion } from '../../sketch/regions/find-region.ts';
import { isInside } from '../../sketch/regions/loop.ts';
import {
  mergeRegions,
  refOf,
  touchingPoint,
  withHolesOpen,
  type Region,
  type RegionMap,
} from '../../sketch/regions/regions.ts';
import { faceRewritten } from '../faces/faces.ts';
import { foundOrFail } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type SlotKind } from '../slot.ts';
import { profileOfFace } from './face-profile.ts';
import type { Area, Profile } from './profile.ts';

const MOST_REGIONS = 2000;

export const RegionsOfSketch = z.strictObject({
  sketch: Id.describe('The sketch step.'),
  regions: z
    .union([z.literal('all'), z.literal('holed'), z.literal('chain'), z.array(RegionRef).min(1).max(MOST_REGIONS)])
    .describe('"holed": all regions, those that are holes in others left open. "chain": its open outline, for a wall.'),
});
export type RegionsOfSketch = z.infer<typeof RegionsOfSketch>;

export const FaceAsProfile = z.strictObject({ face: FaceRef }).describe('A flat face as it is.');
export const ProfileRef = z.union([RegionsOfSketch, FaceAsProfile]);
export type ProfileRef = z.infer<typeof ProfileRef>;

/** Stands for a profile that is not chosen yet; never stored. */
export const NO_PROFILE: ProfileRef = { sketch: '', regions: 'all' };

const AT_ONCE = { all: 'all regions', holed: 'all regions, holes open', chain: 'open outline' } as const;

export function regions(): SlotKind<ProfileRef, Profile> {
  return slotKind<ProfileRef, Profile>({
    kind: 'regions',
    schema: ProfileRef,
    steps: (stored) => ('face' in stored ? stepsIn(stored.face.name) : stored === NO_PROFILE ? [] : [stored.sketch]),
    rewritten: (stored, change) =>
      'face' in stored
        ? { face: faceRewritten(stored.face, change) }
        : { ...stored, sketch: change.step(stored.sketch) },
    resolve(stored, slot, context) {
      if (stored === NO_PROFILE) throw new StepFailure('No area is chosen yet; pick a region or a flat face.');
      const value = 'face' in stored ? profileOfFace(stored.face, slot, context) : profileOf(stored, slot, context);
      const { frame, areas, chain } = value;
      const digest = hashText(JSON.stringify([frame, areas.map((a) => [a.loops, a.parents.map(textOf), [...(a.called ?? [])].map(([id, n]) => [id, textOf(n)])]), chain])); // prettier-ignore
      return { value, digest };
    },
    label(stored, _, reading) {
      if (stored === NO_PROFILE) return { label: 'no area yet' };
      if ('face' in stored) return { label: 'a flat face' };
      const n = stored.regions.length;
      const which = typeof stored.regions === 'string' ? AT_ONCE[stored.regions] : `${n} region${n === 1 ? '' : 's'}`;
      return { label: `${reading.stepName(stored.sketch) ?? 'a deleted sketch'}, ${which}` };
    },
    take(stored, pick) {
      if (pick.kind === 'face' && pick.flat) return { face: pick.ref };
      if (pick.kind !== 'region') return null;
      if (!stored || 'face' in stored || stored.sketch !== pick.sketch || typeof stored.regions === 'string')
        return { sketch: pick.sketch, regions: [pick.ref] };
      const rest = stored.regions.filter((r) => keyOfRegion(r) !== keyOfRegion(pick.ref));
      const next = rest.length < stored.regions.length ? rest : [...rest, pick.ref];
      return next.length > 0 ? { sketch: pick.sketch, regions: next } : null;
    },
  });
}

/** Equal for two picks of one region; of several between the same curves the place tells which. */
export const keyOfRegion = ({ outer, piece, at }: RegionRef): string =>
  [...[...outer].sort(), ...(piece ? (at ?? []) : [])].join();

const textOf = (name: Name | string) => (typeof name === 'string' ? name : name.text);

function profileOf(stored: RegionsOfSketch, slot: string, context: Resolving): Profile {
  const { name, outcome } = context.sketch(stored.sketch);
  const { frame } = outcome;
  if (stored.regions === 'chain') return { of: name, frame, areas: [], chain: outcome.solution.geometry };
  return { of: name, frame, areas: areasOf(stored, slot, name, outcome.regions, context), chain: null };
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
  if (typeof stored.regions === 'string')
    for (const region of stored.regions === 'holed' ? withHolesOpen(map) : map.regions)
      chosen.set(region, region.outer);
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
            regions: withInstead(
              stored.regions as RegionRef[],
              index,
              found.map((r) => refOf(r, map.regions)),
            ),
          }),
        },
        context,
      );
      // Its own name for it, so that faces keep theirs while the sketch changes round it.
      for (const region of found) chosen.set(region, ref.outer);
    }
  return mergeRegions(map, [...chosen.keys()]).map((area) => {
    refuseTouching(area, sketchName, map);
    if (typeof stored.regions === 'string') return { ...area, parents: curvesAsParents(area.outer) };
    const within = [...chosen].filter(([region]) => isInside(area.loops, region.at)).flatMap(([, outer]) => outer);
    return { ...area, parents: curvesAsParents([...new Set(within)]) };
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
