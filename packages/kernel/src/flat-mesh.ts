/**
 * Triangles of flat faces with many edges. The kernel’s own mesher takes about the square of their number: 38 s for a
 * plate with 900 holes.
 */
import type { Vec3 } from '@helb/core';
import earcut, { deviation, refine } from 'earcut';

/** Closed lines, none of which crosses another: x, y, z of each point in turn, the first not said again. */
export type Loop = readonly Vec3[];

/** What may be lost or doubled of a face’s area, as a share of it. */
const AREA_SLACK = 1e-6;

/**
 * Three places among the points of all loops, laid one after the other, for each triangle; seen against the normal they
 * run counterclockwise. Null where the triangles would not fill the face exactly, or would not meet their neighbours
 * point by point.
 * @param loops the outer one first; in any direction
 */
export function flatTriangles(loops: readonly Loop[], normal: Vec3): Uint32Array | null {
  for (const angle of ANGLES) {
    const found = seenAt(angle, loops, normal);
    if (found) return found;
  }
  return null;
}

/**
 * rad; where holes stand in rows and columns, cuts from one to the next that run along them would pass through points.
 * Turned so, none of the usual rows does.
 */
const ANGLES = [0.6127, 1.0391, 0.2513];

function seenAt(angle: number, loops: readonly Loop[], normal: Vec3): Uint32Array | null {
  const flat = loops.flatMap((loop) => inPlane(loop, normal, angle));
  const starts = startsOf(loops);
  const triangles = earcut(flat, starts.slice(1));
  refine(triangles, flat);
  if (!(deviation(flat, starts.slice(1), 2, triangles) <= AREA_SLACK)) return null;
  const found = new Uint32Array(triangles.length);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    found.set(cross(flat, a, b, c) < 0 ? [a, c, b] : [a, b, c], t);
  }
  return meetsItsBorder(found, loops, starts) ? found : null;
}

/** How many points there are before each loop. */
function startsOf(loops: readonly Loop[]): number[] {
  const starts: number[] = [];
  loops.reduce((before, loop) => (starts.push(before), before + loop.length), 0);
  return starts;
}

/** Every side of a triangle is either shared by two, or a piece of a loop; and every piece is the side of one. */
function meetsItsBorder(triangles: Uint32Array, loops: readonly Loop[], starts: readonly number[]): boolean {
  const points = loops.reduce((sum, loop) => sum + loop.length, 0);
  const open = new Set<number>();
  const side = (a: number, b: number) => a * points + b;
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
      if (open.delete(side(b, a))) continue;
      if (open.has(side(a, b))) return false;
      open.add(side(a, b));
    }
  for (const [l, { length }] of loops.entries())
    for (let i = 0; i < length; i++) {
      const [a, b] = [starts[l]! + i, starts[l]! + ((i + 1) % length)];
      if (!open.delete(side(a, b)) && !open.delete(side(b, a))) return false;
    }
  return open.size === 0;
}

/** Its points along two directions square to the normal and to each other, one after the other. */
function inPlane(loop: Loop, [nx, ny, nz]: Vec3, angle: number): number[] {
  // The direction least along the normal gives the first.
  const [ax, ay, az] = Math.abs(nx) <= Math.abs(ny) && Math.abs(nx) <= Math.abs(nz) ? [1, 0, 0] : Math.abs(ny) <= Math.abs(nz) ? [0, 1, 0] : [0, 0, 1]; // prettier-ignore
  const [ux, uy, uz] = [ay! * nz - az! * ny, az! * nx - ax! * nz, ax! * ny - ay! * nx];
  const size = Math.hypot(ux, uy, uz);
  const [vx, vy, vz] = [ny * uz - nz * uy, nz * ux - nx * uz, nx * uy - ny * ux];
  const [c, s] = [Math.cos(angle) / size, Math.sin(angle) / size];
  return loop.flatMap(([x, y, z]) => {
    const [u, v] = [ux * x + uy * y + uz * z, vx * x + vy * y + vz * z];
    return [c * u - s * v, s * u + c * v];
  });
}

const cross = (at: readonly number[], a: number, b: number, c: number): number =>
  (at[2 * b]! - at[2 * a]!) * (at[2 * c + 1]! - at[2 * a + 1]!) -
  (at[2 * b + 1]! - at[2 * a + 1]!) * (at[2 * c]! - at[2 * a]!);
