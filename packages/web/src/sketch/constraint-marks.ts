/** The small marks that show constraints, and where each stands. */
import { isDimension, isWhole, pointAt, type ConstraintKind, type SketchGeometry, type Vec2 } from '@helb/core';
import { overlap, type Box } from './dimension-places.ts';
import { placeOf, primitivesFor } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export const MARKS: Readonly<Partial<Record<ConstraintKind, { mark: string; label: string }>>> = {
  coincident: { mark: '•', label: 'Coincident' },
  horizontal: { mark: '―', label: 'Horizontal' },
  vertical: { mark: '|', label: 'Vertical' },
  equal: { mark: '=', label: 'Equal' },
  concentric: { mark: '⊙', label: 'Concentric' },
  parallel: { mark: '∥', label: 'Parallel' },
  perpendicular: { mark: '⊥', label: 'Perpendicular' },
  tangent: { mark: '⌒', label: 'Tangent' },
  midpoint: { mark: '½', label: 'Midpoint' },
  symmetric: { mark: '⇄', label: 'Symmetric' },
  fixed: { mark: '▪', label: 'Fixed' },
  collinear: { mark: '⋯', label: 'Collinear' },
  smooth: { mark: '∿', label: 'Smooth' },
  equal_spacing: { mark: '⫴', label: 'Equal spacing' },
};

export interface MarkPlace {
  readonly constraint: string;
  readonly mark: string;
  readonly label: string;
  readonly x: number;
  readonly y: number;
}

/** A mark's half width, and how far apart two of them stand, px. */
const [HALF, SPACING] = [12, 25];
/** Where a mark may stand beside what it is on, px, likeliest first. */
const BESIDE = [0, 1, 2].flatMap((n) => [
  [14 + n * SPACING, -14],
  [-14 - n * SPACING, -14],
  [14 + n * SPACING, 14],
  [-14 - n * SPACING, 14],
]) as [number, number][];

/**
 * Marks of the constraints on these entities (all when null), clear of each other and of the numbers.
 * @param numbers the room that numbers take, px
 */
export function markPlaces(
  sketch: SketchGeometry,
  map: PlaneMap,
  entities: ReadonlySet<string> | null,
  numbers: readonly Box[] = [],
): MarkPlace[] {
  const used = [...numbers];
  return Object.entries(sketch.constraints).flatMap(([id, c]) => {
    const look = MARKS[c.kind];
    if (!look || isDimension(c)) return [];
    const near = c.of.find((e) => entities === null || entities.has(e)) ?? null;
    if (near === null) return [];
    const at = markAnchor(sketch, near);
    if (!at) return [];
    const [x, y] = map.toPixel(at);
    const boxAt = ([dx, dy]: readonly [number, number]): Box => [
      x + dx - HALF,
      y + dy - HALF,
      x + dx + HALF,
      y + dy + HALF,
    ];
    const free = BESIDE.find((d) => !used.some((box) => overlap(box, boxAt(d)))) ?? BESIDE[0]!;
    used.push(boxAt(free));
    return [{ constraint: id, ...look, x: x + free[0], y: y + free[1] }];
  });
}

function markAnchor(sketch: SketchGeometry, id: string): Vec2 | null {
  if (!(id in sketch.curves)) return id === 'origin' || id in sketch.points ? placeOf(sketch, id) : null;
  const [p] = primitivesFor(sketch, id);
  return p ? pointAt(p, isWhole(p) ? 0.125 : 0.5) : null;
}
