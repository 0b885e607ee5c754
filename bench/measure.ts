/** Timing that speaks in medians and percentiles, one JSON object a line. */

export interface Timing {
  /** Runs before the clock counts, for the engine to warm up. */
  readonly warmUp?: number;
  readonly runs?: number;
}

export async function time(
  bench: string,
  name: string,
  size: number,
  work: (run: number) => unknown,
  { warmUp = 3, runs = 20 }: Timing = {},
): Promise<number> {
  for (let i = 0; i < warmUp; i++) await work(i);
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await work(warmUp + i);
    times.push(performance.now() - start);
  }
  const median = within(times, 0.5);
  console.log(
    JSON.stringify({ bench, case: name, size, median_ms: round(median), p95_ms: round(within(times, 0.95)) }),
  );
  return median;
}

export function report(bench: string, name: string, size: number, value: number, unit: string): void {
  console.log(JSON.stringify({ bench, case: name, size, value: round(value), unit }));
}

function round(value: number): number {
  return Number(value.toPrecision(4));
}

/** Exponent of growth between two sizes: 1 is proportional. */
export function growth(small: { size: number; ms: number }, large: { size: number; ms: number }): number {
  return Math.log(large.ms / small.ms) / Math.log(large.size / small.size);
}

/** So many of all measured lie at or below it. @param share 0 to 1 */
export const within = (measured: readonly number[], share: number): number =>
  [...measured].sort((a, b) => a - b)[Math.min(measured.length - 1, Math.floor(measured.length * share))]!;
