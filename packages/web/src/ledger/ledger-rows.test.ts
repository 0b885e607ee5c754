import { addDimension, addPart, applyEdit, emptyDesign, Ledger, setUnits, type Design, type Edit } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { ledgerLines, type Wanted } from './ledger-rows.ts';

const make = (design: Design, ...edits: Edit[]) =>
  edits.reduce((d, edit) => {
    const outcome = applyEdit(d, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, design);
const design = make(
  emptyDesign('Test'),
  addDimension('lift', { name: 'lift', value: '30 deg', dial: {} }),
  addDimension('odd', { name: 'odd', value: '47.3 mm' }),
  addDimension('half', { name: 'half', value: 'odd / 2', group: 'Hinge' }),
  addPart('p', 'Bracket'),
  addPart('q', 'Washer'),
  addDimension('rim', { name: 'rim', value: '2 * odd' }, 'p'),
  addDimension('bore', { name: 'bore', value: '1/4 in' }, 'q'),
);
function shown(of: Design, wanted: Partial<Wanted>): string[] {
  const all: Wanted = { query: '', sort: 'order', filter: 'all', activePart: null, ...wanted };
  return ledgerLines(of, Ledger.of(of), all).map((l) => (l.kind === 'heading' ? `# ${l.title}` : l.entry.name));
}

describe('the ledger’s lines', () => {
  test('stand under dials, the design, headings, and parts, the one worked on first', () => {
    expect(shown(design, { activePart: 'q' })).toEqual(
      ['# Dials', 'lift', '# Design', 'odd', '# Hinge', 'half', '# Washer', 'bore', '# Bracket', 'rim'], // prettier-ignore
    );
  });

  test.each([
    ['a bare number as shown', '47.3', ['odd']],
    ['a value in another unit, as precise as typed', '1.862 in', ['odd']],
    ['less precisely, more is found', '0.3 in', ['bore']],
    ['an inch fraction', '1/4 in', ['bore']],
    ['a part of a name', 'RI', ['rim']],
    ['an angle', '30 deg', ['lift']],
  ])('finds %s', (_, query, names) => {
    expect(shown(design, { query, sort: 'name' })).toEqual(names);
  });

  test('finds where a shown number comes from in whatever unit the design is shown', () => {
    const inches = make(design, setUnits({ length: 'in', angle: 'deg', decimals: 4 }));
    expect(shown(inches, { query: '1.8622', sort: 'name' })).toEqual(['odd']);
  });

  test('sort by influence, name and value', () => {
    expect(shown(design, { sort: 'influence' })[0]).toBe('odd');
    expect(shown(design, { sort: 'name' })).toEqual(['bore', 'half', 'lift', 'odd', 'rim']);
    expect(shown(design, { sort: 'value' }).at(-1)).toBe('rim');
  });

  test('filter by what they are', () => {
    expect(shown(design, { filter: 'dials', sort: 'name' })).toEqual(['lift']);
    expect(shown(design, { filter: 'unused', sort: 'name' })).toEqual(['bore', 'half', 'lift', 'rim']);
    expect(shown(design, { filter: 'failing' })).toEqual([]);
  });
});
