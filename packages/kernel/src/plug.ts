/** What some faces of a solid enclose together with flat caps over where they end. */
import { KernelError } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge, TopoDS_Shape, TopoDS_Solid } from 'replicad-opencascadejs';
import { distinct, facesOf, ShapeIndex } from './explore.ts';
import { sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';

const open = () =>
  new KernelError('What these faces bound does not close flat, so it cannot be filled or taken off; pick all faces of a hole, a pocket or a boss.'); // prettier-ignore

/** @param picked faces that hang together. @throws KernelError where flat caps do not close them */
export function plugOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  picked: readonly number[],
): TopoDS_Solid {
  // prettier-ignore
  const faces = facesOf(oc, scope, solid);
  const caps: TopoDS_Shape[] = [];
  for (const [neighbour, edges] of bordersOf(oc, scope, faces, picked)) {
    const surface = scope.keep(new oc.BRepAdaptor_Surface(scope.keep(oc.TopoDS.Face(faces[neighbour]!)), true));
    if (surface.GetType() !== oc.GeomAbs_SurfaceType.GeomAbs_Plane) throw open();
    for (const wire of wiresOf(oc, scope, edges)) {
      const cap = scope.keep(new oc.BRepBuilderAPI_MakeFace(wire, true));
      if (!cap.IsDone()) throw open();
      caps.push(scope.keep(cap.Face()));
    }
  }
  return sewnSolid(oc, scope, [...picked.map((f) => faces[f]!), ...caps], open).solid;
}

/** Edges where the picked faces end, by the face that lies beyond. */
function bordersOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  picked: readonly number[],
): Map<number, TopoDS_Edge[]> {
  const { TopAbs_EDGE } = oc.TopAbs_ShapeEnum;
  const inner = new Set(picked);
  const sides = faces.map((face) => new ShapeIndex(oc, distinct(oc, scope, face, TopAbs_EDGE)));
  const borders = new Map<number, TopoDS_Edge[]>();
  for (const f of picked)
    for (const edge of sides[f]!.shapes) {
      const beyond = sides.findIndex((own, g) => !inner.has(g) && own.indexOf(edge) >= 0);
      if (beyond >= 0) borders.set(beyond, [...(borders.get(beyond) ?? []), scope.keep(oc.TopoDS.Edge(edge))]);
    }
  return borders;
}

/** Closed wires of edges that meet at their ends. */
function wiresOf(oc: OpenCascadeInstance, scope: Scope, edges: readonly TopoDS_Edge[]) {
  const left = [...edges];
  const wires = [];
  while (left.length > 0) {
    const maker = scope.keep(new oc.BRepBuilderAPI_MakeWire(left.shift()!));
    for (let i = 0; i < left.length;) {
      maker.Add(left[i]!);
      if (maker.IsDone()) {
        left.splice(i, 1);
        i = 0;
      } else i++;
    }
    const wire = scope.keep(maker.Wire());
    if (!wire.Closed()) throw open();
    wires.push(wire);
  }
  return wires;
}
