/** Where the faces of a solid lie, kept with it, so that what meets few of them need not look at the others. */
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { normalOfFlat } from './describe.ts';
import { facesOf, occurrences } from './explore.ts';
import type { Scope } from './scope.ts';

/** mm; x, y, z of the lower corner, then of the upper one. Holds the shape, and may be a little larger. */
export type Extent = readonly [number, number, number, number, number, number];

export interface FacePlace {
  readonly extent: Extent;
  /** Undefined until it is asked for; null where the face is not square to x, y or z. */
  square?: SquareFace | null;
}

/** A flat face square to one of the coordinate axes. */
export interface SquareFace {
  readonly axis: 0 | 1 | 2;
  /** On which side it looks, along the axis. */
  readonly looks: 1 | -1;
  /** mm along the axis */
  readonly at: number;
  readonly outer: readonly Side[];
  readonly inner: readonly Extent[];
}

/** An edge of an outline, from one place to another. */
interface Side {
  readonly extent: Extent;
  readonly ends: readonly [Place, Place];
}
type Place = readonly [number, number, number];

/** Normals that lean less are square. rad */
const SQUARE = 1e-12;
/** mm */
const ON_FACE = 1e-7;

export function extentOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): Extent {
  const box = scope.keep(new oc.Bnd_Box());
  oc.BRepBndLib.Add(shape, box, false);
  const [low, high] = [scope.keep(box.CornerMin()), scope.keep(box.CornerMax())];
  return [low.X(), low.Y(), low.Z(), high.X(), high.Y(), high.Z()];
}

/** Of all its faces, in the kernel’s order. */
export const placesOf = (oc: OpenCascadeInstance, scope: Scope, solid: TopoDS_Shape): FacePlace[] =>
  facesOf(oc, scope, solid).map((face) => ({ extent: extentOf(oc, scope, face) }));

export function overlap(a: Extent, b: Extent, slack: number): boolean {
  for (let k = 0; k < 3; k++) if (a[k]! > b[k + 3]! + slack || b[k]! > a[k + 3]! + slack) return false;
  return true;
}

export function squareFaceOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): SquareFace | null {
  const normal = normalOfFlat(oc, scope, shape);
  const axis = normal?.findIndex((n) => Math.abs(n) > 1 / 2) as 0 | 1 | 2;
  if (!normal || normal.some((n, k) => k !== axis && Math.abs(n) > SQUARE)) return null;
  const { TopAbs_WIRE, TopAbs_EDGE, TopAbs_VERTEX } = oc.TopAbs_ShapeEnum;
  const outer = scope.keep(oc.BRepTools.OuterWire(scope.keep(oc.TopoDS.Face(shape))));
  const sides = occurrences(oc, scope, outer, TopAbs_EDGE).map((edge): Side | null => {
    const ends = occurrences(oc, scope, edge, TopAbs_VERTEX).map((v): Place => {
      const p = scope.keep(oc.BRep_Tool.Pnt(scope.keep(oc.TopoDS.Vertex(v))));
      return [p.X(), p.Y(), p.Z()];
    });
    return ends.length === 2 ? { extent: extentOf(oc, scope, edge), ends: [ends[0]!, ends[1]!] } : null;
  });
  if (sides.length === 0 || sides.includes(null)) return null;
  const plane = scope.keep(scope.keep(new oc.BRepAdaptor_Surface(scope.keep(oc.TopoDS.Face(shape)), true)).Plane());
  const location = scope.keep(plane.Location());
  const at = [location.X(), location.Y(), location.Z()][axis]!;
  // Of what was read from elsewhere lines may lie off their face; what goes by the face would miss them.
  if (sides.some((side) => side!.ends.some((end) => Math.abs(end[axis] - at) > ON_FACE))) return null;
  return {
    axis,
    looks: normal[axis]! > 0 ? 1 : -1,
    at,
    outer: sides as Side[],
    inner: occurrences(oc, scope, shape, TopAbs_WIRE)
      .filter((wire) => !wire.IsSame(outer))
      .map((wire) => extentOf(oc, scope, wire)),
  };
}

/** Whether none of the face’s lines comes near, so that it is there all over or not at all. */
export const isClearOfLines = (face: SquareFace, extent: Extent, slack: number): boolean =>
  !face.inner.some((hole) => overlap(hole, extent, slack)) &&
  !face.outer.some((side) => overlap(side.extent, extent, slack));

/**
 * Is the face there, rather than a gap beside it? Lines to the right are counted, an odd number when within: as no line
 * comes near, each lies wholly to one side, and is met once where its ends lie above and below.
 * @param extent clear of the face’s lines
 */
export function isThere(face: SquareFace, extent: Extent): boolean {
  const [u, v] = face.axis === 0 ? [1, 2] : face.axis === 1 ? [2, 0] : [0, 1];
  const heights = face.outer.flatMap((side) => side.ends.map((end) => end[v!]!));
  const [low, high] = [extent[v!]!, extent[v! + 3]!];
  // Not just as high as where two lines meet.
  const at = PLACES.map((share) => low + share * (high - low)).find((h) => heights.every((end) => Math.abs(end - h) > (high - low) * NEAR)); // prettier-ignore
  if (at === undefined) return false;
  const met = face.outer.filter(
    ({ extent: own, ends: [a, b] }) => own[u!]! > extent[u!]! && a[v!]! < at !== b[v!]! < at,
  );
  return met.length % 2 === 1;
}

const PLACES = [0.4173, 0.5309, 0.6127, 0.3391];
const NEAR = 1e-6;
