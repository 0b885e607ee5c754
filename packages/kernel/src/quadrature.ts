/** Integrals of smooth functions, several at once, halved where they bend. */

/** Gauss–Legendre on [−1, 1], ten points (Abramowitz & Stegun, table 25.4): places and weights of one half. */
const PLACES = [0.1488743389816312, 0.4333953941292472, 0.6794095682990244, 0.8650633666889845, 0.9739065285171717];
const WEIGHTS = [0.2955242247147529, 0.2692667193099963, 0.219086362515982, 0.1494513491505806, 0.0666713443086881];

/** Relative to the whole; the piecewise curves of sketches reach it in a few halvings. */
const TOLERANCE = 1e-10;
const MOST_HALVINGS = 9;

export type Values = readonly number[];

/** Ten-point sums of `f`, and of its size for scale. */
function sums(f: (t: number) => Values, a: number, b: number): { value: number[]; size: number[] } {
  const [middle, half] = [(a + b) / 2, (b - a) / 2];
  const value: number[] = [];
  const size: number[] = [];
  const add = (values: Values, weight: number) =>
    values.forEach((x, i) => {
      value[i] = (value[i] ?? 0) + weight * x;
      size[i] = (size[i] ?? 0) + weight * Math.abs(x);
    });
  for (let i = 0; i < PLACES.length; i++) {
    add(f(middle - half * PLACES[i]!), WEIGHTS[i]! * half);
    add(f(middle + half * PLACES[i]!), WEIGHTS[i]! * half);
  }
  return { value, size };
}

/** Without halving: exact for polynomials up to degree 19, and as good for a turn of sines. */
export const plainIntegral = (f: (t: number) => Values, a: number, b: number): number[] => sums(f, a, b).value;

/** Two points: exact for polynomials up to degree 3. */
export function straightIntegral(f: (t: number) => Values, a: number, b: number): number[] {
  const [middle, off] = [(a + b) / 2, (b - a) / 2 / Math.sqrt(3)];
  const other = f(middle + off);
  return f(middle - off).map((x, i) => ((x + other[i]!) * (b - a)) / 2);
}

/** @param floor what it is part of is about so large: less than a share of that is not chased */
export function integrals(f: (t: number) => Values, a: number, b: number, floor = 1e-12): number[] {
  const whole = sums(f, a, b);
  // One scale for all: what comes to nothing by symmetry is not chased below the others' rounding.
  const scale = Math.max(...whole.size.map(Math.abs), floor);
  const refine = (low: number, high: number, known: Values, depth: number): number[] => {
    const middle = (low + high) / 2;
    const [one, other] = [sums(f, low, middle).value, sums(f, middle, high).value];
    const both = one.map((x, i) => x + other[i]!);
    if (depth >= MOST_HALVINGS || both.every((x, i) => Math.abs(x - known[i]!) <= TOLERANCE * scale)) return both;
    const rest = refine(middle, high, other, depth + 1);
    return refine(low, middle, one, depth + 1).map((x, i) => x + rest[i]!);
  };
  return refine(a, b, whole.value, 0);
}

export const integral = (f: (t: number) => number, a: number, b: number): number => integrals((t) => [f(t)], a, b)[0]!;
