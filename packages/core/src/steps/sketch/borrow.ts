/** What a sketch borrows, found on the bodies as they are before it. */
import type { Body } from '../../part/body.ts';
import { findEdge, facesBeside } from '../../part/edge-names.ts';
import { findFace } from '../../part/face-names.ts';
import { addBorrowed, followSource } from '../../sketch/borrow/borrow.ts';
import { flatPoint, flatten, type FlatPiece } from '../../sketch/borrow/project.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import type { BorrowSource, SketchGeometry } from '../../sketch/schema.ts';
import type { Frame, SolidKernel } from '../../solid/kernel.ts';

/** The source's geometry on the sketch plane; null when the source is gone. */
export function borrowedPieces(
  source: BorrowSource,
  frame: Frame,
  bodies: readonly Body[],
  kernel: SolidKernel,
): FlatPiece[] | null {
  switch (source.kind) {
    case 'edge': {
      const found = findEdge(source.edge, bodies, kernel);
      return found && [flatten(frame, found.curve)];
    }
    case 'vertex': {
      const found = findEdge(source.edge, bodies, kernel);
      return found && [{ kind: 'point', points: [flatPoint(frame, found.curve[source.end])] }];
    }
    case 'face': {
      const found = findFace({ name: source.face, near: source.near }, bodies);
      if (!found) return null;
      const { body, face } = found;
      const edges = body.facts.edges.flatMap((e, i) => (e.faces.includes(face) ? [i] : []));
      const curves = kernel.curves(body.solid);
      // In the order of their names, so that the same edge comes in the same place again.
      const named = edges.map((i) => ({ key: facesBeside(body, i).join('|'), curve: curves[i]! }));
      return withoutPoints(
        named.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)).map((e) => flatten(frame, e.curve)),
      );
    }
    case 'section': {
      const body = bodies.find((b) => b.id === source.body) ?? null;
      return body && withoutPoints(kernel.section(body.solid, frame).map((c) => flatten(frame, c)));
    }
    case 'silhouette': {
      const body = bodies.find((b) => b.id === source.body) ?? null;
      return body && outermost(kernel.outline(body.solid, frame).map((c) => flatten(FLAT, c)));
    }
  }
}

/** Outlines come from the kernel already flat. */
const FLAT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };

const withoutPoints = (pieces: readonly FlatPiece[]) => pieces.filter((p) => p.kind !== 'point');

/** Of all lines seen, those that lie on the outside: with the open on one side and the body on the other. */
function outermost(pieces: readonly FlatPiece[]): FlatPiece[] {
  const sketch: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  const drawn = withoutPoints(pieces);
  const ids = drawn.map((piece) => {
    const known = new Set(Object.keys(sketch.curves));
    addBorrowed(sketch, { kind: 'section', body: 'none' }, [piece]);
    return Object.keys(sketch.curves).find((id) => !known.has(id))!;
  });
  const inside = new Map<string, number>();
  for (const { loops } of findRegions(sketch).regions)
    for (const loop of loops) for (const p of loop.pieces) inside.set(p.curve, (inside.get(p.curve) ?? 0) + 1);
  const outer = drawn.filter((_, i) => inside.get(ids[i]!) === 1);
  return outer.length > 0 ? outer : drawn;
}

/**
 * The sketch with everything it borrows where its source now is.
 * @returns also a sentence when a source is gone or has changed its shape
 */
export function withBorrowed<S extends SketchGeometry>(
  sketch: S,
  frame: Frame,
  bodies: readonly Body[],
  kernel: SolidKernel,
): { sketch: S; note?: string } {
  const loans = Object.entries(sketch.borrowed ?? {});
  if (loans.length === 0) return { sketch };
  const copy = JSON.parse(JSON.stringify(sketch)) as S;
  let lost = 0;
  let reshaped = 0;
  for (const [id, { source }] of loans) {
    const pieces = borrowedPieces(source, frame, bodies, kernel);
    if (!pieces) lost++;
    else if (!followSource(copy, id, pieces)) reshaped++;
  }
  const count = (n: number, one: string) => (n === 1 ? `One ${one}` : `${n} ${one}s`);
  const notes = [
    ...(lost > 0
      ? [
          `${count(lost, 'borrowed edge')} lost ${lost === 1 ? 'its' : 'their'} source and stayed where it was; borrow again or cut it loose.`,
        ]
      : []),
    ...(reshaped > 0
      ? [`${count(reshaped, 'borrowed edge')} changed shape at the source; borrow again where it no longer fits.`]
      : []),
  ];
  return { sketch: copy, ...(notes.length > 0 ? { note: notes.join(' ') } : {}) };
}
