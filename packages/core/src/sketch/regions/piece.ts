/** One piece of a region's boundary: its share of the area, and where level lines cross it. */
import type { HalfEdge } from './arrange.ts';
import { isWhole, onOval, onRound, pointAt, spansOf, TAU, type Vec2 } from './primitives.ts';

interface Base {
  readonly curve: string;
  readonly forward: boolean;
  readonly from: Vec2;
  readonly to: Vec2;
}

interface Swept extends Base {
  readonly center: Vec2;
  /** Angle (of an ellipse: parameter) at `from`, and signed sweep to `to` (counter-clockwise positive), rad. */
  readonly start: number;
  readonly sweep: number;
}

/** A piece in walking order, with the region on its left. */
export type LoopPiece =
  | (Base & { readonly kind: 'line' })
  | (Swept & { readonly kind: 'arc'; readonly radius: number })
  | (Swept & { readonly kind: 'ellipse'; readonly major: Vec2; readonly minor: Vec2 })
  | (Base & {
      readonly kind: 'spline';
      readonly degree: number;
      readonly knots: readonly number[];
      readonly control: readonly Vec2[];
      /** Parameters at `from` and `to`. */
      readonly t0: number;
      readonly t1: number;
    });

export function pieceOf(h: Pick<HalfEdge, 'primitive' | 't0' | 't1'>): LoopPiece {
  const p = h.primitive;
  const base = { curve: p.curve, forward: h.t1 > h.t0, from: pointAt(p, h.t0), to: pointAt(p, h.t1) };
  if (p.kind === 'line') return { kind: 'line', ...base };
  if (p.kind === 'spline') {
    const { degree, knots, control } = p;
    return { kind: 'spline', ...base, degree, knots, control, t0: h.t0, t1: h.t1 };
  }
  const whole = isWhole(p) && Math.abs(h.t1 - h.t0) > 1 - 1e-12;
  const sweep = whole ? Math.sign(h.t1 - h.t0) * TAU : (h.t1 - h.t0) * p.sweep;
  const swept = { ...base, center: p.center, start: p.start + h.t0 * p.sweep, sweep };
  return p.kind === 'arc'
    ? { kind: 'arc', ...swept, radius: p.radius }
    : { kind: 'ellipse', ...swept, major: p.major, minor: p.minor };
}

/** A cubic or lower piece of a spline between parameters a and b of its own, as coefficients of its coordinates. */
interface Span {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly a: number;
  readonly b: number;
  /** Heights of its control points: it lies between them. */
  readonly low: number;
  readonly high: number;
}

type SplinePiece = Extract<LoopPiece, { kind: 'spline' }>;

/** Asked again for every point that may lie inside. */
const spans = new WeakMap<SplinePiece, readonly Span[]>();

/** The spline's Bézier spans between the piece's ends, walked forwards; each clipped to the piece. */
function clippedSpans(p: SplinePiece): readonly Span[] {
  let list = spans.get(p);
  if (!list) {
    const [low, high] = p.t0 < p.t1 ? [p.t0, p.t1] : [p.t1, p.t0];
    list = spansOf(p).flatMap(({ from, to, control }) => {
      const a = Math.max(0, (low - from) / (to - from));
      const b = Math.min(1, (high - from) / (to - from));
      if (b <= a) return [];
      const heights = control.map((c) => c[1]);
      return [
        {
          x: coefficients(control, 0),
          y: coefficients(control, 1),
          a,
          b,
          low: Math.min(...heights),
          high: Math.max(...heights),
        },
      ];
    });
    spans.set(p, list);
  }
  return list;
}

/** Monomial coefficients of a Bézier curve's coordinate, constant first. */
function coefficients(control: readonly Vec2[], k: 0 | 1): number[] {
  const c = control.map((p) => p[k]);
  if (c.length === 4)
    return [c[0]!, 3 * (c[1]! - c[0]!), 3 * (c[2]! - 2 * c[1]! + c[0]!), c[3]! - 3 * c[2]! + 3 * c[1]! - c[0]!];
  if (c.length === 3) return [c[0]!, 2 * (c[1]! - c[0]!), c[2]! - 2 * c[1]! + c[0]!];
  return [c[0]!, c[1]! - c[0]!];
}

const valueOf = (c: readonly number[], t: number) => c.reduceRight((sum, x) => sum * t + x, 0);
const slopeOf = (c: readonly number[], t: number) => c.reduceRight((sum, x, i) => (i === 0 ? sum : sum * t + i * x), 0);

/** The piece's share of the enclosed area (Green): half the integral of x dy − y dx. */
export function pieceArea(p: LoopPiece): number {
  const chord = (p.from[0] * p.to[1] - p.from[1] * p.to[0]) / 2;
  if (p.kind === 'line') return chord;
  if (p.kind === 'arc') return chord + (p.radius ** 2 / 2) * (p.sweep - Math.sin(p.sweep));
  if (p.kind === 'ellipse') {
    const ab = p.major[0] * p.minor[1] - p.major[1] * p.minor[0];
    return chord + (ab / 2) * (p.sweep - Math.sin(p.sweep));
  }
  // Three Gauss points integrate the quintic exactly.
  const nodes = [-Math.sqrt(0.6), 0, Math.sqrt(0.6)];
  const weights = [5 / 9, 8 / 9, 5 / 9];
  let area = 0;
  for (const { x, y, a, b } of clippedSpans(p)) {
    nodes.forEach((node, i) => {
      const t = (a + b) / 2 + (node * (b - a)) / 2;
      area += (weights[i]! * (b - a) * (valueOf(x, t) * slopeOf(y, t) - valueOf(y, t) * slopeOf(x, t))) / 4;
    });
  }
  return p.t1 > p.t0 ? area : -area;
}

/** Angles of a swept piece among two candidates. */
function within(p: Swept, angles: readonly number[]): number[] {
  return angles.filter((a) => {
    const along = p.sweep > 0 ? a - p.start : p.start - a;
    return ((along % TAU) + TAU) % TAU <= Math.abs(p.sweep);
  });
}

/** Where the level line at height y crosses a piece, as x values. */
export function crossings(p: LoopPiece, y: number): number[] {
  if (p.kind === 'line') {
    const [y0, y1] = [p.from[1], p.to[1]];
    if (y0 > y === y1 > y) return [];
    return [p.from[0] + ((y - y0) / (y1 - y0)) * (p.to[0] - p.from[0])];
  }
  if (p.kind === 'arc') {
    const s = (y - p.center[1]) / p.radius;
    if (Math.abs(s) >= 1) return [];
    const angle = Math.asin(s);
    return within(p, [angle, Math.PI - angle]).map((a) => onRound(p, a)[0]);
  }
  if (p.kind === 'ellipse') {
    // major.y cos t + minor.y sin t = h
    const reach = Math.hypot(p.major[1], p.minor[1]);
    const h = (y - p.center[1]) / reach;
    if (Math.abs(h) >= 1) return [];
    const middle = Math.atan2(p.minor[1], p.major[1]);
    const off = Math.acos(h);
    return within(p, [middle + off, middle - off]).map((a) => onOval(p, a)[0]);
  }
  return clippedSpans(p).flatMap(({ x, y: height, a, b, low, high }) =>
    y < low || y > high ? [] : roots([height[0]! - y, ...height.slice(1)], a, b).map((t) => valueOf(x, t)),
  );
}

/** Sign changes of a polynomial in (a, b], between the turning points of its slope; by bisection. */
function roots(c: readonly number[], a: number, b: number): number[] {
  const stops = [a, ...turningPoints(c).filter((t) => t > a && t < b), b];
  return stops.slice(1).flatMap((high, i) => {
    let [lo, hi] = [stops[i]!, high];
    const below = valueOf(c, lo) > 0;
    if (below === valueOf(c, hi) > 0) return [];
    for (let k = 0; k < 60 && hi - lo > 1e-16; k++) {
      const mid = (lo + hi) / 2;
      if (valueOf(c, mid) > 0 === below) lo = mid;
      else hi = mid;
    }
    return [(lo + hi) / 2];
  });
}

function turningPoints(c: readonly number[]): number[] {
  const [, b, q, r] = [c[0]!, c[1] ?? 0, 2 * (c[2] ?? 0), 3 * (c[3] ?? 0)];
  if (Math.abs(r) < 1e-14) return Math.abs(q) < 1e-14 ? [] : [-b / q];
  const d = q * q - 4 * r * b;
  if (d < 0) return [];
  const s = Math.sqrt(d);
  return [(-q - s) / (2 * r), (-q + s) / (2 * r)].sort((m, n) => m - n);
}

/** Heights between which the piece lies, or nearly. */
export function heightsOf(p: LoopPiece): number[] {
  const ends = [p.from[1], p.to[1]];
  if (p.kind === 'line') return ends;
  if (p.kind === 'arc') return [...ends, ...within(p, [Math.PI / 2, -Math.PI / 2]).map((a) => onRound(p, a)[1])];
  if (p.kind === 'ellipse') {
    const top = Math.atan2(p.minor[1], p.major[1]);
    return [...ends, ...within(p, [top, top + Math.PI]).map((a) => onOval(p, a)[1])];
  }
  return [
    ...ends,
    // Where two spans meet it may turn as well: a curve drawn alike to both sides does.
    ...clippedSpans(p).flatMap(({ y, a, b }) =>
      [a, b, ...turningPoints(y).filter((t) => t > a && t < b)].map((t) => valueOf(y, t)),
    ),
  ];
}
