/**
 * Where two curves meet when one of them is an ellipse or a spline: both are
 * cut into pieces nearly straight, pieces that come near each other are taken
 * as starts, and each start is refined until the two places are one.
 */
import { boxOf, derivativeAt, pointAt, spansOf, type Primitive, type Vec2 } from './primitives.ts';

interface Piece {
  readonly t0: number;
  readonly t1: number;
  readonly a: Vec2;
  readonly b: Vec2;
  /** How far the curve may leave its chord, mm. */
  readonly sag: number;
}

const pieces = new WeakMap<Primitive, Piece[]>();

/** Chords of a curve, each with how far the curve strays from it. */
function piecesOf(p: Primitive): Piece[] {
  let list = pieces.get(p);
  if (!list) {
    list = p.kind === 'line' ? [{ t0: 0, t1: 1, a: p.from, b: p.to, sag: 0 }] : chords(p);
    pieces.set(p, list);
  }
  return list;
}

function chords(p: Primitive): Piece[] {
  const stops: number[] = [];
  if (p.kind === 'spline') {
    for (const { from, to } of spansOf(p)) for (let i = 0; i < 8; i++) stops.push(from + ((to - from) * i) / 8);
  } else {
    const count = p.kind === 'line' ? 1 : Math.max(6, Math.ceil((24 * p.sweep) / Math.PI / 2));
    for (let i = 0; i < count; i++) stops.push(i / count);
  }
  stops.push(1);
  return stops.slice(1).map((t1, i) => {
    const t0 = stops[i]!;
    // For a chord over h the curve strays at most h²/8 of its greatest second derivative; twice that for safety.
    const bend = Math.max(...[0, 0.5, 1].map((s) => Math.hypot(...derivativeAt(p, t0 + s * (t1 - t0), 2))));
    return { t0, t1, a: pointAt(p, t0), b: pointAt(p, t1), sag: ((t1 - t0) ** 2 / 4) * bend };
  });
}

function near(p: Piece, q: Piece, slack: number): boolean {
  const reach = p.sag + q.sag + slack;
  for (const k of [0, 1] as const) {
    if (Math.min(p.a[k], p.b[k]) - reach > Math.max(q.a[k], q.b[k])) return false;
    if (Math.min(q.a[k], q.b[k]) - reach > Math.max(p.a[k], p.b[k])) return false;
  }
  return true;
}

/** Bring two parameters to the places nearest each other; damped, so that touches converge too. */
function refine(a: Primitive, b: Primitive, s: number, t: number): [number, number, number] {
  const clamp = (x: number) => Math.min(1, Math.max(0, x));
  const gap = (x: number, y: number): Vec2 => {
    const [p, q] = [pointAt(a, x), pointAt(b, y)];
    return [p[0] - q[0], p[1] - q[1]];
  };
  let r = gap(s, t);
  let damping = 1e-12;
  for (let k = 0; k < 60; k++) {
    const [u, v] = [derivativeAt(a, s, 1), derivativeAt(b, t, 1)];
    const uu = u[0] ** 2 + u[1] ** 2;
    const vv = v[0] ** 2 + v[1] ** 2;
    const uv = u[0] * v[0] + u[1] * v[1];
    const [gs, gt] = [u[0] * r[0] + u[1] * r[1], -(v[0] * r[0] + v[1] * r[1])];
    const [m11, m22] = [uu * (1 + damping), vv * (1 + damping)];
    const det = m11 * m22 - uv * uv || 1e-300;
    const nextS = clamp(s - (m22 * gs + uv * gt) / det);
    const nextT = clamp(t - (uv * gs + m11 * gt) / det);
    const next = gap(nextS, nextT);
    const better = Math.hypot(...next) < Math.hypot(...r);
    if (better) {
      const still = Math.abs(nextS - s) + Math.abs(nextT - t) < 1e-15;
      [s, t, r] = [nextS, nextT, next];
      damping = Math.max(1e-12, damping / 10);
      if (still) break;
    } else {
      damping = damping * 100;
      if (damping > 1e8) break;
    }
  }
  return [s, t, Math.hypot(...r)];
}

/** Pairs of parameters where two curves meet within `tolerance` mm. */
export function meetCurved(a: Primitive, b: Primitive, tolerance: number): { onFirst: number; onSecond: number }[] {
  const found: { onFirst: number; onSecond: number; at: Vec2 }[] = [];
  const [box, other] = [boxOf(a), boxOf(b)];
  const inBox = (p: Piece, limits: readonly number[]) =>
    Math.max(p.a[0], p.b[0]) + p.sag + tolerance >= limits[0]! &&
    Math.min(p.a[0], p.b[0]) - p.sag - tolerance <= limits[2]! &&
    Math.max(p.a[1], p.b[1]) + p.sag + tolerance >= limits[1]! &&
    Math.min(p.a[1], p.b[1]) - p.sag - tolerance <= limits[3]!;
  const second = piecesOf(b).filter((q) => inBox(q, box));
  for (const p of piecesOf(a).filter((q) => inBox(q, other))) {
    for (const q of second) {
      if (!near(p, q, tolerance)) continue;
      for (const [s, t] of starts(p, q)) {
        const [onFirst, onSecond, gap] = refine(a, b, s, t);
        if (gap > tolerance) continue;
        const at = pointAt(a, onFirst);
        // A touch is found again and again along the curve: near it, all starts end within a wider reach.
        const [u, v] = [derivativeAt(a, onFirst, 1), derivativeAt(b, onSecond, 1)];
        const touch = Math.abs(u[0] * v[1] - u[1] * v[0]) < 1e-2 * Math.hypot(...u) * Math.hypot(...v);
        const reach = touch ? 10 * Math.sqrt(tolerance * (1 + Math.hypot(...u))) : tolerance * 50;
        if (!found.some((f) => Math.hypot(f.at[0] - at[0], f.at[1] - at[1]) < reach))
          found.push({ onFirst, onSecond, at });
      }
    }
  }
  return found;
}

/** From where to refine within two pieces: their middles and ends. */
function starts(p: Piece, q: Piece): [number, number][] {
  const mid = (x: Piece) => (x.t0 + x.t1) / 2;
  return [
    [mid(p), mid(q)],
    [p.t0, q.t0],
    [p.t1, q.t1],
  ];
}
