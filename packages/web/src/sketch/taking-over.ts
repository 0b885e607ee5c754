/** Pictures of a sketch taken into it: where a drag left things, where borrowed ones now stand. */
import type { SketchGeometry } from '@helb/core';

/** Borrowed points and curves that stand elsewhere in `seen`; null when all are in place. */
export function movedLoans(
  sketch: SketchGeometry,
  seen: SketchGeometry,
): Pick<SketchGeometry, 'points' | 'curves'> | null {
  const points: SketchGeometry['points'] = {};
  const curves: SketchGeometry['curves'] = {};
  for (const id of Object.values(sketch.borrowed ?? {}).flatMap((b) => b.of)) {
    const [p, q] = [sketch.points[id], seen.points[id]];
    if (p && q && Math.hypot(p[0] - q[0], p[1] - q[1]) > 1e-9) points[id] = [q[0], q[1]];
    const [c, d] = [sketch.curves[id], seen.curves[id]];
    if (c?.kind === 'circle' && d?.kind === 'circle' && Math.abs(c.radius - d.radius) > 1e-9)
      curves[id] = { ...c, radius: d.radius };
    if (c && d && 'minor' in c && 'minor' in d && Math.abs(c.minor - d.minor) > 1e-9)
      curves[id] = { ...c, minor: d.minor };
  }
  return Object.keys(points).length + Object.keys(curves).length > 0 ? { points, curves } : null;
}

/** Write a dragged picture into the sketch. */
export function takeOver(sketch: SketchGeometry, moved: SketchGeometry): void {
  for (const [id, p] of Object.entries(moved.points)) {
    const own = sketch.points[id];
    if (own && (p[0] !== own[0] || p[1] !== own[1])) sketch.points[id] = [p[0], p[1]];
  }
  for (const [id, c] of Object.entries(moved.curves)) {
    const own = sketch.curves[id];
    if (c.kind === 'circle' && own?.kind === 'circle') own.radius = c.radius;
    if ('minor' in c && own && 'minor' in own) own.minor = c.minor;
  }
  for (const [id, { steps }] of Object.entries(moved.patterns ?? {})) {
    const own = sketch.patterns?.[id];
    if (own) own.steps = [...steps];
  }
}
