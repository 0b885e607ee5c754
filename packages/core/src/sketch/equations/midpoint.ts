/**
 * A point midway between two others, and two points mirrored across a line.
 *   midpoint   r = m − (a + b)/2 in x and in y
 *   symmetric  r₁ = distance of (p + q)/2 from the line
 *              r₂ = (q − p)·(b − a)/|b − a|, the pair square to the line
 */
import { NO_LENGTH, type Equation, type LineSlots, type PointSlots } from '../solver/equation.ts';

function midSlot(owner: string, m: number, a: number, b: number): Equation {
  return {
    owner,
    slots: [m, a, b],
    evaluate(v, g) {
      g[0] = 1;
      g[1] = -0.5;
      g[2] = -0.5;
      return v[m]! - (v[a]! + v[b]!) / 2;
    },
  };
}

export function midpoint(owner: string, m: PointSlots, a: PointSlots, b: PointSlots): Equation[] {
  return [midSlot(owner, m.x, a.x, b.x), midSlot(owner, m.y, a.y, b.y)];
}

export function symmetric(owner: string, p: PointSlots, q: PointSlots, line: LineSlots): Equation[] {
  const { from: a, to: b } = line;
  const slots = [p.x, p.y, q.x, q.y, a.x, a.y, b.x, b.y];
  const middle: Equation = {
    owner,
    slots,
    evaluate(v, g) {
      const dx = v[b.x]! - v[a.x]!;
      const dy = v[b.y]! - v[a.y]!;
      const length = Math.max(Math.hypot(dx, dy), NO_LENGTH);
      const nx = -dy / length;
      const ny = dx / length;
      const mx = (v[p.x]! + v[q.x]!) / 2 - v[a.x]!;
      const my = (v[p.y]! + v[q.y]!) / 2 - v[a.y]!;
      const t = (mx * dx + my * dy) / (length * length);
      g[0] = g[2] = nx / 2;
      g[1] = g[3] = ny / 2;
      g[4] = -(1 - t) * nx;
      g[5] = -(1 - t) * ny;
      g[6] = -t * nx;
      g[7] = -t * ny;
      return mx * nx + my * ny;
    },
  };
  const square: Equation = {
    owner,
    slots,
    evaluate(v, g) {
      const dx = v[b.x]! - v[a.x]!;
      const dy = v[b.y]! - v[a.y]!;
      const length = Math.max(Math.hypot(dx, dy), NO_LENGTH);
      const ux = dx / length;
      const uy = dy / length;
      const qx = v[q.x]! - v[p.x]!;
      const qy = v[q.y]! - v[p.y]!;
      const along = qx * ux + qy * uy;
      g[0] = -ux;
      g[1] = -uy;
      g[2] = ux;
      g[3] = uy;
      g[6] = (qx - along * ux) / length;
      g[7] = (qy - along * uy) / length;
      g[4] = -g[6];
      g[5] = -g[7];
      return along;
    },
  };
  return [middle, square];
}
