/** Solids through sections. */
import { KernelError, type FaceParent, type LoftSection } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge } from 'replicad-opencascadejs';
import { itemsOf } from './combine.ts';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { edgeOfPiece, point } from './profile.ts';
import { facingOut } from './orient.ts';
import type { Scope } from './scope.ts';

/** How near, mm, the surface keeps to its sections. */
const PRECISION = 1e-6;

export function loftSections(
  oc: OpenCascadeInstance,
  scope: Scope,
  sections: readonly LoftSection[],
  ruled: boolean,
  closed: boolean,
): Made {
  const maker = scope.keep(new oc.BRepOffsetAPI_ThruSections(true, ruled, PRECISION));
  // Else it would turn and cut the sections itself.
  maker.CheckCompatibility(false);
  let edges: TopoDS_Edge[] = [];
  const wires = sections.map((section) => {
    if ('at' in section) {
      maker.AddVertex(scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeVertex(point(oc, scope, section.at))).Vertex()));
      return null;
    }
    const wire = scope.keep(new oc.BRepBuilderAPI_MakeWire());
    const own = section.pieces.map((piece) => {
      wire.Add(edgeOfPiece(oc, scope, section.frame, piece));
      if (!wire.IsDone()) throw new KernelError('The outline of a section has a gap; join the ends of its lines.');
      return scope.keep(wire.Edge());
    });
    if (edges.length === 0) edges = own;
    const made = scope.keep(wire.Wire());
    maker.AddWire(made);
    return made;
  });
  if (closed && wires[0]) maker.AddWire(wires[0]);
  maker.Build(scope.keep(new oc.Message_ProgressRange()));
  if (!maker.IsDone()) throw new KernelError('The kernel could not make a body through these sections; move or turn one of them.'); // prettier-ignore
  const shape = facingOut(oc, scope, maker.Shape());
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  edges.forEach((edge, i) => {
    for (const made of itemsOf(scope, scope.keep(maker.Generated(edge)))) parents[index.indexOf(made)]?.push(side(i));
  });
  if (!closed)
    for (const [how, end] of [
      ['start', maker.FirstShape()],
      ['end', maker.LastShape()],
    ] as const) {
      const own = scope.keep(end);
      const at = own.IsNull() ? -1 : index.indexOf(own);
      if (at >= 0) parents[at]!.push(cap(how));
    }
  return { shape, faces: parents };
}
