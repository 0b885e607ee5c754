import {
  cross,
  dot,
  minus,
  opposite,
  unit,
  type Axis,
  type Box,
  type Cone,
  type CurveKind,
  type EdgeFacts,
  type FaceFacts,
  type SurfaceKind,
  type Vec3,
} from '@helb/core';
import type {
  BRepAdaptor_Surface,
  BRepCheck_Analyzer,
  gp_Ax1,
  gp_Dir,
  gp_Pnt,
  OpenCascadeInstance,
  TopoDS_Edge,
  TopoDS_Face,
  TopoDS_Shape,
} from 'replicad-opencascadejs';
import { distinct, edgesOf, facesOf, occurrences, ShapeIndex } from './explore.ts';
import { exactArea, isExactCurve, lengthOfCurve } from './exact-measures.ts';
import type { Scope } from './scope.ts';

const SURFACES: Readonly<Record<string, SurfaceKind>> = {
  GeomAbs_Plane: 'plane',
  GeomAbs_Cylinder: 'cylinder',
  GeomAbs_Cone: 'cone',
  GeomAbs_Sphere: 'sphere',
  GeomAbs_Torus: 'torus',
};
const CURVES: Readonly<Record<string, CurveKind>> = {
  GeomAbs_Line: 'line',
  GeomAbs_Circle: 'circle',
  GeomAbs_Ellipse: 'ellipse',
};

function areaOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  face: TopoDS_Face,
  surface: BRepAdaptor_Surface,
): { readonly area: number; readonly center: Vec3 } {
  const exact = exactArea(oc, scope, face, surface);
  if (exact) return exact;
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.SurfaceProperties(face, properties, false, false);
  return { area: properties.Mass(), center: vec(scope.keep(properties.CentreOfMass())) };
}

export function boxOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): Box {
  const box = scope.keep(new oc.Bnd_Box());
  oc.BRepBndLib.AddOptimal(shape, box, false, false);
  box.SetGap(0);
  return { min: vec(scope.keep(box.CornerMin())), max: vec(scope.keep(box.CornerMax())) };
}

/** One for each kernel: of an analyser that is let go of, all that it found stays in memory, 1.6 MB for 100 faces. */
const analysers = new WeakMap<OpenCascadeInstance, BRepCheck_Analyzer>();

/** Does the kernel's analyser find the solid sound? */
export function isSound(oc: OpenCascadeInstance, shape: TopoDS_Shape): boolean {
  const known = analysers.get(oc);
  if (known) known.Init(shape, true);
  else analysers.set(oc, new oc.BRepCheck_Analyzer(shape, true, false, false));
  return analysers.get(oc)!.IsValid();
}

export function describeFaces(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): FaceFacts[] {
  return facesOf(oc, scope, shape).map((face) => describeFace(oc, scope, face));
}

function vec(p: gp_Pnt | gp_Dir): Vec3 {
  return [p.X(), p.Y(), p.Z()];
}

function describeFace(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): FaceFacts {
  const face = scope.keep(oc.TopoDS.Face(shape));
  const surface = scope.keep(new oc.BRepAdaptor_Surface(face, true));
  const kind = SURFACES[surface.GetType()] ?? 'other';
  const { area, center } = areaOf(oc, scope, face, surface);
  let normal: Vec3 | null = null;
  let radius: number | null = null;
  let axis: Axis | null = null;
  let hollow: boolean | null = null;
  const reversed = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED;
  if (kind === 'plane') normal = outwards(scope, surface, reversed);
  else if (kind === 'cylinder') {
    const cylinder = scope.keep(surface.Cylinder());
    radius = cylinder.Radius();
    axis = axisFrom(scope, cylinder);
    hollow = reversed === cylinder.Direct();
  } else if (kind === 'sphere') radius = scope.keep(surface.Sphere()).Radius();
  const cone = kind === 'cone' ? { cone: coneOf(scope, surface, reversed, center) } : {};
  return { kind, area, center, normal, radius, axis, hollow, ...cone };
}

/** From places on it: the build has no cone of its own to ask. */
function coneOf(scope: Scope, surface: BRepAdaptor_Surface, reversed: boolean, center: Vec3): Cone {
  const at = (u: number, v: number) => vec(scope.keep(surface.Value(u, v)));
  const [first, last] = [surface.FirstVParameter(), surface.LastVParameter()];
  const middleAt = (v: number) => at(0, v).map((a, k) => (a + at(Math.PI, v)[k]!) / 2) as unknown as Vec3;
  const [a, b] = [middleAt(first), middleAt(last)];
  const up = unit(minus(b, a))!;
  const [p, q] = [minus(at(0, first), a), minus(at(0, last), b)];
  // Signed, as the kernel’s cone goes on beyond its tip; of the two ends the wider tells which way is out.
  const wide = Math.hypot(...p) > Math.hypot(...q) ? first : last;
  const out = unit(wide === first ? p : q)!;
  const [low, high] = [dot(p, out), dot(q, out)];
  const sine = (high - low) / (last - first);
  const tip = a.map((c, k) => c - (low / sine) * Math.sqrt(1 - sine ** 2) * up[k]!) as unknown as Vec3;
  const direction = dot(up, minus(center, tip)) < 0 ? opposite(up) : up;
  const aside = minus(at(Math.PI / 2, wide), wide === first ? a : b);
  const direct = dot(cross(out, aside), up) > 0;
  return { tip, direction, halfAngle: Math.abs(Math.asin(sine)), hollow: reversed === direct };
}

function outwards(scope: Scope, surface: BRepAdaptor_Surface, reversed: boolean): Vec3 {
  const plane = scope.keep(surface.Plane());
  const [x, y, z] = vec(scope.keep(scope.keep(plane.Axis()).Direction()));
  // A left-handed plane's own normal is the other way round.
  const sign = (reversed ? -1 : 1) * (plane.Direct() ? 1 : -1);
  return [x * sign, y * sign, z * sign];
}

/** Which way a flat face looks; null where it is not flat. */
export function normalOfFlat(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): Vec3 | null {
  const face = scope.keep(oc.TopoDS.Face(shape));
  const surface = scope.keep(new oc.BRepAdaptor_Surface(face, true));
  if (SURFACES[surface.GetType()] !== 'plane') return null;
  return outwards(scope, surface, face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED);
}

function axisFrom(scope: Scope, round: { Axis(): gp_Ax1 }): Axis {
  const line = scope.keep(round.Axis());
  return { origin: vec(scope.keep(line.Location())), direction: vec(scope.keep(line.Direction())) };
}

export function describeEdges(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): EdgeFacts[] {
  const edges = edgesOf(oc, scope, shape);
  const index = new ShapeIndex(oc, edges);
  const between: number[][] = edges.map(() => []);
  facesOf(oc, scope, shape).forEach((face, f) => {
    for (const edge of occurrences(oc, scope, face, oc.TopAbs_ShapeEnum.TopAbs_EDGE))
      between[index.indexOf(edge)]?.push(f);
  });
  const vertices = new ShapeIndex(oc, distinct(oc, scope, shape, oc.TopAbs_ShapeEnum.TopAbs_VERTEX));
  return edges.map((e, i) => {
    const edge = scope.keep(oc.TopoDS.Edge(e));
    const curve = scope.keep(new oc.BRepAdaptor_Curve(edge));
    const kind = CURVES[curve.GetType()] ?? 'other';
    const circle = kind === 'circle' ? scope.keep(curve.Circle()) : null;
    const round = circle ?? (kind === 'ellipse' ? scope.keep(curve.Ellipse()) : null);
    const radius = circle?.Radius() ?? null;
    const axis = round && axisFrom(scope, round);
    const length = isExactCurve(curve) ? straightLength(oc, scope, edge) : lengthOfCurve(curve);
    const ends = occurrences(oc, scope, edge, oc.TopAbs_ShapeEnum.TopAbs_VERTEX).map((v) => vertices.indexOf(v));
    const middle = vec(scope.keep(curve.Value((curve.FirstParameter() + curve.LastParameter()) / 2)));
    return { kind, length, radius, axis, faces: between[i]!, ends: [...new Set(ends)], middle };
  });
}

/** In the order in which edges number them. */
export function cornersOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): Vec3[] {
  return distinct(oc, scope, shape, oc.TopAbs_ShapeEnum.TopAbs_VERTEX).map((v) =>
    vec(scope.keep(oc.BRep_Tool.Pnt(scope.keep(oc.TopoDS.Vertex(v))))),
  );
}

function straightLength(oc: OpenCascadeInstance, scope: Scope, edge: TopoDS_Edge): number {
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.LinearProperties(edge, properties, false, false);
  return properties.Mass();
}

/** A face with its surface, edges, curves, and triangles for the screen takes about so much; measured on plates with holes. */
const BYTES_PER_FACE = 12_000;

export function estimateBytes(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): number {
  return BYTES_PER_FACE * facesOf(oc, scope, shape).length;
}
