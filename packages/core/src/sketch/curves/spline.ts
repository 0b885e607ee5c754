/**
 * Cubic B-splines with clamped knots: through points, or by control points.
 * Basis functions after Cox and de Boor; parameters run from 0 to 1.
 */
import type { CurveOf } from '../schema.ts';

export type Vec2 = readonly [number, number];

/** How a spline's shape follows from its points: always a weighted sum of them. */
export interface SplineBasis {
  readonly degree: number;
  /** Flat knot vector. */
  readonly knots: readonly number[];
  /** Control points as weighted sums of the stored points; null where they are the same. */
  readonly matrix: readonly Float64Array[] | null;
  readonly points: number;
}

/** Ends of a spline's own parameter range past which it is continued by its last polynomial. */
const [FIRST, LAST] = [0, 1];

function clampedKnots(degree: number, inner: readonly number[]): number[] {
  return [...Array<number>(degree + 1).fill(FIRST), ...inner, ...Array<number>(degree + 1).fill(LAST)];
}

/**
 * Values of all basis functions, or of their derivatives, at u.
 * @param order 0 the functions, 1 and 2 their derivatives
 */
export function basisAt(knots: readonly number[], degree: number, u: number, order: number): Float64Array {
  const count = knots.length - degree - 1;
  const b = new Float64Array(count + degree + 1);
  if (order > degree) return b.slice(0, count);
  let span = degree;
  while (span < count - 1 && u >= knots[span + 1]!) span++;
  b[span] = 1;
  const ratio = (top: number, bottom: number) => (bottom === 0 ? 0 : top / bottom);
  for (let q = 1; q <= degree; q++) {
    const differentiate = q > degree - order;
    for (let i = span - q; i <= span; i++) {
      if (i < 0) continue;
      const left = knots[i + q]! - knots[i]!;
      const right = knots[i + q + 1]! - knots[i + 1]!;
      b[i] = differentiate
        ? q * (ratio(b[i]!, left) - ratio(b[i + 1]!, right))
        : ratio((u - knots[i]!) * b[i]!, left) + ratio((knots[i + q + 1]! - u) * b[i + 1]!, right);
    }
  }
  return b.slice(0, count);
}

const made = new Map<string, SplineBasis>();

/** The basis of a spline; equal ones are shared. */
export function basisOf(spline: Pick<CurveOf<'spline'>, 'fit' | 'points' | 'parameters'>): SplineBasis {
  const key = `${spline.fit} ${spline.points.length} ${spline.parameters?.join() ?? ''}`;
  let basis = made.get(key);
  if (!basis) {
    if (made.size > 500) made.clear();
    basis = spline.fit === 'control' ? controlBasis(spline.points.length) : throughBasis(parametersOf(spline));
    made.set(key, basis);
  }
  return basis;
}

function parametersOf({ points, parameters }: Pick<CurveOf<'spline'>, 'points' | 'parameters'>): number[] {
  const n = points.length;
  const rising = parameters?.length === n && parameters.every((p, i) => i === 0 || p > parameters[i - 1]!);
  return rising ? [...parameters] : Array.from({ length: n }, (_, i) => i / (n - 1));
}

function controlBasis(n: number): SplineBasis {
  const degree = Math.min(3, n - 1);
  const inner = Array.from({ length: n - degree - 1 }, (_, i) => (i + 1) / (n - degree));
  return { degree, knots: clampedKnots(degree, inner), matrix: null, points: n };
}

/** Interpolation with knots at the points and no bend at the ends (a natural cubic spline). */
function throughBasis(parameters: readonly number[]): SplineBasis {
  const n = parameters.length;
  if (n === 2) return { degree: 1, knots: [0, 0, 1, 1], matrix: null, points: 2 };
  const knots = clampedKnots(3, parameters.slice(1, -1));
  const size = n + 2;
  // Rows: pass each point; second derivative zero at both ends.
  const a: Float64Array[] = parameters.map((u) => basisAt(knots, 3, u, 0));
  a.push(basisAt(knots, 3, 0, 2), basisAt(knots, 3, 1, 2));
  const inverse = invert(a, size);
  return { degree: 3, knots, matrix: inverse.map((row) => row.slice(0, n)), points: n };
}

function invert(rows: readonly Float64Array[], n: number): Float64Array[] {
  const a = rows.map((r, i) => {
    const row = new Float64Array(2 * n);
    row.set(r);
    row[n + i] = 1;
    return row;
  });
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r]![c]!) > Math.abs(a[pivot]![c]!)) pivot = r;
    [a[c], a[pivot]] = [a[pivot]!, a[c]!];
    const scale = 1 / a[c]![c]!;
    for (let k = 0; k < 2 * n; k++) a[c]![k]! *= scale;
    for (let r = 0; r < n; r++) {
      const factor = a[r]![c]!;
      if (r === c || factor === 0) continue;
      for (let k = 0; k < 2 * n; k++) a[r]![k]! -= factor * a[c]![k]!;
    }
  }
  return a.map((row) => row.slice(n));
}

/** Weights of the stored points in the curve's place (order 0) or derivatives (1, 2) at t. */
export function weightsAt(basis: SplineBasis, t: number, order: number): Float64Array {
  const b = basisAt(basis.knots, basis.degree, t, order);
  if (!basis.matrix) return b;
  const weights = new Float64Array(basis.points);
  b.forEach((value, i) => {
    if (value !== 0) basis.matrix![i]!.forEach((m, j) => (weights[j]! += value * m));
  });
  return weights;
}

/** Control points of the curve through, or drawn towards, these points. */
export function controlPoints(basis: SplineBasis, points: readonly Vec2[]): Vec2[] {
  if (!basis.matrix) return [...points];
  return basis.matrix.map((row) => {
    let [x, y] = [0, 0];
    row.forEach((w, j) => {
      x += w * points[j]![0];
      y += w * points[j]![1];
    });
    return [x, y];
  });
}

/** Where points lie along a spline drawn through them: by the square root of their spacing, from 0 to 1. */
export function centripetal(points: readonly Vec2[]): number[] {
  const at = [0];
  for (let i = 1; i < points.length; i++) {
    const step = Math.sqrt(Math.hypot(points[i]![0] - points[i - 1]![0], points[i]![1] - points[i - 1]![1]));
    at.push(at[i - 1]! + Math.max(step, 1e-6));
  }
  return at.map((s) => s / at.at(-1)!);
}

/** The spline's polynomial spans as cubic (or lower) Bézier control points, in order. */
export function bezierSpans(
  degree: number,
  knots: readonly number[],
  control: readonly Vec2[],
): { readonly from: number; readonly to: number; readonly control: Vec2[] }[] {
  const spans: { from: number; to: number; control: Vec2[] }[] = [];
  for (let k = degree; k < knots.length - degree - 1; k++) {
    const [a, b] = [knots[k]!, knots[k + 1]!];
    if (b <= a) continue;
    // Polar values: the blossom at a…a, a…b, …, b…b are the Bézier points.
    const points = Array.from({ length: degree + 1 }, (_, j) =>
      blossom(degree, knots, control, k, [...Array<number>(degree - j).fill(a), ...Array<number>(j).fill(b)]),
    );
    spans.push({ from: a, to: b, control: points });
  }
  return spans;
}

function blossom(degree: number, knots: readonly number[], control: readonly Vec2[], span: number, at: number[]): Vec2 {
  let d = Array.from({ length: degree + 1 }, (_, i) => control[span - degree + i]!);
  for (let r = 1; r <= degree; r++) {
    const u = at[r - 1]!;
    d = Array.from({ length: degree - r + 1 }, (_, i) => {
      const low = knots[span - degree + r + i]!;
      const high = knots[span + 1 + i]!;
      const s = (u - low) / (high - low);
      const [p, q] = [d[i]!, d[i + 1]!];
      return [p[0] + s * (q[0] - p[0]), p[1] + s * (q[1] - p[1])] as const;
    });
  }
  return d[0]!;
}
