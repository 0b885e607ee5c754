import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  describePowers,
  expressionOf,
  formatNumber,
  formatQuantity,
  unitNamed,
  UNITS,
  type DisplayUnits,
} from './units.ts';
import { parseExpression } from '../dimensions/parser.ts';
import { evaluate } from '../dimensions/evaluate.ts';

const units = (length: DisplayUnits['length'], decimals = 3): DisplayUnits => ({ length, angle: 'deg', decimals });

describe('numbers as people read them', () => {
  test.each([
    [6, 3, '6'],
    [6.1, 3, '6.1'],
    [0.1 + 0.2, 6, '0.3'],
    [-0.0001, 3, '0'],
    [1234567.891, 2, '1234567.89'],
    [100, 0, '100'],
    [NaN, 2, '?'],
  ])('%d with %i decimals is %s', (value, decimals, text) => {
    expect(formatNumber(value, decimals)).toBe(text);
  });

  test('carry the design’s unit', () => {
    expect(formatQuantity(25.4, 'length', units('in'))).toBe('1 in');
    expect(formatQuantity(Math.PI / 4, 'angle', units('mm'))).toBe('45°');
    expect(formatQuantity(3, 'number', units('mm'))).toBe('3');
  });

  test('a value written as an expression reads back the same, in every unit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e5, max: 1e5, noNaN: true }),
        fc.constantFrom('mm', 'cm', 'm', 'in', 'ft', 'thou'),
        (mm, unit) => {
          const text = expressionOf(mm, 'length', units(unit as DisplayUnits['length']));
          const back = evaluate(parseExpression(text), {
            units: units('mm'),
            lookUp: () => {
              throw new Error('no names here');
            },
          });
          expect(Math.abs(back.value - mm)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(mm)));
        },
      ),
    );
  });

  test('powers have words', () => {
    expect(describePowers({ length: 1, angle: 0 })).toBe('a length');
    expect(describePowers({ length: 2, angle: 0 })).toBe('an area');
    expect(describePowers({ length: 3, angle: 0 })).toBe('a volume');
    expect(describePowers({ length: -1, angle: 1 })).toBe('length^-1 × angle');
  });

  test('a unit is known by its name alone, not by what objects inherit', () => {
    expect(unitNamed('in')).toBe(UNITS.in);
    expect(unitNamed('toString')).toBeUndefined();
    expect(unitNamed('__proto__')).toBeUndefined();
  });
});
