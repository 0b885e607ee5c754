/** Plane areas carried along a path. */
import {
  KernelError,
  TAU,
  type FaceParent,
  type Frame,
  type HelixPath,
  type Loop,
  type PathPiece,
  type Upright,
} from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge, TopoDS_Shape, TopoDS_Wire } from 'replicad-opencascadejs';
import { combineSolids, itemsOf } from './combine.ts';
import { edgesOf, facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { edgeOfPiece, faceOfLoops, point } from './profile.ts';
import { facingOut } from './orient.ts';
import type { Scope } from './scope.ts';

export interface Sweeping {
  readonly path: readonly PathPiece[];
  readonly upright: Upright;
  /** Size at the end, the beginning being 1. */
  readonly grown: number;
}

/** @param shapeOf the solids whose edges the path takes */
export function sweepLoops(
  oc: OpenCascadeInstance,
  scope: Scope,
  frame: Frame,
  loops: readonly Loop[],
  sweeping: Sweeping,
  shapeOf: (solid: number) => TopoDS_Shape,
): Made {
  const spine = spineOf(oc, scope, sweeping.path, shapeOf);
  let first = 0;
  const tubes = loops.map((loop) => {
    const tube = tubeOf(oc, scope, frame, loop, first, spine, sweeping);
    first += loop.pieces.length;
    return tube;
  });
  const [outer, ...holes] = tubes;
  if (holes.length === 0) return outer!;
  const cut = combineSolids(oc, scope, 'cut', [outer!.shape], holes.map((h) => h.shape)); // prettier-ignore
  if (cut.length !== 1) throw ranIntoItself();
  const faces = cut[0]!.faces.map((parents) => parents.flatMap((p) => tubes[p.argument]!.faces[p.index]!));
  return { shape: cut[0]!.shape, faces };
}

const ranIntoItself = () =>
  new KernelError(
    'Carried along this path, the profile runs into itself; make it smaller, or the bends of the path wider.',
  );

function tubeOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  frame: Frame,
  loop: Loop,
  first: number,
  spine: TopoDS_Wire,
  { upright, grown }: Sweeping,
): Made {
  const { edges, face } = faceOfLoops(oc, scope, frame, [loop]);
  const wire = scope.keep(oc.BRepTools.OuterWire(face));
  const maker = scope.keep(new oc.BRepOffsetAPI_MakePipeShell(spine));
  if (upright.kind === 'along') maker.SetMode(scope.keep(new oc.gp_Dir(...upright.direction)));
  else maker.SetMode(upright.kind === 'curvature');
  maker.SetTransitionMode(oc.BRepBuilderAPI_TransitionMode.BRepBuilderAPI_RightCorner);
  if (grown === 1) maker.Add(wire, false, false);
  else {
    const law = scope.keep(new oc.Law_Linear());
    law.Set(0, 1, 1, grown);
    maker.SetLaw(wire, law, false, false);
  }
  maker.Build(scope.keep(new oc.Message_ProgressRange()));
  if (!maker.IsDone() || !maker.MakeSolid()) throw ranIntoItself();
  const shape = maker.Shape();
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  edges.forEach((edge, i) => {
    for (const made of itemsOf(scope, scope.keep(maker.Generated(edge))))
      parents[index.indexOf(made)]?.push(side(first + i));
  });
  // Of a closed path there are no caps.
  for (const [how, end] of [
    ['start', maker.FirstShape()],
    ['end', maker.LastShape()],
  ] as const)
    for (const own of facesOf(oc, scope, scope.keep(end))) {
      const at = index.indexOf(own);
      if (at >= 0 && parents[at]!.length === 0) parents[at]!.push(cap(how));
    }
  return { shape: facingOut(oc, scope, shape), faces: parents };
}

function spineOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  path: readonly PathPiece[],
  shapeOf: (solid: number) => TopoDS_Shape,
): TopoDS_Wire {
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeWire());
  for (const piece of path) {
    maker.Add(spineEdge(oc, scope, piece, shapeOf));
    if (!maker.IsDone()) throw new KernelError('The path has a gap; join the ends of its curves.');
  }
  return scope.keep(maker.Wire());
}

function spineEdge(
  oc: OpenCascadeInstance,
  scope: Scope,
  piece: PathPiece,
  shapeOf: (solid: number) => TopoDS_Shape,
): TopoDS_Edge {
  if (piece.kind === 'edge') return scope.keep(oc.TopoDS.Edge(edgesOf(oc, scope, shapeOf(piece.solid))[piece.index]!));
  return piece.kind === 'helix' ? helixEdge(oc, scope, piece) : edgeOfPiece(oc, scope, piece.frame, piece.piece);
}

/** A straight line on an unrolled cylinder or cone. */
function helixEdge(oc: OpenCascadeInstance, scope: Scope, helix: HelixPath): TopoDS_Edge {
  const { axis, from, radius, pitch, turns, taper, left } = helix;
  const at = scope.keep(new oc.gp_Ax3(point(oc, scope, axis.origin), scope.keep(new oc.gp_Dir(...axis.direction)), scope.keep(new oc.gp_Dir(...from)))); // prettier-ignore
  const surface = scope.keep(taper === 0 ? new oc.Geom_CylindricalSurface(at, radius) : new oc.Geom_ConicalSurface(at, taper, radius)); // prettier-ignore
  // On a cone the second parameter is measured along its side.
  const rise = (pitch * turns) / Math.cos(taper);
  const turn = (left ? -1 : 1) * TAU * turns;
  const size = Math.hypot(turn, rise);
  const line = scope.keep(
    new oc.Geom2d_Line(scope.keep(new oc.gp_Pnt2d(0, 0)), scope.keep(new oc.gp_Dir2d(turn / size, rise / size))),
  );
  const edge = scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(line, surface, 0, size)).Edge());
  if (!oc.BRepLib.BuildCurve3d(edge, 1e-6)) throw new KernelError('The kernel could not make this helix.');
  return edge;
}
