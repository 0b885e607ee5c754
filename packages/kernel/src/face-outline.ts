/** The outline of a flat face, as it is or grown by a distance. */
import type { EdgeCurve } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape, TopoDS_Wire } from 'replicad-opencascadejs';
import { curvesOf } from './curves.ts';
import { facesOf, occurrences } from './explore.ts';
import type { Scope } from './scope.ts';

/**
 * @param grown mm, 0 or more, by which the area grows on every side: its outline outwards, its holes inwards; corners
 *   become arcs, and holes narrower than that go
 * @returns each loop's curves, in no order
 */
export function faceOutline(
  oc: OpenCascadeInstance,
  scope: Scope,
  shape: TopoDS_Shape,
  index: number,
  grown: number,
): EdgeCurve[][] {
  const face = scope.keep(oc.TopoDS.Face(facesOf(oc, scope, shape)[index]!));
  const outer = scope.keep(oc.BRepTools.OuterWire(face));
  const wires = wiresIn(oc, scope, face);
  const loops = grown === 0 ? wires : wires.flatMap((wire) => offsetWire(oc, scope, wire, grown, wire.IsSame(outer)));
  return loops.map((wire) => curvesOf(oc, scope, wire));
}

const wiresIn = (oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): TopoDS_Wire[] =>
  occurrences(oc, scope, shape, oc.TopAbs_ShapeEnum.TopAbs_WIRE).map((wire) => scope.keep(oc.TopoDS.Wire(wire)));

/**
 * Loop by loop: on a whole face the kernel moves some holes the wrong way. Which way is out is not told either by a
 * wire's own sense, so what it encloses decides.
 */
function offsetWire(
  oc: OpenCascadeInstance,
  scope: Scope,
  wire: TopoDS_Wire,
  by: number,
  outwards: boolean,
): TopoDS_Wire[] {
  const before = enclosedBy(oc, scope, wire);
  const [one, other] = [by, -by].map((distance) => {
    const maker = scope.keep(new oc.BRepOffsetAPI_MakeOffset(wire, oc.GeomAbs_JoinType.GeomAbs_Arc, false));
    maker.Perform(distance, 0);
    const made = scope.keep(maker.Shape());
    if (made.IsNull()) return [];
    oc.BRepLib.BuildCurves3d(made);
    return wiresIn(oc, scope, made);
  });
  const total = (wires: readonly TopoDS_Wire[]) => Math.max(0, ...wires.map((w) => enclosedBy(oc, scope, w)));
  const [larger, smaller] = total(one!) > total(other!) ? [one!, other!] : [other!, one!];
  return outwards ? larger : smaller.filter((w) => enclosedBy(oc, scope, w) < before);
}

/** mm² */
function enclosedBy(oc: OpenCascadeInstance, scope: Scope, wire: TopoDS_Wire): number {
  const face = scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(wire, true)).Face());
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.SurfaceProperties(face, properties, false, false);
  return Math.abs(properties.Mass());
}
