import type { CurveKind, EdgeFacts, FaceFacts, SolidMeasures, SurfaceKind, Vec3 } from '@helb/core';
import type { gp_Dir, gp_Pnt, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { edgesOf, facesOf, occurrences, ShapeIndex } from './explore.ts';
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

export function measureSolid(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): SolidMeasures {
  const volume = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.VolumeProperties(shape, volume, false, false, false);
  const area = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.SurfaceProperties(shape, area, false, false);
  const box = scope.keep(new oc.Bnd_Box());
  oc.BRepBndLib.AddOptimal(shape, box, false, false);
  box.SetGap(0);
  return {
    volume: volume.Mass(),
    area: area.Mass(),
    center: vec(scope.keep(volume.CentreOfMass())),
    box: { min: vec(scope.keep(box.CornerMin())), max: vec(scope.keep(box.CornerMax())) },
  };
}

/** Does the kernel's analyser find the solid sound? */
export function isSound(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): boolean {
  return scope.keep(new oc.BRepCheck_Analyzer(shape, true, false, false)).IsValid();
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
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.SurfaceProperties(face, properties, false, false);
  let normal: Vec3 | null = null;
  let radius: number | null = null;
  if (kind === 'plane') {
    const plane = scope.keep(surface.Plane());
    const [x, y, z] = vec(scope.keep(scope.keep(plane.Axis()).Direction()));
    // A left-handed plane's own normal is the other way round.
    const sign = (face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED ? -1 : 1) * (plane.Direct() ? 1 : -1);
    normal = [x * sign, y * sign, z * sign];
  } else if (kind === 'cylinder') radius = scope.keep(surface.Cylinder()).Radius();
  else if (kind === 'sphere') radius = scope.keep(surface.Sphere()).Radius();
  return { kind, area: properties.Mass(), center: vec(scope.keep(properties.CentreOfMass())), normal, radius };
}

export function describeEdges(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): EdgeFacts[] {
  const edges = edgesOf(oc, scope, shape);
  const index = new ShapeIndex(oc, edges);
  const between: number[][] = edges.map(() => []);
  facesOf(oc, scope, shape).forEach((face, f) => {
    for (const edge of occurrences(oc, scope, face, oc.TopAbs_ShapeEnum.TopAbs_EDGE))
      between[index.indexOf(edge)]?.push(f);
  });
  return edges.map((e, i) => {
    const edge = scope.keep(oc.TopoDS.Edge(e));
    const properties = scope.keep(new oc.GProp_GProps());
    oc.BRepGProp.LinearProperties(edge, properties, false, false);
    const curve = scope.keep(new oc.BRepAdaptor_Curve(edge));
    const kind = CURVES[curve.GetType()] ?? 'other';
    const radius = kind === 'circle' ? scope.keep(curve.Circle()).Radius() : null;
    return { kind, length: properties.Mass(), radius, faces: between[i]! };
  });
}
