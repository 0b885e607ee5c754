import { describe, expect, test } from '@jest/globals';
import { inSlices } from './slices.ts';

function* counting(to: number): Generator<number | undefined, string> {
  for (let i = 1; i <= to; i++) {
    const until = performance.now() + 1;
    while (performance.now() < until);
    yield i % 10 === 0 ? i : undefined;
  }
  return 'done';
}

describe('work in slices', () => {
  test('runs to its end, tells what it yields, and lets others run between', async () => {
    const told: number[] = [];
    let others = 0;
    const timer = setInterval(() => others++, 1);
    const result = await inSlices(counting(60), () => true, (n) => told.push(n)); // prettier-ignore
    clearInterval(timer);
    expect(result).toBe('done');
    expect(told).toEqual([10, 20, 30, 40, 50, 60]);
    expect(others).toBeGreaterThan(1);
  });

  test('stops when it is no longer wanted', async () => {
    let wanted = true;
    const told: number[] = [];
    const running = inSlices(counting(10_000), () => wanted, (n) => told.push(n)); // prettier-ignore
    setTimeout(() => (wanted = false), 30);
    expect(await running).toBeNull();
    expect(told.length).toBeLessThan(100);
  });
});
