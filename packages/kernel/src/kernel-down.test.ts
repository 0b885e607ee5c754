/** A kernel that falls over is started again, and what brought it down is said at its step; the rest stands. */
import { KernelDown, Ledger, PartEvaluator, type SolidKernel, type Step } from '@helb/core';
import { expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import { block, designOf, extruded, outline, rectangle } from './sample-parts.ts';

const steps: Record<string, Step> = {
  ...block(30, 20, 10),
  t: outline(rectangle(5, 5, 6, 6)),
  c: extruded('t', '30 mm', { name: 'Cut', result: 'cut' }),
  u: outline(rectangle(40, 0, 5, 5)),
  f: extruded('u', '7 mm', { name: 'Post' }),
};

test('a step at which it falls over fails in words, once; what comes after it is made', async () => {
  const kernel = await loadKernel();
  let [down, restarts, falls] = [false, 0, 0];
  const weak = new Proxy<SolidKernel>(kernel, {
    get(target, property) {
      if (property === 'isDown') return down;
      if (property === 'restart')
        return async () => {
          restarts++;
          await target.restart();
          down = false;
        };
      if (property === 'combine')
        return () => {
          falls++;
          down = true;
          throw new KernelDown('It fell over.');
        };
      if (down && property !== 'free') throw new KernelDown('It is down.');
      const value: unknown = Reflect.get(target, property);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
  const evaluator = new PartEvaluator(weak);
  const design = designOf(steps);
  for (const _ of [1, 2]) {
    const outcome = await evaluator.evaluate(design, Ledger.of(design), 'p');
    expect(outcome.steps.map((s) => s.status)).toEqual(['ok', 'ok', 'ok', 'failed', 'ok', 'ok']);
    expect(outcome.steps[3]!.message).toBe('It fell over.');
    expect(outcome.bodies.map((b) => b.facts.volume)).toEqual([6000, 175].map((v) => expect.closeTo(v, 6)));
  }
  expect([restarts, falls]).toEqual([1, 1]);
});

test('solids from before a restart are not taken for others', async () => {
  const kernel = await loadKernel();
  const frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] } as const;
  const corners = [[0, 0], [4, 0], [4, 3], [0, 3]] as const; // prettier-ignore
  const loop = { pieces: corners.map((from, i) => ({ kind: 'line' as const, curve: `l${i}`, forward: true, from, to: corners[(i + 1) % 4]! })), area: 12 }; // prettier-ignore
  const { solid } = kernel.extrude(frame, [loop], 0, 2);
  await kernel.restart();
  const fresh = kernel.extrude(frame, [loop], 0, 5);
  expect(() => kernel.bulk(solid)).toThrow(KernelDown);
  expect(kernel.bulk(fresh.solid).volume).toBeCloseTo(60, 9);
});
