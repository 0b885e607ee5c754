import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension,
  addPart,
  applyEdit,
  emptyDesign,
  Ledger,
  suggestNames,
  type Design,
  type Edit,
} from '../index.ts';

const design = [
  addDimension('thk', { name: 'plate_thk', value: '6 mm', dial: {} }),
  addDimension('pl', { name: 'pitch', value: '20 mm' }),
  addDimension('two', { name: 'twice', value: '2 * plate_thk' }),
  addPart('p', 'Bracket'),
  addDimension('own', { name: 'plate_gap', value: '1 mm' }, 'p'),
].reduce((d: Design, edit: Edit) => {
  const outcome = applyEdit(d, edit);
  if (!outcome.ok) throw new Error(outcome.message);
  return outcome.design;
}, emptyDesign('Test'));
const ledger = Ledger.of(design);
const suggest = (ref: string, text: string, caret = text.length) =>
  suggestNames(ledger, ledger.index.byReference(ref)!, text, caret);

describe('suggestions', () => {
  test('name what begins with the word at the caret, with its value, and what they replace', () => {
    const { from, to, list } = suggest('pl', '2 * pla + 1', 7);
    expect([from, to]).toEqual([4, 7]);
    expect(list.map((s) => [s.text, s.about])).toEqual([
      ['plate_thk', '6 mm'],
      ['bracket.plate_gap', '1 mm'],
    ]);
  });

  test('nearer names come first, by the shortest name that finds them', () => {
    expect(suggest('own', 'plate').list[0]!.text).toBe('plate_thk');
    expect(suggest('own', 'tw').list.map((s) => s.text)).toEqual(['twice']);
  });

  test('leave out what would go in a circle', () => {
    expect(suggest('thk', 'tw').list).toEqual([]);
    expect(suggest('thk', 'plate_t').list).toEqual([]);
  });

  test('offer functions, but no names where a unit is meant', () => {
    expect(suggest('pl', 'sq').list).toEqual([{ text: 'sqrt(', about: 'function', ref: null }]);
    expect(suggest('pl', '2 pl').list).toEqual([]);
  });

  test('stay within the text, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), fc.nat(30), (text, at) => {
        const caret = Math.min(at, text.length);
        const { from, to } = suggest('pl', text, caret);
        expect(from >= 0 && from <= caret && to >= caret && to <= text.length).toBe(true);
      }),
    );
  });
});
