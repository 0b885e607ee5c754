/**
 * B-spline surfaces through places that a function tells: of degree 1 where that is enough, else of degree 5 with as
 * many knots as it takes, found by trying; poles by interpolation at the Greville abscissae (de Boor, A Practical Guide
 * to Splines, XIII), which takes the borders through the border's places alone, so that neighbours meet.
 */
import { basisAt, KernelError, type Break, type Vec3, type WovenSide } from '@helb/core';
import type { Knots } from './spline-surface.ts';

/** How near, mm, a surface comes to the places it is told by; sewing bridges ten times as much. */
const FITTED = 1e-6;
/** The same as a share of the coordinates, which have no more digits to give. */
const FITTED_SHARE = 1e-11;
const DEGREE = 5;
const MOST_SPANS = 256;
/** Where the other way a surface is looked at while knots are sought. */
const LOOKED_AT = [0, 0.19, 0.5, 0.77, 1] as const;

export interface FittedSurface {
  readonly rows: readonly (readonly Vec3[])[];
  readonly u: Knots;
  readonly v: Knots;
}

/** @throws KernelError where it is not smooth enough to be written down */
export function fittedSurface({ across, breaks }: WovenSide): FittedSurface {
  const along = basisFor((v) => LOOKED_AT.flatMap((u) => across(v)(u)), breaks.along);
  const around = LOOKED_AT.map((v) => basisFor((u) => across(v)(u), breaks.across)).reduce((a, b) => (a.count < b.count ? b : a)); // prettier-ignore
  const lines = along.places.map((v) => {
    const at = across(v);
    return around.solved(around.places.map((u) => at(u)));
  });
  // Of each pole round, its way along.
  const rows = around.places.map((_, i) =>
    along.solved(lines.map((line) => line[i]!)).map(([x, y, z]): Vec3 => [x!, y!, z!]),
  );
  return { rows, u: around.knots, v: along.knots };
}

/** A plane curve through places told by a share of it. @throws KernelError */
export function fittedCurve(
  of: (t: number) => readonly [number, number],
  breaks: readonly Break[],
): { readonly poles: readonly (readonly [number, number])[]; readonly knots: Knots } {
  // prettier-ignore
  const basis = basisFor(of, breaks);
  return { poles: basis.solved(basis.places.map(of)).map(([x, y]) => [x!, y!]), knots: basis.knots };
}

/** The smallest basis in which the function is told well enough. @throws KernelError */
function basisFor(of: (t: number) => readonly number[], breaks: readonly Break[]): Basis {
  for (const basis of bases(breaks)) if (basis.tells(of)) return basis;
  throw new KernelError('A side of this body bends too sharply to be made; smooth what leads it.');
}

function* bases(breaks: readonly Break[]): Generator<Basis> {
  if (breaks.length === 0) yield new Basis(1, 1, []);
  for (let spans = 1; spans <= MOST_SPANS; spans *= 2) yield new Basis(DEGREE, spans, breaks);
}

/** Nearer than this, knots are one. */
const SAME = 1e-9;

class Basis {
  readonly knots: Knots;
  /** Greville abscissae: one for each basis function. */
  readonly places: readonly number[];
  private readonly flat: readonly number[];
  private readonly factors: Float64Array[];

  constructor(degree: number, spans: number, breaks: readonly Break[]) {
    const inner = breaks.map(({ at, smooth }) => ({ at, times: degree - Math.min(smooth, degree - 1) }));
    for (let i = 1; i < spans; i++)
      if (inner.every((k) => Math.abs(k.at - i / spans) > SAME)) inner.push({ at: i / spans, times: 1 });
    inner.sort((a, b) => a.at - b.at);
    const all = [{ at: 0, times: degree + 1 }, ...inner, { at: 1, times: degree + 1 }];
    this.knots = { at: all.map((k) => k.at), counts: all.map((k) => k.times), degree };
    this.flat = all.flatMap((k) => Array<number>(k.times).fill(k.at));
    const count = this.flat.length - degree - 1;
    this.places = Array.from({ length: count }, (_, i) => this.flat.slice(i + 1, i + degree + 1).reduce((a, b) => a + b, 0) / degree); // prettier-ignore
    this.factors = factored(this.places.map((t) => this.at(t)));
  }

  get count(): number {
    return this.places.length;
  }

  private at(t: number): Float64Array {
    return basisAt(this.flat, this.knots.degree, t, 0);
  }

  /** Poles of what has these values at the places. */
  solved(values: readonly (readonly number[])[]): number[][] {
    const n = this.count;
    const x = values.map((value) => [...value]);
    const reach = this.knots.degree + 1;
    for (let i = 0; i < n; i++)
      for (let j = Math.max(0, i - reach); j < i; j++) take(x[i]!, x[j]!, this.factors[i]![j]!);
    for (let i = n - 1; i >= 0; i--) {
      for (let j = i + 1; j < Math.min(n, i + reach + 1); j++) take(x[i]!, x[j]!, this.factors[i]![j]!);
      for (let k = 0; k < x[i]!.length; k++) x[i]![k]! /= this.factors[i]![i]!;
    }
    return x;
  }

  /** Does it tell a function well enough, between its places too? */
  tells(of: (t: number) => readonly number[]): boolean {
    const poles = this.solved(this.places.map(of));
    const between = this.knots.at.slice(1).flatMap((to, i) => {
      const from = this.knots.at[i]!;
      return Array.from({ length: DEGREE + 2 }, (_, k) => from + ((k + 0.31) / (DEGREE + 2)) * (to - from));
    });
    return between.every((t) => {
      const weights = this.at(t);
      return of(t).every((wanted, k) => {
        const told = poles.reduce((sum, pole, i) => sum + weights[i]! * pole[k]!, 0);
        return Math.abs(told - wanted) <= FITTED / 2 + FITTED_SHARE * Math.abs(wanted);
      });
    });
  }
}

function take(from: number[], what: readonly number[], times: number): void {
  if (times !== 0) for (let k = 0; k < from.length; k++) from[k]! -= times * what[k]!;
}

/** LU factors in one; collocation by B-splines is totally positive and needs no pivots. */
function factored(rows: Float64Array[]): Float64Array[] {
  const n = rows.length;
  for (let k = 0; k < n; k++)
    for (let i = k + 1; i < n; i++) {
      if (rows[i]![k] === 0) continue;
      const share = (rows[i]![k]! /= rows[k]![k]!);
      for (let j = k + 1; j < n; j++) rows[i]![j]! -= share * rows[k]![j]!;
    }
  return rows;
}
