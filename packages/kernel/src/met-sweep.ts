/**
 * A plane area carried along a straight line and grown to meet a guide. The kernel's own way of keeping contact gives
 * bodies that are wrong and sound, so the sides are written down: in the plane square to the line, a place of the
 * profile is multiplied, as a complex number, by where the guide is over where it began. As a product of two B-splines
 * that is a B-spline surface again, exact in homogeneous coordinates. Sides and caps are sewn to a solid.
 */
import { KernelError, type FaceParent, type Frame, type Loop } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { edgeOfPiece, faceOfLoops } from './profile.ts';
import { SEWN, sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';
import { curveOf, faceOfPoles, knotsOf, polesOf, type Knots, type Pole } from './spline-surface.ts';

/** How near, mm, a guide ends to the planes of the ends, and how far it stays at least from the line. */
const NEAR = 1e-4;
/** Places looked at on each piece of a guide. */
const LOOKED_AT = 64;

interface Curve {
  readonly poles: readonly Pole[];
  readonly knots: Knots;
  /** Places along it, both ends among them. */
  readonly places: readonly Pole[];
}

/**
 * @param path its one straight edge
 * @param guide edges that run on from each other
 * @throws KernelError
 */
export function metSweep(
  oc: OpenCascadeInstance,
  scope: Scope,
  frame: Frame,
  loops: readonly Loop[],
  path: readonly TopoDS_Edge[],
  guide: readonly TopoDS_Edge[],
): Made {
  const line = path.length === 1 ? scope.keep(new oc.BRepAdaptor_Curve(path[0]!)) : null;
  if (line?.GetType() !== oc.GeomAbs_CurveType.GeomAbs_Line)
    throw new KernelError('A profile grows to meet its guide along one straight line only; take such a path, or let it keep its size.'); // prettier-ignore
  // An edge of a body may be told against the way it is gone.
  const ends = polesOf(scope, curveOf(oc, scope, path[0]!));
  const heightIn = (p: Pole) => frame.normal.reduce((sum, n, k) => sum + n * (p[k]! - frame.origin[k]!), 0);
  const [a, b] = [ends[0]!, ends.at(-1)!].sort((p, q) => Math.abs(heightIn(p)) - Math.abs(heightIn(q))) as [Pole, Pole];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
  const rise = heightIn(b) - heightIn(a);
  if (Math.abs(Math.abs(rise) - length) > NEAR || Math.abs(heightIn(a)) > NEAR)
    throw new KernelError('To grow and meet its guide, a profile lies where the path begins and square to it; draw it there.'); // prettier-ignore
  /** x and y in the profile's plane from the line, and the height over the plane, times the weight, and the weight. */
  const local = ([x, y, z, w]: Pole): Pole => {
    const from = [x - a[0] * w, y - a[1] * w, z - a[2] * w];
    const along = (axis: readonly number[]) => axis.reduce((sum, c, k) => sum + c * from[k]!, 0);
    return [along(frame.x), along(frame.y), along(frame.normal), w];
  };
  const told = (edge: TopoDS_Edge): Curve => {
    const curve = curveOf(oc, scope, edge);
    const places = Array.from({ length: LOOKED_AT + 1 }, (_, i): Pole => {
      const at = scope.keep(curve.EvalD0(i / LOOKED_AT));
      return [at.X(), at.Y(), at.Z(), 1];
    });
    return { poles: polesOf(scope, curve).map(local), knots: knotsOf(curve), places: places.map(local) };
  };
  const spans = inOrder(guide.map(told));
  const start = placeOf(spans[0]!.poles[0]!);
  const [end, top] = [placeOf(spans.at(-1)!.poles.at(-1)!), spans.at(-1)!.poles.at(-1)!];
  refuseAside(spans, rise);
  const first = Math.hypot(...start);
  const ratio = ([x, y]: readonly [number, number]) => [(x * start[0] + y * start[1]) / first ** 2, (y * start[0] - x * start[1]) / first ** 2] as const; // prettier-ignore
  const inSpace = ([x, y, z, w]: Pole): Pole => {
    const at = (k: 0 | 1 | 2) => a[k] * w + x * frame.x[k] + y * frame.y[k] + z * frame.normal[k];
    return [at(0), at(1), at(2), w];
  };
  const sides: { face: TopoDS_Shape; piece: number }[] = [];
  loops
    .flatMap((loop) => loop.pieces)
    .forEach((piece, i) => {
      const profile = told(edgeOfPiece(oc, scope, frame, piece));
      for (const span of spans) {
        const rows = profile.poles.map(([x, y, , w]) =>
          span.poles.map(([gx, gy, gz, gw]): Pole => {
            const [re, im] = ratio([gx, gy]);
            return inSpace([re * x - im * y, re * y + im * x, gz * w, gw * w]);
          }),
        );
        const face = faceOfPoles(oc, scope, rows, profile.knots, span.knots, 'The guide of this sweep cannot be followed; redraw it.'); // prettier-ignore
        sides.push({ face, piece: i });
      }
    });
  const { face: begun } = faceOfLoops(oc, scope, frame, loops);
  const [re, im] = ratio(end);
  const ended = movedCap(oc, scope, frame, [a[0], a[1], a[2]], begun, { size: Math.hypot(re, im), turn: Math.atan2(im, re), rise: top[2] / top[3] }); // prettier-ignore
  const failed = () => new KernelError('The kernel could not close the sides of this sweep; redraw its guide.');
  const all = [...sides.map((s) => s.face), begun, ended];
  const { solid: shape, became } = sewnSolid(oc, scope, all, failed);
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  for (const { face, piece } of sides) parents[index.indexOf(became(face))]?.push(side(piece));
  parents[index.indexOf(became(begun))]?.push(cap('start'));
  parents[index.indexOf(became(ended))]?.push(cap('end'));
  return { shape, faces: parents };
}

const placeOf = ([x, y, , w]: Pole): readonly [number, number] => [x / w, y / w];
const heightOf = ([, , z, w]: Pole) => z / w;

/** Begun at the end that is nearer to the profile, and each where the one before ends. */
function inOrder(spans: readonly Curve[]): readonly Curve[] {
  const nearest = ({ poles }: Curve) => Math.min(...[poles[0]!, poles.at(-1)!].map((p) => Math.abs(heightOf(p))));
  const [first, ...rest] = nearest(spans[0]!) > nearest(spans.at(-1)!) ? spans.toReversed() : spans;
  const apart = (p: Pole, q: Pole) => Math.hypot(...[0, 1, 2].map((k) => p[k]! / p[3] - q[k]! / q[3]));
  const outset = Math.abs(heightOf(first!.poles[0]!)) > Math.abs(heightOf(first!.poles.at(-1)!)) ? turned(first!) : first!; // prettier-ignore
  return rest.reduce<Curve[]>(
    (done, next) => {
      const at = done.at(-1)!.poles.at(-1)!;
      return [...done, apart(at, next.poles[0]!) > apart(at, next.poles.at(-1)!) ? turned(next) : next];
    },
    [outset],
  );
}

const turned = ({ poles, knots, places }: Curve): Curve => ({
  poles: poles.toReversed(),
  places: places.toReversed(),
  knots: { ...knots, at: knots.at.toReversed().map((t) => 1 - t), counts: knots.counts.toReversed() },
});

/** @throws KernelError where a guide does not run from end to end beside the line, always onwards */
function refuseAside(spans: readonly Curve[], rise: number): void {
  const ahead = Math.sign(rise);
  const places = spans.flatMap((span) => span.places);
  const heights = places.map(heightOf);
  const [from, to] = [heights[0]!, heights.at(-1)!];
  const off = Math.max(Math.abs(from), Math.abs(to - rise));
  if (off > NEAR)
    throw new KernelError(`The guide runs from height ${mm(from * ahead)} to ${mm(to * ahead)} beside a path of ${mm(Math.abs(rise))}; let both begin and end level.`); // prettier-ignore
  if (heights.some((h, i) => i > 0 && (h - heights[i - 1]!) * ahead < -SEWN))
    throw new KernelError('The guide of this sweep turns back on its way; redraw it so that it always runs on.');
  if (places.some((p) => Math.hypot(...placeOf(p)) < NEAR))
    throw new KernelError('The guide of this sweep runs into its path, where nothing is left of the profile; keep it aside.'); // prettier-ignore
}

const mm = (value: number) => `${Number(value.toFixed(3))} mm`;

/** The begun face grown and turned about the line, and moved to its end. */
function movedCap(
  oc: OpenCascadeInstance,
  scope: Scope,
  { normal }: Frame,
  from: readonly [number, number, number],
  face: TopoDS_Shape,
  { size, turn, rise }: { readonly size: number; readonly turn: number; readonly rise: number },
): TopoDS_Shape {
  const at = scope.keep(new oc.gp_Pnt(...from));
  const move = scope.keep(new oc.gp_Trsf());
  move.SetTranslation(scope.keep(new oc.gp_Vec(normal[0] * rise, normal[1] * rise, normal[2] * rise)));
  const spin = scope.keep(new oc.gp_Trsf());
  spin.SetRotation(scope.keep(new oc.gp_Ax1(at, scope.keep(new oc.gp_Dir(...normal)))), turn);
  const grow = scope.keep(new oc.gp_Trsf());
  grow.SetScale(at, size);
  move.Multiply(spin);
  move.Multiply(grow);
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_Transform(face, move, true, false)).Shape());
}
