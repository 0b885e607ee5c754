import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension, addRequirement, changeRequirement, deleteDimension, deleteRequirement, emptyDesign, judgeRequirements,
  readDesign, renameDimension, setDimension, setUnits, writeDesign,
} from '../index.ts'; // prettier-ignore
import { edited, refusalOf } from '../commands/edited.ts';

const base = edited(
  emptyDesign('Box'),
  addDimension('wall', { name: 'wall', value: '2.5 mm' }),
  addDimension('slot', { name: 'slot', value: '6.2 mm' }),
  addDimension('tab', { name: 'tab', value: '6 mm' }),
  addDimension('lean', { name: 'lean', value: '3 deg' }),
  addDimension('count', { name: 'count', value: '4' }),
);
const judged = (says: string, design = base) => judgeRequirements(edited(design, addRequirement('r', says)))[0]!;

describe('a requirement', () => {
  test.each([
    ['wall >= 2', true, '2.5 mm >= 2 mm'],
    ['wall > 1/8 in', false, '2.5 mm > 3.175 mm'],
    ['0.1 mm <= slot - tab <= 0.3 mm', true, '0.1 mm <= 0.2 mm <= 0.3 mm'],
    ['0 < slot - tab < 0.2 mm', false, '0 mm < 0.2 mm < 0.2 mm'],
    ['slot - tab == 0.2 mm', true, '0.2 mm == 0.2 mm'],
    ['lean < 5', true, '3° < 5°'],
    ['count >= 3', true, '4 >= 3'],
    ['max(wall, tab) <= 6 mm', true, '6 mm <= 6 mm'],
    ['slot - tab - 0.2 mm == 0', true, '0 mm == 0 mm'],
    ['0.3 mm - 0.3 mm < 0.3 mm - 0.2 mm - 0.1 mm', false, '0 mm < 0 mm'],
  ])('%s', (says, holds, because) => {
    expect(judged(says)).toMatchObject({ holds, because });
  });

  test.each([
    ['wall', 'A requirement compares two numbers, such as “wall >= 2 mm”.'],
    ['wall >=', 'A number is missing beside the sign of comparison.'],
    ['wall != 2 mm', 'A requirement is kept by “<”, “<=”, “>”, “>=” or “==”, not by “!=”.'],
    ['wall >= lean', 'It compares numbers of different kinds; write them in the same kind of unit.'],
    ['wal >= 2 mm', 'No dimension is called “wal”; did you mean “wall”?'],
    ['1 < 2 < 3 < 4 < 5', 'A requirement compares 4 numbers at most; split it in two.'],
  ])('%s is refused in a sentence', (says, message) => {
    expect(refusalOf(base, addRequirement('r', says))).toBe(message);
  });

  test('goes on meaning the same numbers when they are renamed, or shown in other units', () => {
    const design = edited(
      base,
      addRequirement('r', 'wall >= 2'),
      renameDimension('wall', 'skin'),
      setUnits({ length: 'in', angle: 'deg', decimals: 3 }),
    );
    expect(judgeRequirements(design)[0]).toMatchObject({ says: 'skin >= 2 mm', holds: true });
    const back = readDesign(writeDesign(design));
    expect(back.ok && judgeRequirements(back.design)).toEqual(judgeRequirements(design));
  });

  test('is judged anew with every edit, and can be changed and deleted', () => {
    const design = edited(base, addRequirement('r', 'wall >= 2 mm'), setDimension('wall', '1.5 mm'));
    expect(judgeRequirements(design)[0]).toMatchObject({ holds: false, because: '1.5 mm >= 2 mm' });
    expect(judgeRequirements(edited(design, changeRequirement('r', 'wall >= 1 mm')))[0]!.holds).toBe(true);
    expect(judgeRequirements(edited(design, deleteRequirement('r')))).toEqual([]);
  });

  test('holds on to its dimensions', () => {
    expect(refusalOf(edited(base, addRequirement('r', 'wall >= 2 mm')), deleteDimension('wall'))).toBe(
      'wall is in the requirement “wall >= 2 mm”; change that first.',
    );
  });

  test('compares as numbers do', () => {
    const tenths = fc.integer({ min: -500, max: 500 }).map((n) => n / 10);
    fc.assert(
      fc.property(tenths, tenths, fc.constantFrom('<', '<=', '>', '>=', '=='), (a, b, sign) => {
        const is = { '<': a < b, '<=': a <= b, '>': a > b, '>=': a >= b, '==': a === b }[sign];
        // Once more as a sum, which is not exact in decimals.
        return (
          judged(`${a} mm ${sign} ${b} mm`).holds === is &&
          judged(`${a} mm + 0.3 mm ${sign} ${b} mm + 0.1 mm + 0.2 mm`).holds === is
        );
      }),
      { numRuns: 200 },
    );
  });
});
