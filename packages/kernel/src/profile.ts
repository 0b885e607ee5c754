/** Plane areas as faces of the kernel, with the edges their curves became. */
import { KernelError, TAU, type Frame, type Loop, type LoopPiece, type Vec2, type Vec3 } from '@helb/core';
import type { gp_Pnt, OpenCascadeInstance, TopoDS_Edge, TopoDS_Face, TopoDS_Wire } from 'replicad-opencascadejs';
import type { Scope } from './scope.ts';

export interface ProfileFace {
  readonly face: TopoDS_Face;
  /** The edge each piece of the loops became, one loop after another. */
  readonly edges: readonly TopoDS_Edge[];
}

export function faceOfLoops(oc: OpenCascadeInstance, scope: Scope, frame: Frame, loops: readonly Loop[]): ProfileFace {
  const edges: TopoDS_Edge[] = [];
  const wires = loops.map((loop) => wireOf(oc, scope, frame, loop, edges));
  const plane = scope.keep(new oc.gp_Pln(point(oc, scope, frame.origin), scope.keep(new oc.gp_Dir(...frame.normal))));
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeFace(plane, wires[0]!, true));
  for (const hole of wires.slice(1)) maker.Add(hole);
  if (!maker.IsDone())
    throw new KernelError('This region does not close into a face; look for lines that cross or nearly touch.');
  return { face: scope.keep(maker.Face()), edges };
}

export function along(frame: Frame, u: number, v: number, w: number): Vec3 {
  const at = (i: 0 | 1 | 2) => frame.origin[i] + u * frame.x[i] + v * frame.y[i] + w * frame.normal[i];
  return [at(0), at(1), at(2)];
}

export function point(oc: OpenCascadeInstance, scope: Scope, p: Vec3): gp_Pnt {
  return scope.keep(new oc.gp_Pnt(...p));
}

function wireOf(oc: OpenCascadeInstance, scope: Scope, frame: Frame, loop: Loop, edges: TopoDS_Edge[]): TopoDS_Wire {
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeWire());
  for (const piece of loop.pieces) {
    maker.Add(edgeOfPiece(oc, scope, frame, piece));
    if (!maker.IsDone()) throw new KernelError('This region’s outline has a gap; join the ends of its lines.');
    // Adding may rebuild the edge on the wire's own vertices; the history knows only that one.
    edges.push(scope.keep(maker.Edge()));
  }
  return scope.keep(maker.Wire());
}

export function edgeOfPiece(oc: OpenCascadeInstance, scope: Scope, frame: Frame, piece: LoopPiece): TopoDS_Edge {
  const place = (p: Vec2) => point(oc, scope, along(frame, p[0], p[1], 0));
  if (piece.kind === 'line') {
    return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(place(piece.from), place(piece.to))).Edge());
  }
  if (piece.kind === 'spline') return splineEdge(oc, scope, frame, piece);
  // A clockwise piece is a circle about the flipped normal, so that every edge runs forwards.
  const flip = piece.sweep < 0 ? -1 : 1;
  const start = piece.start * flip;
  const sweep = Math.min(Math.abs(piece.sweep), TAU);
  const axes = (u: Vec2) =>
    scope.keep(
      new oc.gp_Ax2(
        place(piece.center),
        scope.keep(new oc.gp_Dir(frame.normal[0] * flip, frame.normal[1] * flip, frame.normal[2] * flip)),
        scope.keep(new oc.gp_Dir(...direction(frame, u))),
      ),
    );
  if (piece.kind === 'arc') {
    const circle = scope.keep(new oc.gp_Circ(axes([1, 0]), piece.radius));
    // A whole one too: a loft goes from where one begins to where the next does.
    return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(circle, start, start + sweep)).Edge());
  }
  const [long, short] = [Math.hypot(...piece.major), Math.hypot(...piece.minor)];
  // The kernel wants the longer half axis first: a quarter turn puts the other one there.
  const swapped = short > long;
  const ellipse = scope.keep(
    new oc.gp_Elips(
      axes(swapped ? [piece.minor[0] * flip, piece.minor[1] * flip] : piece.major),
      swapped ? short : long,
      swapped ? long : short,
    ),
  );
  const from = swapped ? start - Math.PI / 2 : start;
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(ellipse, from, from + sweep)).Edge());
}

function direction(frame: Frame, [u, v]: Vec2): Vec3 {
  const at = (i: 0 | 1 | 2) => u * frame.x[i] + v * frame.y[i];
  return [at(0), at(1), at(2)];
}

function splineEdge(
  oc: OpenCascadeInstance,
  scope: Scope,
  frame: Frame,
  piece: Extract<LoopPiece, { kind: 'spline' }>,
): TopoDS_Edge {
  const poles = scope.keep(new oc.NCollection_Array1_gp_Pnt(1, piece.control.length));
  piece.control.forEach(([u, v], i) => poles.SetValue(i + 1, point(oc, scope, along(frame, u, v, 0))));
  const distinct = [...new Set(piece.knots)];
  const knots = scope.keep(new oc.NCollection_Array1_double(1, distinct.length));
  const counts = scope.keep(new oc.NCollection_Array1_int(1, distinct.length));
  distinct.forEach((knot, i) => {
    knots.SetValue(i + 1, knot);
    counts.SetValue(i + 1, piece.knots.filter((k) => k === knot).length);
  });
  const curve = scope.keep(new oc.Geom_BSplineCurve(poles, knots, counts, piece.degree, false));
  const backwards = piece.t1 < piece.t0;
  // Reversed, a curve over 0 … 1 has its places at 1 − t.
  if (backwards) curve.Reverse();
  const [from, to] = backwards ? [1 - piece.t0, 1 - piece.t1] : [piece.t0, piece.t1];
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(curve, from, to)).Edge());
}
