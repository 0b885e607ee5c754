/** The small marks that show constraints, and where each stands. */
import { isDimension, isWhole, pointAt, type ConstraintKind, type SketchGeometry, type Vec2 } from '@helb/core';
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

const SPACING_PX = 20;

/** Marks of the constraints on these entities (all when null), side by side where they share a place. */
export function markPlaces(sketch: SketchGeometry, map: PlaneMap, entities: ReadonlySet<string> | null): MarkPlace[] {
  const used = new Map<string, number>();
  return Object.entries(sketch.constraints).flatMap(([id, c]) => {
    const look = MARKS[c.kind];
    if (!look || isDimension(c)) return [];
    const near = c.of.find((e) => entities === null || entities.has(e)) ?? null;
    if (near === null) return [];
    const at = markAnchor(sketch, near);
    if (!at) return [];
    const [x, y] = map.toPixel(at);
    const key = `${Math.round(x)},${Math.round(y)}`;
    const n = used.get(key) ?? 0;
    used.set(key, n + 1);
    return [{ constraint: id, ...look, x: x + 14 + n * SPACING_PX, y: y - 14 }];
  });
}

function markAnchor(sketch: SketchGeometry, id: string): Vec2 | null {
  if (!(id in sketch.curves)) return id === 'origin' || id in sketch.points ? placeOf(sketch, id) : null;
  const [p] = primitivesFor(sketch, id);
  return p ? pointAt(p, isWhole(p) ? 0.125 : 0.5) : null;
}
