/**
 * A plane area wound round a cylinder, as thick as from one radius to another. Its lower and upper side are bounded on
 * cylinders by curves of their two parameters, its walls run straight out; all are sewn.
 */
import { KernelError, knotsWithin, placeOnPiece, toSpace, type FaceParent, type Frame, type Loop, type LoopPiece, type Vec3, type Wrapping } from '@helb/core'; // prettier-ignore
import type { OpenCascadeInstance, TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { fittedCurve, fittedSurface } from './fitted-surface.ts';
import { point } from './profile.ts';
import { sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';
import { faceOfPoles, knotArrays } from './spline-surface.ts';

/** How near, mm, curves in space keep to those on the cylinders. */
const PRECISION = 1e-6;

/** @throws KernelError */
export function wrappedSolid(
  oc: OpenCascadeInstance,
  scope: Scope,
  flat: Frame,
  loops: readonly Loop[],
  on: Wrapping,
): Made {
  // prettier-ignore
  const { frame, radius, from, to } = on;
  const pieces = loops.flatMap((l) => l.pieces);
  const unrolled = unrolledOn(flat, on);
  const place = (piece: LoopPiece, share: number, r: number): Vec3 => {
    const [x, y] = unrolled(piece, share);
    const [c, s] = [Math.cos(x / radius) * r, Math.sin(x / radius) * r];
    const at = (k: 0 | 1 | 2) => frame.origin[k] + c * frame.x[k] + s * frame.y[k] + y * frame.normal[k];
    return [at(0), at(1), at(2)];
  };
  const all: { face: TopoDS_Shape; from: FaceParent }[] = pieces.map((piece, i) => {
    const across = knotsWithin(piece).map((at) => ({ at, smooth: 2 }));
    const { rows, u, v } = fittedSurface({
      piece: i,
      across: (way) => (share) => place(piece, share, from + way * (to - from)),
      breaks: { along: [], across },
    });
    return { face: faceOfPoles(oc, scope, rows, u, v), from: side(i) };
  });
  all.push({ face: capOf(oc, scope, loops, unrolled, on, from), from: cap('start') }, { face: capOf(oc, scope, loops, unrolled, on, to), from: cap('end') }); // prettier-ignore
  const failed = () => new KernelError('The kernel could not wind this area round the face; simplify its outline.');
  const { solid: shape, became } = sewnSolid(oc, scope, all.map((a) => a.face), failed); // prettier-ignore
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  for (const { face, from } of all) parents[index.indexOf(became(face))]?.push(from);
  return { shape, faces: parents };
}

/** A place of a piece, by mm round the cylinder and along its axis. */
type Unrolled = (piece: LoopPiece, share: number) => readonly [number, number];

const unrolledOn =
  (flat: Frame, { frame }: Wrapping): Unrolled =>
  (piece, share) => {
    const p = toSpace(flat, ...placeOnPiece(piece, share));
    const along = (axis: Vec3) => axis.reduce((sum, c, k) => sum + c * (p[k]! - frame.origin[k]!), 0);
    return [along(frame.y), along(frame.normal)];
  };

/** The area on the cylinder of a radius. */
function capOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  loops: readonly Loop[],
  unrolled: Unrolled,
  { frame, radius }: Wrapping,
  r: number,
): TopoDS_Face {
  // prettier-ignore
  // prettier-ignore
  const axes = new oc.gp_Ax3(point(oc, scope, frame.origin), scope.keep(new oc.gp_Dir(...frame.normal)), scope.keep(new oc.gp_Dir(...frame.x))); // prettier-ignore
  const surface = scope.keep(new oc.Geom_CylindricalSurface(scope.keep(axes), r));
  const wires = loops.map(({ pieces }) => {
    const wire = scope.keep(new oc.BRepBuilderAPI_MakeWire());
    for (const piece of pieces) {
      const breaks = knotsWithin(piece).map((at) => ({ at, smooth: 2 }));
      const { poles, knots } = fittedCurve((share) => unrolled(piece, share), breaks);
      const flat = scope.keep(new oc.NCollection_Array1_gp_Pnt2d(1, poles.length));
      poles.forEach(([x, y], i) => flat.SetValue(i + 1, scope.keep(new oc.gp_Pnt2d(x / radius, y))));
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
