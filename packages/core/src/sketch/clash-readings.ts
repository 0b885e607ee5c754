/** What each of a clashing set would read without the others. */
import { measureDimension } from './edit/measure.ts';
import { isDimension, type SketchGeometry } from './schema.ts';
import { solvePositions, solveSketch } from './solve.ts';

export interface ClashMember {
  readonly constraint: string;
  /** What its number would be if only the others held, mm or rad; null for relations, or when even they disagree. */
  readonly without: number | null;
}

/** What of a sketch disagrees, each with what it would read if it were only measured; in steps, as many solves are needed. */
export function* clashReadings(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
): Generator<undefined, ClashMember[]> {
  const members: ClashMember[] = [];
  for (const id of solveSketch(sketch, dimension).clash) {
    yield;
    const c = sketch.constraints[id]!;
    if (!isDimension(c)) {
      members.push({ constraint: id, without: null });
      continue;
    }
    const rest = { ...sketch, constraints: { ...sketch.constraints, [id]: { ...c, driven: true as const } } };
    const solved = solvePositions(rest, dimension);
    members.push({ constraint: id, without: solved && measureDimension(solved, c) });
  }
  return members;
}
