import { describe, expect, test } from '@jest/globals';
import {
  addDimension,
  addPart,
  addStep,
  deleteDimension,
  describeDimensions,
  emptyDesign,
  Ledger,
  makeDial,
  rangeOf,
  renameDimension,
  renamePart,
  setDimension,
  setUnits,
  type Design,
} from '../index.ts';
import { made, refusalOf } from './edited.ts';

const dim = (id: string, value: string, part?: string) => addDimension(id, { name: id, value }, part);
const sketch = (name: string) => ({
  kind: 'sketch' as const,
  name,
  plane: { datum: 'floor' as const },
  points: { a: [0, 0] as [number, number], b: [90, 0] as [number, number] },
  curves: { l: { kind: 'line' as const, from: 'a', to: 'b' } },
  constraints: {},
});

function shown(design: Design, ref: string): [string, string] {
  const ledger = Ledger.of(design);
  return [ledger.shown(ledger.index.byReference(ref)!), ledger.format(ledger.valueOf(ref))];
}

describe('the ledger', () => {
  test('computes along dependencies and keeps them through a rename', () => {
    const design = made(dim('thk', '6 mm'), dim('margin', '2 * thk + 2 mm'), renameDimension('thk', 'plate_thk'));
    expect(shown(design, 'margin')).toEqual(['2 * plate_thk + 2 mm', '14 mm']);
    expect(design.dimensions.margin!.value).toBe('2 * $thk + 2 mm');
  });

  test('looks first in the same part, then in the design, and across parts by a longer name', () => {
    const design = made(
      dim('w', '1 mm'),
      addPart('p1', 'Bracket'),
      addPart('p2', 'Wheel'),
      addDimension('w1', { name: 'w', value: '20 mm' }, 'p1'),
    );
    const ledger = Ledger.of(design);
    const value = (text: string, part?: string) => ledger.format(ledger.read(text, part ? { part } : {}, 'length'));
    expect(value('w', 'p1')).toBe('20 mm');
    expect(value('w', 'p2')).toBe('1 mm');
    expect(value('bracket.w * 2', 'p2')).toBe('40 mm');
  });

  test('a part renamed after its numbers were used elsewhere breaks nothing', () => {
    const design = made(
      addPart('p1', 'Bracket'),
      dim('w', '20 mm', 'p1'),
      dim('twice', '2 * bracket.w'),
      renamePart('p1', 'Wall plate'),
    );
    expect(shown(design, 'twice')).toEqual(['2 * wall_plate.w', '40 mm']);
  });

  test('names the path of a cycle, and refuses the edit that makes one', () => {
    const design = made(dim('a', '1 mm'), dim('b', 'a + 1 mm'), dim('c', 'b + 1 mm'));
    expect(refusalOf(design, setDimension('a', 'c / 2'))).toBe(
      'a → c → b → a goes in a circle; give one of them a number of its own.',
    );
    const broken: Design = { ...design, dimensions: { ...design.dimensions, a: { name: 'a', value: '$c' } } };
    expect(Ledger.of(broken).valueOf('c').ok).toBe(false);
  });

  test('a chain of five thousand dimensions has a value and does not exhaust the stack', () => {
    const design = emptyDesign('Chain');
    for (let i = 0; i < 5000; i++) {
      design.dimensions[`d${i}`] = { name: `d${i}`, value: i === 0 ? '1 mm' : `$d${i - 1} + 1 mm` };
      design.dimensionOrder.push(`d${i}`);
    }
    const value = Ledger.of(design).valueOf('d4999');
    expect(value.ok && value.quantity.value).toBe(5000);
  });

  test('a bare number is stored with the unit it was read in, so that another display unit changes nothing', () => {
    const design = made(
      dim('thk', '6 mm'),
      addPart('p', 'Part'),
      addStep('p', 's', sketch('Outline')),
      setDimension('thk', '8'),
      dim('margin', 'thk + 2'),
      setUnits({ length: 'in', angle: 'deg', decimals: 4 }),
    );
    expect(design.dimensions.thk!.value).toBe('8 mm');
    expect(shown(design, 'margin')).toEqual(['thk + 2 mm', '0.3937 in']);
    const later = made(dim('n', '3'), setUnits({ length: 'in', angle: 'deg', decimals: 3 }));
    expect(shown(later, 'n')).toEqual(['3', '3']);
  });

  test('refuses names that could be confused, with a suggestion', () => {
    const design = made(dim('width', '5 mm'), dim('other', '5 mm'));
    expect(refusalOf(design, renameDimension('other', 'width'))).toBe('“width” is taken here; try “width_2”.');
    expect(refusalOf(design, renameDimension('other', 'Width'))).toBe(
      '“Width” differs from “width” only in its capitals; try “Width_2”.',
    );
    expect(refusalOf(design, renameDimension('other', 'mm'))).toBe('“mm” is a unit; try “mm_value”.');
    expect(refusalOf(design, renameDimension('other', 'sin'))).toMatch(/has a meaning of its own/);
    expect(refusalOf(design, renameDimension('other', '2nd'))).toMatch(/starts with a letter/);
  });

  test.each([
    ['wіdth', 'a letter of another alphabet'],
    ['w1dth', 'a digit for a letter'],
    ['ｗidth', 'a wide letter'],
  ])('refuses %s beside width: %s', (name) => {
    const design = made(dim('width', '96 mm'), dim('other', '3 mm'));
    expect(refusalOf(design, renameDimension('other', name))).toMatch(/looks like “width”, which is here already; try/);
  });

  test('a number in a step takes a name of its own, and what uses it keeps it', () => {
    const block = { kind: 'extrude', name: 'Body', profile: { sketch: 's', regions: 'all' }, way: 'one_way', distance: '8 mm', result: 'new_body' } as const; // prettier-ignore
    const design = made(addPart('p', 'Bracket'), addStep('p', 's', sketch('Outline')), addStep('p', 'e', block), dim('half', 'bracket.body.distance / 2'), renameDimension('e.distance', 'depth')); // prettier-ignore
    expect(shown(design, 'half')).toEqual(['body.depth / 2', '4 mm']);
    expect(refusalOf(design, renameDimension('e.distance', 'mm'))).toMatch(/is a unit/);
  });

  test('a number of a step becomes a dial that drives it', () => {
    const design = made(dim('thk', '6 mm'), addPart('p', 'Bracket'), dim('margin', '2 * thk', 'p'), makeDial('margin', 'd1', 'edge')); // prettier-ignore
    expect([design.dimensions.d1!.value, design.parts.p!.dimensions.margin!.value]).toEqual(['2 * $thk', '$d1']);
    expect(Ledger.of(design).number('margin')).toBe(12);
  });

  test('the range of a dial keeps its meaning when the display unit changes', () => {
    const design = made(
      dim('thk', '6 mm'),
      describeDimensions(['thk'], { dial: { min: '4', max: 'thk * 2', step: '1/16 in' }, group: 'Stock' }),
      setUnits({ length: 'in', angle: 'deg', decimals: 3 }),
    );
    expect(design.dimensions.thk!.dial).toEqual({ min: '4 mm', max: '$thk * 2', step: '1/16 in' });
    const ledger = Ledger.of(design);
    expect(rangeOf(ledger, ledger.index.byReference('thk')!)).toEqual({ min: 4, max: 12, step: 25.4 / 16 });
    expect(refusalOf(design, describeDimensions(['thk'], { dial: { min: '4 deg' } }))).toMatch(
      /The least cannot be read: This is an angle/,
    );
  });

  test('says what a mistyped name may have meant', () => {
    const design = made(dim('plate_thk', '6 mm'), addPart('p', 'Bracket'), dim('margin', '3 mm', 'p'));
    expect(refusalOf(design, setDimension('plate_thk', 'plate_thc * 2'))).toBe(
      'No dimension is called “plate_thc”; did you mean “plate_thk”?',
    );
    expect(refusalOf(design, setDimension('plate_thk', 'margin * 2'))).toBe(
      'No dimension is called “margin”; did you mean “bracket.margin”?',
    );
  });

  test('a dimension in use is not deleted, and says by what it is used', () => {
    const design = made(dim('thk', '6 mm'), dim('margin', '2 * thk'));
    expect(refusalOf(design, deleteDimension('thk'))).toBe('thk is used by margin; change these first.');
    expect(refusalOf(design, deleteDimension('margin'))).toBe('made');
  });
});
