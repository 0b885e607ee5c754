/** What a sketch borrows, found on the bodies as they are before it. */
import { curveOfEdge, type Body } from '../../names/body.ts';
import { findBody, refOfBody } from '../../names/find-body.ts';
import { findEdge, refOfEdge } from '../../names/find-edge.ts';
import { findFace, refOfFace } from '../../names/find-face.ts';
import type { Finding } from '../../references/references.ts';
import { addBorrowed, followSource } from '../../sketch/borrow/borrow.ts';
import type { FlatPiece, LoanPiece } from '../../sketch/borrow/flat-piece.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import type { BorrowSource, SketchGeometry } from '../../sketch/schema.ts';
import type { Resolving } from '../../slots/resolving.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import type { Frame } from '../../space/vector.ts';
import { flatPoint, flatten } from '../../slots/regions/flatten.ts';

/** The source as it now is: its geometry on the sketch plane, and the same source picked afresh. */
export interface FoundSource {
  readonly pieces: readonly LoanPiece[];
  readonly source: BorrowSource;
}

export function findSource(
  source: BorrowSource,
  frame: Frame,
  bodies: readonly Body[],
  kernel: SolidKernel,
): Finding<FoundSource> {
  switch (source.kind) {
    case 'edge':
      return mapped(findEdge(source.edge, bodies), ({ body, edge }) => ({
        pieces: [{ piece: flatten(frame, curveOfEdge(body, edge, kernel)), key: null }],
        source: { ...source, edge: refOfEdge(body, edge, bodies) },
      }));
    case 'vertex':
      return mapped(findEdge(source.edge, bodies), ({ body, edge }) => {
        const at = curveOfEdge(body, edge, kernel)[source.end];
        return {
          pieces: [{ piece: { kind: 'point', points: [flatPoint(frame, at)] }, key: null }],
          source: { ...source, edge: refOfEdge(body, edge, bodies) },
        };
      });
    case 'face':
      return mapped(findFace(source.face, bodies), ({ body, face }) => ({
        pieces: piecesOfFace(body, face, frame, kernel),
        source: { ...source, face: refOfFace(body, face, bodies) },
      }));
    case 'section':
      return mapped(findBody(source.body, bodies), (body) => ({
        pieces: nameless(kernel.section(body.solid, frame).map((c) => flatten(frame, c))),
        source: { ...source, body: refOfBody(body, bodies) },
      }));
    case 'silhouette':
      return mapped(findBody(source.body, bodies), (body) => ({
        pieces: nameless(outermost(contours(body, frame, kernel))),
        source: { ...source, body: refOfBody(body, bodies) },
      }));
  }
}

/** Sharp edges and contours that are not hidden. */
const contours = (body: Body, frame: Frame, kernel: SolidKernel): FlatPiece[] =>
  kernel.projected([body.solid], frame, { hidden: false, smooth: false }).map((l) => flatten(FLAT, l.curve));

function mapped<A, B>(finding: Finding<A>, to: (found: A) => B): Finding<B> {
  if (finding.how === 'lost') return { ...finding, candidates: finding.candidates.slice(0, 1).map(to) };
  return { ...finding, found: to(finding.found) };
}

const nameless = (pieces: readonly FlatPiece[]): LoanPiece[] =>
  pieces.filter((p) => p.kind !== 'point').map((piece) => ({ piece, key: null }));

/** All edges round a face, each told apart by the face on its other side. */
function piecesOfFace(body: Body, face: number, frame: Frame, kernel: SolidKernel): LoanPiece[] {
  const curves = kernel.curves(body.solid);
  return body.facts.edges.flatMap((edge, i) => {
    if (!edge.faces.includes(face)) return [];
    const piece = flatten(frame, curves[i]!);
    const beyond = edge.faces.find((f) => f !== face) ?? face;
    return piece.kind === 'point' ? [] : [{ piece, key: body.faceNames[beyond]![0]!.text }];
  });
}

/** Outlines come from the kernel already flat. */
const FLAT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };

/** Of all lines seen, those that lie on the outside: with the open on one side and the body on the other. */
function outermost(pieces: readonly FlatPiece[]): FlatPiece[] {
  const sketch: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  const drawn = pieces.filter((p) => p.kind !== 'point');
  const ids = drawn.map((piece) => {
    const known = new Set(Object.keys(sketch.curves));
    addBorrowed(sketch, { kind: 'section', body: { name: 'none' } }, [{ piece, key: null }]);
    return Object.keys(sketch.curves).find((id) => !known.has(id))!;
  });
  const inside = new Map<string, number>();
  for (const { loops } of findRegions(sketch).regions)
    for (const loop of loops) for (const p of loop.pieces) inside.set(p.curve, (inside.get(p.curve) ?? 0) + 1);
  const outer = drawn.filter((_, i) => inside.get(ids[i]!) === 1);
  return outer.length > 0 ? outer : drawn;
}

/**
 * The sketch with everything it borrows where its source now is; what is lost stays where it was.
 * Sources that are lost or uncertain are told as doubts.
 * @returns also a sentence when a source has other edges than were taken
 */
export function withBorrowed(
  sketch: SketchGeometry,
  frame: Frame,
  context: Resolving,
): { readonly sketch: SketchGeometry; readonly note?: string } {
  const loans = Object.entries(sketch.borrowed ?? {});
  if (loans.length === 0) return { sketch };
  const copy = structuredClone(sketch);
  let [lost, gone, added] = [0, 0, 0];
  for (const [index, [id, { source }]] of loans.entries()) {
    const finding = findSource(source, frame, context.bodies, context.kernel);
    if (finding.how === 'lost') {
      lost++;
      continue;
    }
    if (finding.how === 'probably')
      context.doubt({
        slot: 'geometry',
        index,
        how: 'probably',
        says: `What ${NAMES[source.kind]} is borrowed from is probably the right one: ${finding.why}; look, and keep it or borrow again.`,
        proposed: { loan: id, source: finding.found.source },
      });
    const followed = followSource(copy, id, finding.found.pieces);
    gone += followed.gone;
    added += followed.added;
  }
  const edges = (n: number) => (n === 1 ? 'One borrowed edge' : `${n} borrowed edges`);
  const notes = [
    ...(lost > 0
      ? [
          `${edges(lost)} lost ${lost === 1 ? 'its' : 'their'} source and stayed where it was; borrow again or cut it loose.`,
        ]
      : []),
    ...(gone > 0
      ? [
          `${edges(gone)} ${gone === 1 ? 'is' : 'are'} no longer at the source and stayed; borrow again or remove what is left.`,
        ]
      : []),
    ...(added > 0 ? [`The source has ${added} more ${added === 1 ? 'edge' : 'edges'} than were borrowed.`] : []),
  ];
  return { sketch: copy, ...(notes.length > 0 ? { note: notes.join(' ') } : {}) };
}

const NAMES = {
  edge: 'an edge',
  vertex: 'a point',
  face: 'the edges of a face',
  section: 'a section',
  silhouette: 'an outline',
} as const;
