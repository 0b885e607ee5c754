import {
  addDimension, addRequirement, attempt, dialRanges, flexDial, flexPairs, PartEvaluator, setDimension, setMaterial, sizeKey,
  type Design, type Tried,
  type NumberCure,
} from '@helb/core'; // prettier-ignore
import { expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import { block, designOf, edgeNear, edited, evaluated, extruded, outline, rectangle } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const trying = (design: Design) => (tried: Tried) => attempt(design, tried, evaluator, kernel);

/** Dials get their ranges, and steps their numbers, after the part is made. */
const dialled = (design: Design, ref: string, value: string, min: string, max: string, drives: string): Design =>
  edited(design, addDimension(ref, { name: ref, value, dial: { min, max } }), setDimension(drives, ref));

test('a rounding of two corners fails where the wall between them ends, and says what fits', async () => {
  const plain = designOf(block(40, 30, 20));
  const [body] = (await evaluated(plain)).bodies;
  const edges = [edgeNear(body!, [0, 0, 10]), edgeNear(body!, [0, 30, 10])];
  const rounded = designOf({
    ...block(40, 30, 20),
    f: { kind: 'fillet', name: 'Corners', edges, way: 'even', radius: '5 mm' },
  });
  const design = dialled(rounded, 'corner', '5 mm', '1 mm', '18 mm', 'f.radius');
  const [dial] = dialRanges(design).dials;
  const { safe, below, above } = await flexDial(dial!, trying(design), [], () => {});
  // Two roundings of 15 mm meet in the middle of the 30 mm.
  expect(below).toBeNull();
  expect(Math.abs(safe.to - 15)).toBeLessThan(17 / 100);
  expect(above!.faults[0]).toMatchObject({ how: 'fails', part: 'p', step: 'f' });
  expect((above!.faults[0]!.cure as NumberCure).value).toBeLessThan(above!.fails);
});

test('dials that stand alone are found to fail together; numbers and sizes are kept for charts', async () => {
  const pin = designOf({ s: outline(rectangle(0, 0, 40, 30)), e: extruded('s', '12 mm') });
  const first = dialled(pin, 'thk', '12 mm', '8 mm', '20 mm', 'e.distance');
  const design = edited(
    first,
    addDimension('groove', { name: 'groove', value: '3 mm', dial: { min: '1 mm', max: '6 mm' } }),
    addDimension('web', { name: 'web', value: 'thk - groove' }),
    addRequirement('r', 'web >= 4 mm'),
    setMaterial('p', 'steel'),
  );
  const found = [];
  for (const dial of dialRanges(design).dials) found.push(await flexDial(dial, trying(design), [], () => {}));
  expect(found.map((f) => [f.below, f.above])).toEqual([
    [null, null],
    [null, null],
  ]);
  const pairs = await flexPairs(found, trying(design), [], () => {});
  expect(pairs).toMatchObject([{ dials: ['thk', 'groove'], faults: [{ how: 'requirement', requirement: 'r' }] }]);
  expect(pairs[0]!.faults[0]!.message).toBe('web >= 4 mm is not kept: 2 mm >= 4 mm');
  const thickest = found.find((f) => f.dial.ref === 'thk')!.samples.at(-1)!;
  expect(thickest.numbers).toMatchObject({ thk: 20, web: 17, [sizeKey('p', 'z')]: 20, volume: 40 * 30 * 20 });
  expect(thickest.numbers.mass).toBeCloseTo(40 * 30 * 20 * 7.85e-6, 6);
});
