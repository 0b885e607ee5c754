import { describe, expect, test } from '@jest/globals';
import { gathered } from './gathered.ts';

/** Asking that ends when it is told to. */
function asked(most = 10) {
  const rounds: { items: readonly number[]; end: (error?: Error) => void }[] = [];
  const ask = gathered<number, number>(
    most,
    (items) => new Promise((done, failed) => rounds.push({ items, end: (error) => (error ? failed(error) : done(items.map((i) => i * 10))) })), // prettier-ignore
  );
  const rest = () => new Promise((r) => setTimeout(r));
  return { ask, rounds, rest, items: () => rounds.map((r) => r.items) };
}

describe('askings that come together', () => {
  test('go at once where nobody is under way, and else with each other; each has its own answer', async () => {
    const { ask, rounds, rest, items } = asked();
    const first = ask(1);
    const others = [ask(2), ask(3), ask(4)];
    expect(items()).toEqual([[1]]);
    rounds[0]!.end();
    expect(await first).toBe(10);
    await rest();
    expect(items()).toEqual([[1], [2, 3, 4]]);
    rounds[1]!.end();
    expect(await Promise.all(others)).toEqual([20, 30, 40]);
    await rest();
    const later = ask(5);
    expect(items().at(-1)).toEqual([5]);
    rounds[2]!.end();
    expect(await later).toBe(50);
  });

  test('are no more than so many', async () => {
    const { ask, rounds, rest, items } = asked(2);
    const all = [1, 2, 3, 4].map(ask);
    for (let i = 0; i < 3; i++) {
      rounds[i]!.end();
      await rest();
    }
    expect(items()).toEqual([[1], [2, 3], [4]]);
    expect(await Promise.all(all)).toEqual([10, 20, 30, 40]);
  });

  test('fail together, and only they', async () => {
    const { ask, rounds, rest } = asked();
    const [first, second, third] = [ask(1), ask(2), ask(3)];
    const failures = Promise.allSettled([second, third]);
    rounds[0]!.end();
    await first;
    await rest();
    rounds[1]!.end(new Error('away'));
    expect((await failures).map((f) => f.status)).toEqual(['rejected', 'rejected']);
    const after = ask(4);
    rounds[2]!.end();
    expect(await after).toBe(40);
  });

  test('do not wait for one that is held up', async () => {
    const { ask, rounds, items } = asked();
    const [stuck, other] = [ask(1), ask(2)];
    await new Promise((r) => setTimeout(r, 80));
    expect(items()).toEqual([[1], [2]]);
    rounds[1]!.end();
    expect(await other).toBe(20);
    rounds[0]!.end();
    expect(await stuck).toBe(10);
  });
});
