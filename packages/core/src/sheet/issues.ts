/** Issues of a sheet: the next letter, and what reads otherwise since the last. */
import type { Sheet, SheetIssue } from '../document/sheet.ts';
import type { DisplayUnits } from '../units/units.ts';
import type { SheetGeometry } from './geometry.ts';
import { wordsOfSize } from './words-of-size.ts';

/** How each size reads now. */
export function readSizes({ sizes }: Sheet, geometry: SheetGeometry, units: DisplayUnits): Record<string, string> {
  return Object.fromEntries(
    Object.entries(sizes).map(([id, size]) => {
      const measured = geometry.sizes.get(id)?.measured;
      return [id, measured ? wordsOfSize(size, measured, units) : 'lost'];
    }),
  );
}

const LETTERS = 26;

/** A, B, … Z, AA, AB, … */
export function nextLetter({ issues = [] }: Pick<Sheet, 'issues'>): string {
  const n = issues.length;
  const one = (i: number) => String.fromCharCode(65 + i);
  return n < LETTERS ? one(n) : one(Math.floor(n / LETTERS) - 1) + one(n % LETTERS);
}

/** What reads otherwise than at an issue, as sentences. @param now as `readSizes` gives it */
export function changedSince({ sizes: then }: SheetIssue, now: Readonly<Record<string, string>>): string[] {
  const changed = Object.entries(then).flatMap(([id, was]) => {
    const is = now[id];
    if (is === undefined) return [`${was} was taken off`];
    return is === was ? [] : [`${was} is ${is} now`];
  });
  const added = Object.entries(now).flatMap(([id, is]) => (then[id] === undefined ? [`${is} was added`] : []));
  return [...changed, ...added];
}
