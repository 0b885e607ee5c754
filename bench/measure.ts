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
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))]!;
  console.log(JSON.stringify({ bench, case: name, size, median_ms: round(at(0.5)), p95_ms: round(at(0.95)) }));
  return at(0.5);
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
