/** What sizes say of a shape’s freedoms: a row over its unknowns each. */
import type { SheetSize, SizeSpot } from '../../document/sheet.ts';
import type { Body } from '../../names/body.ts';
import { findEdge } from '../../names/find-edge.ts';
import { findFace } from '../../names/find-face.ts';
import { findVertex } from '../../names/find-vertex.ts';
import { facesAtCorner } from '../../names/neighbours.ts';
import { cross, dot, minus, unit, type Frame, type Vec3 } from '../../space/vector.ts';
import { placesOfCut } from '../cut-lines.ts';
import type { DrawnView, ViewSpot } from '../drawn-view.ts';
import type { Measured } from '../measured.ts';
import { seenThrough } from '../seen-through.ts';
import { rimAt } from './rims.ts';
import type { Motion, RoundFreedom, Shape, TorusFreedom } from './shape.ts';

export interface Found {
  readonly body: number;
  readonly at: Vec3;
  readonly faces: readonly number[];
  /** Of an edge. */
  readonly edge: number | null;
  /** The face of a bore whose edge is no circle, but is seen as one. */
  readonly through?: number | undefined;
}

export type CutView = Pick<DrawnView, 'frame' | 'cutLines'>;

/** Where a spot is in the shape; null where it is lost. */
/** @param cut where the view of it is cut open */
export function foundSpot(spot: SizeSpot, bodies: readonly Body[], cut: CutView): Found | null {
  if ('cut' in spot) {
    const finding = findFace(spot.cut, bodies);
    if (finding.how === 'lost') return null;
    const body = bodies.indexOf(finding.found.body);
    const own = placesOfCut(cut.cutLines, body, finding.found.face)[spot.nth];
    if (!own) return null;
    const [u, v] = own.piece.points[0]!;
    const { x, y, normal } = cut.frame;
    const at = [0, 1, 2].map((k) => u * x[k]! + v * y[k]! + own.depth * normal[k]!) as unknown as Vec3;
    return { body, at, faces: [finding.found.face], edge: null };
  }
  if ('vertex' in spot) {
    const finding = findVertex(spot.vertex, bodies);
    if (finding.how === 'lost') return null;
    const { body, vertex } = finding.found;
    return { body: bodies.indexOf(body), at: body.facts.corners[vertex]!, faces: facesAtCorner(body, vertex), edge: null }; // prettier-ignore
  }
  const finding = findEdge(spot.edge, bodies);
  if (finding.how === 'lost') return null;
  const { body, edge } = finding.found;
  const { middle, faces } = body.facts.edges[edge]!;
  return { body: bodies.indexOf(body), at: middle, faces: [...new Set(faces)], edge, through: seenThrough(body, edge, cut.frame)?.face }; // prettier-ignore
}

/** The same of a spot of a view, which knows where it is; corners are not asked for. */
export function edgeOfSpot({ what, at }: ViewSpot, bodies: readonly Body[], frame: Frame): Found | null {
  if (what === 'corner') return null;
  const body = bodies[at.body]!;
  const { middle, faces } = body.facts.edges[at.index]!;
  return { body: at.body, at: middle, faces: [...new Set(faces)], edge: at.index, through: seenThrough(body, at.index, frame)?.face }; // prettier-ignore
}

/** Of a round edge the round it is of. */
export function roundOf(shape: Shape, { body, faces, through }: Found): RoundFreedom | null {
  const rounds = (through === undefined ? faces : [through])
    .map((f) => shape.face(body, f))
    .filter((f): f is RoundFreedom => f?.is === 'round');
  return rounds[0] ?? null;
}

/** The rounding of which an edge is the rim, seen from the side; null where it is another, or seen face on. */
export function roundingSeen(shape: Shape, { body, faces, edge }: Found, frame: Frame): TorusFreedom | null {
  const own = faces.map((f) => shape.face(body, f)).find((f): f is TorusFreedom => f?.is === 'torus');
  return own && own.of.rim === edge && Math.abs(dot(own.axis.direction, frame.normal)) < 1e-6 ? own : null;
}

/** How what a spot stands for moves, in all directions in which that is known. */
export function motionsAt(shape: Shape, found: Found): Motion[] {
  const bore = found.through === undefined ? null : roundOf(shape, found);
  if (bore) return shape.axisMotions(bore.axis);
  const rim = found.edge === null ? null : rimAt(shape, found.body, found.edge);
  if (rim) return [...shape.axisMotions(rim.axis), ...(rim.along ? [{ along: rim.axis.direction, row: rim.along }] : [])]; // prettier-ignore
  const own = found.faces.flatMap((f) => {
    const motion = shape.motion(found.body, f, found.at);
    return motion ? [{ face: f, motion }] : [];
  });
  // Where a round runs on from a plane, the seam goes with the round’s axis.
  const seams = own.flatMap(({ face, motion }) => {
    const freedom = shape.face(found.body, face);
    if (freedom?.is !== 'round') return [];
    if (!own.some((o) => o.face !== face && Math.abs(Math.abs(dot(o.motion.along, motion.along)) - 1) < 1e-6))
      return [];
    const along = unit(cross(freedom.axis.direction, motion.along))!;
    const row = new Float64Array(shape.width);
    freedom.axis.aside.forEach((e, k) => (row[freedom.axis.unknowns[k]!] = dot(e, along)));
    return [{ along, row }];
  });
  return [...own.map((o) => o.motion), ...seams];
}

/** How it moves along a direction; null where that does not follow from faces that are judged. */
export function along(direction: Vec3, motions: readonly Motion[]): Float64Array | null {
  // The direction put together from those whose motion is known, one face alone where one will do.
  const alone = motions.find((m) => Math.abs(Math.abs(dot(m.along, direction)) - 1) < 1e-9);
  if (alone) return alone.row.map((x) => x * Math.sign(dot(alone.along, direction)));
  const chosen: { u: Vec3; row: Float64Array }[] = [];
  for (const m of motions) {
    let [u, row] = [m.along, m.row];
    for (const c of chosen) {
      const f = dot(u, c.u);
      u = minus(u, [c.u[0] * f, c.u[1] * f, c.u[2] * f]);
      row = row.map((x, i) => x - f * c.row[i]!);
    }
    const size = Math.hypot(...u);
    if (size < 1e-6) continue;
    chosen.push({ u: [u[0] / size, u[1] / size, u[2] / size], row: row.map((x) => x / size) });
  }
  let rest = direction;
  const sum = new Float64Array(motions[0]?.row.length ?? 0);
  for (const { u, row } of chosen) {
    const f = dot(rest, u);
    rest = minus(rest, [u[0] * f, u[1] * f, u[2] * f]);
    row.forEach((x, i) => (sum[i]! += f * x));
  }
  return Math.hypot(...rest) < 1e-6 ? sum : null;
}

/** What a size says; null where it says nothing that is judged. */
export function rowOfSize(shape: Shape, size: SheetSize, measured: Measured, view: CutView): Float64Array | null {
  const { frame } = view;
  const found = size.of.map((spot) => foundSpot(spot, shape.bodies, view));
  const [one, other] = found;
  if (!one || other === null) return null;
  if (size.kind === 'pitch') return other ? pitchRow(shape, one, other) : null;
  if (measured.is === 'diameter' || measured.is === 'radius') {
    const rounding = measured.is === 'radius' ? roundingSeen(shape, one, frame) : null;
    if (rounding) return shape.only(rounding.unknown);
    if (one.edge !== null && one.through === undefined) return rimAt(shape, one.body, one.edge)?.radius ?? null;
    const round = roundOf(shape, one);
    return round && shape.only(round.unknown);
  }
  if (measured.is === 'length') {
    const { along: u } = measured;
    const direction: Vec3 = [0, 1, 2].map((i) => u[0] * frame.x[i]! + u[1] * frame.y[i]!) as unknown as Vec3;
    const ends = other ? [one, other] : endsOf(shape, one);
    const [a, b] = ends.map((e) => along(direction, motionsAt(shape, e)));
    return a && b ? b.map((x, i) => x - a[i]!) : null;
  }
  if (measured.is === 'angle' && other) {
    const [a, b] = [one, other].map((f) => tiltOf(shape, f, frame));
    return a && b ? b.map((x, i) => x - a[i]!) : null;
  }
  return null;
}

/** How far one round lies from the axis of another, square to that. */
export function pitchRow(shape: Shape, one: Found, about: Found): Float64Array | null {
  const [a, b] = [one, about].map((f) => roundOf(shape, f)?.axis);
  if (!a || !b || Math.abs(dot(a.direction, b.direction)) < 1 - 1e-9) return null;
  const off = minus(a.at, b.at);
  const by = dot(off, b.direction);
  const out = unit(minus(off, [b.direction[0] * by, b.direction[1] * by, b.direction[2] * by]));
  if (!out) return null;
  const middle = shape.asideOf(b, out);
  return shape.asideOf(a, out).map((x, i) => x - middle[i]!);
}

/** The two ends of an edge. */
function endsOf(shape: Shape, { body, edge }: Found): Found[] {
  const own = shape.bodies[body]!;
  return (edge === null ? [] : own.facts.edges[edge]!.ends).map((vertex) => ({ body, at: own.facts.corners[vertex]!, faces: facesAtCorner(own, vertex), edge: null })); // prettier-ignore
}

/** How a straight edge turns in a view: as the face turns that is seen edge-on there. */
function tiltOf(shape: Shape, { body, faces, at }: Found, frame: Frame): Float64Array | null {
  for (const f of faces) {
    const own = shape.face(body, f);
    const side = own?.is === 'cone' && Math.abs(dot(own.axis.direction, frame.normal)) < 1e-6 ? dot(cross(own.axis.direction, frame.normal), minus(at, own.axis.at)) : 0; // prettier-ignore
    // Cut along its axis, a cone’s two lines lean both ways with its slope.
    if (own?.is === 'cone' && side !== 0) return shape.only(own.unknowns[1]).map((x) => x * Math.sign(side));
    if (own?.is !== 'plane' || Math.abs(dot(own.normal, frame.normal)) > 1e-6) continue;
    const row = new Float64Array(shape.width);
    for (const { about, unknown } of own.tilts) row[unknown] = dot(about, frame.normal);
    return row;
  }
  return null;
}
