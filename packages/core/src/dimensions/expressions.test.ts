import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { asKind, evaluate, type Quantity } from './evaluate.ts';
import { ExpressionError } from './lexer.ts';
import { parseExpression } from './parser.ts';
import type { DisplayUnits, QuantityKind } from '../units/units.ts';

const MM: DisplayUnits = { length: 'mm', angle: 'deg', decimals: 3 };
const INCH: DisplayUnits = { length: 'in', angle: 'deg', decimals: 3 };
const KNOWN: Record<string, Quantity> = {
  width: { value: 96, powers: { length: 1, angle: 0 }, bare: false },
  count: { value: 5, powers: { length: 0, angle: 0 }, bare: false },
  lift: { value: Math.PI / 6, powers: { length: 0, angle: 1 }, bare: false },
};

function read(text: string, kind: QuantityKind = 'length', units = MM): number {
  const tree = parseExpression(text);
  const lookUp = (name: string, at: { from: number; to: number }) => {
    const found = KNOWN[name];
    if (!found) throw new ExpressionError(`unknown ${name}`, at.from, at.to);
    return found;
  };
  return asKind(evaluate(tree, { units, lookUp }), kind, tree, { units }).value;
}

function fault(text: string, kind: QuantityKind = 'length'): ExpressionError {
  try {
    read(text, kind);
  } catch (error) {
    if (error instanceof ExpressionError) return error;
    throw error;
  }
  throw new Error(`“${text}” was read`);
}

describe('expressions', () => {
  test.each([
    ['6', 6],
    ['6 mm', 6],
    ['2.5 cm', 25],
    ['2 1/8 in', 53.975],
    ['5/16 in', 7.9375],
    ['5 ft 3 in', 1600.2],
    ['5\' 3"', 1600.2],
    ['3"', 76.2],
    ['40 thou', 1.016],
    ['0.5 m', 500],
    ['width / 2 - 15 mm', 33],
    ['width / 2 - 15', 33],
    ['3*width', 288],
    ['2 in + 3 mm', 53.8],
    ['-2 * -3', 6],
    ['2 + 3 * 4', 14],
    ['(2 + 3) * 4', 20],
    ['2 ^ 3 ^ 2', 512],
    ['-2 ^ 2', -4],
    ['10 − 4', 6],
    ['sqrt(width ^ 2)', 96],
    ['width * sin(lift)', 48],
    ['width * cos(60)', 48],
    ['max(width, 100 mm, 20)', 100],
    ['min(width, 40)', 40],
    ['round(width / 7)', 14],
    ['round(width, 10 mm)', 100],
    ['ceil(12.1 mm)', 13],
    ['if(width > 90, 12 mm, 8 mm)', 12],
    ['if(count == 4, 1, 2)', 2],
    ['abs(-7 mm)', 7],
    ['count * 3 mm', 15],
    ['2*pi*1 mm', 2 * Math.PI],
    ['2*pi', 2 * Math.PI],
  ])('%s is %d mm', (text, mm) => {
    expect(read(text)).toBeCloseTo(mm, 9);
  });

  test('a bare number takes the unit of the field and of the design', () => {
    expect(read('2', 'length', INCH)).toBeCloseTo(50.8, 12);
    expect(read('90', 'angle')).toBeCloseTo(Math.PI / 2, 12);
    expect(read('1 mm + 1', 'length', INCH)).toBeCloseTo(26.4, 12);
    expect(read('atan(1)', 'angle')).toBeCloseTo(Math.PI / 4, 12);
  });

  test.each([
    ['6 mm + 3 deg', 'A length cannot be added to an angle.'],
    ['30 deg', 'This is an angle, and a length is needed here.'],
    ['width * width', 'This is an area, and a length is needed here.'],
    ['width + count', 'A length cannot be added to a plain number.'],
    ['1 / 0', 'This divides by zero.'],
    ['sqrt(-1)', 'This does not come to a number; look for a division by zero or a root of a negative.'],
    ['2 ^ width', 'An exponent must be a plain number.'],
    ['', 'Type a number or an expression, such as 6 mm or width / 2.'],
    ['6 mm mm', 'An operator such as + or * is missing before “mm”.'],
    ['(3 + 4', 'A closing bracket is missing.'],
    ['3 +', 'The expression stops too early; a number or a name is missing at the end.'],
    ['3 + * 4', 'A number or a name is missing before “*”.'],
    ['foo(3)', 'There is no function called “foo”.'],
    ['constructor(3)', 'There is no function called “constructor”.'],
    ['sin(1, 2)', 'sin takes 1 value in its brackets.'],
    ['4 ; # 2', '“#” has no meaning in an expression.'],
  ])('%s is refused in words', (text, message) => {
    expect(fault(text).message).toBe(message);
  });

  test('a fault marks its place', () => {
    const { from, to } = fault('width + sin(3 mm)');
    expect('width + sin(3 mm)'.slice(from, to)).toBe('3 mm');
  });

  test('sums of lengths in mixed units agree with the sum in mm', () => {
    const factor = { mm: 1, cm: 10, in: 25.4, ft: 304.8, thou: 0.0254 } as const;
    const term = fc.tuple(
      fc.double({ min: 0.01, max: 1000, noNaN: true }),
      fc.constantFrom(...(Object.keys(factor) as (keyof typeof factor)[])),
    );
    fc.assert(
      fc.property(fc.array(term, { minLength: 1, maxLength: 8 }), (terms) => {
        const text = terms.map(([n, unit]) => `${n.toFixed(6)} ${unit}`).join(' + ');
        const sum = terms.reduce((total, [n, unit]) => total + Number(n.toFixed(6)) * factor[unit], 0);
        expect(read(text)).toBeCloseTo(sum, 6);
      }),
    );
  });

  test('no string, however hostile, does worse than a sentence', () => {
    const pieces = fc.constantFrom(
      '(',
      ')',
      '+',
      '-',
      '^',
      '/',
      '1e999',
      '0',
      '.',
      'mm',
      'ft',
      '$a',
      'if',
      'sin',
      ',',
      '"',
      "'",
      '__proto__',
      'constructor',
      '\u0000',
      '𝟙',
      ' ',
      '<',
      '==',
      '9'.repeat(40),
    );
    const hostile = fc.oneof(
      fc.string({ maxLength: 80 }),
      fc.string({ unit: 'binary', maxLength: 80 }),
      fc.array(pieces, { maxLength: 60 }).map((p) => p.join('')),
    );
    fc.assert(
      fc.property(hostile, (text) => {
        try {
          expect(Number.isFinite(read(text))).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(ExpressionError);
        }
      }),
      { numRuns: 10_000 },
    );
    expect(() => parseExpression('('.repeat(400))).toThrow(ExpressionError);
    expect(() => parseExpression('1+'.repeat(300))).toThrow(/longer than 500/);
  });

  test.each([
    'globalThis.x = 1',
    'process.exit(1)',
    'require("fs")',
    'eval("1")',
    '(() => 1)()',
    'width = 3',
    '[1, 2]',
    '{ a: 1 }',
    '`1`',
    'width.constructor("return 1")()',
    'import("fs")',
    '1; 2',
    'new Date()',
    'this',
    'f(x) = x',
  ])('nothing but arithmetic is evaluated: %s', (text) => {
    expect(() => read(text)).toThrow(ExpressionError);
  });
});

describe('powers of measures', () => {
  test.each([
    ['36 mm^2', 36, 2],
    ['(36 mm)^2', 1296, 2],
    ['2 cm^2', 200, 2],
    ['(2 cm)^2', 400, 2],
    ['2 1/2 cm^2', 250, 2],
    ['-3 mm^2', -3, 2],
    ['10 mm * 3 mm^2', 30, 3],
  ])('%s is %d of the unit to the power %d', (text, value, length) => {
    const read = evaluate(parseExpression(text), { units: MM, lookUp: () => { throw new Error('none'); } }); // prettier-ignore
    expect(read.value).toBeCloseTo(value, 9);
    expect(read.powers.length).toBe(length);
  });
});
