/**
 * How near two triangles come: the least of the nine pairs of edges and the six corners over the other’s inside, or
 * nought where an edge goes through the other. (Ericson, Real-Time Collision Detection, 5.1.9 and 5.1.5.)
 */

/** Where the last pair asked came nearest: on the first, then on the second. */
export const nearestPlaces = new Float64Array(6);

const seg = new Float64Array(6);

/**
 * @param a, b nine numbers each from an offset, corner by corner
 * @param within what is not nearer is of no interest
 * @returns the distance, Infinity where it is not below `within`; places in `nearestPlaces`
 */
export function triangleGap(a: Float64Array, i: number, b: Float64Array, j: number, within = Infinity): number {
  let best = within * within;
  if (isBeside(a, i, b, j, best) || isBeside(b, j, a, i, best)) return Infinity;
  let isNearer = false;
  for (let e = 0; e < 3; e++)
    for (let f = 0; f < 3; f++) {
      const d = segmentsGap(a, i + 3 * e, i + 3 * ((e + 1) % 3), b, j + 3 * f, j + 3 * ((f + 1) % 3));
      if (d < best) {
        best = d;
        isNearer = true;
        nearestPlaces.set(seg);
      }
    }
  for (let c = 0; c < 3; c++) {
    const d = cornerOver(a, i + 3 * c, b, j, best);
    if (d < best) {
      best = d;
      isNearer = true;
      nearestPlaces.set(seg);
    }
  }
  for (let c = 0; c < 3; c++) {
    const d = cornerOver(b, j + 3 * c, a, i, best);
    if (d < best) {
      best = d;
      isNearer = true;
      for (let k = 0; k < 3; k++) {
        nearestPlaces[k] = seg[k + 3]!;
        nearestPlaces[k + 3] = seg[k]!;
      }
    }
  }
  for (let e = 0; e < 3; e++)
    if (goesThrough(a, i + 3 * e, i + 3 * ((e + 1) % 3), b, j) || goesThrough(b, j + 3 * e, j + 3 * ((e + 1) % 3), a, i)) return 0; // prettier-ignore
  return isNearer ? Math.sqrt(best) : Infinity;
}

/** All corners of b lie on one side of the plane of a, and none nearer to it (squared). */
function isBeside(a: Float64Array, i: number, b: Float64Array, j: number, best: number): boolean {
  const ax = a[i]!;
  const ay = a[i + 1]!;
  const az = a[i + 2]!;
  const ux = a[i + 3]! - ax;
  const uy = a[i + 4]! - ay;
  const uz = a[i + 5]! - az;
  const vx = a[i + 6]! - ax;
  const vy = a[i + 7]! - ay;
  const vz = a[i + 8]! - az;
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const nn = best * (nx * nx + ny * ny + nz * nz);
  const p = (b[j]! - ax) * nx + (b[j + 1]! - ay) * ny + (b[j + 2]! - az) * nz;
  if (p * p < nn || p === 0) return false;
  const q = (b[j + 3]! - ax) * nx + (b[j + 4]! - ay) * ny + (b[j + 5]! - az) * nz;
  if (q * q < nn || p * q <= 0) return false;
  const r = (b[j + 6]! - ax) * nx + (b[j + 7]! - ay) * ny + (b[j + 8]! - az) * nz;
  return r * r >= nn && p * r > 0;
}

/** Squared distance of two segments; where in `seg`. */
function segmentsGap(p: Float64Array, p0: number, p1: number, q: Float64Array, q0: number, q1: number): number {
  const ax = p[p0]!;
  const ay = p[p0 + 1]!;
  const az = p[p0 + 2]!;
  const bx = q[q0]!;
  const by = q[q0 + 1]!;
  const bz = q[q0 + 2]!;
  const ux = p[p1]! - ax;
  const uy = p[p1 + 1]! - ay;
  const uz = p[p1 + 2]! - az;
  const vx = q[q1]! - bx;
  const vy = q[q1 + 1]! - by;
  const vz = q[q1 + 2]! - bz;
  const rx = ax - bx;
  const ry = ay - by;
  const rz = az - bz;
  const uu = ux * ux + uy * uy + uz * uz;
  const vv = vx * vx + vy * vy + vz * vz;
  const ur = ux * rx + uy * ry + uz * rz;
  const vr = vx * rx + vy * ry + vz * rz;
  const uv = ux * vx + uy * vy + uz * vz;
  const wide = uu * vv - uv * uv;
  let s = wide > 1e-14 * uu * vv ? clamp((uv * vr - ur * vv) / wide) : 0;
  let t = vv > 0 ? (uv * s + vr) / vv : 0;
  if (t < 0) {
    t = 0;
    s = uu > 0 ? clamp(-ur / uu) : 0;
  } else if (t > 1) {
    t = 1;
    s = uu > 0 ? clamp((uv - ur) / uu) : 0;
  }
  seg[0] = ax + s * ux;
  seg[1] = ay + s * uy;
  seg[2] = az + s * uz;
  seg[3] = bx + t * vx;
  seg[4] = by + t * vy;
  seg[5] = bz + t * vz;
  return (seg[0] - seg[3]) ** 2 + (seg[1] - seg[4]) ** 2 + (seg[2] - seg[5]) ** 2;
}

const clamp = (x: number) => (x < 0 ? 0 : x > 1 ? 1 : x);

/** Squared distance of a corner from a triangle’s plane, where it stands over its inside and is nearer than `best`. */
function cornerOver(p: Float64Array, at: number, t: Float64Array, i: number, best: number): number {
  const ax = t[i]!;
  const ay = t[i + 1]!;
  const az = t[i + 2]!;
  const ux = t[i + 3]! - ax;
  const uy = t[i + 4]! - ay;
  const uz = t[i + 5]! - az;
  const vx = t[i + 6]! - ax;
  const vy = t[i + 7]! - ay;
  const vz = t[i + 8]! - az;
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const nn = nx * nx + ny * ny + nz * nz;
  if (!(nn > 0)) return Infinity;
  const dx = p[at]! - ax;
  const dy = p[at + 1]! - ay;
  const dz = p[at + 2]! - az;
  const h = dx * nx + dy * ny + dz * nz;
  if (h * h >= best * nn) return Infinity;
  // Shares of u and v, by areas.
  const s = (dy * vz - dz * vy) * nx + (dz * vx - dx * vz) * ny + (dx * vy - dy * vx) * nz;
  const r = (uy * dz - uz * dy) * nx + (uz * dx - ux * dz) * ny + (ux * dy - uy * dx) * nz;
  if (s < 0 || r < 0 || s + r > nn) return Infinity;
  const k = h / nn;
  seg[0] = p[at]!;
  seg[1] = p[at + 1]!;
  seg[2] = p[at + 2]!;
  seg[3] = p[at]! - k * nx;
  seg[4] = p[at + 1]! - k * ny;
  seg[5] = p[at + 2]! - k * nz;
  return (h * h) / nn;
}

/** An edge has its ends on both sides of a triangle, and meets its plane within it. */
function goesThrough(p: Float64Array, p0: number, p1: number, t: Float64Array, i: number): boolean {
  const ax = t[i]!;
  const ay = t[i + 1]!;
  const az = t[i + 2]!;
  const ux = t[i + 3]! - ax;
  const uy = t[i + 4]! - ay;
  const uz = t[i + 5]! - az;
  const vx = t[i + 6]! - ax;
  const vy = t[i + 7]! - ay;
  const vz = t[i + 8]! - az;
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const g = (p[p0]! - ax) * nx + (p[p0 + 1]! - ay) * ny + (p[p0 + 2]! - az) * nz;
  const h = (p[p1]! - ax) * nx + (p[p1 + 1]! - ay) * ny + (p[p1 + 2]! - az) * nz;
  // Not by their product, which may come to nought.
  if ((g > 0 && h > 0) || (g < 0 && h < 0) || g === h) return false;
  const k = g / (g - h);
  const dx = p[p0]! + k * (p[p1]! - p[p0]!) - ax;
  const dy = p[p0 + 1]! + k * (p[p1 + 1]! - p[p0 + 1]!) - ay;
  const dz = p[p0 + 2]! + k * (p[p1 + 2]! - p[p0 + 2]!) - az;
  const nn = nx * nx + ny * ny + nz * nz;
  const s = (dy * vz - dz * vy) * nx + (dz * vx - dx * vz) * ny + (dx * vy - dy * vx) * nz;
  const r = (uy * dz - uz * dy) * nx + (uz * dx - ux * dz) * ny + (ux * dy - uy * dx) * nz;
  return s >= 0 && r >= 0 && s + r <= nn;
}
