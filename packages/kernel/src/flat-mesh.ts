/**
 * Triangles of flat faces with many edges. The kernel’s own mesher takes about the square of their number: 38 s for a
 * plate with 900 holes.
 */
import type { Vec3 } from '@helb/core';
import earcut, { refine } from 'earcut';

/** Closed lines, none of which crosses another: x, y, z of each point in turn, the first not said again. */
export type Loop = readonly Vec3[];

/** What may be lost or doubled of a face’s area, of the whole. */
const AREA_SLACK = 1e-6;

/**
 * Three places among the points of all loops, laid one after the other, for each triangle; seen against the normal they
 * run counterclockwise. Null where the triangles would not fill the face exactly, or would not meet their neighbours
 * point by point.
 * @param loops in any order and direction
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
  const flat = loops.map((loop) => inPlane(loop, normal, angle));
  const areas = flat.map(areaOf);
  const outer = areas.reduce((most, area, i) => (Math.abs(area) > Math.abs(areas[most]!) ? i : most), 0);
  const inOrder = [outer, ...flat.keys()].filter((loop, at) => at === 0 || loop !== outer);
  const coordinates = inOrder.flatMap((loop) => flat[loop]!);
  const firsts: number[] = [];
  const places: number[] = [];
  const starts: number[] = [];
  loops.reduce((start, loop) => (starts.push(start), start + loop.length), 0);
  for (const loop of inOrder) {
    firsts.push(places.length);
    for (let i = 0; i < loops[loop]!.length; i++) places.push(starts[loop]! + i);
  }
  const triangles = earcut(coordinates, firsts.slice(1));
  refine(triangles, coordinates);
  const found = new Uint32Array(triangles.length);
  let filled = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const twice = cross(coordinates, a, b, c);
    filled += Math.abs(twice) / 2;
    found.set([places[a]!, places[twice < 0 ? c : b]!, places[twice < 0 ? b : c]!], t);
  }
  const holes = areas.reduce((sum, area, i) => (i === outer ? sum : sum + Math.abs(area)), 0);
  const whole = Math.abs(areas[outer]!);
  if (!(Math.abs(filled - (whole - holes)) <= AREA_SLACK * whole)) return null;
  return meetsItsBorder(found, loops, starts) ? found : null;
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

/** Signed, by the shoelace formula. */
function areaOf(flat: readonly number[]): number {
  let twice = 0;
  for (let i = 0, j = flat.length - 2; i < flat.length; j = i, i += 2)
    twice += flat[j]! * flat[i + 1]! - flat[i]! * flat[j + 1]!;
  return twice / 2;
}

const cross = (at: readonly number[], a: number, b: number, c: number): number =>
  (at[2 * b]! - at[2 * a]!) * (at[2 * c + 1]! - at[2 * a + 1]!) -
  (at[2 * b + 1]! - at[2 * a + 1]!) * (at[2 * c]! - at[2 * a]!);
