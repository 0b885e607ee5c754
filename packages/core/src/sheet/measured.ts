/** Sizes of a sheet as the model has them now: where they are taken in their view, and how large. */
import type { SheetSize, SheetSpot, SizeSpot } from '../document/sheet.ts';
import { onOval, ovalOf } from '../exchange/face-drawing.ts';
import type { Body } from '../names/body.ts';
import { findEdge, refOfEdge } from '../names/find-edge.ts';
import { findFace, refOfFace } from '../names/find-face.ts';
import { findVertex, refOfVertex } from '../names/find-vertex.ts';
import type { Finding } from '../references/references.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { flatPoint, flatten } from '../slots/regions/flatten.ts';
import { acrossCylinder, placesOfCut, type CutLine } from './cut-lines.ts';
import type { CurvesOf } from './drawn-view.ts';
import { chamferOfCone, chamferOfEdge, type ChamferTold } from './chamfer.ts';
import { holeAt, holesAlike, type HoleTold } from './hole.ts';
import { arcsOfRounding, roundingAt } from './rounding.ts';
import { seenThrough } from './seen-through.ts';
import { dot, unit, type Axis, type Frame, type Vec3 } from '../space/vector.ts';

type Stretch = readonly [Vec2, Vec2];
type Reach = readonly [near: number, far: number];

/** What a size is, in its view: mm of the model, from the view’s origin. */
export type Measured =
  /** Between two places, measured along a unit direction. */
  | { readonly is: 'length'; readonly from: Vec2; readonly to: Vec2; readonly along: Vec2; readonly value: number; readonly true: boolean; /** Of straight edges from end to end: lines that lead out begin where these end. */ readonly edges?: readonly [Stretch | null, Stretch | null] } // prettier-ignore
  | { readonly is: 'diameter' | 'radius'; readonly center: Vec2; readonly radius: number; readonly value: number; readonly whole: boolean; readonly true: boolean; /** Of an arc: where it runs, rad. */ readonly run: readonly [number, number]; /** Of rounds seen from the side: the two ends of a diameter. */ readonly ends: readonly [Vec2, Vec2] | null; readonly hole?: HoleCall; /** No edge of the part: the circle itself is drawn, as a centre line. */ readonly pitch?: true } // prettier-ignore
  | { readonly is: 'angle'; readonly apex: Vec2; readonly from: number; readonly value: number; readonly true: boolean; /** How far from the apex each of the two edges begins and ends, mm; that at `from` first. */ readonly edges?: readonly [Reach, Reach] } // prettier-ignore
  | { readonly is: 'chamfer'; readonly at: Vec2; readonly told: ChamferTold; readonly true: boolean }
  | { readonly is: 'note'; readonly at: Vec2 }
  | { readonly is: 'surface'; readonly at: Vec2 };

/** A hole as it is called out. */
export interface HoleCall extends HoleTold {
  readonly times: number;
  /** As M6; null of a plain one. */
  readonly thread: string | null;
}

/** What thread a face of a body is cut with, by its step. */
export type ThreadOf = (body: Body, face: number) => string | null;

export interface SizeState {
  readonly measured: Measured | null;
  /** Why it cannot be taken, as a sentence. */
  readonly lost: string | null;
  /** What it was taken at was found only probably: with these it would be sure. */
  readonly doubt: { readonly says: string; readonly of: readonly SizeSpot[] } | null;
}

/** A spot found in the model, as it looks in the view. */
interface Found {
  readonly piece: FlatPiece;
  /** Round edges only: mm, and whether it lies square to the view. */
  readonly round: { readonly radius: number; readonly facing: boolean; readonly whole: boolean } | null; // prettier-ignore
  /** Of a straight edge: does it lie in the plane of the paper? */
  readonly level: boolean;
  /** Of a cylinder cut along its axis: a diameter of it. */
  readonly across?: Stretch | null;
  /** Of the rim of a rounding seen from the side: its arc. */
  readonly rounding?: FlatPiece | null;
}

/** A spot with what it was found to be; the sentence says why there is none. */
type Spotted = { readonly found: Found; readonly doubt: string | null; readonly spot: SizeSpot } | { readonly lost: string }; // prettier-ignore

const LEVEL = 1e-7;
/** Lines that turn by less, rad, are parallel. */
const PARALLEL = 1e-6;

function spotted(
  spot: SizeSpot,
  frame: Frame,
  bodies: readonly Body[],
  curvesOf: CurvesOf,
  cut: readonly CutLine[],
): Spotted {
  // prettier-ignore
  const told = <T>(finding: Finding<T>, to: (found: T) => { found: Found; spot: SizeSpot }): Spotted => {
    if (finding.how === 'lost') return { lost: finding.why };
    return { ...to(finding.found), doubt: finding.how === 'probably' ? finding.why : null };
  };
  if ('cut' in spot) return spottedOnCut(spot, bodies, cut);
  if ('vertex' in spot)
    return told(findVertex(spot.vertex, bodies), ({ body, vertex }) => ({
      found: { piece: { kind: 'point', points: [flatPoint(frame, body.facts.corners[vertex]!)] }, round: null, level: true }, // prettier-ignore
      spot: { vertex: refOfVertex(body, vertex, bodies) },
    }));
  return told(findEdge(spot.edge, bodies), ({ body, edge }) => {
    const curves = curvesOf(body.solid);
    const curve = curves[edge]!;
    const piece = flatten(frame, curve);
    const isRound = curve.kind === 'ellipse' && Math.abs(curve.major - curve.minor) < 1e-9 * curve.major;
    const facing = isRound ? Math.abs(dot(curve.normal, frame.normal)) : 0;
    const round = isRound ? { radius: curve.major, facing: facing > 1 - 1e-9, whole: curve.whole } : null; // prettier-ignore
    const direction = curve.kind === 'line' ? unit([0, 1, 2].map((i) => curve.to[i]! - curve.from[i]!) as unknown as [number, number, number]) : null; // prettier-ignore
    const level = direction ? Math.abs(dot(direction, frame.normal)) < LEVEL : true;
    const through = seenThrough(body, edge, frame);
    if (through) return { found: { piece: through.piece, round: { radius: through.radius, facing: true, whole: through.piece.kind === 'circle' }, level: true }, spot: { edge: refOfEdge(body, edge, bodies) } }; // prettier-ignore
    const own = piece.kind === 'line' && round ? roundingAt(body, edge) : null;
    const rounding = (own && arcsOfRounding(body, own, frame))?.[0] ?? null;
    return { found: { piece, round, level, rounding }, spot: { edge: refOfEdge(body, edge, bodies) } };
  });
}

/** A line in which a section cuts a face. */
function spottedOnCut(
  { cut, nth, of }: Extract<SizeSpot, { cut: unknown }>,
  bodies: readonly Body[],
  lines: readonly CutLine[],
): Spotted {
  // prettier-ignore
  const finding = findFace(cut, bodies);
  if (finding.how === 'lost') return { lost: finding.why };
  const { body, face } = finding.found;
  const places = placesOfCut(lines, bodies.indexOf(body), face);
  const own = places[Math.min(nth, places.length - 1)];
  if (!own) return { lost: 'the section does not go through that face any more' };
  const { piece } = own;
  const moved = places.length === of ? null : `its face is cut in ${places.length} places now, and was in ${of}`;
  return {
    found: { piece, round: piece.kind === 'circle' || piece.kind === 'arc' ? { radius: ovalOf(piece).long, facing: true, whole: piece.kind === 'circle' } : null, level: true, across: acrossCylinder(places, places.indexOf(own), body, face) }, // prettier-ignore
    doubt: finding.how === 'probably' ? finding.why : moved,
    spot: { cut: refOfFace(body, face, bodies), nth: places.indexOf(own), of: places.length },
  };
}

/** Where a spot lies in the model: a round’s centre, an edge’s middle, a corner; null where it is lost. */
export function placeOfSpot(spot: SheetSpot, bodies: readonly Body[]): Vec3 | null {
  if ('vertex' in spot) {
    const finding = findVertex(spot.vertex, bodies);
    return finding.how === 'lost' ? null : finding.found.body.facts.corners[finding.found.vertex]!;
  }
  const finding = findEdge(spot.edge, bodies);
  if (finding.how === 'lost') return null;
  const { axis, middle, kind, faces } = finding.found.body.facts.edges[finding.found.edge]!;
  if (axis || kind === 'line') return axis?.origin ?? middle;
  // Where a bore ends in a round wall: on the bore’s axis.
  const bore = faces.map((f) => finding.found.body.facts.faces[f]!).find((f) => f.kind === 'cylinder' && f.hollow);
  return bore?.axis ? nearestOnAxis(bore.axis, middle) : middle;
}

function nearestOnAxis({ origin, direction }: Axis, p: Vec3): Vec3 {
  const by = dot(direction, [p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]]);
  return [origin[0] + by * direction[0], origin[1] + by * direction[1], origin[2] + by * direction[2]];
}

/** The things it is taken at, each by its ends or its one place; none of what is lost. */
export function placesOfMeasured(m: Measured | null): readonly (readonly Vec2[])[] {
  if (!m || m.is === 'angle') return [];
  if (m.is === 'length') return [m.edges?.[0] ?? [m.from], m.edges?.[1] ?? [m.to]];
  return 'at' in m ? [[m.at]] : [[m.center]];
}

/** The place a spot stands for: a round’s centre, a corner, the middle of a line. */
function placeOf({ piece }: Found): Vec2 {
  if (piece.kind === 'point') return piece.points[0];
  if (piece.kind === 'line' || piece.kind === 'spline') {
    const [a, b] = [piece.points[0]!, piece.points.at(-1)!];
    return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  }
  return piece.points[0];
}

/** @throws nothing: what cannot be measured is told */
export function measureSize(
  size: SheetSize,
  frame: Frame,
  bodies: readonly Body[],
  curvesOf: CurvesOf,
  threadOf: ThreadOf = () => null,
  cut: readonly CutLine[] = [],
): SizeState {
  // prettier-ignore
  const all = size.of.map((spot) => spotted(spot, frame, bodies, curvesOf, cut));
  const lost = all.find((s) => 'lost' in s);
  if (lost && 'lost' in lost) return { measured: null, lost: `what it was taken at is gone, as ${lost.lost}. Take it anew, or remove it.`, doubt: null }; // prettier-ignore
  const own = all as Exclude<Spotted, { lost: string }>[];
  const measured = size.kind === 'hole' ? calledOut(size, own[0]!.found, bodies, threadOf) : size.kind === 'chamfer' ? chamferAt(size, own[0]!.found, bodies) : withEdges(measuredOf(size, own.map((s) => s.found)), own.map((s) => s.found)); // prettier-ignore
  if (typeof measured === 'string') return { measured: null, lost: measured, doubt: null };
  const doubt = own.find((s) => s.doubt !== null);
  return { measured, lost: null, doubt: doubt ? { says: `What it is taken at is only probably the same: ${doubt.doubt}.`, of: own.map((s) => s.spot) } : null }; // prettier-ignore
}

/** Between two straight edges. */
function withEdges(measured: Measured | string, [one, other]: readonly Found[]): Measured | string {
  const stretch = (f: Found | undefined): Stretch | null => (f?.piece.kind === 'line' ? f.piece.points : null);
  if (typeof measured === 'string' || measured.is !== 'length' || !other) return measured;
  return { ...measured, edges: [stretch(one), stretch(other)] };
}

/** A sentence where the size cannot be taken there. */
function measuredOf({ kind, ordinate }: SheetSize, found: readonly Found[]): Measured | string {
  const [one, other] = found as [Found, Found | undefined];
  switch (kind) {
    case 'note':
    case 'surface':
      return { is: kind, at: one.piece.kind === 'line' || !one.round ? placeOf(one) : rimOf(one) };
    case 'hole':
    case 'chamfer':
    case 'diameter':
    case 'radius':
      return roundSize(kind === 'radius' ? kind : 'diameter', one);
    case 'pitch':
      return other ? pitchCircle(one, other) : 'A pitch circle is told of a round and of the one about which it lies; pick both.'; // prettier-ignore
    case 'angle':
      return other ? angleBetween(one, other) : 'An angle is taken between two straight edges; pick another.';
    case 'straight':
      return straightBetween(one, other);
    case 'across':
    case 'up':
      return alongAxis(kind === 'across' ? [1, 0] : [0, 1], one, other, ordinate === true);
  }
}

function calledOut(size: SheetSize, found: Found, bodies: readonly Body[], threadOf: ThreadOf): Measured | string {
  const round = roundSize('diameter', found);
  const spot = size.of[0]!;
  const finding = 'edge' in spot ? findEdge(spot.edge, bodies) : null;
  if (typeof round === 'string' || round.is !== 'diameter' || !finding || finding.how === 'lost') return typeof round === 'string' ? round : 'A hole is called out at its round edge; pick that.'; // prettier-ignore
  const { body, edge } = finding.found;
  const hole = holeAt(body, edge);
  if (typeof hole === 'string') return hole;
  const { told, drill } = hole;
  return { ...round, value: told.diameter, hole: { ...told, times: holesAlike(body, hole).length, thread: threadOf(body, drill) } }; // prettier-ignore
}

function chamferAt({ of: [spot] }: SheetSize, found: Found, bodies: readonly Body[]): Measured | string {
  const finding = spot && 'edge' in spot ? findEdge(spot.edge, bodies) : null;
  const cone = found.round && finding && finding.how !== 'lost' ? chamferOfCone(finding.found.body, finding.found.edge) : null; // prettier-ignore
  const told = found.round ? cone : chamferOfEdge(found.piece);
  if (!told)
    return 'A chamfer is told of an edge that stands at a slant in its view, or of the rim of a cone; pick one.';
  const at = found.round && found.piece.kind !== 'line' ? rimOf(found) : found.piece.kind === 'line' && found.round ? found.piece.points[1] : placeOf(found); // prettier-ignore
  return { is: 'chamfer', at, told, true: found.round !== null || found.level };
}

const rimOf = ({ piece }: Found): Vec2 => {
  if (piece.kind === 'point' || piece.kind === 'line' || piece.kind === 'spline') return piece.points[0]!;
  const oval = ovalOf(piece);
  return onOval(oval, (oval.from + oval.to) / 2);
};

function roundSize(kind: 'diameter' | 'radius', { piece, round, across, rounding }: Found): Measured | string {
  if (rounding?.kind === 'arc' && kind === 'radius') {
    const { center, long, from, to } = ovalOf(rounding);
    return { is: kind, center, radius: long, value: long, whole: false, true: true, run: [from, to], ends: null };
  }
  if (across && kind === 'diameter') {
    const [p, q] = across;
    const value = Math.hypot(q[0] - p[0], q[1] - p[1]);
    return { is: kind, center: [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2], radius: value / 2, value, whole: true, true: true, run: [0, 0], ends: across }; // prettier-ignore
  }
  if (!round) return `A ${kind} is taken of a circle or an arc; this is neither.`;
  const { radius } = round;
  const value = kind === 'diameter' ? 2 * radius : radius;
  if (piece.kind === 'line') {
    const ends = piece.points;
    const center: Vec2 = [(ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2];
    if (kind === 'radius' || !round.whole) return `Seen from the side this round shows no ${kind}; take it in a view onto it.`; // prettier-ignore
    return { is: kind, center, radius, value, whole: true, true: true, run: [0, 0], ends };
  }
  if (piece.kind === 'point' || piece.kind === 'spline') return `This round shows no ${kind} in this view.`;
  const { center, from, to } = ovalOf(piece);
  return { is: kind, center, radius, value, whole: round.whole, true: round.facing, run: [from, to], ends: null };
}

/** The circle about a round on which another lies. */
function pitchCircle(one: Found, about: Found): Measured | string {
  if (!one.round || !about.round) return 'A pitch circle is told between two rounds; pick those.';
  const [p, center] = [placeOf(one), placeOf(about)];
  const radius = Math.hypot(p[0] - center[0], p[1] - center[1]);
  if (radius < PARALLEL) return 'Both rounds lie about one centre; pick one that lies aside.';
  return { is: 'diameter', center, radius, value: 2 * radius, whole: true, true: one.round.facing && about.round.facing, run: [0, 0], ends: null, pitch: true }; // prettier-ignore
}

function directionOf({ piece }: Found): Vec2 | null {
  if (piece.kind !== 'line') return null;
  const [a, b] = piece.points;
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
}

function straightBetween(one: Found, other: Found | undefined): Measured | string {
  const direction = directionOf(one);
  if (!other) {
    // An edge by itself: its own length.
    if (!direction || one.round) return 'A length is taken of a straight edge, or between two; pick another.';
    const [from, to] = (one.piece as Extract<FlatPiece, { kind: 'line' }>).points;
    return { is: 'length', from, to, along: direction, value: Math.hypot(to[0] - from[0], to[1] - from[1]), true: one.level }; // prettier-ignore
  }
  const second = directionOf(other);
  const line = direction ?? second;
  const [p, q] = [placeOf(one), placeOf(other)];
  if (line) {
    if (direction && second && Math.abs(direction[0] * second[1] - direction[1] * second[0]) > PARALLEL)
      return 'These edges are not parallel, so no length lies between them; take an angle, or corners.';
    return lengthAlong([-line[1], line[0]], p, q);
  }
  const long = Math.hypot(q[0] - p[0], q[1] - p[1]);
  if (long < PARALLEL) return 'Both lie at the same place in this view; pick two that are apart.';
  return lengthAlong([(q[0] - p[0]) / long, (q[1] - p[1]) / long], p, q);
}

const lengthOn = (along: Vec2, p: Vec2, q: Vec2): number => (q[0] - p[0]) * along[0] + (q[1] - p[1]) * along[1];

function lengthAlong(along: Vec2, p: Vec2, q: Vec2): Measured | string {
  const by = lengthOn(along, p, q);
  if (Math.abs(by) < PARALLEL) return 'Both lie at the same place in this direction; pick two that are apart.';
  return { is: 'length', from: p, to: q, along, value: Math.abs(by), true: true };
}

function alongAxis(along: Vec2, one: Found, other: Found | undefined, ordinate: boolean): Measured | string {
  if (ordinate && other) return { is: 'length', from: placeOf(one), to: placeOf(other), along, value: Math.abs(lengthOn(along, placeOf(one), placeOf(other))), true: true }; // prettier-ignore
  if (other) return lengthAlong(along, placeOf(one), placeOf(other));
  if (one.piece.kind !== 'line') return 'A length is taken of a straight edge, or between two; pick another.';
  const measured = lengthAlong(along, ...one.piece.points);
  return typeof measured === 'string' ? measured : { ...measured, true: one.level } as Measured; // prettier-ignore
}

function angleBetween(one: Found, other: Found): Measured | string {
  const [u, v] = [directionOf(one), directionOf(other)];
  if (!u || !v || one.round || other.round) return 'An angle is taken between two straight edges; pick another.';
  const turn = u[0] * v[1] - u[1] * v[0];
  if (Math.abs(turn) < PARALLEL) return 'These edges are parallel, so there is no angle between them; take a length.';
  const [p, q] = [placeOf(one), placeOf(other)];
  const t = ((q[0] - p[0]) * v[1] - (q[1] - p[1]) * v[0]) / turn;
  const apex: Vec2 = [p[0] + t * u[0], p[1] + t * u[1]];
  // Of the four corners the one in which both edges lie.
  const towards = (at: Vec2) => Math.atan2(at[1] - apex[1], at[0] - apex[0]);
  const away = (f: Found): number => {
    const far = (f.piece as Extract<FlatPiece, { kind: 'line' }>).points.reduce((a, b) => (Math.hypot(a[0] - apex[0], a[1] - apex[1]) > Math.hypot(b[0] - apex[0], b[1] - apex[1]) ? a : b)); // prettier-ignore
    return towards(far);
  };
  const [a, b] = [away(one), away(other)];
  const reach = (f: Found, t: number): Reach => {
    const ends = (f.piece as Extract<FlatPiece, { kind: 'line' }>).points.map((p) => (p[0] - apex[0]) * Math.cos(t) + (p[1] - apex[1]) * Math.sin(t)); // prettier-ignore
    return [Math.max(0, Math.min(...ends)), Math.max(...ends)];
  };
  const [ra, rb] = [reach(one, a), reach(other, b)];
  const whole = 2 * Math.PI;
  const between = (((b - a) % whole) + whole) % whole;
  const level = one.level && other.level;
  return between <= Math.PI
    ? { is: 'angle', apex, from: a, value: between, true: level, edges: [ra, rb] }
    : { is: 'angle', apex, from: b, value: whole - between, true: level, edges: [rb, ra] };
}
