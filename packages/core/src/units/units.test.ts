import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  describePowers,
  expressionOf,
  formatNumber,
  formatQuantity,
  FRACTIONS,
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

  test.each([
    [25.4 * 2.125, 8, '2 1/8 in'],
    [25.4 / 16, 16, '1/16 in'],
    [-25.4 * 0.75, 8, '-3/4 in'],
    [50.8, 8, '2 in'],
    [0, 8, '0 in'],
    // One hundredth of a millimetre off a sixteenth is not a sixteenth.
    [25.4 / 16 + 0.01, 16, '0.0629 in'],
    [25.4 / 64, 32, '0.0156 in'],
  ] as const)('%d mm in inches down to 1/%i is %s', (mm, fractions, text) => {
    expect(formatQuantity(mm, 'length', { ...units('in'), decimals: 4, fractions })).toBe(text);
  });

  test('a fraction shown reads back as the same length', () => {
    fc.assert(
      fc.property(fc.integer({ min: -4000, max: 4000 }), fc.constantFrom(...FRACTIONS), (parts, fractions) => {
        const mm = (parts / fractions) * 25.4;
        const shown = formatQuantity(mm, 'length', { ...units('in'), fractions });
        const lookUp = () => {
          throw new Error('no names here');
        };
        const back = evaluate(parseExpression(shown), { units: units('mm'), lookUp });
        expect(back.value).toBeCloseTo(mm, 9);
      }),
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
