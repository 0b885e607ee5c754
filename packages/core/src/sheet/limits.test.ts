import { describe, expect, test } from '@jest/globals';
import type { SheetSize } from '../document/sheet.ts';
import type { DisplayUnits } from '../units/units.ts';
import { limitsTyped, readLimits } from './limits.ts';
import type { Measured } from './measured.ts';
import { wordsOfSize } from './words-of-size.ts';

const MM: DisplayUnits = { length: 'mm', angle: 'deg', decimals: 3 };
const INCH: DisplayUnits = { ...MM, length: 'in', decimals: 4 };
const length = { kind: 'straight' } as const;
const of = (value: number): Measured => ({ is: 'length', from: [0, 0], to: [value, 0], along: [1, 0], value, true: true }); // prettier-ignore

describe('tolerances of sizes', () => {
  test.each([
    ['±0.1', { plus: 0.1, minus: 0.1 }, '25 ±0.1'],
    ['+-0,05', { plus: 0.05, minus: 0.05 }, '25 ±0.05'],
    ['+0.2/-0.1', { plus: 0.2, minus: 0.1 }, '25 +0.2/−0.1'],
    ['-0.01/-0.03', { plus: -0.01, minus: 0.03 }, '25 −0.01/−0.03'],
    ['+0.2/0', { plus: 0.2, minus: 0 }, '25 +0.2/+0'],
    ['H7', { fit: 'H7' }, '25 H7'],
    ['js6', { fit: 'js6' }, '25 js6'],
  ])('%s', (typed, limits, words) => {
    expect(readLimits(typed, length, MM)).toEqual(limits);
    expect(wordsOfSize({ limits } as SheetSize, of(25), MM)).toBe(words);
    // What is shown for typing reads back the same.
    expect(readLimits(limitsTyped({ kind: 'straight', limits } as SheetSize, MM), length, MM)).toEqual(limits);
  });

  test('are lengths: in inches the same tolerance reads otherwise', () => {
    const limits = readLimits('±0.001', length, INCH);
    expect(limits).toEqual({ plus: 0.0254, minus: 0.0254 });
    expect(wordsOfSize({ limits } as SheetSize, of(25.4), MM)).toBe('25.4 ±0.025');
    expect(wordsOfSize({ limits } as SheetSize, of(25.4), INCH)).toBe('1 ±0.001');
  });

  test('what is none is told: words, limits the wrong way round, a class of an angle, slips', () => {
    for (const typed of ['about', '0.1/0.2', '±', 'H', '±900']) expect([typed, readLimits(typed, length, MM)]).toEqual([typed, null]); // prettier-ignore
    expect(readLimits('H7', { kind: 'angle' }, MM)).toBeNull();
    expect(readLimits('  ', length, MM)).toBe('none');
  });
});
