/** What a finished part measures, against what was drawn. */
import { finished, Ledger, PartEvaluator } from '@helb/core';
import { expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import { designOf, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

test('rounds with their counts, distances of faces and axes, angles, box, mass and centre', async () => {
  const bore = (at: readonly [number, number]) => round(4, {}, [at[0], at[1]]);
  const cut = { result: 'cut', bodies: 'all' } as never;
  const design = designOf({
    // A plate 80 by 50 by 10 with a corner cut off at 45°, and two bores of 8, 30 apart along x and 40 along the slope.
    s: outline([[0, 0], [80, 0], [80, 30], [60, 50], [0, 50]]), // prettier-ignore
    e: extruded('s', '10 mm'),
    a: bore([20, 15]),
    b: extruded('a', '10 mm', cut),
    c: bore([50, 25]),
    d: extruded('c', '10 mm', cut),
  });
  const { bodies } = await evaluator.evaluate(design, Ledger.of(design), 'p');
  const found = finished(bodies, 'steel')!;
  expect(found.rounds).toEqual([{ radius: expect.closeTo(4, 9), count: 2 }]);
  const has = (all: readonly number[], n: number) => all.some((x) => Math.abs(x - n) < 1e-9);
  // Across, up, thick; an edge of the slope; bores from the sides, from each other along x, y and straight.
  for (const length of [80, 50, 10, Math.hypot(20, 20), 20, 15, 30, 25, Math.hypot(30, 10)])
    expect([length, has(found.lengths, length)]).toEqual([length, true]);
  expect(has(found.lengths, 33)).toBe(false);
  expect(has(found.angles, Math.PI / 4)).toBe(true);
  expect(found.box).toEqual([80, 50, 10].map((n) => expect.closeTo(n, 5)));
  const area = 80 * 50 - 200 - 2 * Math.PI * 16;
  expect(found.mass).toBeCloseTo((area * 10 * 7850) / 1e9, 6);
  const moment = 80 * 50 * 40 - 200 * (80 - 20 / 3) - Math.PI * 16 * (20 + 50);
  expect(found.centre[0]).toBeCloseTo(moment / area, 6);
  expect(finished([], 'steel')).toBeNull();
});

test('a corner rounded counts by its axis; nothing is measured of nothing', async () => {
  const design = designOf({ s: outline(rectangle(0, 0, 20, 20)), e: extruded('s', '5 mm') });
  const { bodies } = await evaluator.evaluate(design, Ledger.of(design), 'p');
  expect(finished(bodies, null)).toMatchObject({ rounds: [], mass: null });
});
