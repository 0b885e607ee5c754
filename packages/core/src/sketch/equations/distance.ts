/**
 * Distance of two points.
 *   r = |q − p| − d
 *   ∂r/∂q = u, ∂r/∂p = −u, with u = (q − p)/|q − p|
 * Degenerates when p = q: u is taken along x, which lets the points part.
 */
import { NO_LENGTH, type Equation, type LineSlots, type PointSlots } from '../solver/equation.ts';

export function pointDistance(owner: string, p: PointSlots, q: PointSlots, d: number): Equation {
  return {
    owner,
    slots: [p.x, p.y, q.x, q.y],
    evaluate(v, g) {
      const dx = v[q.x]! - v[p.x]!;
      const dy = v[q.y]! - v[p.y]!;
      const length = Math.hypot(dx, dy);
      const ux = length > NO_LENGTH ? dx / length : 1;
      const uy = length > NO_LENGTH ? dy / length : 0;
      g[0] = -ux;
      g[1] = -uy;
      g[2] = ux;
      g[3] = uy;
      return length - d;
    },
  };
}

/**
 * Signed distance of a point from a line, on the side it is drawn on.
 *   r = σ·s − d, s = (b − a) × (p − a) / |b − a|
 *   ∂s/∂p = n, ∂s/∂a = −(1 − t) n, ∂s/∂b = −t n, t the foot's place along a→b
 * Degenerates when the line has no length.
 */
export function pointLineDistance(owner: string, p: PointSlots, line: LineSlots, d: number, side: 1 | -1): Equation {
  const { from: a, to: b } = line;
  return {
    owner,
    slots: [p.x, p.y, a.x, a.y, b.x, b.y],
    evaluate(v, g) {
      const dx = v[b.x]! - v[a.x]!;
      const dy = v[b.y]! - v[a.y]!;
      const px = v[p.x]! - v[a.x]!;
      const py = v[p.y]! - v[a.y]!;
      const length = Math.max(Math.hypot(dx, dy), NO_LENGTH);
      const nx = (-dy / length) * side;
      const ny = (dx / length) * side;
      const t = (px * dx + py * dy) / (length * length);
      g[0] = nx;
      g[1] = ny;
      g[2] = -(1 - t) * nx;
      g[3] = -(1 - t) * ny;
      g[4] = -t * nx;
      g[5] = -t * ny;
      return px * nx + py * ny - d;
    },
  };
}

/** On which side of a line a point is drawn: +1 left or on it, −1 right. */
export function sideOf(v: Float64Array, p: PointSlots, line: LineSlots): 1 | -1 {
  const { from: a, to: b } = line;
  const cross = (v[b.x]! - v[a.x]!) * (v[p.y]! - v[a.y]!) - (v[b.y]! - v[a.y]!) * (v[p.x]! - v[a.x]!);
  return cross < 0 ? -1 : 1;
}

/**
 * A distance from a circle's edge instead of its centre: r = D ∓ R − d, the
 * near edge on the side of the other thing, the far edge beyond the centre.
 * A circle that holds the other thing inside has its near edge the other way.
 * @param base the distance between centres, with the same d
 */
export function withRadius(
  owner: string,
  base: Equation,
  radii: readonly { readonly slot: number; readonly far: boolean }[],
  v: Float64Array,
  d: number,
): Equation {
  if (radii.length === 0) return base;
  const apart = base.evaluate(v, new Float64Array(base.slots.length)) + d;
  const inside = radii.some(({ slot, far }) => !far && v[slot]! > apart + 1e-9);
  const signs = radii.map(({ far }) => (far ? 1 : -1));
  const turned = inside && radii.length === 1 && !radii[0]!.far ? -1 : 1;
  return {
    owner,
    slots: [...base.slots, ...radii.map((r) => r.slot)],
    evaluate(values, g) {
      let result = base.evaluate(values, g) + d;
      radii.forEach(({ slot }, i) => {
        result += signs[i]! * values[slot]!;
        g[base.slots.length + i] = signs[i]! * turned;
      });
      if (turned < 0) for (let i = 0; i < base.slots.length; i++) g[i] = -g[i]!;
      return turned * result - d;
    },
  };
}
