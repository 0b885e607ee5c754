/**
 * What a fit leaves between two parts, by how they are made. Lengths mm.
 *   milled or turned: the mean of the basic-hole fits H7/p6, H7/k6, H7/g6 and H7/f7 by the formulas of ISO 286-1, not
 *     rounded: tolerance unit i = 0.45 D^⅓ + 0.001 D µm, IT6 = 10 i, IT7 = 16 i; deviations of shafts g = −2.5 D^0.34,
 *     f = −5.5 D^0.41, k = +0.6 D^⅓, p = IT7, for D of 3 to 500 mm
 *   sawn, laser cut, printed, moulded: no standard holds for these; starting values of our own, to be tried on the
 *     machine and the stuff at hand
 * A table is no drawing: what a maker can hold, and local rules, come first.
 */
export const FITS = { press: 'press fit', tight: 'tight fit', sliding: 'sliding fit', loose: 'loose fit' } as const;
export type FitName = keyof typeof FITS;

export const PROCESSES = { milled: 'milled or turned', sawn: 'sawn', laser: 'laser cut', printed: 'printed', moulded: 'moulded' } as const; // prettier-ignore
export type Process = keyof typeof PROCESSES;

const STARTING: Readonly<Record<Exclude<Process, 'milled'>, Readonly<Record<FitName, number>>>> = {
  sawn: { press: -0.1, tight: 0.1, sliding: 0.5, loose: 1 },
  laser: { press: -0.05, tight: 0.02, sliding: 0.1, loose: 0.3 },
  printed: { press: -0.05, tight: 0.1, sliding: 0.4, loose: 0.6 },
  moulded: { press: -0.1, tight: 0.05, sliding: 0.2, loose: 0.4 },
};

/** ISO 286-1 has its formulas for these, mm. */
const LEAST_SIZE = 3;
const MOST_SIZE = 500;

export const HOLE_AND_SHAFT: Readonly<Record<FitName, string>> = { press: 'H7/p6', tight: 'H7/k6', sliding: 'H7/g6', loose: 'H7/f7' }; // prettier-ignore

/**
 * How much wider the outer part is than the inner one, across, mm; negative where they press.
 * @param size diameter or width, mm; null where it is not known
 * @returns null where the table has nothing for this size
 */
export function acrossOf(fit: FitName, process: Process, size: number | null): number | null {
  if (process !== 'milled') return STARTING[process][fit];
  if (size === null || size < LEAST_SIZE || size > MOST_SIZE) return null;
  const i = 0.45 * Math.cbrt(size) + 0.001 * size;
  const [it6, it7] = [10 * i, 16 * i];
  const micrometres = {
    // The shaft's lower deviation is one IT7, so that its middle lies half an IT6 above that.
    press: it7 / 2 - (it7 + it6 / 2),
    tight: it7 / 2 - (0.6 * Math.cbrt(size) + it6 / 2),
    sliding: it7 / 2 + 2.5 * size ** 0.34 + it6 / 2,
    loose: it7 / 2 + 5.5 * size ** 0.41 + it7 / 2,
  }[fit];
  return micrometres / 1000;
}
