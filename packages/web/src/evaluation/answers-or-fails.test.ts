/** Whoever asks a worker that is ended is told, instead of waiting for ever. */
import { describe, expect, test } from '@jest/globals';
import type { Remote } from 'comlink';
import { answersOrFails } from './answers-or-fails.ts';

interface Asked {
  add(a: number, b: number): Promise<number>;
  never(): Promise<void>;
  fail(): Promise<void>;
}
const worker = {
  add: (a: number, b: number) => Promise.resolve(a + b),
  never: () => new Promise<void>(() => {}),
  fail: () => Promise.reject(new Error('too large')),
} as unknown as Remote<Asked>;

describe('a worker that answers or fails', () => {
  test('answers and failures come through', async () => {
    const { asked } = answersOrFails(worker);
    await expect(asked.add(2, 3)).resolves.toBe(5);
    await expect(asked.fail()).rejects.toThrow('too large');
  });

  test('what is owed at the end fails, what was answered stays answered', async () => {
    const { asked, end } = answersOrFails(worker);
    const sum = await asked.add(1, 1);
    const waiting = [asked.never(), asked.never()];
    end('It was stopped.');
    for (const one of waiting) await expect(one).rejects.toThrow('It was stopped.');
    expect(sum).toBe(2);
  });
});
