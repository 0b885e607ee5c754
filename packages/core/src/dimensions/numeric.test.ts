import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { DisplayUnits, QuantityKind } from '../units/units.ts';
import { asKind, evaluate, type Quantity } from './evaluate.ts';
import { ExpressionError } from './lexer.ts';
import { compileNumeric, runNumeric } from './numeric.ts';
import { parseExpression } from './parser.ts';

const MM: DisplayUnits = { length: 'mm', angle: 'deg', decimals: 3 };
const INCH: DisplayUnits = { length: 'in', angle: 'deg', decimals: 3 };

/** Behind `$w`, `$n`, `$a` and `$z`: a length, a plain number, an angle, and a bare number. */
const INPUTS: Quantity[] = [
  { value: 96, powers: { length: 1, angle: 0 }, bare: false },
  { value: 5, powers: { length: 0, angle: 0 }, bare: false },
  { value: Math.PI / 6, powers: { length: 0, angle: 1 }, bare: false },
  { value: 2, powers: { length: 0, angle: 0 }, bare: true },
];
const slotOf = (name: string) => ['$w', '$n', '$a', '$z'].indexOf(name);

function compiled(text: string, kind: QuantityKind | null = null, units = MM) {
  return compileNumeric(parseExpression(text), kind, units, (name) => {
    const slot = slotOf(name);
    return slot < 0 ? null : { slot, shape: INPUTS[slot]! };
  });
}

/** As the tree itself is evaluated; null when it is refused. */
function evaluated(text: string, kind: QuantityKind | null, units: DisplayUnits, inputs: Quantity[]): Quantity | null {
  const tree = parseExpression(text);
  try {
    const quantity = evaluate(tree, { units, lookUp: (name) => inputs[slotOf(name)]! });
    return kind ? asKind(quantity, kind, tree, { units }) : quantity;
  } catch (error) {
    if (error instanceof ExpressionError) return null;
    throw error;
  }
}

const NUMBERS = Float64Array.from(INPUTS, (q) => q.value);

describe('arithmetic with its units worked out beforehand', () => {
  test.each([
    ['$w / 2', 'length', 48],
    ['$w / $n + 1 mm', 'length', 20.2],
    ['-$w + 100', 'length', 4],
    ['4 - $w / 24', 'length', 0],
    ['2 * 3', 'length', 6],
    ['$a * 2', 'angle', Math.PI / 3],
    ['30 + $a', 'angle', Math.PI / 3],
    ['$z * 3', 'length', 6],
    ['$n - 7', 'number', -2],
    ['$w * $w', null, 9216],
  ] as const)('%s as %s', (text, kind, expected) => {
    expect(runNumeric(compiled(text, kind)!, NUMBERS)).toBeCloseTo(expected, 12);
  });

  test('a bare number takes the unit of the design', () => {
    expect(runNumeric(compiled('$w + 1', 'length', INCH)!, NUMBERS)).toBeCloseTo(121.4, 12);
    expect(runNumeric(compiled('3', 'length', INCH)!, NUMBERS)).toBeCloseTo(76.2, 12);
  });

  test.each([
    ['min($w, 3 mm)', 'length'],
    ['$w ^ 2', null],
    ['$w > 3 mm', null],
    ['width', 'length'],
    ['$gone + 1', 'length'],
    ['pi * $w', 'length'],
    ['$w + $a', null],
    ['$w * $w', 'length'],
    ['$n', 'length'],
    ['$w * $w + 3', null],
  ] as const)('%s as %s is left to its tree', (text, kind) => expect(compiled(text, kind)).toBeNull());

  test.each(['1 / ($n - 5)', '$w / (1 / ($n - 5))', '1 / (1e308 * 10 * $z)', '1e308 * 10 * $z'])(
    '%s has no number',
    (text) => expect(Number.isFinite(runNumeric(compiled(text)!, NUMBERS))).toBe(false),
  );

  test('what it reads is told', () => expect(compiled('$w / ($n + 3) - $w')!.slots).toEqual([0, 1, 0]));

  test('whatever is written, it says what the tree says, for any numbers of the same units', () => {
    const leaf = fc.oneof(
      fc.constantFrom('$w', '$n', '$a', '$z', '2', '0', '3 mm', '1/4 in', '10 deg', '1.5'),
      fc.integer({ min: 0, max: 99 }).map(String),
    );
    const { text } = fc.letrec<{ text: string }>((tie) => ({
      text: fc.oneof(
        { maxDepth: 4 },
        leaf,
        fc.tuple(tie('text'), fc.constantFrom('+', '-', '*', '/'), tie('text')).map(([a, o, b]) => `(${a} ${o} ${b})`),
        tie('text').map((a) => `-(${a})`),
      ),
    }));
    const kind = fc.constantFrom<QuantityKind | null>('length', 'angle', 'number', null);
    const inputs = fc.array(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { minLength: 4, maxLength: 4 });
    let agreed = 0;
    fc.assert(
      fc.property(text, kind, fc.constantFrom(MM, INCH), inputs, (written, of, units, numbers) => {
        const numeric = compiled(written, of, units);
        const shaped = INPUTS.map((q, i) => ({ ...q, value: numbers[i]! }));
        const told = evaluated(written, of, units, shaped);
        if (!numeric) return;
        const value = runNumeric(numeric, Float64Array.from(numbers));
        if (!told) return expect(Number.isFinite(value)).toBe(false);
        agreed++;
        // To the bit: the same operations in the same order.
        expect({ ...numeric.shape, value: value + 0 }).toEqual({ ...told, value: told.value + 0 });
      }),
      { numRuns: 2000 },
    );
    expect(agreed).toBeGreaterThan(200);
  });
});
