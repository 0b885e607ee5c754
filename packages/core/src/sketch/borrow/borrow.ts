/** Geometry taken from the part into a sketch: put in once, then kept where its source is. */
import { SketchPen } from '../draw/pen.ts';
import { pointsOf, type BorrowSource, type Curve, type SketchGeometry } from '../schema.ts';
import type { FlatPiece, LoanPiece } from './flat-piece.ts';

/** Put pieces into the sketch as borrowed geometry. Returns the id of the loan, or null when there is nothing to take. */
export function addBorrowed(sketch: SketchGeometry, source: BorrowSource, pieces: readonly LoanPiece[]): string | null {
  if (pieces.length === 0) return null;
  const pen = new SketchPen(sketch);
  const of: string[] = [];
  for (const { piece } of pieces) {
    const points = piece.points.map((at) => pen.point({ at }));
    const curve = curveOn(piece, points);
    if (curve) of.push(pen.curve('w', curve));
    of.push(...points);
  }
  const id = pen.fresh('v');
  const keys = pieces.map((p) => p.key ?? '');
  sketch.borrowed = { ...sketch.borrowed, [id]: { source, of, ...(keys.some(Boolean) ? { keys } : {}) } };
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

/** How a source has come to differ from what was taken of it. */
export interface Followed {
  /** Taken pieces that are not at the source any more; they stay where they were. */
  readonly gone: number;
  /** Pieces at the source that were not taken. */
  readonly added: number;
}

/** Move a loan's geometry to where its source now is: each piece to the one of its own name, else to the nearest of its shape. */
export function followSource(sketch: SketchGeometry, loan: string, pieces: readonly LoanPiece[]): Followed {
  const borrowed = sketch.borrowed?.[loan];
  if (!borrowed) return { gone: 0, added: 0 };
  const taken = grouped(sketch, borrowed.of).map((group, i) => ({ ...group, key: borrowed.keys?.[i] || null }));
  const left = new Set(pieces);
  let gone = 0;
  // Those with a name choose first, whatever their order.
  for (const group of [...taken].sort((a, b) => Number(b.key !== null) - Number(a.key !== null))) {
    const choice = nearestFor(sketch, group, [...left]);
    if (choice) {
      left.delete(choice);
      put(sketch, group, choice.piece);
    } else gone++;
  }
  return { gone, added: left.size };
}

interface Taken {
  readonly curve: string | null;
  readonly points: readonly string[];
  readonly key: string | null;
}

function nearestFor(
  sketch: SketchGeometry,
  { curve, points, key }: Taken,
  left: readonly LoanPiece[],
): LoanPiece | null {
  const own = curve === null ? null : sketch.curves[curve]!;
  const away = ({ piece }: LoanPiece) =>
    piece.points.reduce((sum, [x, y], i) => {
      const [u, v] = sketch.points[points[i]!] ?? [x, y];
      return sum + Math.hypot(x - u, y - v);
    }, 0);
  const fitting = left.filter(
    (p) => fits(own, points.length, p.piece) && (key === null || p.key === null || p.key === key),
  );
  return fitting.reduce<LoanPiece | null>((best, p) => (best && away(best) <= away(p) ? best : p), null);
}

function put(sketch: SketchGeometry, { curve, points }: Taken, piece: FlatPiece): void {
  piece.points.forEach((p, i) => moveTo(sketch, points[i]!, p));
  const own = curve === null ? undefined : sketch.curves[curve];
  if (own?.kind === 'circle' && piece.kind === 'circle') own.radius = piece.radius;
  if (own && 'minor' in own && 'minor' in piece) own.minor = piece.minor;
  if (own?.kind === 'spline' && piece.kind === 'spline') own.parameters = [...piece.parameters];
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
