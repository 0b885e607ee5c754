/** Volume, centre and size of parts as the kernel last told them. */
import type { PartBulk, Vec3 } from '@helb/core';
import { sizesOf } from '../stage/shown-bodies.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';

export function useBulkOfPart(): (part: string) => PartBulk | null {
  const evaluation = useEvaluation();
  return (part) => {
    const bodies = evaluation.parts.get(part)?.bodies ?? [];
    const volume = bodies.reduce((sum, b) => sum + b.volume, 0);
    if (volume === 0) return null;
    const center = [0, 1, 2].map((i) => bodies.reduce((sum, b) => sum + b.center[i]! * b.volume, 0) / volume) as unknown as Vec3; // prettier-ignore
    return { volume, center, size: sizesOf(bodies) };
  };
}
