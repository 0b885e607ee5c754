/** What does not fit, in closed form; and what fits is passed without a word. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addDimension, addPart, addStep, checkFit, curesOf, emptyDesign, Ledger, PartEvaluator, placeInstances, refOfFace, turnOf,
  type Body, type Design, type FitFinding, type Instance, type Pose, type Standing, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const at = (x: number, y: number, z: number, turn: Pose['turn'] = [0, 0, 0, 1]): Pose => ({ at: [x, y, z], turn });

/** A block of 20 × 20 × 10; a disc of radius 5, 30 high; a ring of radii 8 and 5, 10 high. */
const design: Design = edited(
  emptyDesign('Fit'),
  addPart('block', 'Block'),
  addStep('block', 's', outline(rectangle(0, 0, 20, 20))),
  addStep('block', 'e', extruded('s', '10 mm')),
  addPart('disc', 'Disc'),
  addStep('disc', 's2', round(5)),
  addStep('disc', 'e2', extruded('s2', '30 mm')),
  addPart('ring', 'Ring'),
  addStep('ring', 's3', round(8, {}, [0, 0], 5)),
  addStep('ring', 'e3', extruded('s3', '10 mm', { profile: { sketch: 's3', regions: [{ outer: ['o'], at: [6.5, 0] }] } } as Partial<Step>)), // prettier-ignore
);
const bodiesOf = async (part: string, of = design) => (await evaluator.evaluate(of, Ledger.of(of), part)).bodies;

async function fit(placed: readonly (readonly [string, Pose])[], clearance = 0): Promise<FitFinding[]> {
  const standing: Standing[] = [];
  for (const [i, [part, pose]] of placed.entries())
    standing.push({ member: { key: `${part}${i}`, link: i }, pose, bodies: await bodiesOf(part) });
  return checkFit(standing, clearance, kernel);
}

describe('two parts', () => {
  const quarter = turnOf([0, 0, 1], Math.PI / 4);
  test.each<[string, readonly [string, Pose], number]>([
    ['a corner in a corner', ['block', at(15, 12, 4)], 5 * 8 * 6],
    ['one wholly in the other', ['disc', at(10, 10, -10)], Math.PI * 25 * 10],
    ['turned', ['block', at(10, 10, 0, quarter)], 100 * 10],
  ])('stand in each other: %s', async (_, other, volume) => {
    const [found, ...more] = await fit([['block', at(0, 0, 0)], other]);
    expect(more).toEqual([]);
    if (found?.kind !== 'overlap') throw new Error('no overlap is told');
    expect(found.volume).toBeCloseTo(volume, 5);
  });

  test.each<[string, readonly [string, Pose][]]>([
    ['face on face', [['block', at(0, 0, 0)], ['block', at(5, 3, 10)]]], // prettier-ignore
    ['face on face but for the rounding of a solved sketch', [['block', at(0, 0, 0)], ['block', at(5, 3, 10 + 4e-9)]]], // prettier-ignore
    ['a pin in a bore of its size', [['ring', at(0, 0, 0)], ['disc', at(0, 0, -5)]]], // prettier-ignore
    ['far away', [['block', at(0, 0, 0)], ['disc', at(90, 0, 0)]]], // prettier-ignore
  ])('are passed: %s', async (_, placed) => expect(await fit(placed, 0.5)).toEqual([]));

  test('a gap below what is asked for is told, one above is not', async () => {
    const placed = [['block', at(0, 0, 0)], ['disc', at(25.3, 10, 0)]] as const; // prettier-ignore
    expect(await fit(placed, 0.5)).toEqual([{ kind: 'close', members: ['block0', 'disc1'], gap: expect.closeTo(0.3, 9) }]); // prettier-ignore
    expect(await fit(placed, 0.2)).toEqual([]);
  });

  test('nothing of the kernel is kept', async () => {
    await fit([['block', at(0, 0, 0)], ['disc', at(10, 10, -10)]]); // prettier-ignore
    const before = kernel.held;
    for (let i = 0; i < 5; i++) await fit([['block', at(0, 0, 0)], ['disc', at(10, 10, -10)]], 1); // prettier-ignore
    expect(kernel.held).toBe(before);
  });
});

describe('bores out of line', () => {
  test('by how much and which way, for bore and pin and for bore and bore; not for what only lies beside', async () => {
    const found = await fit([['ring', at(0, 0, 0)], ['ring', at(0.3, 0.4, 10)], ['disc', at(60, 0, 0)]]); // prettier-ignore
    expect(found).toEqual([expect.objectContaining({ kind: 'out_of_line', by: expect.closeTo(0.5, 9), towards: [expect.closeTo(0.6, 9), expect.closeTo(0.8, 9), expect.closeTo(0, 9)] })]); // prettier-ignore
    expect(await fit([['ring', at(0, 0, 0)], ['ring', at(0, 0, 10)]])).toEqual([]); // prettier-ignore
    expect(await fit([['ring', at(0, 0, 0)], ['ring', at(0.3, 0, 90)]])).toEqual([]); // prettier-ignore
  });

  test('the number that cures it is found among those that could, with its value, and verified', async () => {
    const plate = (id: string, x: string): Step => ({ ...outline(rectangle(0, 0, 60, 30)), points: { ...Object.fromEntries(rectangle(0, 0, 60, 30).map((p, i) => [`p${i}`, [...p]])), m: [id === 'a' ? 20 : 21.2, 15] }, curves: { ...(outline(rectangle(0, 0, 60, 30)).curves as object), o: { kind: 'circle', center: 'm', radius: 4 } }, constraints: { f: { kind: 'fixed', of: ['p0'] }, x: { kind: 'horizontal_distance', of: ['p0', 'm'], value: x, name: 'across' }, y: { kind: 'vertical_distance', of: ['p0', 'm'], value: '15 mm', name: 'up' } } }) as unknown as Step; // prettier-ignore
    const bored = (sketch: string) =>
      ({ profile: { sketch, regions: [{ outer: ['l0', 'l1', 'l2', 'l3'] }] } }) as Partial<Step>;
    const two = edited(
      emptyDesign('Cure'),
      addDimension('margin', { name: 'margin', value: '21.2 mm' }),
      addPart('one', 'One'),
      addStep('one', 'a1', plate('a', '20 mm')),
      addStep('one', 'a2', extruded('a1', '5 mm', bored('a1'))),
      addPart('two', 'Two'),
      addStep('two', 'b1', plate('b', '$margin')),
      addStep('two', 'b2', extruded('b1', '5 mm', bored('b1'))),
      addAssembly('asm', 'Pair'),
      placeInstances('asm', [['i', { of: { part: 'one' }, home: at(0, 0, 0) as Instance['home'], fixed: true }], ['k', { of: { part: 'two' }, home: at(0, 0, 5) as Instance['home'], fixed: true }]]), // prettier-ignore
    );
    const hole = async (part: string) => {
      const [body] = (await bodiesOf(part, two)) as [Body];
      return refOfFace(body, body.facts.faces.findIndex((f) => f.hollow)); // prettier-ignore
    };
    const cures = await curesOf(two, 'asm', [{ member: 'i', face: await hole('one') }, { member: 'k', face: await hole('two') }], evaluator); // prettier-ignore
    expect(cures.map((c) => [c.path, c.to, c.unlinks])).toEqual([
      ['margin', '20 mm', false],
      ['one.outline.across', '21.2 mm', false],
      ['two.outline.across', '20 mm', true],
    ]);
  });
});
