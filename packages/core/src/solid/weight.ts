/** What several solids together weigh, and how they resist being turned. */
import type { Vec3 } from '../space/vector.ts';
import { cross, dot, minus, unit } from '../space/vector.ts';
import { placedAt, turned, type Pose, type Quat } from '../space/pose.ts';
import type { Inertia, SolidBulk } from './kernel.ts';

export type Rows = Inertia['rows'];

export interface Weight extends SolidBulk {
  /** About axes through the common centre, density 1, mm⁵. */
  readonly rows: Rows;
}

/** Of several taken as one (Steiner): each about the common centre. @param solids at least one */
export function together(solids: readonly (SolidBulk & { readonly rows: Rows })[]): Weight {
  const volume = solids.reduce((sum, s) => sum + s.volume, 0);
  const at = (k: 0 | 1 | 2) => solids.reduce((sum, s) => sum + s.volume * s.center[k], 0) / volume;
  const center: Vec3 = [at(0), at(1), at(2)];
  const rows = solids.map((s) => shifted(s.rows, s.volume, minus(s.center, center)));
  const sum = (i: 0 | 1 | 2, k: 0 | 1 | 2) => rows.reduce((all, r) => all + r[i][k], 0);
  const row = (i: 0 | 1 | 2): Vec3 => [sum(i, 0), sum(i, 1), sum(i, 2)];
  return { volume, center, rows: [row(0), row(1), row(2)] };
}

/** Of the same thing of so many kg a mm³, standing elsewhere: what was mm³ and mm⁵ is kg and kg·mm² then. */
export function standingWeight({ volume, center, rows }: Weight, { at, turn }: Pose, density: number): Weight {
  return { volume: volume * density, center: placedAt({ at, turn }, center), rows: turnedRows(rows, turn, density) };
}

/** About axes turned along with the thing: R I Rᵀ. */
export function turnedRows(rows: Rows, turn: Quat, by = 1): Rows {
  const axes = ([[1, 0, 0], [0, 1, 0], [0, 0, 1]] as const).map((a) => turned(turn, a)); // prettier-ignore
  const row = (i: number): Vec3 =>
    [0, 1, 2].map((k) => by * sumOver((m, n) => axes[m]![i]! * rows[m]![n]! * axes[n]![k]!)) as unknown as Vec3;
  return [row(0), row(1), row(2)];
}
const sumOver = (of: (m: number, n: number) => number) =>
  [0, 1, 2].reduce((all, m) => all + of(m, 0) + of(m, 1) + of(m, 2), 0);

/** About parallel axes through another place. @param by from there to the centre. @param mass volume, with density 1 */
export function shifted(rows: Rows, mass: number, by: Vec3): Rows {
  const d2 = dot(by, by);
  const row = (i: 0 | 1 | 2): Vec3 => [0, 1, 2].map((k) => rows[i][k]! + mass * ((i === k ? d2 : 0) - by[i] * by[k]!)) as unknown as Vec3; // prettier-ignore
  return [row(0), row(1), row(2)];
}

export interface Principal {
  /** From the smallest to the largest. */
  readonly moments: Vec3;
  /** Unit vectors, right-handed. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
}

const MOST_SWEEPS = 50;

/** The axes about which nothing pulls sideways (Jacobi's rotations). */
export function principalOf(rows: Rows): Principal {
  const a = rows.map((r) => [...r]);
  const v = [[1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
  const size = Math.hypot(...rows.flat());
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    const off = Math.hypot(a[0]![1]!, a[0]![2]!, a[1]![2]!);
    if (off <= 1e-14 * size) break;
    for (const [p, q] of [[0, 1], [0, 2], [1, 2]] as const) rotate(a, v, p, q); // prettier-ignore
  }
  const order = [0, 1, 2].sort((i, k) => a[i]![i]! - a[k]![k]!);
  const axis = (i: number): Vec3 => upwards([v[0]![i]!, v[1]![i]!, v[2]![i]!]);
  const [first, second] = [axis(order[0]!), axis(order[1]!)];
  const moments = order.map((i) => a[i]![i]!) as unknown as Vec3;
  return { moments, axes: [first, second, unit(cross(first, second))!] };
}

function rotate(a: number[][], v: number[][], p: number, q: number): void {
  if (a[p]![q] === 0) return;
  const angle = 0.5 * Math.atan2(2 * a[p]![q]!, a[q]![q]! - a[p]![p]!);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (let k = 0; k < 3; k++) {
    const [x, y] = [a[k]![p]!, a[k]![q]!];
    [a[k]![p], a[k]![q]] = [c * x - s * y, s * x + c * y];
  }
  for (let k = 0; k < 3; k++) {
    const [x, y] = [a[p]![k]!, a[q]![k]!];
    [a[p]![k], a[q]![k]] = [c * x - s * y, s * x + c * y];
    const [m, n] = [v[k]![p]!, v[k]![q]!];
    [v[k]![p], v[k]![q]] = [c * m - s * n, s * m + c * n];
  }
}

/** Of a direction and its opposite the one whose largest share is above 0. */
function upwards(d: Vec3): Vec3 {
  const largest = d.reduce((best, x) => (Math.abs(x) > Math.abs(best) + 1e-12 ? x : best), 0);
  return largest < 0 ? [-d[0], -d[1], -d[2]] : d;
}
