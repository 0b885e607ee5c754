/** Fits by their formulas against the standard’s printed limits, which are rounded to whole micrometres. */
import { describe, expect, test } from '@jest/globals';
import { acrossOf, FITS, PROCESSES, type FitName, type Process } from './fits.ts';

/** Mean clearance of the printed limits, µm: (EI + ES) / 2 − (ei + es) / 2, at the middle of a range of sizes. */
test.each([
  // 10 to 18: H7 0 +18; p6 +18 +29, k6 +1 +12, g6 −17 −6, f7 −34 −16; the range’s geometric mean.
  ['press', Math.sqrt(180), 9 - 23.5],
  ['tight', Math.sqrt(180), 9 - 6.5],
  ['sliding', Math.sqrt(180), 9 + 11.5],
  ['loose', Math.sqrt(180), 9 + 25],
  // 50 to 80: H7 0 +30; p6 +32 +51, k6 +2 +21, g6 −29 −10, f7 −60 −30.
  ['press', Math.sqrt(4000), 15 - 41.5],
  ['tight', Math.sqrt(4000), 15 - 11.5],
  ['sliding', Math.sqrt(4000), 15 + 19.5],
  ['loose', Math.sqrt(4000), 15 + 45],
] as const)('%s at Ø%d lies within 2.5 µm of the printed limits', (fit, size, micrometres) => {
  expect(Math.abs(acrossOf(fit, 'milled', size)! * 1000 - micrometres)).toBeLessThan(2.5);
});

describe('every process', () => {
  const fits = Object.keys(FITS) as FitName[];
  test.each(Object.keys(PROCESSES) as Process[])(
    '%s: a press fit presses, and each fit is wider than the one before',
    (process) => {
      const all = fits.map((fit) => acrossOf(fit, process, 20)!);
      expect(all[0]).toBeLessThan(0);
      for (const [i, across] of all.slice(1).entries()) expect(across).toBeGreaterThan(all[i]!);
    },
  );

  test('milled, the table ends where its formulas do', () => {
    expect([acrossOf('sliding', 'milled', 2.9), acrossOf('sliding', 'milled', 501), acrossOf('sliding', 'milled', null)]).toEqual([null, null, null]); // prettier-ignore
    expect(acrossOf('sliding', 'printed', null)).toBe(0.4);
  });
});
