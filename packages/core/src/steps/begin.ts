/** What a step can begin from. */
import type { RegionsOfSketch } from '../slots/regions/regions.ts';
import type { Beginning } from './step.ts';

/** Picked regions of one sketch as a profile; null when something else, or nothing, is picked. */
export function regionsPicked({ picks }: Beginning): RegionsOfSketch | null {
  const [first] = picks;
  if (first?.kind !== 'region') return null;
  const refs = picks.flatMap((p) => (p.kind === 'region' && p.sketch === first.sketch ? [p.ref] : []));
  return { sketch: first.sketch, regions: refs };
}
