/**
 * Measures the kernel's own integration gets wrong by up to a few per cent: lengths along ellipses and
 * splines, and areas and volumes of what such curves bound or sweep. A face's integral is turned into one
 * along its boundary in its own parameters (Green): with F the integral of f from 0 along the swept direction,
 *   flat, and turned about an axis (u the angle)   ∬ f du dv =  ∮ F dv, F = ∫₀ᵘ f du
 *   pushed along a line (v the way), and free ones with fewer pieces in v
 *                                                  ∬ f du dv = −∮ F du, F = ∫₀ᵛ f dv
 */
import type { Vec3 } from '@helb/core';
import type { BRepAdaptor_Curve, BRepAdaptor_Curve2d, BRepAdaptor_Surface, NCollection_Array1_double, OpenCascadeInstance, TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs'; // prettier-ignore
import { edgesOf, facesOf, occurrences } from './explore.ts';
import { integral, integrals, plainIntegral, straightIntegral, type Values } from './quadrature.ts';
import { alongCircle, alongLine, circlesOf, derivative, localAt, type Local } from './surface-places.ts';
import type { Scope } from './scope.ts';

const EXACT_CURVES: ReadonlySet<string> = new Set(['GeomAbs_Line', 'GeomAbs_Circle']);

/** Does the kernel's own integration along this curve do? Of splines where they are one span, as letters' are. */
export function isExactCurve(curve: { GetType(): unknown; NbKnots(): number }): boolean {
  const kind = String(curve.GetType());
  return EXACT_CURVES.has(kind) || (kind === 'GeomAbs_BSplineCurve' && curve.NbKnots() === 2);
}

export function lengthOfCurve(curve: BRepAdaptor_Curve): number {
  const speed = (t: number) => {
    const d = curve.EvalDN(t, 1);
    const size = d.Magnitude();
    d.delete();
    return size;
  };
  return integral(speed, curve.FirstParameter(), curve.LastParameter());
}

/** By which integral along its boundary a face is measured. `free`: span by span of its surface. */
type Way = 'flat' | 'pushed' | 'turned' | 'free';

const WAYS: Readonly<Record<string, Way>> = {
  GeomAbs_Plane: 'flat',
  GeomAbs_SurfaceOfExtrusion: 'pushed',
  GeomAbs_SurfaceOfRevolution: 'turned',
  GeomAbs_Cylinder: 'turned',
  GeomAbs_Cone: 'turned',
  GeomAbs_Sphere: 'turned',
  GeomAbs_Torus: 'turned',
};
const wayOf = (surface: BRepAdaptor_Surface): Way => WAYS[String(surface.GetType())] ?? 'free';

export const hasFreeFaces = (oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): boolean =>
  facesOf(oc, scope, shape).some(
    (face) => wayOf(scope.keep(new oc.BRepAdaptor_Surface(scope.keep(oc.TopoDS.Face(face)), true))) === 'free',
  );

/** Does the kernel's own integration do for this face? */
function isExact(oc: OpenCascadeInstance, scope: Scope, face: TopoDS_Face, surface: BRepAdaptor_Surface): boolean {
  const kind = String(surface.GetType());
  if (kind === 'GeomAbs_SurfaceOfExtrusion' || kind === 'GeomAbs_SurfaceOfRevolution')
    return isExactCurve(scope.keep(surface.BasisCurve()));
  if (wayOf(surface) === 'free') return false;
  return edgesOf(oc, scope, face).every((edge) =>
    isExactCurve(scope.keep(new oc.BRepAdaptor_Curve(scope.keep(oc.TopoDS.Edge(edge))))),
  );
}

/** ∬ f du dv over the face, several at once. @param measuresLength f takes roots, and is no polynomial where the surface is one */
function overFace(
  oc: OpenCascadeInstance,
  scope: Scope,
  face: TopoDS_Face,
  surface: BRepAdaptor_Surface,
  way: Way,
  f: (local: Local) => Values,
  measuresLength = false,
): number[] {
  const pushed = way === 'pushed';
  const circles = way === 'turned' ? circlesOf(surface) : null;
  const spans = way === 'free' ? spansOf(oc, scope, surface) : NO_SPANS;
  // Inside runs the way with fewer pieces: it is gone along again and again.
  const inV = spans.v.length < spans.u.length;
  const inner = (u: number, v: number): number[] =>
    pushed
      ? straightIntegral(along(f, alongLine(localAt(surface, u, 0), derivative(surface, u, 0, 0, 1))), 0, v)
      : way === 'flat'
        ? plainIntegral(along(f, alongLine(localAt(surface, 0, v), derivative(surface, 0, v, 1, 0))), 0, u)
        : way === 'turned'
          ? turnOf(along(f, alongCircle(circles!(v))), u)
          : inV
            ? overSpans((t) => f(localAt(surface, u, t)), spans.v, v)
            : overSpans((t) => f(localAt(surface, t, v)), spans.u, u);
  const { TopAbs_FORWARD, TopAbs_REVERSED } = oc.TopAbs_Orientation;
  const forward = scope.keep(oc.TopoDS.Face(scope.keep(face.Oriented(TopAbs_FORWARD))));
  const floor = roughly(surface);
  // Along an edge on which a free surface's parameter stands still there is rounding left, and nothing else.
  const nearNothing = way === 'free' ? 1e-11 * (inV ? surface.LastUParameter() - surface.FirstUParameter() : surface.LastVParameter() - surface.FirstVParameter()) : 0; // prettier-ignore
  const total: number[] = [];
  for (const shape of occurrences(oc, scope, forward, oc.TopAbs_ShapeEnum.TopAbs_EDGE)) {
    const edge = scope.keep(oc.TopoDS.Edge(shape));
    // Where something touches a face from within a line may lie in it that bounds nothing.
    if (edge.Orientation() !== TopAbs_FORWARD && edge.Orientation() !== TopAbs_REVERSED) continue;
    const flat = scope.keep(new oc.BRepAdaptor_Curve2d(edge, forward));
    const none = f(localAt(surface, 0, 0)).map(() => 0);
    const at = (t: number): Values => {
      const { Point: p, D1: d } = flat.EvalD1(t);
      const [u, v, step] = [p.X(), p.Y(), pushed || inV ? -d.X() : d.Y()];
      p.delete();
      d.delete();
      // Nothing lies between the boundary and where the inner integral begins.
      if (
        Math.abs(step) <= nearNothing ||
        Math.abs(pushed || inV ? v - (spans.v[0] ?? 0) : u - (spans.u[0] ?? 0)) <= nearNothing
      )
        return none;
      return inner(u, v).map((x) => x * step);
    };
    const sign = edge.Orientation() === TopAbs_REVERSED ? -1 : 1;
    const plain =
      isPolynomial(surface) &&
      String(flat.GetType()) === 'GeomAbs_Line' &&
      (!measuresLength || (inV ? spans.u : spans.v).length > MANY_SPANS);
    for (const [from, to] of stretches(flat, inV ? spans.u : spans.v, inV))
      (plain ? plainIntegral(at, from, to) : integrals(at, from, to, floor)).forEach((x, i) => {
        total[i] = (total[i] ?? 0) + sign * x;
      });
  }
  return total;
}

/** Are place and normal polynomials between the surface's knots, so low that ten points of the integrand tell all? */
function isPolynomial(surface: BRepAdaptor_Surface): boolean {
  return (
    String(surface.GetType()) === 'GeomAbs_BSplineSurface' &&
    !surface.IsURational() &&
    !surface.IsVRational() &&
    Math.max(surface.UDegree(), surface.VDegree()) <= 5
  );
}

/** About how much an integral over the whole surface comes to, even where it cancels out: its area, or its cone. */
function roughly(surface: BRepAdaptor_Surface): number {
  const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()];
  const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
  const [corner, middle] = [localAt(surface, u0, v0), localAt(surface, (u0 + u1) / 2, (v0 + v1) / 2)];
  return Math.hypot(...middle.n) * (u1 - u0) * (v1 - v0) * Math.max(1, Math.hypot(...minus(middle.p, corner.p)));
}

/** Where the pieces of a free surface meet, in its own parameters. */
interface Spans {
  readonly u: readonly number[];
  readonly v: readonly number[];
}
const OFFSET_PARTS = 8;
/** Of so many the surface is all but flat within each, and roots are as good as polynomials. */
const MANY_SPANS = 16;
const NO_SPANS: Spans = { u: [], v: [] };

function spansOf(oc: OpenCascadeInstance, scope: Scope, surface: BRepAdaptor_Surface): Spans {
  if (String(surface.GetType()) === 'GeomAbs_BSplineSurface') {
    // The intervals the kernel tells leave out knots through which four derivatives go on.
    const own = scope.keep(surface.BSpline());
    const within = (knot: (i: number) => number, count: number, first: number, last: number) => [
      first,
      ...Array.from({ length: count }, (_, i) => knot(i + 1)).filter((t) => t > first && t < last),
      last,
    ];
    return {
      u: within((i) => own.UKnot(i), own.NbUKnots(), surface.FirstUParameter(), surface.LastUParameter()),
      v: within((i) => own.VKnot(i), own.NbVKnots(), surface.FirstVParameter(), surface.LastVParameter()),
    };
  }
  const smooth = oc.GeomAbs_Shape.GeomAbs_CN;
  const read = (count: number, fill: (into: NCollection_Array1_double) => void) => {
    const knots = scope.keep(new oc.NCollection_Array1_double(1, count + 1));
    fill(knots);
    return Array.from({ length: count + 1 }, (_, i) => knots.Value(i + 1));
  };
  const u = read(surface.NbUIntervals(smooth), (into) => surface.UIntervals(into, smooth));
  return {
    // What is offset is no polynomial between its knots, and a whole turn may lie between two.
    u: u.flatMap((from, i) => i + 1 < u.length ? Array.from({ length: OFFSET_PARTS }, (_, k) => from + ((u[i + 1]! - from) * k) / OFFSET_PARTS) : [from]), // prettier-ignore
    v: read(surface.NbVIntervals(smooth), (into) => surface.VIntervals(into, smooth)),
  };
}

/** From the first knot to a place, piece by piece. */
function overSpans(f: (t: number) => Values, knots: readonly number[], to: number): number[] {
  let total: number[] = f(to).map(() => 0);
  for (let i = 0; i + 1 < knots.length && knots[i]! < to; i++) {
    // The last piece goes on as far as the face does.
    const end = i + 2 === knots.length ? to : Math.min(knots[i + 1]!, to);
    const piece = plainIntegral(f, knots[i]!, end);
    total = total.map((x, k) => x + piece[k]!);
  }
  return total;
}

/** The boundary's own range, divided at its knots and where it runs over the surface's (in u, or in v), so that each stretch is smooth. */
function stretches(flat: BRepAdaptor_Curve2d, knots: readonly number[], inU: boolean): (readonly [number, number])[] {
  const [first, last] = [flat.FirstParameter(), flat.LastParameter()];
  const height = (t: number) => {
    const p = flat.EvalD0(t);
    const at = inU ? p.X() : p.Y();
    p.delete();
    return at;
  };
  const [low, high] = [height(first), height(last)];
  // Where it runs evenly up the surface; else it is halved where it must be.
  const even = Math.abs(height((first + last) / 2) - (low + high) / 2) < 1e-9 * Math.max(1, Math.abs(high - low));
  const within = even ? knots.map((k) => first + ((k - low) / (high - low)) * (last - first)) : [];
  const inside = [...within, ...ownKnots(flat)].filter((t) => t > first && t < last).sort((a, b) => a - b);
  const all = [first, ...inside.filter((t, i) => i === 0 || t - inside[i - 1]! > 1e-12 * Math.max(1, Math.abs(t))), last]; // prettier-ignore
  return all.slice(1).map((t, i) => [all[i]!, t]);
}

/** Where the pieces of a boundary's own spline meet. */
function ownKnots(flat: BRepAdaptor_Curve2d): number[] {
  if (String(flat.GetType()) !== 'GeomAbs_BSplineCurve') return [];
  const spline = flat.BSpline();
  const knots = Array.from({ length: spline.NbKnots() }, (_, i) => spline.Knot(i + 1));
  spline.delete();
  return knots;
}

/** Around the axis in two halves, so that ten points each follow the sines. */
function turnOf(f: (u: number) => Values, u: number): number[] {
  const first = plainIntegral(f, 0, u / 2);
  return plainIntegral(f, u / 2, u).map((x, i) => x + first[i]!);
}

const along =
  (f: (local: Local) => Values, local: (t: number) => Local) =>
  (t: number): Values =>
    f(local(t));

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/** Area and centre; null where the kernel's own integration is exact, or all there is. */
export function exactArea(
  oc: OpenCascadeInstance,
  scope: Scope,
  face: TopoDS_Face,
  surface: BRepAdaptor_Surface,
): { readonly area: number; readonly center: Vec3 } | null {
  const way = wayOf(surface);
  if (isExact(oc, scope, face, surface)) return null;
  const [area, x, y, z] = overFace(
    oc,
    scope,
    face,
    surface,
    way,
    ({ p, n }) => {
      const size = Math.hypot(...n);
      return [size, p[0] * size, p[1] * size, p[2] * size];
    },
    true,
  ) as [number, number, number, number];
  return { area: Math.abs(area), center: [x / area, y / area, z / area] };
}

function measuredFaces(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape) {
  return facesOf(oc, scope, shape).map((f) => {
    const face = scope.keep(oc.TopoDS.Face(f));
    const surface = scope.keep(new oc.BRepAdaptor_Surface(face, true));
    return { face, surface, way: wayOf(surface), exact: isExact(oc, scope, face, surface) };
  });
}

/** Does the kernel itself measure all its faces exactly? */
export const isMeasuredExactly = (oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): boolean =>
  measuredFaces(oc, scope, shape).every((f) => f.exact);

/**
 * Volume and centre. Where curves were swept by the divergence theorem, face by face, S measured from q:
 *   V = ⅓ ∬ S·N du dv,  V (c − q) = ¼ ∬ S (S·N) du dv,  N = Sᵤ × Sᵥ, outward
 */
export function volumeOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  shape: TopoDS_Shape,
): { readonly volume: number; readonly center: Vec3 } {
  const faces = measuredFaces(oc, scope, shape);
  if (faces.every((f) => f.exact)) {
    const properties = scope.keep(new oc.GProp_GProps());
    oc.BRepGProp.VolumeProperties(shape, properties, false, false, false);
    const c = scope.keep(properties.CentreOfMass());
    return { volume: properties.Mass(), center: [c.X(), c.Y(), c.Z()] };
  }
  const q = localAt(faces[0]!.surface, 0, 0).p;
  let volume = 0;
  const moment: [number, number, number] = [0, 0, 0];
  for (const { face, surface, way } of faces) {
    const [v, x, y, z] = shareOf(oc, scope, face, surface, way, q);
    volume += v;
    moment[0] += x;
    moment[1] += y;
    moment[2] += z;
  }
  const at = (i: 0 | 1 | 2) => q[i] + moment[i] / volume;
  return { volume, center: [at(0), at(1), at(2)] };
}

/** Volume and moment of the cone between the face and q. */
type Share = readonly [volume: number, x: number, y: number, z: number];

function shareOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  face: TopoDS_Face,
  surface: BRepAdaptor_Surface,
  way: Way,
  q: Vec3,
): Share {
  const sign = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED ? -1 : 1;
  const [v, x, y, z] = overFace(oc, scope, face, surface, way, ({ p, n }) => {
    const s = minus(p, q);
    const h = dot(s, n);
    return [h, s[0] * h, s[1] * h, s[2] * h];
  }) as [number, number, number, number];
  return [(sign * v) / 3, (sign * x) / 4, (sign * y) / 4, (sign * z) / 4];
}
