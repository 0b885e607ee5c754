/** How sharply a solid's faces meet at its edges. */
import type { Vec3 } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import { edgesOf, facesOf, occurrences, ShapeIndex } from './explore.ts';
import type { Scope } from './scope.ts';

interface Side {
  readonly face: TopoDS_Face;
  /** The edge as it runs round this face. */
  readonly edge: TopoDS_Edge;
}

/** Of each edge the angle, rad, by which the outward normals turn across it: above 0 outer edges, below 0 inner ones. */
export function bendsOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): number[] {
  const edges = edgesOf(oc, scope, shape);
  const index = new ShapeIndex(oc, edges);
  const sides: Side[][] = edges.map(() => []);
  for (const f of facesOf(oc, scope, shape)) {
    const face = scope.keep(oc.TopoDS.Face(f));
    for (const e of occurrences(oc, scope, face, oc.TopAbs_ShapeEnum.TopAbs_EDGE))
      sides[index.indexOf(e)]?.push({ face, edge: scope.keep(oc.TopoDS.Edge(e)) });
  }
  return sides.map(([one, other]) => {
    // The seam of a round face and an edge that is a point bend nowhere.
    if (!one || !other || oc.BRep_Tool.Degenerated(one.edge)) return 0;
    const [a, b] = [normalBeside(oc, scope, one), normalBeside(oc, scope, other)];
    const along = tangentOf(oc, scope, one.edge);
    const turn = cross(a, b);
    return Math.atan2(dot(turn, along), dot(a, b));
  });
}

/** Outward normal of the face in the middle of the edge. */
function normalBeside(oc: OpenCascadeInstance, scope: Scope, { face, edge }: Side): Vec3 {
  const flat = scope.keep(new oc.BRepAdaptor_Curve2d(edge, face));
  const middle = scope.keep(flat.EvalD0((flat.FirstParameter() + flat.LastParameter()) / 2));
  const surface = scope.keep(new oc.BRepAdaptor_Surface(face, true));
  const { Point: at, D1U: du, D1V: dv } = surface.EvalD1(middle.X(), middle.Y());
  for (const own of [at, du, dv]) scope.keep(own);
  du.Cross(dv);
  const sign = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED ? -1 : 1;
  return unit([du.X() * sign, du.Y() * sign, du.Z() * sign]);
}

/** With the face on its left, seen from outside. */
function tangentOf(oc: OpenCascadeInstance, scope: Scope, edge: TopoDS_Edge): Vec3 {
  const curve = scope.keep(new oc.BRepAdaptor_Curve(edge));
  const d = scope.keep(curve.EvalDN((curve.FirstParameter() + curve.LastParameter()) / 2, 1));
  const sign = edge.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED ? -1 : 1;
  return unit([d.X() * sign, d.Y() * sign, d.Z() * sign]);
}

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
function unit(v: Vec3): Vec3 {
  const size = Math.hypot(...v);
  return size > 0 ? [v[0] / size, v[1] / size, v[2] / size] : [0, 0, 0];
}
