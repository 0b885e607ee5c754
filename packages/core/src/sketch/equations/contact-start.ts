/** Where a contact that is to be solved for starts: the places where the curves, as drawn, come nearest to touching. */
import { weightsAt } from '../curves/spline.ts';
import type { LineSlots, PointSlots } from '../solver/equation.ts';
import type { Along, CurveSlots } from './contact.ts';

const SAMPLES = 96;

interface Sample {
  readonly t: number;
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

function samples(c: CurveSlots, v: Float64Array): Sample[] {
  const at = (p: PointSlots) => [v[p.x]!, v[p.y]!] as const;
  const list: Sample[] = [];
  for (let i = 0; i <= SAMPLES; i++) {
    const share = i / SAMPLES;
    if (c.kind === 'spline') {
      const sum = (order: number) => {
        const w = weightsAt(c.basis, share, order);
        return c.points.reduce<[number, number]>(([x, y], p, k) => [x + w[k]! * v[p.x]!, y + w[k]! * v[p.y]!], [0, 0]);
      };
      const [x, y] = sum(0);
      const [dx, dy] = sum(1);
      list.push({ t: share, x, y, dx, dy });
    } else if (c.kind === 'line') {
      const [ax, ay] = at(c.from);
      const [bx, by] = at(c.to);
      list.push({ t: share, x: ax + share * (bx - ax), y: ay + share * (by - ay), dx: bx - ax, dy: by - ay });
    } else {
      const t = share * 2 * Math.PI;
      const [cx, cy] = at(c.center);
      const [mx, my] = c.kind === 'ellipse' ? [v[c.major.x]! - cx, v[c.major.y]! - cy] : [v[c.radius]!, 0];
      const long = Math.hypot(mx, my) || 1;
      const short = c.kind === 'ellipse' ? v[c.minor]! : v[c.radius]!;
      const [nx, ny] = [(-my / long) * short, (mx / long) * short];
      const [cos, sin] = [Math.cos(t), Math.sin(t)];
      list.push({
        t,
        x: cx + mx * cos + nx * sin,
        y: cy + my * cos + ny * sin,
        dx: nx * cos - mx * sin,
        dy: ny * cos - my * sin,
      });
    }
  }
  return list;
}

/** Parameters, on each curve, where they are nearest to touching; a direction that is off counts as a distance. */
export function nearestTouch(one: CurveSlots, other: CurveSlots, v: Float64Array): [number, number] {
  const [a, b] = [samples(one, v), samples(other, v)];
  // A line goes on past its ends: the feet of the other curve's places are where it may touch.
  if (other.kind === 'line') b.push(...a.map((p) => footOn(other, p, v)));
  if (one.kind === 'line') a.push(...b.map((p) => footOn(one, p, v)));
  const size = Math.min(extent(a), extent(b));
  let best: [number, number] = [a[0]!.t, b[0]!.t];
  let least = Infinity;
  for (const p of a) {
    for (const q of b) {
      const sine = Math.abs(p.dx * q.dy - p.dy * q.dx) / (Math.hypot(p.dx, p.dy) * Math.hypot(q.dx, q.dy) + 1e-12);
      const off = Math.hypot(p.x - q.x, p.y - q.y) + 0.2 * size * sine;
      if (off < least) {
        least = off;
        best = [p.t, q.t];
      }
    }
  }
  return best;
}

function footOn({ from, to }: LineSlots, { x, y }: Sample, v: Float64Array): Sample {
  const [ax, ay] = [v[from.x]!, v[from.y]!];
  const [dx, dy] = [v[to.x]! - ax, v[to.y]! - ay];
  const t = ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1);
  return { t, x: ax + t * dx, y: ay + t * dy, dx, dy };
}

/** Parameter of the place on a curve nearest to a point. */
export function nearestParameter(curve: CurveSlots, point: PointSlots, v: Float64Array): number {
  const away = (s: Sample) => Math.hypot(s.x - v[point.x]!, s.y - v[point.y]!);
  return samples(curve, v).reduce((best, s) => (away(s) < away(best) ? s : best)).t;
}

function extent(list: readonly Sample[]): number {
  const xs = list.map((s) => s.x);
  const ys = list.map((s) => s.y);
  return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}

/** How many mm a parameter's unit is worth on this curve, about. */
export function scaleOf(curve: CurveSlots, v: Float64Array): number {
  if (curve.kind === 'round') return Math.max(v[curve.radius]!, 1e-3);
  if (curve.kind === 'ellipse')
    return Math.max(Math.hypot(v[curve.major.x]! - v[curve.center.x]!, v[curve.major.y]! - v[curve.center.y]!), 1e-3);
  return Math.max(extent(samples(curve, v)), 1e-3);
}

export type NewSlot = (value: number) => number;

/** A fresh unknown along a curve, starting at parameter t. */
export function alongAt(curve: CurveSlots, t: number, v: Float64Array, newSlot: NewSlot): Along {
  const scale = scaleOf(curve, v);
  return { slot: newSlot(t * scale), scale };
}
