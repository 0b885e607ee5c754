import {
  addDimension, addMeasured, addPart, addStep, addVariant, addVariantColumn, applyEdit, deletePart, deleteStep, emptyDesign, inspectDesign, Ledger, movedFaces,
  nudged, PartEvaluator, readMeasure, readingsOf, setDimension, setMaterial, setVariantCell, Superseded, surveyVariant, withReadings,
  type Design, type Edit, type Measure, type PartOutcome,
} from '@helb/core'; // prettier-ignore
import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

function after(design: Design, ...edits: Edit[]): Design {
  return edits.reduce((now, edit) => {
    const outcome = applyEdit(now, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, design);
}
const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });

/** A settled block of 40 × 20 on the floor, `thk` high, of steel. */
const block = after(
  emptyDesign('Block'),
  addDimension('thk', { name: 'thk', value: '10 mm', dial: {} }),
  addDimension('wide', { name: 'wide', value: '40 mm' }),
  addPart('p', 'Block'),
  setMaterial('p', 'steel'),
  addStep('p', 's', {
    kind: 'sketch',
    name: 'Outline',
    plane: { datum: 'floor' },
    points: { a: [0, 0], b: [40, 0], c: [40, 20], d: [0, 20] },
    curves: { bottom: line('a', 'b'), right: line('b', 'c'), top: line('c', 'd'), left: line('d', 'a') },
    constraints: {
      h1: { kind: 'horizontal', of: ['bottom'] },
      h2: { kind: 'horizontal', of: ['top'] },
      v1: { kind: 'vertical', of: ['left'] },
      v2: { kind: 'vertical', of: ['right'] },
      o: { kind: 'coincident', of: ['a', 'origin'] },
      w: { kind: 'distance', of: ['bottom'], value: '$wide' },
      d: { kind: 'distance', of: ['left'], value: '20 mm' },
    },
  }),
  addStep('p', 'e', {
    kind: 'extrude',
    name: 'Body',
    profile: { sketch: 's', regions: 'all' },
    way: 'one_way',
    distance: '$thk',
    result: 'new_body',
  }),
);
const evaluate = (design: Design): Promise<PartOutcome> =>
  new PartEvaluator(kernel).evaluate(design, Ledger.of(design), 'p');

/** The durable reference of the face whose outward normal is this. */
function face(outcome: PartOutcome, normal: readonly [number, number, number]) {
  const body = outcome.bodies[0]!;
  const at = body.facts.faces.findIndex((f) => f.normal?.every((n, i) => Math.abs(n - normal[i]!) < 1e-9));
  return { name: body.faceNames[at]![0]!.text, near: [...body.facts.faces[at]!.center] as [number, number, number] };
}
async function read(what: object): Promise<string> {
  return readMeasure({ ...what, part: 'p' } as Measure, block, await evaluate(block), kernel).text;
}
const value = (text: string) => Number(/^[\d.e-]+/.exec(text)![0]);

describe('what is measured on a part', () => {
  test.each<[object, number]>([
    [{ what: 'volume' }, 8000],
    [{ what: 'surface' }, 2 * (800 + 400 + 200)],
    [{ what: 'mass' }, (8000 * 7850) / 1e9],
    [{ what: 'size', along: 'x' }, 40],
    [{ what: 'size', along: 'z' }, 10],
  ])('%j reads %d', async (what, expected) => {
    expect(value(await read(what))).toBeCloseTo(expected, 9);
  });

  test('areas, distances and angles of its faces', async () => {
    const outcome = await evaluate(block);
    const [up, down, side] = [face(outcome, [0, 0, 1]), face(outcome, [0, 0, -1]), face(outcome, [1, 0, 0])];
    expect(value(await read({ what: 'area', face: up }))).toBeCloseTo(800, 9);
    expect(value(await read({ what: 'distance', between: [up, down] }))).toBeCloseTo(10, 9);
    expect(value(await read({ what: 'angle', between: [up, side] }))).toBeCloseTo(Math.PI / 2, 10);
    expect(await read({ what: 'area', face: up })).toMatch(/\* 1 mm\^2$/);
  });

  test('a face that is gone, a mass without a material: a sentence, and the last reading stays', async () => {
    await expect(read({ what: 'area', face: { name: 'nothing:side:x' } })).rejects.toThrow(/no longer there/);
    const bare = after(block, addMeasured('m', 'mass', { what: 'mass', part: 'p' }, '0.5'), setMaterial('p', null));
    const readings = readingsOf(bare, await evaluate(bare), kernel);
    expect([...readings.faults]).toEqual([['m', 'Block has no material, so it has no mass; choose one.']]);
    expect(readings.stale.size).toBe(0);
  });
});

describe('a measured dimension', () => {
  test('follows the part, and what uses it follows in turn', async () => {
    const design = after(
      block,
      addMeasured('m', 'area', { what: 'surface', part: 'p' }, '1 * 1 mm^2'),
      addDimension('side', { name: 'side', value: 'sqrt(area / 7)' }),
      addPart('q', 'Other'),
    );
    const evaluator = new PartEvaluator(kernel);
    expect(Ledger.of(await withReadings(design, evaluator, kernel)).number('side')).toBeCloseTo(20, 9);
    const thicker = after(design, setDimension('thk', '20'));
    const expected = Math.sqrt((2 * (800 + 800 + 400)) / 7);
    expect(Ledger.of(await withReadings(thicker, evaluator, kernel)).number('side')).toBeCloseTo(expected, 9);
  });

  test('holds no step back from being deleted, but its part from going unseen', () => {
    const design = after(block, addMeasured('m', 'bulk', { what: 'volume', part: 'p' }, '8000 * 1 mm^3'));
    expect(applyEdit(design, deleteStep('p', 's')).ok).toBe(true);
    const gone = applyEdit(design, deletePart('p'));
    expect(gone.ok ? 'made' : gone.message).toBe('bulk is measured on Block; delete that dimension first.');
  });

  test('cannot drive what it is measured on', () => {
    const design = after(block, addMeasured('m', 'high', { what: 'size', part: 'p', along: 'z' }, '10 mm'));
    const outcome = applyEdit(design, setDimension('wide', 'high * 2'));
    expect(outcome.ok ? 'made' : outcome.message).toMatch(/high → .*goes in a circle/);
  });

  test('measured after an early step, it may drive a later one', async () => {
    const design = after(
      block,
      addMeasured('m', 'high', { what: 'size', part: 'p', along: 'z', after: 'e' }, '10 mm'),
      addStep('p', 't', {
        kind: 'extrude',
        name: 'Tower',
        profile: { sketch: 's', regions: 'all' },
        way: 'one_way',
        distance: '$m * 3',
        result: 'new_body',
      }),
      setDimension('thk', '15'),
    );
    const settled = await withReadings(design, new PartEvaluator(kernel), kernel);
    expect(Ledger.of(settled).number('t.distance')).toBeCloseTo(45, 9);
  });
});

test('whoever inspects a design of which a number was set since reads what the model is now', async () => {
  const design = after(
    block,
    addMeasured('m', 'high', { what: 'size', part: 'p', along: 'z' }, '10 mm'),
    addDimension('twice', { name: 'twice', value: '$m * 2' }),
    setDimension('thk', '15'),
  );
  const { dimensions } = await inspectDesign(design, kernel);
  const value = (id: string) => dimensions.find((d) => d.id === id)!.value;
  expect([value('m'), value('twice')]).toEqual([expect.closeTo(15, 9), expect.closeTo(30, 9)]);
});

describe('what a number moves', () => {
  test('is told by face: moved, reshaped or untouched', async () => {
    const before = await evaluate(block);
    const moved = movedFaces(before, await evaluate(nudged(block, 'thk')!));
    const how = new Map(moved.map((f) => [f.key, f.how]));
    expect(how.get(face(before, [0, 0, 1]).name)).toBe('moved');
    expect(how.get(face(before, [1, 0, 0]).name)).toBe('reshaped');
    expect(how.has(face(before, [0, 0, -1]).name)).toBe(false);
    expect(moved).toHaveLength(5);
  });

  test('a number that nothing uses moves nothing', async () => {
    const lone = after(block, addDimension('lone', { name: 'lone', value: '0 mm' }));
    expect(movedFaces(await evaluate(lone), await evaluate(nudged(lone, 'lone')!))).toEqual([]);
  });
});

describe('a survey of variants', () => {
  test('weighs what stands and says where the others fail', async () => {
    const design = after(
      block,
      addVariantColumn('dimension:thk'),
      addVariantColumn('step:s'),
      addVariant('a', 'Thick'),
      setVariantCell('a', 'dimension:thk', '30'),
      addVariant('b', 'Flat'),
      setVariantCell('b', 'dimension:thk', '0'),
      addVariant('c', 'Bare'),
      setVariantCell('c', 'step:s', 'out'),
    );
    const evaluator = new PartEvaluator(kernel);
    const [thick, flat, bare] = await Promise.all(
      ['a', 'b', 'c'].map((v) => surveyVariant(design, v, evaluator, kernel)),
    );
    expect(thick!.faults).toEqual([]);
    expect(thick!.numbers.mass).toBeCloseTo((24000 * 7850) / 1e9, 9);
    expect(flat!.faults).toMatchObject([{ how: 'fails', part: 'p', step: 'e' }]);
    expect(bare!.faults).toMatchObject([{ how: 'fails', part: 'p', step: 'e' }]);
  });

  test('tells of each step, and ends where it is told to', async () => {
    const design = after(block, addVariant('a', 'As it is'));
    const names: string[] = [];
    const progress = (_done: number, _total: number, name: string) => void names.push(name);
    await surveyVariant(design, 'a', new PartEvaluator(kernel), kernel, { progress });
    expect(names).toEqual(design.parts.p!.stepOrder.map((id) => design.parts.p!.steps[id]!.name));
    const breathe = () => Promise.reject(new Superseded());
    const ended = surveyVariant(design, 'a', new PartEvaluator(kernel), kernel, { breathe });
    await expect(ended).rejects.toBeInstanceOf(Superseded);
  });
});
