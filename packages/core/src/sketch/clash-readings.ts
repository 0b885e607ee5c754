/** What each of a clashing set would read without the others. */
import { measureDimension } from './edit/measure.ts';
import { isDimension, type SketchGeometry } from './schema.ts';
import { solvePositions } from './solve.ts';

export interface ClashMember {
  readonly constraint: string;
  /** What its number would be if only the others held, mm or rad; null for relations, or when even they disagree. */
  readonly without: number | null;
}

/** Each of a clashing set, with what it would read if it were only measured. */
export function clashReadings(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  clash: readonly string[],
): ClashMember[] {
  return clash.map((id) => {
    const c = sketch.constraints[id]!;
    if (!isDimension(c)) return { constraint: id, without: null };
    const rest = { ...sketch, constraints: { ...sketch.constraints, [id]: { ...c, driven: true as const } } };
    const solved = solvePositions(rest, dimension);
    return { constraint: id, without: solved && measureDimension(solved, c) };
  });
}
