/** Given numbers read as they stand in drawings, judged against a recipe and a finished part, and pictures set to scale. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addPart, addStep, putGivenNumbers, removeGivenNumbers, addGivenDrawing, layDrawingUnder, removeGivenDrawing } from '../commands/index.ts'; // prettier-ignore
import { edited, refusalOf } from '../commands/edited.ts';
import { applyEdit } from '../document/change.ts';
import type { GivenDrawing, GivenNumber } from '../document/brief.ts';
import { emptyDesign } from '../document/schema.ts';
import { inverted, withTouches } from '../document/touches.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { Step } from '../steps/schema.ts';
import type { Finished } from './finished.ts';
import { judgeBrief } from './judge.ts';
import { readGivenNumbers } from './read-numbers.ts';
import { firstUnderlay, pixelInSketch, putAt, scaledBy, squaredBy } from './underlay.ts';

const MM = { length: 'mm', angle: 'deg' } as const;
const read = (text: string, units = MM as Parameters<typeof readGivenNumbers>[1]) => readGivenNumbers(text, units);

describe('numbers as they stand in a drawing', () => {
  test.each([
    ['Ø42', { kind: 'diameter', value: '42 mm' }],
    ['4x Ø6,6 wall holes', { kind: 'diameter', value: '6.6 mm', times: 4, note: 'wall holes' }],
    ['2× R5', { kind: 'radius', value: '5 mm', times: 2 }],
    ['SR12', { kind: 'radius', value: '12 mm' }],
    ['30°', { kind: 'angle', value: '30 deg' }],
    ['2.5 in', { kind: 'length', value: '2.5 in' }],
    ['1.25"', { kind: 'length', value: '1.25 in' }],
    ['240 g', { kind: 'mass', value: '0.24' }],
    ['120', { kind: 'length', value: '120 mm' }],
  ])('%s', (line, number) => expect(read(line)).toEqual({ numbers: [number], unread: [] }));

  test('a bare number is in the design’s unit', () => {
    expect(read('3', { length: 'in', angle: 'deg' }).numbers).toEqual([{ kind: 'length', value: '3 in' }]);
  });

  test('rows of a table, in the order of its titles or in ours; what contradicts itself is not guessed', () => {
    const csv = 'value;kind;note\n42;diameter;collar\n30;radius;\nØ8;radius;odd\n12,5;length;';
    expect(read(csv)).toEqual({
      numbers: [
        { kind: 'diameter', value: '42 mm', note: 'collar' },
        { kind: 'radius', value: '30 mm' },
        { kind: 'length', value: '12.5 mm' },
      ],
      unread: ['Line 4, “Ø8 radius odd”, says no number that could be read.'],
    });
    expect(read('count\t6\nangle\t45 deg\t2').numbers).toEqual([{ kind: 'count', value: '6' }, { kind: 'angle', value: '45 deg', times: 2 }]); // prettier-ignore
  });

  test('no text makes it fail, and every line is read or told', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: fc.constantFrom('Ø', 'R', '4', '.', ' ', 'x', 'mm', '-', 'e') })), (lines) => {
        const { numbers, unread } = read(lines.join('\n'));
        expect(numbers.length + unread.length).toBe(lines.filter((l) => l.trim()).length);
      }),
    ); // prettier-ignore
  });
});

const disc = (how: 'diameter' | 'radius', value: string): Step => ({ kind: 'sketch', name: 'Disc', plane: { datum: 'floor' }, points: { c: [0, 0] }, curves: { o: { kind: 'circle', center: 'c', radius: 21 } }, constraints: { size: { kind: how, of: ['o'], value } } }) as Step; // prettier-ignore
const thick: Step = { kind: 'extrude', name: 'Plate', profile: { sketch: 's', regions: 'all' }, way: 'one_way', distance: '(40 mm - 15 mm) / 5', result: 'new_body' }; // prettier-ignore
const nothing: Finished = { rounds: [], lengths: [], angles: [], mass: null, box: [0, 0, 0], centre: [0, 0, 0] };

function verdict(given: GivenNumber, sketch: Step, finished: Finished | null) {
  const design = edited(emptyDesign('D'), addPart('p', 'P'), addStep('p', 's', sketch), addStep('p', 'e', thick), putGivenNumbers('p', [['g', given]])); // prettier-ignore
  const part = design.parts.p!;
  return judgeBrief(part.brief!, 'p', part, Ledger.of(design), finished, design.units).get('g')!;
}
const round = (radius: number, count = 1): Finished => ({ ...nothing, rounds: [{ radius, count }] });

describe('a given number is', () => {
  const given = (kind: GivenNumber['kind'], value: string, more: Partial<GivenNumber> = {}): GivenNumber => ({ kind, value, ...more }); // prettier-ignore

  test('right where it is used as it was given, or as half or twice of it', () => {
    expect(verdict(given('diameter', '42 mm'), disc('diameter', '42 mm'), round(21))).toEqual({ state: 'right', says: null, uses: ['s.size'] }); // prettier-ignore
    expect(verdict(given('diameter', '42 mm'), disc('radius', '21 mm'), round(21)).state).toBe('right');
    expect(verdict(given('radius', '21 mm'), disc('diameter', '42 mm'), round(21)).state).toBe('right');
    expect(verdict(given('diameter', '42 mm'), disc('diameter', '42 mm'), null).state).toBe('right');
  });

  test('wrong where a diameter is used as a radius, or a radius as a diameter', () => {
    expect(verdict(given('diameter', '42 mm'), disc('radius', '42 mm'), round(42)).says).toBe('Given as a diameter, used as a radius in disc.radius.'); // prettier-ignore
    expect(verdict(given('radius', '42 mm'), disc('diameter', '42 mm'), null).says).toBe('Given as a radius, used as a diameter in disc.diameter.'); // prettier-ignore
    expect(verdict(given('diameter', '42 mm'), disc('diameter', '84 mm'), round(42)).says).toBe('Given as a diameter, but the part has it as a radius.'); // prettier-ignore
    expect(verdict(given('length', '42 mm'), disc('diameter', '42 mm'), round(21)).state).toBe('wrong');
  });

  test('used within a sum, used nowhere, or used for what the part no longer has', () => {
    expect(verdict(given('length', '40 mm'), disc('diameter', '42 mm'), { ...round(21), lengths: [40] }).state).toBe('right'); // prettier-ignore
    expect(verdict(given('diameter', '15 mm'), disc('diameter', '42 mm'), round(21)).says).toBe('Stands only within a sum, in plate.distance; nothing in the part measures so.'); // prettier-ignore
    expect(verdict(given('length', '41 mm'), disc('diameter', '42 mm'), round(21)).state).toBe('unused');
    expect(verdict(given('diameter', '42 mm'), disc('diameter', '42 mm'), round(20))).toMatchObject({ state: 'other', says: 'Used in disc.diameter, but nothing in the part measures so.' }); // prettier-ignore
    expect(verdict(given('length', 'wide'), disc('diameter', '42 mm'), null).state).toBe('unread');
  });

  test('counted, and results hold to half their last digit', () => {
    expect(verdict(given('diameter', '42 mm', { times: 4 }), disc('diameter', '42 mm'), round(21, 3)).says).toBe('Given 4 times; the part has 3.'); // prettier-ignore
    expect(verdict(given('mass', '0.24'), disc('diameter', '1 mm'), { ...nothing, mass: 0.2449 }).state).toBe('right');
    expect(verdict(given('mass', '0.24'), disc('diameter', '1 mm'), { ...nothing, mass: 0.2451 }).says).toBe('The part comes to 0.2451 kg.'); // prettier-ignore
    expect(verdict(given('box_y', '1 in'), disc('diameter', '1 mm'), { ...nothing, box: [0, 30, 0] }).state).toBe(
      'right',
    );
    expect(verdict(given('centre_z', '0 mm'), disc('diameter', '1 mm'), { ...nothing, centre: [9, 9, 0.4] }).state).toBe('right'); // prettier-ignore
  });
});

describe('a picture under a sketch', () => {
  const laid = { ...firstUnderlay('d', 800, 600, 0.25), turn: 0.3 };
  const pixel = fc.tuple(fc.integer({ min: 0, max: 800 }), fc.integer({ min: 0, max: 600 }));

  test('is set to scale, squared and put in place by the points one clicks', () => {
    fc.assert(
      fc.property(pixel, pixel, fc.double({ min: 0.5, max: 900, noNaN: true }), (a, b, apart) => {
        fc.pre(Math.hypot(a[0] - b[0], a[1] - b[1]) > 1);
        const scaled = scaledBy(laid, a, b, apart)!;
        const [p, q] = [pixelInSketch(scaled, a), pixelInSketch(scaled, b)];
        expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeCloseTo(apart, 6);
        expect(p).toEqual(pixelInSketch(laid, a).map((v) => expect.closeTo(v, 6)));
        const square = squaredBy(scaled, a, b)!;
        const [r, s] = [pixelInSketch(square, a), pixelInSketch(square, b)];
        expect(Math.min(Math.abs(r[0] - s[0]), Math.abs(r[1] - s[1]))).toBeCloseTo(0, 6);
        expect(pixelInSketch(putAt(square, b, [3, -4]), b)).toEqual([expect.closeTo(3, 6), expect.closeTo(-4, 6)]);
      }),
    );
    expect([scaledBy(laid, [5, 5], [5, 5], 10), scaledBy(laid, [5, 5], [9, 5], 0), squaredBy(laid, [5, 5], [5, 5])]).toEqual([null, null, null]); // prettier-ignore
  });
});

describe('edits of a brief', () => {
  const drawing: GivenDrawing = { name: 'Drawing', picture: 'data:image/png;base64,iVBORw0KGgo=', width: 10, height: 10 }; // prettier-ignore
  const begun = edited(emptyDesign('D'), addPart('p', 'P'), addStep('p', 's', disc('diameter', '42 mm')), putGivenNumbers('p', [['g', { kind: 'diameter', value: '42 mm' }]]), addGivenDrawing('p', 'd', drawing)); // prettier-ignore

  test('are taken back whole, and what another gave stays', () => {
    const other = putGivenNumbers('p', [['h', { kind: 'length', value: '7 mm' }]]);
    for (const edit of [
      putGivenNumbers('p', [['g', { kind: 'radius', value: '42 mm' }]]),
      removeGivenNumbers('p', ['g']),
      layDrawingUnder('p', 's', firstUnderlay('d', 10, 10, undefined)),
      removeGivenDrawing('p', 'd'),
    ]) {
      const made = applyEdit(begun, edit);
      if (!made.ok) throw new Error(made.message);
      expect(withTouches(made.design, inverted(made.touches), true)).toEqual(begun);
      expect(withTouches(edited(made.design, other), inverted(made.touches), true)).toEqual(edited(begun, other));
    }
  });

  test('two people may begin one at once', () => {
    const empty = edited(emptyDesign('D'), addPart('p', 'P'));
    const [one, two] = ['g', 'h'].map((id) => applyEdit(empty, putGivenNumbers('p', [[id, { kind: 'length', value: '7 mm' }]]))); // prettier-ignore
    if (!one!.ok || !two!.ok) throw new Error('refused');
    expect(new Set(withTouches(one!.design, two!.touches, true).parts.p!.brief!.numberOrder)).toEqual(new Set(['g', 'h'])); // prettier-ignore
  });

  test('a picture that is none, or of a script, is refused', () => {
    expect(refusalOf(begun, addGivenDrawing('p', 'e', { ...drawing, picture: 'data:image/svg+xml;base64,AAAA' }))).toMatch(/./); // prettier-ignore
    expect(refusalOf(begun, layDrawingUnder('p', 's', firstUnderlay('gone', 10, 10, 1)))).toBe('This drawing is no longer in the brief.'); // prettier-ignore
  });
});
