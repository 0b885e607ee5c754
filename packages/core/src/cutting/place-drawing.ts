/** Pieces of a drawing turned and moved to where they lie, and the corners of its loops for laying them. */
import { bezierSpans, basisOf, centripetal, controlPoints, type Vec2 } from '../sketch/curves/spline.ts';
import { onOval, ovalOf, type DrawnLoop } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';

const RADIANS = Math.PI / 180;
/** Chords run inside their arcs by no more than this, mm. */
export const SAGITTA = 0.02;

export interface Lie {
  /** Degrees about the origin, which then stands at (x, y). */
  readonly turn: number;
  readonly x: number;
  readonly y: number;
}

export function placeAt({ turn, x, y }: Lie): (p: Vec2) => Vec2 {
  const quarter = turn % 90 === 0;
  const [c, s] = [Math.cos(turn * RADIANS), Math.sin(turn * RADIANS)].map((v) => (quarter ? Math.round(v) : v)) as [number, number]; // prettier-ignore
  return ([px, py]) => [c * px - s * py + x, s * px + c * py + y];
}

export function placedPiece(piece: FlatPiece, lie: Lie): FlatPiece {
  const at = placeAt(lie);
  const own = { ...piece, points: piece.points.map(at) } as unknown as FlatPiece;
  return own.kind === 'spline' ? { ...own, parameters: centripetal(own.points) } : own;
}

/** Corners of a loop, one after the other, near enough to its curves. */
export function cornersOf(loop: DrawnLoop): Vec2[] {
  return loop.flatMap(({ piece, forward }) => {
    const places = placesOf(piece);
    // The last is the first of the next.
    return (forward ? places : places.reverse()).slice(0, -1);
  });
}

function placesOf(piece: FlatPiece): Vec2[] {
  if (piece.kind === 'point' || piece.kind === 'line') return [...piece.points];
  if (piece.kind === 'spline') {
    const basis = basisOf({ fit: 'through', points: piece.points.map(String), parameters: [...piece.parameters] });
    const spans = bezierSpans(basis.degree, basis.knots, controlPoints(basis, piece.points)).map((s) => s.control);
    return [...spans.flatMap((control) => placesOnBezier(control).slice(0, -1)), spans.at(-1)!.at(-1)!];
  }
  const oval = ovalOf(piece);
  const step = 2 * Math.acos(Math.max(0, 1 - SAGITTA / Math.max(oval.long, SAGITTA)));
  const count = Math.max(2, Math.ceil((oval.to - oval.from) / step));
  return evenly(count, (t) => onOval(oval, oval.from + t * (oval.to - oval.from)));
}

const evenly = (steps: number, at: (t: number) => Vec2): Vec2[] => Array.from({ length: steps + 1 }, (_, i) => at(i / steps)); // prettier-ignore

const MOST_CHORDS = 1000;

/**
 * Places along a Bézier curve, its ends among them, so close that chords run off it by the sagitta at most: by the bound
 * of Wang (1984), n (n - 1) / 8 of the largest second difference of its control points over the square of the chords.
 */
export function placesOnBezier(control: readonly Vec2[]): Vec2[] {
  const n = control.length - 1;
  const bends = control.slice(2).map((p, i) => Math.hypot(p[0] - 2 * control[i + 1]![0] + control[i]![0], p[1] - 2 * control[i + 1]![1] + control[i]![1])); // prettier-ignore
  const chords = Math.ceil(Math.sqrt((n * (n - 1) * Math.max(0, ...bends)) / (8 * SAGITTA)));
  return evenly(Math.min(MOST_CHORDS, Math.max(1, chords)), (t) => onBezier(control, t));
}

/** De Casteljau. */
function onBezier(control: readonly Vec2[], t: number): Vec2 {
  let points = [...control];
  while (points.length > 1)
    points = points.slice(1).map((p, i) => [points[i]![0] + t * (p[0] - points[i]![0]), points[i]![1] + t * (p[1] - points[i]![1])]); // prettier-ignore
  return points[0]!;
}

/** mm along all of it. */
export const lengthOf = (loop: DrawnLoop): number => {
  const corners = cornersOf(loop);
  return corners.reduce((sum, p, i) => {
    const next = corners[(i + 1) % corners.length]!;
    return sum + Math.hypot(next[0] - p[0], next[1] - p[1]);
  }, 0);
};
