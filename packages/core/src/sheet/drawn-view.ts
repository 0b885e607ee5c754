/** A view of bodies: what is seen of them, which edge each line is, and where centres lie. */
import type { Look, SheetSpot } from '../document/sheet.ts';
import type { Body } from '../names/body.ts';
import { refOfEdge } from '../names/find-edge.ts';
import { refOfVertex } from '../names/find-vertex.ts';
import { ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { flatPoint, flatten } from '../slots/regions/flatten.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';
import { dot, type Frame } from '../space/vector.ts';

export interface DrawnLine {
  /** mm of the model, along the view’s x and y from the origin. */
  readonly piece: FlatPiece;
  readonly style: 'visible' | 'hidden' | 'smooth';
  /** The edge of the model that it is, or is a stretch of; null of a contour. */
  readonly edge: { readonly body: number; readonly edge: number } | null;
}

export type Flat4 = readonly [x0: number, y0: number, x1: number, y1: number];

/** A place in a view at which sizes can be taken. */
export interface ViewSpot {
  readonly spot: SheetSpot;
  readonly what: 'line' | 'round' | 'corner';
  readonly piece: FlatPiece;
}

export interface DrawnView {
  readonly look: Look;
  readonly lines: readonly DrawnLine[];
  /** Crosses at centres of rounds seen face on: the place, and how far they reach. */
  readonly crosses: readonly { readonly at: Vec2; readonly radius: number }[];
  /** Axes of rounds seen from the side, end to end. */
  readonly axes: readonly (readonly [Vec2, Vec2])[];
  readonly spots: readonly ViewSpot[];
  readonly box: Flat4;
}

const FLAT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };
/** Lines nearer alike than this, mm, are one. */
const SAME = 1e-4;

/** A solid that is seen; its names where sizes can be taken of it. */
export interface Seen {
  readonly solid: SolidHandle;
  readonly body: Body | null;
}

/** @param smooth edges over which faces run on are drawn as well */
export function drawView(
  look: Look,
  frame: Frame,
  seen: readonly Seen[],
  kernel: SolidKernel,
  { hidden, smooth }: { readonly hidden: boolean; readonly smooth: boolean },
): DrawnView {
  const edges = seen.flatMap(({ solid }, i) =>
    kernel.curves(solid).map((curve, edge) => ({ body: i, edge, piece: flatten(frame, curve) })),
  );
  const found = kernel
    .projected(
      seen.map((s) => s.solid),
      frame,
    )
    .filter((l) => (hidden || !l.hidden) && (l.kind !== 'smooth' || (smooth && !l.hidden)));
  const lines: DrawnLine[] = [];
  // Visible ones first: what lies under them is not drawn again.
  for (const own of [...found].sort((a, b) => Number(a.hidden) - Number(b.hidden))) {
    const piece = flatten(FLAT, own.curve);
    if (piece.kind === 'point') continue;
    const style = own.hidden ? 'hidden' : own.kind === 'smooth' ? 'smooth' : 'visible';
    for (const rest of uncovered(
      piece,
      lines.map((l) => l.piece),
    )) {
      const edge = edges.find((e) => e.body === own.solid && liesIn(rest, e.piece));
      lines.push({ piece: rest, style, edge: edge ? { body: edge.body, edge: edge.edge } : null });
    }
  }
  const pieces = lines.map((l) => l.piece);
  return { look, lines, ...centresOf(frame, seen, kernel), spots: spotsOf(frame, seen, lines, edges), box: boxOfPieces(pieces) }; // prettier-ignore
}

/** Three places on a piece. */
function placesOn(piece: FlatPiece): Vec2[] {
  if (piece.kind === 'line') {
    const [[x0, y0], [x1, y1]] = piece.points;
    return [0.1, 0.5, 0.9].map((t) => [x0 + t * (x1 - x0), y0 + t * (y1 - y0)]);
  }
  if (piece.kind === 'spline') return [1, Math.floor(piece.points.length / 2), piece.points.length - 2].map((i) => piece.points[Math.max(0, i)]!); // prettier-ignore
  if (piece.kind === 'point') return [...piece.points];
  const { center, major, minor, from, to } = ovalOf(piece);
  return [0.1, 0.5, 0.9].map((s) => {
    const t = from + s * (to - from);
    return [0, 1].map((i) => center[i]! + major[i]! * Math.cos(t) + minor[i]! * Math.sin(t)) as unknown as Vec2;
  });
}

/** Does all of a piece lie on another? Told by three places. */
const liesIn = (piece: FlatPiece, other: FlatPiece): boolean => placesOn(piece).every((p) => isOn(p, other));

function isOn([x, y]: Vec2, piece: FlatPiece): boolean {
  switch (piece.kind) {
    case 'point':
      return Math.hypot(x - piece.points[0][0], y - piece.points[0][1]) < SAME;
    case 'line':
      return awayFromLine([x, y], piece.points[0], piece.points[1]) < SAME;
    case 'spline':
      return piece.points.some((p, i, all) => i > 0 && awayFromLine([x, y], all[i - 1]!, p) < SAME * 10);
    default: {
      const { center, major, minor, long, short, from, to } = ovalOf(piece);
      const [dx, dy] = [x - center[0], y - center[1]];
      const [u, v] = [(dx * major[0] + dy * major[1]) / long ** 2, (dx * minor[0] + dy * minor[1]) / short ** 2];
      if (Math.abs(Math.hypot(u, v) - 1) * short > SAME) return false;
      const turn = 2 * Math.PI;
      const t = (((Math.atan2(v, u) - from) % turn) + turn) % turn;
      return t <= to - from + 1e-6 || t >= turn - 1e-6;
    }
  }
}

function awayFromLine([x, y]: Vec2, [x0, y0]: Vec2, [x1, y1]: Vec2): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(x0 + t * dx - x, y0 + t * dy - y);
}

/** What of a piece no other covers: lines by stretches, others whole or not at all. */
function uncovered(piece: FlatPiece, by: readonly FlatPiece[]): FlatPiece[] {
  if (piece.kind !== 'line')
    return by.some((other) => other.kind === piece.kind && liesIn(piece, other)) ? [] : [piece];
  const [a, b] = piece.points;
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (long < SAME) return [];
  const along: Vec2 = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
  const at = ([x, y]: Vec2) => (x - a[0]) * along[0] + (y - a[1]) * along[1];
  const off = ([x, y]: Vec2) => Math.abs((x - a[0]) * along[1] - (y - a[1]) * along[0]);
  let left: [number, number][] = [[0, long]];
  for (const other of by) {
    if (other.kind !== 'line' || off(other.points[0]) > SAME || off(other.points[1]) > SAME) continue;
    const [s, e] = [at(other.points[0]), at(other.points[1])].sort((p, q) => p - q) as [number, number];
    left = left.flatMap(([f, t]): [number, number][] => (e <= f || s >= t ? [[f, t]] : [[f, Math.max(f, s)], [Math.min(t, e), t]])); // prettier-ignore
  }
  const place = (s: number): Vec2 => [a[0] + s * along[0], a[1] + s * along[1]];
  return left.filter(([f, t]) => t - f > SAME * 10).map(([f, t]) => ({ kind: 'line', points: [place(f), place(t)] }));
}

/** Rounds that are turned faces of whole turns: where their centre lies seen face on, or their axis from the side. */
function centresOf(frame: Frame, seen: readonly Seen[], kernel: SolidKernel): Pick<DrawnView, 'crosses' | 'axes'> {
  const crosses = new Map<string, { at: Vec2; radius: number }>();
  const axes = new Map<string, [Vec2, Vec2]>();
  for (const { solid } of seen)
    for (const curve of kernel.curves(solid)) {
      if (curve.kind !== 'ellipse' || !curve.whole || Math.abs(curve.major - curve.minor) > SAME) continue;
      const facing = Math.abs(dot(curve.normal, frame.normal));
      const center = flatPoint(frame, curve.center);
      if (facing > 1 - 1e-9) {
        const key = center.map((c) => c.toFixed(3)).join();
        const known = crosses.get(key);
        if (!known || known.radius < curve.major) crosses.set(key, { at: center, radius: curve.major });
      } else if (facing < 1e-9) {
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

type FlatEdge = { readonly body: number; readonly edge: number; readonly piece: FlatPiece };

/** Straight and round edges that are drawn, and the corners at which they end. */
function spotsOf(
  frame: Frame,
  seen: readonly Seen[],
  lines: readonly DrawnLine[],
  edges: readonly FlatEdge[],
): ViewSpot[] {
  const drawn = new Set(lines.flatMap((l) => (l.edge ? [`${l.edge.body} ${l.edge.edge}`] : [])));
  const spots: ViewSpot[] = [];
  const corners = new Set<string>();
  for (const { body: at, edge, piece } of edges) {
    const { body } = seen[at]!;
    if (!body || !drawn.has(`${at} ${edge}`) || piece.kind === 'point' || piece.kind === 'spline') continue;
    const round = body.facts.edges[edge]!.kind === 'circle';
    const straight = piece.kind === 'line' && !round;
    if (straight || (round && piece.kind !== 'line')) spots.push({ spot: { edge: refOfEdge(body, edge) }, what: straight ? 'line' : 'round', piece }); // prettier-ignore
    for (const vertex of body.facts.edges[edge]!.ends) {
      const p = flatPoint(frame, body.facts.corners[vertex]!);
      const key = p.map((c) => c.toFixed(3)).join();
      if (corners.has(key)) continue;
      corners.add(key);
      spots.push({
        spot: { vertex: refOfVertex(body, vertex) },
        what: 'corner',
        piece: { kind: 'point', points: [p] },
      });
    }
  }
  return spots;
}

/** Of a curve the places where it reaches farthest are among those taken. */
function reachOf(piece: FlatPiece): readonly Vec2[] {
  if (piece.kind === 'point' || piece.kind === 'line' || piece.kind === 'spline') return piece.points;
  const { center, major, minor, from, to } = ovalOf(piece);
  const at = (t: number): Vec2 => [0, 1].map((i) => center[i]! + major[i]! * Math.cos(t) + minor[i]! * Math.sin(t)) as unknown as Vec2; // prettier-ignore
  const far = [0, 1].flatMap((i) => [0, 1, 2, 3, 4].map((k) => Math.atan2(minor[i]!, major[i]!) + (k - 2) * Math.PI));
  return [from, to, ...far.filter((t) => t > from && t < to)].map(at);
}

export function boxOfPieces(pieces: readonly FlatPiece[]): Flat4 {
  const all = pieces.flatMap(reachOf);
  if (all.length === 0) return [0, 0, 0, 0];
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}
