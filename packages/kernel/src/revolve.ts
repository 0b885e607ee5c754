/** Plane areas turned about an axis in their plane. */
import { KernelError, TAU, type Axis, type FaceParent, type Frame, type Loop } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge, TopoDS_Shape } from 'replicad-opencascadejs';
import { occurrences, facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { faceOfLoops, point } from './profile.ts';
import { facingOut } from './orient.ts';
import type { Scope } from './scope.ts';

/** Nearer than this to a whole turn is one, rad. */
const WHOLE = 1e-9;

export function revolveLoops(
  oc: OpenCascadeInstance,
  scope: Scope,
  frame: Frame,
  loops: readonly Loop[],
  axis: Axis,
  from: number,
  to: number,
): Made {
  const line = scope.keep(new oc.gp_Ax1(point(oc, scope, axis.origin), scope.keep(new oc.gp_Dir(...axis.direction))));
  const whole = to - from > TAU - WHOLE;
  const { face, edges } = faceOfLoops(oc, scope, frame, loops);
  const turn = scope.keep(new oc.gp_Trsf());
  turn.SetRotation(line, from);
  // The area is put where the turn starts; its edges are followed there.
  const placed = scope.keep(new oc.BRepBuilderAPI_Transform(face, turn, true, false));
  const start = scope.keep(placed.Shape());
  const revol = whole
    ? scope.keep(new oc.BRepPrimAPI_MakeRevol(start, line, true))
    : scope.keep(new oc.BRepPrimAPI_MakeRevol(start, line, to - from, true));
  if (!revol.IsDone()) throw new KernelError('The kernel could not turn this region about the axis.');
  const shape = facingOut(oc, scope, revol.Shape());
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  if (!whole) {
    parents[index.indexOf(scope.keep(revol.FirstShape()))]?.push(cap('start'));
    parents[index.indexOf(scope.keep(revol.LastShape()))]?.push(cap('end'));
  }
  const moved = edges.map((edge) => scope.keep(placed.ModifiedShape(edge)));
  const unnamed: number[] = [];
  moved.forEach((edge, i) => {
    const generated = scope.keep(revol.Generated(edge));
    const at = generated.IsEmpty() ? -1 : index.indexOf(scope.keep(generated.First()));
    if (at >= 0) parents[at]!.push(side(i));
    else unnamed.push(i);
  });
  // Of a whole turn the history is silent about edges square to the axis: their face is the one round which their ends run.
  for (const i of unnamed) {
    const rings = ringsOf(oc, scope, moved[i]!, revol);
    const at = index.shapes.findIndex((f, k) => parents[k]!.length === 0 && touchesAll(oc, scope, f, rings));
    if (rings.length > 0 && at >= 0) parents[at]!.push(side(i));
  }
  return { shape, faces: parents };
}

/** The edges that an edge's ends ran along. */
function ringsOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  edge: TopoDS_Shape,
  revol: { Generated(s: TopoDS_Shape): { IsEmpty(): boolean; First(): TopoDS_Shape; delete(): void } },
): TopoDS_Edge[] {
  return occurrences(oc, scope, edge, oc.TopAbs_ShapeEnum.TopAbs_VERTEX).flatMap((vertex) => {
    const generated = scope.keep(revol.Generated(vertex));
    return generated.IsEmpty() ? [] : [scope.keep(generated.First()) as TopoDS_Edge];
  });
}

function touchesAll(
  oc: OpenCascadeInstance,
  scope: Scope,
  face: TopoDS_Shape,
  rings: readonly TopoDS_Shape[],
): boolean {
  const own = new ShapeIndex(oc, occurrences(oc, scope, face, oc.TopAbs_ShapeEnum.TopAbs_EDGE));
  return rings.every((ring) => own.indexOf(ring) >= 0);
}
