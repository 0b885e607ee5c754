/**
 * Numbers that carry their derivatives along (forward differentiation), for
 * equations whose derivatives would be long to write out. Exact to rounding.
 */
import type { Equation } from './equation.ts';

export class Jet {
  /** @param d derivative by each slot of the equation */
  constructor(
    readonly v: number,
    readonly d: Float64Array,
  ) {}

  private combine(v: number, a: number, other?: Jet, b = 0): Jet {
    const d = new Float64Array(this.d.length);
    for (let i = 0; i < d.length; i++) d[i] = a * this.d[i]! + (other ? b * other.d[i]! : 0);
    return new Jet(v, d);
  }

  add(other: Jet): Jet {
    return this.combine(this.v + other.v, 1, other, 1);
  }
  sub(other: Jet): Jet {
    return this.combine(this.v - other.v, 1, other, -1);
  }
  mul(other: Jet): Jet {
    return this.combine(this.v * other.v, other.v, other, this.v);
  }
  div(other: Jet): Jet {
    const divisor = Math.abs(other.v) < 1e-12 ? (other.v < 0 ? -1e-12 : 1e-12) : other.v;
    return this.combine(this.v / divisor, 1 / divisor, other, -this.v / (divisor * divisor));
  }
  plus(c: number): Jet {
    return new Jet(this.v + c, this.d);
  }
  times(c: number): Jet {
    return this.combine(this.v * c, c);
  }
  /** Of a negative, that of zero; near zero the slope is kept finite. */
  sqrt(): Jet {
    const root = Math.sqrt(Math.max(this.v, 0));
    return this.combine(root, 0.5 / Math.max(root, 1e-9));
  }
  sin(): Jet {
    return this.combine(Math.sin(this.v), Math.cos(this.v));
  }
  cos(): Jet {
    return this.combine(Math.cos(this.v), -Math.sin(this.v));
  }
  /** Angle of (x, this), as Math.atan2. */
  atan2(x: Jet): Jet {
    const square = Math.max(this.v * this.v + x.v * x.v, 1e-18);
    return this.combine(Math.atan2(this.v, x.v), x.v / square, x, -this.v / square);
  }
}

export interface JetVec {
  readonly x: Jet;
  readonly y: Jet;
}

export const cross = (a: JetVec, b: JetVec): Jet => a.x.mul(b.y).sub(a.y.mul(b.x));
export const dotOf = (a: JetVec, b: JetVec): Jet => a.x.mul(b.x).add(a.y.mul(b.y));
export const minus = (a: JetVec, b: JetVec): JetVec => ({ x: a.x.sub(b.x), y: a.y.sub(b.y) });
export const length = (a: JetVec): Jet => dotOf(a, a).sqrt();

/** Σ weightᵢ · pointᵢ, where points are pairs of jets and weights plain numbers. */
export function weighted(points: readonly JetVec[], weights: ArrayLike<number>): JetVec {
  const sum = (pick: (p: JetVec) => Jet): Jet => {
    const n = pick(points[0]!).d.length;
    const d = new Float64Array(n);
    let v = 0;
    points.forEach((p, i) => {
      const w = weights[i]!;
      if (w === 0) return;
      const jet = pick(p);
      v += w * jet.v;
      for (let k = 0; k < n; k++) d[k]! += w * jet.d[k]!;
    });
    return new Jet(v, d);
  };
  return { x: sum((p) => p.x), y: sum((p) => p.y) };
}

/** An equation given by a formula over jets, one for each slot in order. */
export function jetEquation(owner: string, slots: readonly number[], formula: (at: readonly Jet[]) => Jet): Equation {
  return {
    owner,
    slots,
    evaluate(values, gradient) {
      const at = slots.map((slot, i) => {
        const d = new Float64Array(slots.length);
        d[i] = 1;
        return new Jet(values[slot]!, d);
      });
      const result = formula(at);
      for (let i = 0; i < slots.length; i++) gradient[i] = result.d[i]!;
      return result.v;
    },
  };
}
