/** Plain geometry from elsewhere as sketch curves of their own, ends that nearly meet made one. */
import { centripetal, type Vec2 } from '../curves/spline.ts';
import { SketchPen } from '../draw/pen.ts';
import type { FlatPiece } from '../borrow/flat-piece.ts';
import type { SketchGeometry } from '../schema.ts';

export interface TakeIn {
  /** mm to one unit of the pieces. */
  readonly scale: number;
  /** Ends nearer than this, mm, are one. */
  readonly join: number;
}

/** @returns how many pairs of ends were joined */
export function takeIn(sketch: SketchGeometry, pieces: readonly FlatPiece[], { scale, join }: TakeIn): number {
  const pen = new SketchPen(sketch);
  const cells = new Map<string, { id: string; at: Vec2 }[]>();
  let joined = 0;
  const size = Math.max(join, 1e-9) * 2;
  /** The point at an end: one made before if it is near enough. */
  const end = ([x, y]: Vec2): string => {
    const at: Vec2 = [x * scale, y * scale];
    const [cx, cy] = [Math.floor(at[0] / size), Math.floor(at[1] / size)];
    for (let i = cx - 1; i <= cx + 1; i++) {
      for (let j = cy - 1; j <= cy + 1; j++) {
        const near = cells.get(`${i},${j}`)?.find((p) => Math.hypot(p.at[0] - at[0], p.at[1] - at[1]) <= join);
        if (!near) continue;
        if (Math.hypot(near.at[0] - at[0], near.at[1] - at[1]) > 1e-9) joined++;
        return near.id;
      }
    }
    const id = pen.point({ at });
    cells.set(`${cx},${cy}`, [...(cells.get(`${cx},${cy}`) ?? []), { id, at }]);
    return id;
  };
  const inner = ([x, y]: Vec2): string => pen.point({ at: [x * scale, y * scale] });
  for (const piece of pieces) {
    switch (piece.kind) {
      case 'point':
        end(piece.points[0]);
        break;
      case 'line': {
        const [from, to] = piece.points.map(end) as [string, string];
        if (from !== to) pen.line(from, to);
        break;
      }
      case 'circle':
        pen.circle(inner(piece.points[0]), piece.radius * scale);
        break;
      case 'arc': {
        const [from, to] = [end(piece.points[1]), end(piece.points[2])];
        if (from !== to) pen.arc(inner(piece.points[0]), from, to, true);
        break;
      }
      case 'ellipse':
        pen.curve('e', {
          kind: 'ellipse',
          center: inner(piece.points[0]),
          major: inner(piece.points[1]),
          minor: piece.minor * scale,
        });
        break;
      case 'elliptical_arc':
        pen.curve('e', {
          kind: 'elliptical_arc',
          center: inner(piece.points[0]),
          major: inner(piece.points[1]),
          minor: piece.minor * scale,
          from: end(piece.points[2]),
          to: end(piece.points[3]),
        });
        break;
      case 'spline': {
        const points = piece.points.map((p, i) => (i === 0 || i === piece.points.length - 1 ? end(p) : inner(p)));
        if (new Set(points).size < 2) break;
        // Without parameters of its own, a spline is given by its control points.
        const fit = piece.parameters.length > 0 ? 'through' : 'control';
        const parameters = fit === 'through' ? { parameters: centripetal(piece.points) } : {};
        pen.curve('b', { kind: 'spline', fit, points, ...parameters });
      }
    }
  }
  return joined;
}

/** Bring together ends that nearly meet, pairwise. Returns how many pairs were made one. */
export function mendGaps(sketch: SketchGeometry, gaps: readonly { readonly from: Vec2; readonly to: Vec2 }[]): number {
  const pen = new SketchPen(sketch);
  const pointAt = ([x, y]: Vec2) =>
    Object.keys(sketch.points).find((id) => Math.hypot(sketch.points[id]![0] - x, sketch.points[id]![1] - y) < 1e-6);
  let mended = 0;
  const used = new Set<string>();
  for (const { from, to } of gaps) {
    const [a, b] = [pointAt(from), pointAt(to)];
    if (!a || !b || a === b || used.has(a) || used.has(b)) continue;
    used.add(a).add(b);
    pen.constrain({ kind: 'coincident', of: [a, b] });
    mended++;
  }
  return mended;
}
