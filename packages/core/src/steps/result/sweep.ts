/** What every sweep of regions does alike: how far it reaches, and the names of what it makes. */
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf, type Name } from '../../names/name.ts';
import type { Area } from '../../slots/regions/profile.ts';
import type { FaceParent, MadeSolid } from '../../solid/kernel.ts';
import type { Fresh } from '../step.ts';

/** Where a sweep begins and ends along its way: mm, or rad about its axis. */
export interface Reach {
  readonly from: number;
  readonly to: number;
  /** Forward is backward: the cap at `from` is the one that went forward. */
  readonly swapped: boolean;
}

/** @param back only counts both ways */
export function reachOf(
  way: 'one_way' | 'both_ways' | 'symmetric',
  forward: number,
  back: number | undefined,
  reversed: boolean,
): Reach {
  const sign = reversed ? -1 : 1;
  const ahead = sign * (way === 'symmetric' ? forward / 2 : forward);
  const behind = -sign * (way === 'symmetric' ? forward / 2 : (back ?? 0));
  return { from: Math.min(ahead, behind), to: Math.max(ahead, behind), swapped: ahead < behind };
}

/** A solid of each area, with its names: `end` is the cap that went forward, whichever way forward is. */
export function sweep(
  stepId: string,
  areas: readonly Area[],
  swapped: boolean,
  make: (area: Area) => MadeSolid,
): Fresh[] {
  return areas.map((area) => {
    const { solid, faces } = make(area);
    const named = swapped ? faces.map(withCapsSwapped) : faces;
    return {
      solid,
      faces: named,
      name: nameOf(stepId, BODY_ROLE, area.parents),
      faceNames: facesOf(stepId, area, named),
    };
  });
}

/** Caps are named by the region, sides by the curves that swept them. */
function facesOf(stepId: string, area: Area, faces: MadeSolid['faces']): (readonly Name[])[] {
  const curves = area.loops.flatMap((loop) => loop.pieces.map((p) => p.curve));
  const nameFor = ({ kind, index, how }: FaceParent): Name =>
    kind === 'face'
      ? nameOf(stepId, how, area.parents)
      : nameOf(stepId, 'side', [area.called?.get(curves[index]!) ?? curves[index]!]);
  return faces.map((parents) => (parents.length > 0 ? [...new Set(parents.map(nameFor))] : [nameOf(stepId, 'new')]));
}

const OTHER: Readonly<Record<string, FaceParent['how']>> = { start: 'end', end: 'start' };

function withCapsSwapped(parents: readonly FaceParent[]): readonly FaceParent[] {
  return parents.map((p) => ({ ...p, how: OTHER[p.how] ?? p.how }));
}
