/** Geometry taken from the part into a sketch: put in once, then kept where its source is. */
import { SketchPen } from '../draw/pen.ts';
import { pointsOf, type BorrowSource, type Curve, type SketchGeometry } from '../schema.ts';
import type { FlatPiece } from './project.ts';

/** Put pieces into the sketch as borrowed geometry. Returns the id of the loan, or null when there is nothing to take. */
export function addBorrowed(sketch: SketchGeometry, source: BorrowSource, pieces: readonly FlatPiece[]): string | null {
  if (pieces.length === 0) return null;
  const pen = new SketchPen(sketch);
  const of: string[] = [];
  for (const piece of pieces) {
    const points = piece.points.map((at) => pen.point({ at }));
    const curve = curveOn(piece, points);
    if (curve) of.push(pen.curve('w', curve));
    of.push(...points);
  }
  const id = pen.fresh('v');
  sketch.borrowed = { ...sketch.borrowed, [id]: { source, of } };
  return id;
}

function curveOn(piece: FlatPiece, points: readonly string[]): Curve | null {
  const [a, b, c, d] = points as [string, string, string, string];
  switch (piece.kind) {
    case 'point':
      return null;
    case 'line':
      return { kind: 'line', from: a, to: b };
    case 'circle':
      return { kind: 'circle', center: a, radius: piece.radius };
    case 'arc':
      return { kind: 'arc', center: a, from: b, to: c };
    case 'ellipse':
      return { kind: 'ellipse', center: a, major: b, minor: piece.minor };
    case 'elliptical_arc':
      return { kind: 'elliptical_arc', center: a, major: b, minor: piece.minor, from: c, to: d };
    case 'spline':
      return { kind: 'spline', fit: 'through', points: [...points], parameters: [...piece.parameters] };
  }
}

/**
 * Move a loan's geometry to where its source now is.
 * @returns false when the source has another shape than what was taken
 */
export function followSource(sketch: SketchGeometry, loan: string, pieces: readonly FlatPiece[]): boolean {
  const borrowed = sketch.borrowed?.[loan];
  if (!borrowed) return true;
  const taken = grouped(sketch, borrowed.of);
  let same = taken.length === pieces.length;
  const left = [...pieces];
  for (const { curve, points } of taken) {
    const at = left.findIndex((p) => fits(curve === null ? null : sketch.curves[curve]!, points.length, p));
    const [piece] = at < 0 ? [] : left.splice(at, 1);
    if (!piece) {
      same = false;
      continue;
    }
    piece.points.forEach((p, i) => moveTo(sketch, points[i]!, p));
    const own = curve === null ? undefined : sketch.curves[curve];
    if (own?.kind === 'circle' && piece.kind === 'circle') own.radius = piece.radius;
    if (own && 'minor' in own && 'minor' in piece) own.minor = piece.minor;
    if (own?.kind === 'spline' && piece.kind === 'spline') own.parameters = [...piece.parameters];
  }
  return same;
}

function moveTo(sketch: SketchGeometry, point: string, [x, y]: readonly [number, number]): void {
  const is = sketch.points[point];
  if (is && Math.hypot(is[0] - x, is[1] - y) > 1e-9) sketch.points[point] = [x, y];
}

function fits(curve: Curve | null, points: number, piece: FlatPiece): boolean {
  return (curve === null ? 'point' : curve.kind) === piece.kind && piece.points.length === points;
}

/** A loan's ids by piece: each curve with the points that follow it, or a point on its own. */
function grouped(sketch: SketchGeometry, of: readonly string[]): { curve: string | null; points: string[] }[] {
  const pieces: { curve: string | null; points: string[] }[] = [];
  for (const id of of) {
    const last = pieces.at(-1);
    const curve = sketch.curves[id];
    if (curve) pieces.push({ curve: id, points: [] });
    else if (last?.curve && pointsOf(sketch.curves[last.curve]!).includes(id)) last.points.push(id);
    else pieces.push({ curve: null, points: [id] });
  }
  return pieces;
}

/** Let borrowed geometry go its own way: it stays where it is, and can be moved. */
export function cutLoose(sketch: SketchGeometry, entities: readonly string[]): void {
  for (const [id, { of }] of Object.entries(sketch.borrowed ?? {}))
    if (of.some((e) => entities.includes(e))) delete sketch.borrowed![id];
}
