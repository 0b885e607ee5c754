import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension, addPart, addStep, addVariant, addVariantColumn, asVariant, deleteVariantColumn, emptyDesign,
  Ledger, putVariants, readDesign, readTable, renameDimension, renameVariant, setUnits, setVariantCell, writeDesign, writeTable,
  type Design, 
} from '../index.ts'; // prettier-ignore
import { edited, refusalOf } from '../commands/edited.ts';

const base = edited(
  emptyDesign('Plate'),
  addDimension('thk', { name: 'thk', value: '6 mm', dial: { min: '2 mm', max: '20 mm' } }),
  addDimension('lift', { name: 'lift', value: '30 deg' }),
  addDimension('gap', { name: 'gap', value: 'thk / 2' }),
  addPart('p', 'Block'),
  addStep('p', 's', { kind: 'sketch', name: 'Outline', plane: { datum: 'floor' }, points: {}, curves: {}, constraints: {} }),
); // prettier-ignore
const table = edited(
  base,
  addVariantColumn('dimension:thk'),
  addVariantColumn('dimension:lift'),
  addVariantColumn('step:s'),
  addVariantColumn('material:p'),
  addVariant('v1', 'Thin'),
  addVariant('v2', 'Heavy'),
  setVariantCell('v1', 'dimension:thk', '4'),
  setVariantCell('v2', 'dimension:thk', '1/2 in'),
  setVariantCell('v2', 'step:s', 'out'),
  setVariantCell('v2', 'material:p', 'Brass'),
);

function variant(design: Design, id: string): Design {
  const outcome = asVariant(design, id);
  if ('message' in outcome) throw new Error(outcome.message);
  return outcome.design;
}

describe('a variant', () => {
  test('sets numbers, steps and materials; what it leaves empty is as in the design', () => {
    const [thin, heavy] = [variant(table, 'v1'), variant(table, 'v2')];
    expect([Ledger.of(thin).number('thk'), Ledger.of(thin).number('gap')]).toEqual([4, 2]);
    expect(thin.parts.p!.steps.s!.suppressed).toBeUndefined();
    expect(Ledger.of(heavy).number('thk')).toBeCloseTo(12.7, 12);
    expect([heavy.parts.p!.steps.s!.suppressed, heavy.parts.p!.material]).toEqual([true, 'brass']);
    expect(Ledger.of(heavy).number('lift')).toBe(Ledger.of(base).number('lift'));
  });

  test('follows a rename, and a cell may use the design’s names', () => {
    const named = edited(table, setVariantCell('v1', 'dimension:thk', 'gap_own * 2'.replace('gap_own', '3 mm')), setVariantCell('v1', 'dimension:lift', '2 * 20'), renameDimension('thk', 'plate_thk')); // prettier-ignore
    expect(Ledger.of(variant(named, 'v1')).number('thk')).toBe(6);
    expect(writeTable(named, ',').split('\r\n')[0]).toContain('plate_thk (mm)');
  });

  test.each([
    ['dimension:thk', '40', /40 mm is above 20 mm, the most allowed for thk/],
    ['dimension:thk', '30 deg', /length/],
    ['dimension:thk', 'thick', /No dimension is called “thick”/],
    ['step:s', 'maybe', /“maybe” says neither in nor out/],
    ['material:p', 'cheese', /There is no material “cheese”; choose among/],
  ])('refuses in column %s the cell “%s”', (key, typed, message) => {
    expect(refusalOf(table, setVariantCell('v1', key, typed))).toMatch(message);
  });

  test('has a name of its own', () => {
    expect(refusalOf(table, addVariant('v3', 'Thin'))).toMatch(/There is a variant “Thin” already/);
    expect(refusalOf(table, renameVariant('v1', ' '))).toMatch(/needs a name/);
  });

  test('loses its cells with their column, and the file holds the rest', () => {
    const without = edited(table, deleteVariantColumn('dimension:thk'));
    expect(without.variants!.rows.v2!.cells).toEqual({ 'step:s': 'out', 'material:p': 'brass' });
    const read = readDesign(writeDesign(without));
    expect(read.ok && read.design.variants).toEqual(without.variants);
  });
});

describe('the table of variants as text', () => {
  test('names units in its heading and reads back the same', () => {
    const text = writeTable(table, ',');
    expect(text.split('\r\n')).toEqual([
      'variant,thk (mm),lift (deg),Block: Outline,material of Block',
      'Thin,4,,,',
      'Heavy,1/2 in,,out,brass',
    ]);
    const read = readTable(table, text);
    expect(read.faults).toEqual([]);
    const again = edited(base, putVariants(read.columns, read.rows));
    expect(Object.values(again.variants!.rows)).toEqual(Object.values(table.variants!.rows));
  });

  test('lists what is wrong by cell and tells which rows are sound', () => {
    const text = 'variant\tthk (in)\tBlock: Outline\tmaterial of Block\nA\t0.25\tin\tSteel\nB\tthick\tin\tSteel\nC\t0.5\tperhaps\t\n\t0.3\t\t\nA\t0.3\t\t\n'; // prettier-ignore
    const { rows, faults } = readTable(base, text);
    expect(faults.map((f) => [f.line, f.column, f.typed])).toEqual([
      [3, 'thk (in)', 'thick'],
      [4, 'Block: Outline', 'perhaps'],
      [5, 'variant', ''],
      [6, 'variant', 'A'],
    ]);
    expect(rows.filter((r) => r.sound).map((r) => r.name)).toEqual(['A']);
    expect(rows[0]!.cells['dimension:thk']).toBe('0.25 in');
  });

  test('says which heading means nothing here', () => {
    const { faults } = readTable(base, 'variant,thickness\nA,4\n');
    expect(faults[0]).toMatchObject({ line: 1, column: 'thickness' });
    expect(readTable(base, 'just words').faults[0]!.message).toMatch(/no columns/);
  });

  test('round-trips names and values of any kind, whatever the unit shown', () => {
    const name = fc.stringMatching(/^[A-Za-z][A-Za-z0-9 ,;"']{0,12}$/).map((s) => s.trim());
    fc.assert(
      fc.property(
        fc.uniqueArray(name, { minLength: 1, maxLength: 5 }),
        fc.array(fc.double({ min: 2, max: 20, noNaN: true }), { minLength: 5, maxLength: 5 }),
        fc.constantFrom('mm' as const, 'in' as const, 'cm' as const),
        fc.constantFrom(',' as const, '\t' as const, ';' as const),
        (names, values, length, separator) => {
          const rows = names.map((n, i) => ({ id: `v${i}`, name: n, cells: { 'dimension:thk': `${values[i]} mm` } }));
          const filled = edited(base, setUnits({ ...base.units, length }), putVariants(['dimension:thk'], rows));
          const read = readTable(filled, writeTable(filled, separator));
          expect(read.faults).toEqual([]);
          expect(read.rows.map((r) => [r.name, r.cells])).toEqual(rows.map((r) => [r.name, r.cells]));
        },
      ),
      { numRuns: 100 },
    );
  });

  test('no text, however hostile, does worse than a list of faults', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (text) => {
        expect(Array.isArray(readTable(base, text).faults)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});
