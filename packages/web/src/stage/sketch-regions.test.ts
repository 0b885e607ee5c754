import type { SketchGeometry } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { areSlow, regionsFor, regionsWhenFound } from './sketch-regions.ts';

const text = (letters: number): SketchGeometry => ({
  points: { a: [0, 0], b: [100, 0] },
  curves: { t: { kind: 'text', from: 'a', to: 'b', text: 'o'.repeat(letters) } },
  constraints: {},
});

describe('regions of a sketch', () => {
  test('of a short lettering are there at once, and found once', async () => {
    const geometry = text(5);
    const found = regionsFor(geometry);
    // Of each letter its ring, and the hole in it.
    expect(found.regions).toHaveLength(10);
    expect(regionsFor(geometry)).toBe(found);
    expect(await regionsWhenFound(geometry)).toBe(found);
  });

  test('of a long one are not looked for while the page waits', () => {
    expect(areSlow(text(5))).toBe(false);
    expect(areSlow(text(60))).toBe(true);
  });
});
