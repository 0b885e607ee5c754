/**
 * Lofts that leave their end sections square. The kernel's own know no tangents, so the sides are made here: of each
 * piece of the outlines a B-spline surface, along it as the outlines are, across it a cubic Hermite spline through
 * them (Farin, Curves and Surfaces for CAGD, piecewise cubic interpolation), in homogeneous coordinates, so that arcs
 * stay arcs. Sides and caps are then sewn to a solid.
 */
import { KernelError, type FaceParent, type Frame, type LoftSection, type Vec3 } from '@helb/core';
import type { Geom_BSplineCurve, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { edgeOfPiece, faceOfLoops } from './profile.ts';
import { SEWN, sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';
import { alike, curveOf, faceOfPoles, knotsOf, polesOf, type Pole } from './spline-surface.ts';

export type Outline = Exclude<LoftSection, { readonly at: Vec3 }>;
/** How strongly the first and the last section are left square, 1 being as the distance to the next; null leaves them as it comes. */
export interface Pulls {
  readonly start: number | null;
  readonly end: number | null;
}

export function pulledLoft(oc: OpenCascadeInstance, scope: Scope, sections: readonly Outline[], pulls: Pulls): Made {
  const failed = () => new KernelError('The kernel could not make a body through these sections; move or turn one of them, or pull less.'); // prettier-ignore
  const centres = sections.map((s) => centreOf(oc, scope, s));
  const gaps = centres.slice(1).map((c, i) => Math.hypot(...[0, 1, 2].map((k) => c[k]! - centres[i]![k]!)));
  if (gaps.some((gap) => gap < SEWN)) throw failed();
  const leaving = endTangents(sections, centres, pulls);
  const sides = sections[0]!.pieces.map((_, k) => {
    const curves = alike(sections.map((s) => curveOf(oc, scope, edgeOfPiece(oc, scope, s.frame, s.pieces[k]!)))); // prettier-ignore
    return surfaceThrough(oc, scope, curves, gaps, leaving);
  });
  const caps = [sections[0]!, sections.at(-1)!].map((s) => faceOfLoops(oc, scope, s.frame, [{ pieces: s.pieces, area: 0 }]).face); // prettier-ignore
  const all: readonly TopoDS_Shape[] = [...sides, ...caps];
  const { solid: shape, became } = sewnSolid(oc, scope, all, failed);
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  all.forEach((face, i) => {
    const from = i < sides.length ? side(i) : cap(i === sides.length ? 'start' : 'end');
    parents[index.indexOf(became(face))]?.push(from);
  });
  return { shape, faces: parents };
}

function centreOf(oc: OpenCascadeInstance, scope: Scope, { frame, pieces }: Outline): Vec3 {
  const { face } = faceOfLoops(oc, scope, frame, [{ pieces, area: 0 }]);
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.SurfaceProperties(face, properties, false, false);
  const at = scope.keep(properties.CentreOfMass());
  return [at.X(), at.Y(), at.Z()];
}

/** Directions in which the ends are left, as long as they pull; null where it comes as it does. */
function endTangents(sections: readonly Outline[], centres: readonly Vec3[], { start, end }: Pulls) {
  const square = ({ normal }: Frame, from: Vec3, to: Vec3, pull: number): Vec3 => {
    const ahead = normal.reduce((sum, n, k) => sum + n * (to[k]! - from[k]!), 0);
    const sign = Math.sign(ahead) * pull;
    return [normal[0] * sign, normal[1] * sign, normal[2] * sign];
  };
  const [a, b] = [centres.at(-2)!, centres.at(-1)!];
  return {
    start: start === null ? null : square(sections[0]!.frame, centres[0]!, centres[1]!, start),
    end: end === null ? null : square(sections.at(-1)!.frame, a, b, end),
  };
}

function surfaceThrough(
  oc: OpenCascadeInstance,
  scope: Scope,
  curves: readonly Geom_BSplineCurve[],
  gaps: readonly number[],
  leaving: { readonly start: Vec3 | null; readonly end: Vec3 | null },
): TopoDS_Shape {
  const sections = curves.map((c) => polesOf(scope, c));
  const rows = sections[0]!.map((_, j) => rowsAcross(sections.map((s) => s[j]!), gaps, leaving)); // prettier-ignore
  const at = gaps.reduce<number[]>((all, gap) => [...all, all.at(-1)! + gap], [0]);
  const across = { at, counts: at.map((_, i) => (i === 0 || i === gaps.length ? 4 : 2)), degree: 3 };
  const insideOut = 'Pulled so much, the sides of this loft turn inside out; pull less.';
  return faceOfPoles(oc, scope, rows, knotsOf(curves[0]!), across, insideOut);
}

/** The poles across one pole of the outlines: Bézier points of the spans, those between them left away (knots are double). */
function rowsAcross(
  through: readonly Pole[],
  gaps: readonly number[],
  leaving: { readonly start: Vec3 | null; readonly end: Vec3 | null },
): Pole[] {
  const last = through.length - 1;
  const slope = (i: number): Pole => {
    const [from, to] = [Math.max(0, i - 1), Math.min(last, i + 1)];
    const way = gaps.slice(from, to).reduce((sum, gap) => sum + gap, 0);
    return through[i]!.map((_, k) => (through[to]![k]! - through[from]![k]!) / way) as unknown as Pole;
  };
  const tangent = (i: number): Pole => {
    const pull = i === 0 ? leaving.start : i === last ? leaving.end : null;
    const w = through[i]![3];
    return pull ? [pull[0] * w, pull[1] * w, pull[2] * w, 0] : slope(i);
  };
  const moved = (i: number, by: number): Pole => through[i]!.map((c, k) => c + by * tangent(i)[k]!) as unknown as Pole;
  return [through[0]!, ...gaps.flatMap((gap, i) => [moved(i, gap / 3), moved(i + 1, -gap / 3)]), through[last]!];
}
