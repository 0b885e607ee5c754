/**
 * Areas with straight edges on a grid of thousandths of a mm: whole numbers, so that what touches is told from what
 * overlaps. The first loop is the outline, counter-clockwise; the others are holes, clockwise.
 */
import { Clipper, EndType, FillRule, JoinType, type Path64, type Paths64 } from 'clipper2-ts';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { convexParts, convexSum } from './convex.ts';

/** Grid units to a mm. */
export const GRID = 1000;
export type Area = Paths64;
export type Box = readonly [x0: number, y0: number, x1: number, y1: number];

/** @param loops mm; the first the outline, the others holes in it */
export const onGrid = (loops: readonly (readonly Vec2[])[]): Area =>
  loops.map((loop, i) => {
    const path = loop.map(([x, y]) => ({ x: Math.round(x * GRID), y: Math.round(y * GRID) }));
    return Clipper.isPositive(path) === (i === 0) ? path : path.reverse();
  });

export function boxOf(area: Area): Box {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const path of area)
    for (const { x, y } of path) {
      x0 = Math.min(x0, x);
      y0 = Math.min(y0, y);
      x1 = Math.max(x1, x);
      y1 = Math.max(y1, y);
    }
  return [x0, y0, x1, y1];
}

/** Grid units squared, without the holes. */
export const sizeOf = (area: Area): number => Clipper.areaPaths(area);

export const shifted = (area: Area, dx: number, dy: number): Area =>
  area.map((path) => path.map(({ x, y }) => ({ x: x + dx, y: y + dy })));

const QUARTERS = [[1, 0], [0, 1], [-1, 0], [0, -1]] as const; // prettier-ignore

/** Turned about the origin. @param turn degrees; quarters are exact, others fall on the grid */
export function turned(area: Area, turn: number): Area {
  const [c, s] =
    turn % 90 === 0
      ? QUARTERS[(((turn / 90) % 4) + 4) % 4]!
      : [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  // Adding nothing makes a zero of a negative one.
  return area.map((path) =>
    path.map(({ x, y }) => ({ x: Math.round(c * x - s * y) + 0, y: Math.round(s * x + c * y) + 0 })),
  );
}

/** Its left lowest corner at the origin. */
export function atOrigin(area: Area): Area {
  const [x0, y0] = boxOf(area);
  return shifted(area, -x0, -y0);
}

/**
 * Grown on every side by at least so much.
 * @param by grid units
 * @param tolerance by how much more at most, so that round corners have fewer chords
 */
export function grown(area: Area, by: number, tolerance = Math.max(2, by * 0.06)): Area {
  if (by <= 0) return area;
  // Chords of round corners run inside the true arc by the tolerance at most.
  return Clipper.inflatePaths(area, by + tolerance, JoinType.Round, EndType.Polygon, 2, tolerance);
}

/** Fewer corners, and grown so that it covers what it was. @param most corners aimed at */
export function simplified(area: Area, most: number): Area {
  let now = area;
  const corners = (a: Area) => a.reduce((sum, path) => sum + path.length, 0);
  for (let tolerance = 20; corners(now) > most && tolerance < 2000; tolerance *= 1.6) {
    const fewer = Clipper.simplifyPaths(area, tolerance, true).filter((path) => path.length > 2);
    now = Clipper.inflatePaths(fewer, tolerance + 1, JoinType.Miter, EndType.Polygon, 2);
  }
  return now;
}

/** An area as it is summed with others. */
export interface Summand {
  readonly area: Area;
  /** Null where it could not be taken apart. */
  readonly parts: readonly Path64[] | null;
}
export const summandOf = (area: Area): Summand => ({ area, parts: convexParts(area) });

const mirrored = (path: Path64): Path64 => path.map(({ x, y }) => ({ x: -x, y: -y }));

/**
 * Where the reference (origin) of one area may not stand, or it would come nearer to the other than the gap.
 * @param fixed stands where it is
 * @param gap grid units
 */
export function noFit(fixed: Summand, moving: Summand, gap: number): Area {
  const sums =
    fixed.parts && moving.parts
      ? fixed.parts.flatMap((one) => moving.parts!.map((other) => convexSum(one, mirrored(other))))
      : outlineSums(fixed.area, moving.area.map(mirrored));
  return grown(Clipper.union(sums, FillRule.Positive), gap + TOUCH);
}

/** The longer way: every edge of one with every edge of the other. */
function outlineSums(fixed: Area, back: Area): Area {
  const bands = fixed.flatMap((path) => back.flatMap((pattern) => Clipper.minkowskiSum(pattern, path, true)));
  // Where the outlines do not meet, one may still lie within the other.
  const [a, b] = [fixed[0]![0]!, back[0]![0]!];
  return [...bands, ...shifted(fixed, b.x, b.y), ...shifted(back, a.x, a.y)];
}

/** Beyond the gap, so that rounding to the grid never takes of it. */
const TOUCH = 3;
