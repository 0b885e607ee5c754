/** What came of a flexed design, as a table: a line for each value of each dial. */
import Papa from 'papaparse';
import type { Design } from '../document/schema.ts';
import { FORMULA } from '../standards/csv.ts';
import { displayFactor } from '../units/units.ts';
import type { DialFlex } from './flex.ts';
import { faultSentence } from './words.ts';

const DIGITS = 9;

/** Lengths and angles in the design's units, masses in kg, volumes in mm³. */
export function writeFlexCsv(design: Design, flexed: readonly DialFlex[]): string {
  const { units } = design;
  const number = (x: number | undefined) => (x === undefined ? '' : Number(x.toPrecision(DIGITS)));
  const rows = flexed.flatMap(({ dial, samples }) =>
    samples.map(({ at, faults, numbers }) => ({
      dial: dial.name,
      value: number(at / displayFactor(dial.kind, units)),
      unit: dial.kind === 'number' ? '' : units[dial.kind],
      stands: faults.length === 0 ? 'yes' : 'no',
      why_not: faults.map((fault) => faultSentence(design, fault)).join(' | '),
      mass_kg: number(numbers.mass),
      volume_mm3: number(numbers.volume),
    })),
  );
  return Papa.unparse(rows, { escapeFormulae: FORMULA });
}
