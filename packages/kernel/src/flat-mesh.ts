/**
 * Triangles of flat faces with many edges. The kernel’s own mesher takes about the square of their number: 38 s for a
 * plate with 900 holes.
 */
import type { Vec3 } from '@helb/core';
import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';

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
  const flat = loops.map((loop) => inPlane(loop, normal));
  const all = flat.flat();
  const starts = startsOf(loops);
  const triangles = within(all, loops, starts);
  if (!triangles) return null;
  const area = flat.reduce((sum, loop, l) => sum + (l === 0 ? 1 : -1) * areaOf(loop), 0);
  let filled = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const twice = cross(all, triangles[t]!, triangles[t + 1]!, triangles[t + 2]!);
    filled += Math.abs(twice) / 2;
    if (twice < 0) [triangles[t + 1], triangles[t + 2]] = [triangles[t + 2]!, triangles[t + 1]!];
  }
  return Math.abs(filled - area) <= AREA_SLACK * area && meetsItsBorder(triangles, loops, starts) ? triangles : null;
}

/** Those of the triangles between all points, made so that no loop crosses one, that lie in the face. */
function within(all: readonly number[], loops: readonly Loop[], starts: readonly number[]): Uint32Array | null {
  const mesh = new Delaunator(all);
  const limits = loops.flatMap(({ length }, l) =>
    Array.from({ length }, (_, i): [number, number] => [starts[l]! + i, starts[l]! + ((i + 1) % length)]),
  );
  let border: Constrainautor;
  try {
    border = new Constrainautor(mesh, limits);
  } catch {
    // Loops that cross, or touch.
    return null;
  }
  const { triangles, halfedges } = mesh;
  // Undefined until it is reached; from outside each line crossed leads in, or out again.
  const inside: (boolean | undefined)[] = [];
  const reached: number[] = [];
  const reach = (triangle: number, is: boolean) => {
    if (inside[triangle] !== undefined) return;
    inside[triangle] = is;
    reached.push(triangle);
  };
  halfedges.forEach((other, e) => other < 0 && reach(Math.floor(e / 3), border.isConstrained(e)));
  for (let next = reached.pop(); next !== undefined; next = reached.pop())
    for (let e = 3 * next; e < 3 * next + 3; e++)
      if (halfedges[e]! >= 0) reach(Math.floor(halfedges[e]! / 3), inside[next]! !== border.isConstrained(e));
  return Uint32Array.from(triangles.filter((_, e) => inside[Math.floor(e / 3)]));
}

function areaOf(loop: readonly number[]): number {
  let twice = 0;
  for (let i = 0; i < loop.length; i += 2) {
    const j = (i + 2) % loop.length;
    twice += loop[i]! * loop[j + 1]! - loop[j]! * loop[i + 1]!;
  }
  return Math.abs(twice) / 2;
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
function inPlane(loop: Loop, [nx, ny, nz]: Vec3): number[] {
  // The direction least along the normal gives the first.
  const [ax, ay, az] = Math.abs(nx) <= Math.abs(ny) && Math.abs(nx) <= Math.abs(nz) ? [1, 0, 0] : Math.abs(ny) <= Math.abs(nz) ? [0, 1, 0] : [0, 0, 1]; // prettier-ignore
  const [ux, uy, uz] = [ay! * nz - az! * ny, az! * nx - ax! * nz, ax! * ny - ay! * nx];
  const size = Math.hypot(ux, uy, uz);
  const [vx, vy, vz] = [ny * uz - nz * uy, nz * ux - nx * uz, nx * uy - ny * ux];
  return loop.flatMap(([x, y, z]) => [(ux * x + uy * y + uz * z) / size, (vx * x + vy * y + vz * z) / size]);
}

const cross = (at: readonly number[], a: number, b: number, c: number): number =>
  (at[2 * b]! - at[2 * a]!) * (at[2 * c + 1]! - at[2 * a + 1]!) -
  (at[2 * b + 1]! - at[2 * a + 1]!) * (at[2 * c]! - at[2 * a]!);
