/** A view of bodies: what is seen of them, which edge each line is, and where centres lie. */
import type { Look, SheetSpot } from '../document/sheet.ts';
import type { Body } from '../names/body.ts';
import { refOfEdge } from '../names/find-edge.ts';
import { refOfFace } from '../names/find-face.ts';
import { movedCurve } from '../names/moved-facts.ts';
import { refOfVertex } from '../names/find-vertex.ts';
import type { Break } from './break.ts';
import { spotsOfCut, type CutLine } from './cut-lines.ts';
import { cutOpen, type CutOpen, type CutPlan, type Piece } from './cut-open.ts';
import type { OfferedSpot } from './offered-spot.ts';
import { NearPieces } from './near-pieces.ts';
import { arcsOfRounding, roundingAt } from './rounding.ts';
import { seenThrough } from './seen-through.ts';
import { boxOfPieces, liesIn, SAME, uncovered, type Flat4 } from './piece-places.ts';
import type { FaceRef } from '../references/references.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { flatPoint, flatten } from '../slots/regions/flatten.ts';
import type { EdgeCurve, SolidHandle, SolidKernel } from '../solid/kernel.ts';
import type { Transform } from '../space/transform.ts';
import { dot, type Frame, type Vec3 } from '../space/vector.ts';

export interface DrawnLine {
  /** mm of the model, along the view’s x and y from the origin. */
  readonly piece: FlatPiece;
  readonly style: 'visible' | 'hidden' | 'smooth';
  /** The edge of the model that it is, or is a stretch of; null of a contour. */
  readonly edge: { readonly body: number; readonly edge: number } | null;
  /** Which of the solids that are drawn it is of. */
  readonly of: number;
}

/** An edge or a corner: a place of the model, which other views may be told by as well. */
export interface ViewSpot extends OfferedSpot {
  readonly spot: SheetSpot;
  /** What it is among the bodies that are drawn: an edge, or a corner, by its place. */
  readonly at: { readonly body: number; readonly index: number };
}

/** Is it no line of a section, which only sizes can be taken at? */
export const isOfModel = (spot: OfferedSpot): spot is ViewSpot => 'at' in spot;

export interface DrawnView {
  readonly look: Look;
  readonly frame: Frame;
  readonly lines: readonly DrawnLine[];
  /** Crosses at centres of rounds seen face on: the place, and how far they reach. */
  readonly crosses: readonly { readonly at: Vec2; readonly radius: number }[];
  /** Axes of rounds seen from the side, end to end. */
  readonly axes: readonly (readonly [Vec2, Vec2])[];
  readonly spots: readonly ViewSpot[];
  /** Of a section: outlines of the faces that were cut open, and of which solid each is. */
  readonly cut: readonly { readonly of: number; readonly outline: readonly FlatPiece[] }[];
  /** Of a section: where faces were cut, and what of that is offered besides edges. */
  readonly cutLines: readonly CutLine[];
  readonly cutSpots: readonly OfferedSpot[];
  readonly box: Flat4;
  /** Of a view straight onto a slanted face: the middle of that face. */
  readonly onto?: Vec3;
  /** What of it is left out where it stands on the paper. */
  readonly broken: Break | null;
  /** Of a detail: what it shows of its view, mm of the model. */
  readonly round?: { readonly center: Vec2; readonly radius: number };
}

const FLAT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };

/** A solid that is seen, with its names. */
export interface Seen {
  readonly solid: SolidHandle;
  readonly body: Body;
  /** What it is a copy of, and where that was moved to. */
  readonly copy?: { readonly of: SolidHandle; readonly to: Transform };
  /** Stands for its exact content and place. */
  readonly key: string;
}

/** The curves of a solid’s edges, asked of the kernel once. */
export type CurvesOf = (solid: SolidHandle) => readonly EdgeCurve[];

/** Of one piece of work: solids are let go of after it. @param seen those of them that are copies of others */
export function rememberedCurves(kernel: SolidKernel, seen: readonly Seen[] = []): CurvesOf {
  const known = new Map<SolidHandle, readonly EdgeCurve[]>();
  const copies = new Map(seen.flatMap(({ solid, copy }) => (copy ? [[solid, copy] as const] : [])));
  function curvesOf(solid: SolidHandle): readonly EdgeCurve[] {
    const copy = copies.get(solid);
    const own = known.get(solid) ?? (copy ? curvesOf(copy.of).map((c) => movedCurve(copy.to, c)) : kernel.curves(solid)); // prettier-ignore
    known.set(solid, own);
    return own;
  }
  return curvesOf;
}

export interface ViewStyle {
  readonly hidden: boolean;
  /** Edges over which faces run on are drawn as well. */
  readonly smooth: boolean;
  /** How it is cut open; null where it is whole. */
  readonly cut: CutPlan | null;
}

/** @throws KernelError; SectionMisses where a cut goes through nothing */
export function drawView(
  look: Look,
  frame: Frame,
  seen: readonly Seen[],
  kernel: SolidKernel,
  curvesOf: CurvesOf,
  style: ViewStyle,
): DrawnView {
  if (style.cut === null) return drawSolids(look, frame, seen, seen.map(({ solid }, of) => ({ solid, of })), { faces: [], lines: [] }, kernel, curvesOf, style); // prettier-ignore
  const { cut } = style;
  const open = cutOpen(frame, cut, seen, kernel);
  try {
    return withoutSeams(drawSolids(look, frame, seen, open.kept, open, kernel, curvesOf, style), cut);
  } finally {
    open.done();
  }
}

/** Where one stretch of a cut goes over into the next no edge is drawn; where a half section ends, the middle is. */
function withoutSeams(drawn: DrawnView, { axis, strips }: CutPlan): DrawnView {
  const k = axis === 'x' ? 0 : 1;
  const seams = strips.slice(0, -1).map((s) => s.to);
  const half = strips.some((s) => s.depth === null);
  const liesAt = (points: readonly Vec2[]) => seams.some((at) => points.every((p) => Math.abs(p[k] - at) < SAME));
  const lines = drawn.lines.filter(({ piece, edge }) => piece.kind !== 'line' || !liesAt(piece.points) || (edge !== null && !half)); // prettier-ignore
  if (!half) return { ...drawn, lines };
  const [x0, y0, x1, y1] = drawn.box;
  const middles = seams.map((at): readonly [Vec2, Vec2] => (k === 0 ? [[at, y0], [at, y1]] : [[x0, at], [x1, at]])); // prettier-ignore
  return { ...drawn, lines, axes: [...drawn.axes.filter((ends) => !liesAt(ends)), ...middles] };
}

/** @param shown what is drawn, and which of the solids it is of, or is a piece of */
function drawSolids(
  look: Look,
  frame: Frame,
  seen: readonly Seen[],
  shown: readonly Piece[],
  cut: Pick<CutOpen, 'faces' | 'lines'>,
  kernel: SolidKernel,
  curvesOf: CurvesOf,
  style: ViewStyle,
): DrawnView {
  const { hidden, smooth } = style;
  // Where sizes can be taken. Seams are no edges of the shape, though a contour may lie on one.
  const edges = seen.flatMap(({ solid, body }, i) =>
    curvesOf(solid).flatMap((curve, edge) => {
      const [one, other] = body.facts.edges[edge]!.faces;
      return one === other ? [] : [{ body: i, edge, piece: flatten(frame, curve) }];
    }),
  );
  const found = kernel.projected(shown.map((p) => p.solid), frame, { hidden, smooth }); // prettier-ignore
  const lines: DrawnLine[] = [];
  const drawn = new NearPieces<DrawnLine>();
  const edgesOf = seen.map((_, i) => new NearPieces(edges.filter((e) => e.body === i)));
  const isRound = (e: FlatEdge) => seen[e.body]!.body.facts.edges[e.edge]!.kind === 'circle';
  // Visible ones first: what lies under them is not drawn again.
  for (const own of [...found].sort((a, b) => Number(a.hidden) - Number(b.hidden))) {
    const piece = flatten(FLAT, own.curve);
    if (piece.kind === 'point') continue;
    const style = own.hidden ? 'hidden' : own.kind === 'smooth' ? 'smooth' : 'visible';
    const { of } = shown[own.solid]!;
    for (const rest of uncovered(
      piece,
      drawn.near(piece).map((l) => l.piece),
    )) {
      const under = edgesOf[of]!.near(rest).filter((e) => liesIn(rest, e.piece));
      // A slanted rim may look round as well; sizes are taken of the one that is.
      const edge = (rest.kind === 'line' ? undefined : under.find(isRound)) ?? under[0];
      const line: DrawnLine = { piece: rest, style, edge: edge ? { body: edge.body, edge: edge.edge } : null, of };
      lines.push(line);
      drawn.add(line);
    }
  }
  const pieces = lines.map((l) => l.piece);
  const spots = spotsOf(frame, seen, lines, edges);
  return { look, frame, lines, ...centresOf(frame, seen, curvesOf, style.cut), spots, cut: cut.faces, cutLines: cut.lines, cutSpots: spotsOfCut(cut.lines, seen.map((s) => s.body), spots), box: boxOfPieces(pieces), broken: null }; // prettier-ignore
}

/** Is a place cut away, and not on the plane of the cut? */
function isAway(place: Vec3, { axis, strips }: CutPlan, frame: Frame): boolean {
  const along = dot(place, frame[axis]);
  const { depth } = strips.find((s) => along < s.to) ?? strips.at(-1)!;
  return depth !== null && dot(place, frame.normal) > depth + SAME;
}

/**
 * Rounds that are turned faces of whole turns: where their centre lies seen face on, or their axis from the side. Cut
 * open they are halves of such, and have their centres still.
 */
function centresOf(
  frame: Frame,
  seen: readonly Seen[],
  curvesOf: CurvesOf,
  cut: CutPlan | null,
): Pick<DrawnView, 'crosses' | 'axes'> {
  const crosses = new Map<string, { at: Vec2; radius: number }>();
  const axes = new Map<string, [Vec2, Vec2]>();
  const cross = (at: Vec2, radius: number): void => {
    const key = at.map((c) => c.toFixed(3)).join();
    const known = crosses.get(key);
    if (!known || known.radius < radius) crosses.set(key, { at, radius });
  };
  for (const { solid, body } of seen)
    for (const [edge, curve] of curvesOf(solid).entries()) {
      const through = seenThrough(body, edge, frame);
      if (through?.piece.kind === 'circle' && !(cut && isAway(through.center, cut, frame))) cross(through.piece.points[0], through.radius); // prettier-ignore
      if (curve.kind !== 'ellipse' || Math.abs(curve.major - curve.minor) > SAME) continue;
      // The ends of slots have their middles marked, rounded corners not.
      const isHalf = body.facts.edges[edge]!.length > Math.PI * curve.major * (1 - 1e-6);
      if (!isHalf) continue;
      if (cut && isAway(curve.center, cut, frame)) continue;
      const facing = Math.abs(dot(curve.normal, frame.normal));
      const center = flatPoint(frame, curve.center);
      if (facing > 1 - 1e-9) {
        cross(center, curve.major);
      } else if (facing < 1e-9 && curve.whole) {
        const along: Vec2 = [dot(curve.normal, frame.x), dot(curve.normal, frame.y)];
        const foot = center[0] * -along[1] + center[1] * along[0];
        const sign = along[0] > 1e-9 || (Math.abs(along[0]) <= 1e-9 && along[1] > 0) ? 1 : -1;
        const key = [along[0] * sign, along[1] * sign, foot * sign].map((c) => c.toFixed(3)).join();
        const known = axes.get(key);
        axes.set(key, known ? farthest([...known, center], along) : [center, center]);
      }
    }
  return { crosses: [...crosses.values()], axes: [...axes.values()].filter(([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) > SAME) }; // prettier-ignore
}

function farthest(points: readonly Vec2[], [u, v]: Vec2): [Vec2, Vec2] {
  const sorted = [...points].sort((p, q) => p[0] * u + p[1] * v - q[0] * u - q[1] * v);
  return [sorted[0]!, sorted.at(-1)!];
}

/** A flat face at an edge that is seen edge-on, and stands square to none of the view’s axes. */
function slantedAt({ x, y, normal }: Frame, body: Body, edge: number): FaceRef | null {
  const face = body.facts.edges[edge]!.faces.find((f) => {
    const { normal: own, kind } = body.facts.faces[f]!;
    if (kind !== 'plane' || !own || Math.abs(dot(own, normal)) > SQUARE) return false;
    return [x, y].every((axis) => Math.abs(dot(own, axis)) > SQUARE);
  });
  return face === undefined ? null : refOfFace(body, face);
}
const SQUARE = 1e-6;

type FlatEdge = { readonly body: number; readonly edge: number; readonly piece: FlatPiece };

/** How edges and corners of the solids that are drawn are named: found once for all views of one piece of work. */
const named = new WeakMap<readonly Seen[], Map<string, SheetSpot>>();

function namedIn(seen: readonly Seen[]): {
  edge(body: number, edge: number): SheetSpot;
  vertex(body: number, vertex: number): SheetSpot;
} {
  // prettier-ignore
  const known = named.get(seen) ?? new Map<string, SheetSpot>();
  named.set(seen, known);
  const all = seen.map((s) => s.body);
  const once = (key: string, make: () => SheetSpot): SheetSpot => {
    const spot = known.get(key) ?? make();
    known.set(key, spot);
    return spot;
  };
  return {
    edge: (body, edge) => once(`e ${body} ${edge}`, () => ({ edge: refOfEdge(all[body]!, edge, all) })),
    vertex: (body, vertex) => once(`v ${body} ${vertex}`, () => ({ vertex: refOfVertex(all[body]!, vertex, all) })),
  };
}

/** Straight and round edges that are drawn, and the corners at which they end. */
function spotsOf(
  frame: Frame,
  seen: readonly Seen[],
  lines: readonly DrawnLine[],
  edges: readonly FlatEdge[],
): ViewSpot[] {
  const drawn = new Set(lines.flatMap((l) => (l.edge ? [`${l.edge.body} ${l.edge.edge}`] : [])));
  const names = namedIn(seen);
  const spots: ViewSpot[] = [];
  const corners = new Set<string>();
  for (const { body: at, edge, piece } of edges) {
    const { body } = seen[at]!;
    // Its own edges are smooth, and mostly not drawn; its outline is.
    const rounding = piece.kind === 'line' ? roundingAt(body, edge) : null;
    for (const arc of (rounding && arcsOfRounding(body, rounding, frame)) ?? [])
      spots.push({ spot: names.edge(at, edge), what: 'rounding', piece: arc, slanted: null, at: { body: at, index: edge } }); // prettier-ignore
    const through = seenThrough(body, edge, frame);
    if (through && drawn.has(`${at} ${edge}`)) spots.push({ spot: names.edge(at, edge), what: 'round', piece: through.piece, slanted: null, at: { body: at, index: edge } }); // prettier-ignore
    if (through || !drawn.has(`${at} ${edge}`) || piece.kind === 'point' || piece.kind === 'spline') continue;
    const round = body.facts.edges[edge]!.kind === 'circle';
    const what = piece.kind === 'line' ? (round ? 'side' : 'line') : round ? 'round' : null;
    const slanted = what === 'line' ? slantedAt(frame, body, edge) : null;
    if (what) spots.push({ spot: names.edge(at, edge), what, piece, slanted, at: { body: at, index: edge } }); // prettier-ignore
    // Where a whole round begins is a place of the kernel's own, no corner.
    const ends = new Set(body.facts.edges[edge]!.ends);
    for (const vertex of ends.size > 1 ? ends : []) {
      const p = flatPoint(frame, body.facts.corners[vertex]!);
      const key = p.map((c) => c.toFixed(3)).join();
      if (corners.has(key)) continue;
      corners.add(key);
      spots.push({
        spot: names.vertex(at, vertex),
        what: 'corner',
        piece: { kind: 'point', points: [p] },
        slanted: null,
        at: { body: at, index: vertex },
      });
    }
  }
  return spots;
}
