/** What a step can begin from. */
import type { EdgeChoice } from '../slots/edges/edges.ts';
import type { ProfileRef, RegionsOfSketch } from '../slots/regions/regions.ts';
import type { BodyRef, FaceRef } from '../references/references.ts';
import { isOpenChain } from './result/wall.ts';
import type { Beginning } from './step.ts';

/** Picked regions of one sketch as a profile; null when something else, or nothing, is picked. */
export function regionsPicked({ picks }: Beginning): RegionsOfSketch | null {
  const [first] = picks;
  if (first?.kind !== 'region') return null;
  const refs = picks.flatMap((p) => (p.kind === 'region' && p.sketch === first.sketch ? [p.ref] : []));
  return { sketch: first.sketch, regions: refs };
}

/** Picked regions, or one flat face, as a profile; null when something else, or nothing, is picked. */
export function profilePicked(from: Beginning): ProfileRef | null {
  const [first] = from.picks;
  if (first?.kind === 'face' && first.flat && from.picks.length === 1) return { face: first.ref };
  return regionsPicked(from);
}

/** The open outline of a sketch picked as a whole, or by one of its lines; null when something else is picked, or it is closed. */
export function chainPicked({ picks, sketch }: Beginning): RegionsOfSketch | null {
  const [first] = picks;
  if (!first || picks.length > 1) return null;
  const id = first.kind === 'line' ? first.sketch : first.kind === 'step' && first.is === 'sketch' ? first.step : null;
  const geometry = id === null ? undefined : sketch(id)?.geometry;
  return id !== null && geometry && isOpenChain(geometry) ? { sketch: id, regions: 'chain' } : null;
}

/** All that is closed in a sketch picked as a whole, as by an outline of its lettering; null when something else is picked. */
export function sketchPicked({ picks, sketch }: Beginning): RegionsOfSketch | null {
  const [first] = picks;
  if (first?.kind !== 'step' || first.is !== 'sketch' || picks.length > 1 || !sketch(first.step)) return null;
  return { sketch: first.step, regions: 'holed' };
}

/** Does a step of this profile begin in material that is there? */
export function liesOnBody(profile: ProfileRef, from: Beginning): boolean {
  return from.bodies > 0 && ('face' in profile || (from.sketch(profile.sketch)?.onFace ?? false));
}

/** Picked edges, and of picked faces all their sharp edges; null when something else, or nothing, is picked. */
export function edgesPicked({ picks }: Beginning): readonly EdgeChoice[] | null {
  const choices = picks.flatMap((p): EdgeChoice[] => {
    if (p.kind === 'edge') return [p.ref];
    return p.kind === 'face' ? [{ around: p.ref }] : [];
  });
  return choices.length > 0 && choices.length === picks.length ? choices : null;
}

/** The bodies of picked faces and edges, each once; null when something else, or nothing, is picked. */
export function bodiesPicked({ picks }: Beginning): readonly BodyRef[] | null {
  const refs = picks.flatMap((p) => ((p.kind === 'face' || p.kind === 'edge') && p.of ? [p.of] : []));
  if (refs.length === 0 || refs.length < picks.length) return null;
  return [...new Map(refs.map((r) => [`${r.name} ${(r.has ?? []).join()}`, r])).values()];
}

/** Picked faces; null when something else, or nothing, is picked. */
export function facesPicked({ picks }: Beginning): readonly FaceRef[] | null {
  const refs = picks.flatMap((p) => (p.kind === 'face' ? [p.ref] : []));
  return refs.length > 0 && refs.length === picks.length ? refs : null;
}
