import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDimension, dialRanges, emptyDesign, flexDial, flexPairs, rangeToKeep, type DialRange, type Fault, type Trying, writeFlexCsv } from '../index.ts'; // prettier-ignore
import { edited } from '../commands/edited.ts';
import { faultsBeside } from './flex.ts';

const units = { length: 'mm', angle: 'deg', decimals: 3 } as const;
const dial = (more: Partial<DialRange> = {}): DialRange => ({
  ref: 'd', name: 'd', kind: 'length', now: 10, min: 0, max: 40, step: null, proposed: false, ...more,
}); // prettier-ignore
const FAULT: Fault = { how: 'fails', part: 'p', step: 's', message: 'It fails.' };
/** A model that stands where this holds of its numbers. */
const model = (stands: (...values: number[]) => boolean): Trying & { tried: number } => {
  const trying = async (tried: Parameters<Trying>[0]) => {
    trying.tried++;
    const values = tried.map(([, text]) => Number.parseFloat(text));
    return { faults: stands(...values) ? [] : [FAULT], numbers: {} };
  };
  trying.tried = 0;
  return trying;
};

describe('a dial moved through its range', () => {
  test('the ends of what stands are found to a two-hundredth of the range, never beyond them', async () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    await fc.assert(
      fc.asyncProperty(number(0, 9.99), number(10.01, 40), async (low, high) => {
        const trying = model((x) => x >= low && x <= high);
        const { safe, below, above } = await flexDial(dial(), trying, [], () => {});
        expect(safe.from).toBeGreaterThanOrEqual(low);
        expect(safe.to).toBeLessThanOrEqual(high);
        expect(safe.from - low).toBeLessThanOrEqual(40 / 200);
        expect(high - safe.to).toBeLessThanOrEqual(40 / 200);
        expect(below === null).toBe(low === 0);
        expect(above === null).toBe(high === 40);
        expect(trying.tried).toBeLessThan(30);
        const keep = rangeToKeep({ dial: dial(), safe, below, above, samples: [] }, units) ?? { min: 10, max: 10 };
        expect(keep.min).toBeGreaterThanOrEqual(safe.from);
        expect(keep.max).toBeLessThanOrEqual(safe.to);
      }),
      { numRuns: 60 },
    );
  });

  test('a dial that counts is tried at whole numbers only, each once', async () => {
    const seen: number[] = [];
    const count = dial({ kind: 'number', now: 4, min: 1, max: 30, step: 1 });
    const { safe, above } = await flexDial(
      count,
      async (tried) => {
        const at = Number(tried[0]![1]);
        seen.push(at);
        return { faults: at > 23 ? [FAULT] : [], numbers: {} };
      },
      [],
      () => {},
    );
    expect([safe.from, safe.to, above!.fails]).toEqual([1, 23, 24]);
    expect(seen.every(Number.isInteger)).toBe(true);
    expect(new Set(seen).size).toBe(seen.length);
  });

  test('what does not stand in any case is not laid at the dial’s door', async () => {
    const other: Fault = { how: 'requirement', requirement: 'r', message: 'wall is not kept' };
    const trying: Trying = async (tried) => ({
      faults: [{ ...other, message: 'in other words' }, ...(Number.parseFloat(tried[0]![1]) > 20 ? [FAULT] : [])],
      numbers: {},
    });
    const { below, above } = await flexDial(dial(), trying, [other], () => {});
    expect(below).toBeNull();
    expect(above!.faults).toEqual([FAULT]);
  });

  test('of two parts of an assembly that stand elsewhere, the second is told though the first is there in any case', () => {
    const astray = (about: string, far: number): Fault => ({ how: 'doubt', assembly: 'a', about, message: `It stands ${far} mm off.` }); // prettier-ignore
    const second = astray('rod b', 2);
    expect(faultsBeside([astray('arm b', 4), second], [astray('arm b', 3)])).toEqual([second]);
  });
});

test('two dials that stand alone are tried together at the corners of what stands', async () => {
  const [a, b] = [dial({ ref: 'a' }), dial({ ref: 'b' })];
  const alone = [];
  for (const own of [a, b]) alone.push(await flexDial(own, model((x) => x <= 30), [], () => {})); // prettier-ignore
  const faults = await flexPairs(alone, model((x, y) => x + y <= 50), [], () => {}); // prettier-ignore
  expect(faults.map((f) => f.dials)).toEqual([['a', 'b']]);
  expect(faults[0]!.at[0] + faults[0]!.at[1]).toBeGreaterThan(59);
});

test('a dial without a range is tried round its value; one without a value is named', () => {
  const design = edited(
    emptyDesign('Dials'),
    addDimension('a', { name: 'a', value: '8 mm', dial: { min: '2 mm', max: '20 mm' } }),
    addDimension('b', { name: 'b', value: '5', dial: {} }),
    addDimension('c', { name: 'c', value: 'a * a', dial: {} }),
    addDimension('plain', { name: 'plain', value: '1 mm' }),
  );
  const { dials, left } = dialRanges(design);
  expect(dials).toMatchObject([
    { ref: 'a', now: 8, min: 2, max: 20, step: null, proposed: false },
    { ref: 'b', now: 5, min: 2, max: 8, step: 1, proposed: true },
  ]);
  expect(left).toEqual(['c is not moved: it is neither a length, an angle nor a number']);
});

test('a table of all values, in the design’s units, with what fails', () => {
  const design = edited(emptyDesign('Table'), addDimension('d', { name: 'd', value: '8 mm' }));
  const samples = [
    { at: 5, faults: [{ how: 'refused', message: 'Too thin, by far.' }], numbers: {} },
    { at: 8, faults: [], numbers: { mass: 0.25, volume: 1000 / 3 } },
  ] as const;
  const flexed = { dial: dial(), samples, safe: { from: 8, to: 8 }, below: null, above: null };
  expect(writeFlexCsv(design, [flexed]).split('\r\n')).toEqual([
    'dial,value,unit,stands,why_not,mass_kg,volume_mm3',
    'd,5,mm,no,"Too thin, by far.",,',
    'd,8,mm,yes,,0.25,333.333333',
  ]);
});
