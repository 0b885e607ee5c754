/**
 * A plane area wound round a cylinder or a cone, as thick as from one to another beside it. Its lower and upper side are
 * bounded on such faces by curves of their two parameters, its walls run straight out; all are sewn.
 */
import { KernelError, knotsWithin, placeOnPiece, toSpace, unrolled, wound, type FaceParent, type Frame, type Loop, type LoopPiece, type Unrolled, type Vec3, type Winding } from '@helb/core'; // prettier-ignore
import type { Geom_Surface, OpenCascadeInstance, TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { fittedCurve, fittedSurface } from './fitted-surface.ts';
import { point } from './profile.ts';
import { sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';
import { faceOfPoles, knotArrays } from './spline-surface.ts';

/** How near, mm, curves in space keep to those on the faces. */
const PRECISION = 1e-6;

/** @throws KernelError */
export function woundSolid(
  oc: OpenCascadeInstance,
  scope: Scope,
  flat: Frame,
  loops: readonly Loop[],
  on: Winding,
): Made {
  // prettier-ignore
  const pieces = loops.flatMap((l) => l.pieces);
  const at: Placing = (piece, share) => unrolled(on, toSpace(flat, ...placeOnPiece(piece, share)));
  const all: { face: TopoDS_Shape; from: FaceParent }[] = pieces.map((piece, i) => {
    const across = knotsWithin(piece).map((at) => ({ at, smooth: 2 }));
    const { rows, u, v } = fittedSurface({
      piece: i,
      across: (way) => (share) => wound(on, at(piece, share), on.from + way * (on.to - on.from)),
      breaks: { along: [], across },
    });
    return { face: faceOfPoles(oc, scope, rows, u, v), from: side(i) };
  });
  all.push({ face: capOf(oc, scope, loops, at, on, on.from), from: cap('start') }, { face: capOf(oc, scope, loops, at, on, on.to), from: cap('end') }); // prettier-ignore
  const failed = () => new KernelError('The kernel could not wind this area round the face; simplify its outline.');
  const { solid: shape, became } = sewnSolid(oc, scope, all.map((a) => a.face), failed); // prettier-ignore
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  for (const { face, from } of all) parents[index.indexOf(became(face))]?.push(from);
  return { shape, faces: parents };
}

/** Where a place of a piece comes to lie. */
type Placing = (piece: LoopPiece, share: number) => Unrolled;

/** A face so far out, mm, and where its second parameter begins: at its mm along the axis or the side. */
function surfaceOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  { frame, round }: Winding,
  out: number,
): { surface: Geom_Surface; begins: number } {
  // prettier-ignore
  const axes = (high: number) => {
    const origin = point(oc, scope, frame.origin.map((o, k) => o + high * frame.normal[k]!) as unknown as Vec3);
    const made = new oc.gp_Ax3(origin, scope.keep(new oc.gp_Dir(...frame.normal)), scope.keep(new oc.gp_Dir(...frame.x))); // prettier-ignore
    return scope.keep(made);
  };
  if ('radius' in round)
    return { surface: scope.keep(new oc.Geom_CylindricalSurface(axes(0), round.radius + out)), begins: 0 };
  const [s, c] = [Math.sin(round.halfAngle), Math.cos(round.halfAngle)];
  // It begins where it is as wide as it is far from the face, as the kernel has no cone of no radius or less.
  const begins = out < 0 ? (-2 * out * c) / s : 0;
  const surface = new oc.Geom_ConicalSurface(axes(begins * c - out * s), round.halfAngle, begins * s + out * c);
  return { surface: scope.keep(surface), begins };
}

/** The area on a face so far out, mm. */
function capOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  loops: readonly Loop[],
  place: Placing,
  on: Winding,
  out: number,
): TopoDS_Face {
  // prettier-ignore
  const { surface, begins } = surfaceOf(oc, scope, on, out);
  const wires = loops.map(({ pieces }) => {
    const wire = scope.keep(new oc.BRepBuilderAPI_MakeWire());
    for (const piece of pieces) {
      const breaks = knotsWithin(piece).map((at) => ({ at, smooth: 2 }));
      const { poles, knots } = fittedCurve((share) => place(piece, share), breaks);
      const flat = scope.keep(new oc.NCollection_Array1_gp_Pnt2d(1, poles.length));
      poles.forEach(([x, y], i) => flat.SetValue(i + 1, scope.keep(new oc.gp_Pnt2d(x, y - begins))));
      const { at, counts } = knotArrays(oc, scope, knots);
      const curve = scope.keep(new oc.Geom2d_BSplineCurve(flat, at, counts, knots.degree, false));
      const edge = scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(curve, surface)).Edge());
      oc.BRepLib.BuildCurve3d(edge, PRECISION);
      wire.Add(edge);
      if (!wire.IsDone()) throw new KernelError('This outline has a gap; join the ends of its lines.');
    }
    return scope.keep(wire.Wire());
  });
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeFace(surface, wires[0]!, true));
  for (const hole of wires.slice(1)) maker.Add(hole);
  if (!maker.IsDone()) throw new KernelError('This area does not close on the face; look for lines that cross or nearly touch.'); // prettier-ignore
  return scope.keep(maker.Face());
}
