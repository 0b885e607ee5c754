/** Round edges: how wide they are and where they lie along their axis, as that follows from the two faces they lie between. */
import { dot, type Vec3 } from '../../space/vector.ts';
import type { AxisFreedom, ConeFreedom, RoundFreedom, Shape, TorusFreedom } from './shape.ts';

export interface Rim {
  readonly axis: AxisFreedom;
  /** How it moves along its axis, and how its radius changes; null where that does not follow from faces that are judged. */
  readonly along: Float64Array | null;
  readonly radius: Float64Array | null;
  readonly at: Vec3;
}

/** Slopes that differ by less meet nowhere clearly. */
const ALIKE = 1e-6;

/** Null of an edge that is not round, or lies on no cylinder, cone or rounding. */
export function rimAt(shape: Shape, body: number, edge: number): Rim | null {
  const { kind, axis: turned, faces } = shape.bodies[body]!.facts.edges[edge]!;
  if (kind !== 'circle' || !turned) return null;
  const own = [...new Set(faces)].map((f) => ({ face: f, is: shape.face(body, f) }));
  const round = own.map((o) => o.is).find((f): f is RoundFreedom => f?.is === 'round') ?? null;
  const cones = own.map((o) => o.is).filter((f): f is ConeFreedom => f?.is === 'cone');
  const torus = own.map((o) => o.is).find((f): f is TorusFreedom => f?.is === 'torus') ?? null;
  const axis = round?.axis ?? cones[0]?.axis ?? torus?.axis;
  if (!axis) return null;
  const at = dot(turned.origin, axis.direction);
  const flat = own.find((o) => o.is?.is === 'plane');
  const level = flat ? levelOf(shape, body, flat.face, turned.origin, axis) : null;
  const [cone, other] = cones;
  const along = level ?? (cone ? meeting(shape, cone, round ?? other ?? null, at) : torus && round ? seamOf(shape, body, torus) : null); // prettier-ignore
  const radius = round ? shape.only(round.unknown) : torus ? rimOf(shape, torus) : cone && along ? wider(shape, cone, at, along) : null; // prettier-ignore
  return { axis, along, radius, at: turned.origin };
}

/** How a flat face moves along an axis at a place; null where it is not square to that. */
function levelOf(shape: Shape, body: number, face: number, at: Vec3, axis: AxisFreedom): Float64Array | null {
  const moved = shape.motion(body, face, at);
  const sign = moved ? dot(moved.along, axis.direction) : 0;
  return moved && Math.abs(Math.abs(sign) - 1) < 1e-9 ? moved.row.map((x) => x * Math.sign(sign)) : null;
}

/** The rim of a rounding is as much wider or narrower than its cylinder as its radius says, */
function rimOf(shape: Shape, { of, round, unknown }: TorusFreedom): Float64Array {
  const row = shape.only(round.unknown);
  row[unknown] = Math.sign(of.outwards);
  return row;
}

/** and its cylinder begins as far from the flat face. */
function seamOf(shape: Shape, body: number, { of, axis, unknown }: TorusFreedom): Float64Array | null {
  const { edges, faces } = shape.bodies[body]!.facts;
  const row = levelOf(shape, body, of.flat, edges[of.rim]!.axis!.origin, axis);
  if (row) row[unknown] = Math.sign(of.along * dot(faces[of.wall]!.axis!.direction, axis.direction));
  return row;
}

/** The radius of a cone where it is met, when that place moves along the axis too. */
const wider = (shape: Shape, cone: ConeFreedom, at: number, along: Float64Array): Float64Array =>
  shape.widened(cone, at).map((x, i) => x + cone.slope * along[i]!);

/** Where a cone meets a cylinder or another cone about its axis. */
function meeting(
  shape: Shape,
  cone: ConeFreedom,
  other: RoundFreedom | ConeFreedom | null,
  at: number,
): Float64Array | null {
  if (!other) return null;
  const [row, slope] = other.is === 'round' ? [shape.only(other.unknown), 0] : [shape.widened(other, at), other.slope];
  const by = cone.slope - slope;
  if (Math.abs(by) < ALIKE) return null;
  return shape.widened(cone, at).map((x, i) => (row[i]! - x) / by);
}

/** Of a cone at an edge: how far it goes along its axis, and out from it. Null where its two ends are not told by judged faces. */
export function rowsOfCone(shape: Shape, body: number, edge: number): Float64Array[] | null {
  const { edges } = shape.bodies[body]!.facts;
  const face = edges[edge]!.faces.find((f) => shape.face(body, f)?.is === 'cone');
  if (face === undefined) return null;
  const rims = edges.flatMap((e, i) => (e.faces.includes(face) ? (rimAt(shape, body, i) ?? []) : []));
  const [one, other] = [rims[0], rims.find((r) => Math.abs(dot(r.at, r.axis.direction) - dot(rims[0]!.at, r.axis.direction)) > ALIKE)]; // prettier-ignore
  if (!one || !other) return null;
  const apart = (a: Float64Array | null, b: Float64Array | null) => (a && b ? [a.map((x, i) => x - b[i]!)] : []);
  return [...apart(one.along, other.along), ...apart(one.radius, other.radius)];
}

/** Cones as wide at both ends about axes that run alike, the one at an edge among them: an edge of each, and what a chamfer says of it. */
export function conesAlike(shape: Shape, { body, edge }: { readonly body: number; readonly edge: number | null }): { edge: number; rows: Float64Array[] }[] {
  const { facts } = shape.bodies[body]!;
  const face = edge === null ? undefined : facts.edges[edge]!.faces.find((f) => shape.face(body, f)?.is === 'cone');
  const own = face === undefined ? null : shape.face(body, face);
  if (face === undefined || own?.is !== 'cone') return [];
  const [low, high] = endsOf(shape, body, face);
  const seen = new Set<unknown>();
  return facts.faces.flatMap((_, f) => {
    const other = shape.face(body, f);
    if (other?.is !== 'cone' || seen.has(other) || Math.abs(dot(other.axis.direction, own.axis.direction)) < 1 - 1e-9) return [];
    const [least, most] = endsOf(shape, body, f);
    if (Math.abs(least - low) > SAME || Math.abs(most - high) > SAME || Math.abs(Math.abs(other.slope) - Math.abs(own.slope)) > ALIKE) return [];
    seen.add(other);
    const at = facts.edges.findIndex((e) => e.kind === 'circle' && e.faces.includes(f));
    const rows = rowsOfCone(shape, body, at);
    return rows ? [{ edge: at, rows }] : [];
  });
} // prettier-ignore
const SAME = 1e-5;

/** The smallest and the largest radius of a cone’s round edges, mm. */
function endsOf(shape: Shape, body: number, face: number): readonly [number, number] {
  const radii = shape.bodies[body]!.facts.edges.flatMap((e) => (e.kind === 'circle' && e.faces.includes(face) ? [e.radius!] : [])); // prettier-ignore
  return [Math.min(...radii), Math.max(...radii)];
}
