/** Solids cut apart by planes, faces and lines pushed through. */
import { KernelError, type Cutter, type Frame, type LoopPiece, type SolidHandle } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import { listOf, solidsOf } from './combine.ts';
import { boxOf } from './describe.ts';
import { facesOf } from './explore.ts';
import type { Made } from './extrude.ts';
import { along, edgeOfPiece, point } from './profile.ts';
import type { Scope } from './scope.ts';

/** @returns all pieces; faces along the cut come from the cutter, the argument after the last solid */
export function splitSolids(
  oc: OpenCascadeInstance,
  scope: Scope,
  solids: readonly TopoDS_Shape[],
  by: Cutter,
  shapeOf: (solid: SolidHandle) => TopoDS_Shape,
): Made[] {
  const cutter = cutterOf(oc, scope, solids, by, shapeOf);
  const algorithm = scope.keep(new oc.BRepAlgoAPI_Splitter());
  algorithm.SetArguments(listOf(oc, scope, solids));
  algorithm.SetTools(listOf(oc, scope, [cutter]));
  algorithm.SetToFillHistory(true);
  algorithm.Build(scope.keep(new oc.Message_ProgressRange()));
  if (!algorithm.IsDone() || algorithm.HasErrors())
    throw new KernelError('The kernel could not cut these bodies apart there; move the cut a little.');
  const made = solidsOf(oc, scope, algorithm, [...solids, cutter]);
  algorithm.Clear();
  return made;
}

function cutterOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  solids: readonly TopoDS_Shape[],
  by: Cutter,
  shapeOf: (solid: SolidHandle) => TopoDS_Shape,
): TopoDS_Shape {
  if (by.kind === 'plane') return planeThrough(oc, scope, by.frame, reachFrom(oc, scope, solids, by.frame.origin));
  if (by.kind === 'sheet') return sheetThrough(oc, scope, by, reachFrom(oc, scope, solids, by.frame.origin));
  const face = scope.keep(oc.TopoDS.Face(facesOf(oc, scope, shapeOf(by.solid))[by.face]!));
  return wholeFace(oc, scope, solids, face, by.outward);
}

/** How far all of them reach from a place, and a little more. */
function reachFrom(
  oc: OpenCascadeInstance,
  scope: Scope,
  solids: readonly TopoDS_Shape[],
  [x0, y0, z0]: Frame['origin'],
): number {
  const boxes = solids.map((s) => boxOf(oc, scope, s));
  const corners = boxes.flatMap(({ min, max }) =>
    [min[0], max[0]].flatMap((x) => [min[1], max[1]].flatMap((y) => [min[2], max[2]].map((z) => [x, y, z] as const))),
  );
  return Math.max(...corners.map(([x, y, z]) => Math.hypot(x - x0, y - y0, z - z0))) + 1;
}

function planeThrough(oc: OpenCascadeInstance, scope: Scope, plane: Frame, reach: number): TopoDS_Face {
  const normal = scope.keep(new oc.gp_Dir(...plane.normal));
  const surface = scope.keep(new oc.gp_Pln(point(oc, scope, along(plane, 0, 0, 0)), normal));
  const side = 2 * reach;
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(surface, -side, side, -side, side)).Face());
}

/** The line pushed through to both sides of its plane. */
function sheetThrough(
  oc: OpenCascadeInstance,
  scope: Scope,
  { frame, pieces }: { readonly frame: Frame; readonly pieces: readonly LoopPiece[] },
  reach: number,
): TopoDS_Shape {
  const origin = along(frame, 0, 0, -reach);
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeWire());
  for (const piece of pieces) maker.Add(edgeOfPiece(oc, scope, { ...frame, origin }, piece));
  if (!maker.IsDone()) throw new KernelError('The line to cut along has a gap; join its ends.');
  const [x, y, z] = frame.normal;
  const way = scope.keep(new oc.gp_Vec(2 * reach * x, 2 * reach * y, 2 * reach * z));
  return scope.keep(scope.keep(new oc.BRepPrimAPI_MakePrism(scope.keep(maker.Wire()), way, false, true)).Shape());
}

const WHOLE = 2 * Math.PI;

/** The face with all of the surface it lies in where that is simple, moved outwards. @throws KernelError */
function wholeFace(
  oc: OpenCascadeInstance,
  scope: Scope,
  solids: readonly TopoDS_Shape[],
  face: TopoDS_Face,
  outward: number,
): TopoDS_Shape {
  const surface = scope.keep(new oc.BRepAdaptor_Surface(face, true));
  const kind = surface.GetType();
  const reversed = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED;
  const by = reversed ? -outward : outward;
  if (kind === oc.GeomAbs_SurfaceType.GeomAbs_Plane) {
    const plane = scope.keep(surface.Plane());
    const normal = scope.keep(scope.keep(plane.Axis()).Direction());
    const at = scope.keep(plane.Location());
    // A left-handed plane’s own normal is the other way round.
    const off = plane.Direct() ? by : -by;
    const n = [normal.X(), normal.Y(), normal.Z()] as const;
    const origin = [at.X() + off * n[0], at.Y() + off * n[1], at.Z() + off * n[2]] as const;
    const frame = { origin, x: [1, 0, 0], y: [0, 1, 0], normal: n } as const;
    return planeThrough(oc, scope, frame, reachFrom(oc, scope, solids, origin));
  }
  if (kind === oc.GeomAbs_SurfaceType.GeomAbs_Cylinder) {
    const cylinder = scope.keep(surface.Cylinder());
    const radius = cylinder.Radius() + (cylinder.Direct() ? by : -by);
    refuseNothing(radius);
    cylinder.SetRadius(radius);
    const at = scope.keep(cylinder.Location());
    const reach = reachFrom(oc, scope, solids, [at.X(), at.Y(), at.Z()]);
    return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(cylinder, 0, WHOLE, -reach, reach)).Face());
  }
  if (kind === oc.GeomAbs_SurfaceType.GeomAbs_Sphere) {
    const sphere = scope.keep(surface.Sphere());
    const radius = sphere.Radius() + (sphere.Direct() ? by : -by);
    refuseNothing(radius);
    sphere.SetRadius(radius);
    return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(sphere)).Face());
  }
  if (outward !== 0)
    throw new KernelError('Only before flat faces, cylinders and spheres a gap can be left; make it nothing here.');
  return face;
}

function refuseNothing(radius: number): void {
  if (radius <= 0) throw new KernelError('The gap is more than the radius of that face; make it smaller.');
}
