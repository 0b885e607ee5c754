/** What does not fit on the way, and with dials at the ends of their ranges; in closed form. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addDimension, addJoint, addPart, addStep, assembled, checkThroughMotion, describeDimensions, emptyDesign, fitOverDials, leavingGuides, Ledger, lookOfOutcome, PartEvaluator, placeInstances, transformOf, travelOf, wayOfMotion,
  type Design, type Instance, type Joint, type MotionFinding, type Pose, type Station, type Traveller,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const at = (x: number, y: number, z = 0): Instance['home'] => ({ at: [x, y, z], turn: [0, 0, 0, 1] });
const here: Pose = at(0, 0);

const design: Design = edited(
  emptyDesign('Way'),
  addDimension('high', { name: 'high', value: '10 mm' }),
  addPart('block', 'Block'),
  addStep('block', 's', outline(rectangle(0, 0, 20, 20))),
  addStep('block', 'e', extruded('s', 'high')),
  addPart('disc', 'Disc'),
  addStep('disc', 's2', round(5)),
  addStep('disc', 'e2', extruded('s2', '10 mm')),
);
const bodiesOf = async (part: string, of = design) => (await evaluator.evaluate(of, Ledger.of(of), part)).bodies;

/** A disc carried past a block along x, so far beside it. */
async function past(y: number, clearance: number, steps = 91): Promise<MotionFinding[]> {
  const travellers: Traveller[] = [
    { key: 'block', link: 0, within: here, bodies: await bodiesOf('block') },
    { key: 'disc', link: 1, within: here, bodies: await bodiesOf('disc') },
  ];
  const stations: Station[] = Array.from({ length: steps }, (_, i) => {
    const x = -35 + (90 * i) / (steps - 1);
    return { value: x, poses: [here, at(x, y)] };
  });
  return checkThroughMotion(travellers, [here, at(-35, y)], stations, clearance, kernel);
}

describe('carried past', () => {
  test('what is run into is told where it is worst', async () => {
    const [found, ...more] = await past(10, 0);
    expect(more).toEqual([]);
    expect(found).toMatchObject({ kind: 'runs_into', members: ['block', 'disc'], volume: expect.closeTo(Math.PI * 25 * 10, 6) }); // prettier-ignore
    expect(found!.at).toBeGreaterThanOrEqual(5);
    expect(found!.at).toBeLessThanOrEqual(15);
  });

  test('how close it comes is exact, and told below what is asked for only', async () => {
    expect(await past(25.3, 0.5)).toMatchObject([{ kind: 'comes_close', gap: expect.closeTo(0.3, 9) }]);
    expect(await past(25.3, 0.2)).toEqual([]);
    expect(await past(40, 5)).toEqual([]);
  });

  test('looks that are spared overlook nothing: the least gap is that of each position asked by itself', async () => {
    const [[block], [disc]] = [await bodiesOf('block'), await bodiesOf('disc')];
    for (const y of [-5.6, 25.4]) {
      const gaps = Array.from({ length: 61 }, (_, i) => {
        const { solid } = kernel.placed(disc!.solid, transformOf(at(-35 + 1.5 * i, y)));
        const gap = kernel.distance(
          { solid: block!.solid, kind: 'whole', index: 0 },
          { solid, kind: 'whole', index: 0 },
        );
        kernel.free(solid);
        return gap;
      });
      expect(await past(y, 1, 61)).toMatchObject([{ kind: 'comes_close', gap: expect.closeTo(Math.min(...gaps), 9) }]);
    }
  });
});

describe('a slider on its rail', () => {
  const base = edited(
    design,
    addPart('rail', 'Rail'),
    addStep('rail', 'rs', outline(rectangle(0, 0, 100, 20))),
    addStep('rail', 're', extruded('rs', '5 mm')),
    addAssembly('a', 'Slide'),
    placeInstances('a', [
      ['ir', { of: { part: 'rail' }, home: at(0, 0), fixed: true }],
      ['ib', { of: { part: 'block' }, home: at(0, 0, 5) }],
    ]),
  );
  /** Along x: z of both frames lies along the rail. */
  const along = { at: [0, 0, 0] as [number, number, number], turn: [0, Math.SQRT1_2, 0, Math.SQRT1_2] as [number, number, number, number] }; // prettier-ignore
  const slide = (most: string): Joint => ({
    kind: 'prismatic',
    name: 'Block on rail',
    a: { instance: ['ir'], on: { stands: { ...along, at: [0, 0, 5] } } },
    b: { instance: ['ib'], on: { stands: along } },
    flip: true,
    numbers: { least_slide: '0 mm', most_slide: most },
  });

  async function ways(most: string) {
    const own = edited(base, addJoint('a', 'j', slide(most)));
    const outcomes = new Map(await Promise.all(own.partOrder.map(async (p) => [p, await evaluator.evaluate(own, Ledger.of(own), p)] as const))); // prettier-ignore
    const it = assembled(own, Ledger.of(own), 'a', (p) => lookOfOutcome(outcomes.get(p)!));
    expect(it.closed).toBe(true);
    const [motion] = it.joints[0]!.motions;
    const { samples } = await travelOf(it, it.home, wayOfMotion(motion!, [0, motion!.most!], 21));
    const travellers = it.members.map((m): Traveller => ({ ...m, bodies: outcomes.get(m.part)!.bodies }));
    return leavingGuides(
      it,
      travellers,
      samples.map(({ value, placed }) => ({ value, poses: placed.poses })),
    );
  }

  test('that stays on it is passed; one that runs off its end is told, and where', async () => {
    expect(await ways('70 mm')).toEqual([]);
    expect(await ways('110 mm')).toMatchObject([
      { kind: 'leaves', members: ['ib', 'ir'], at: expect.closeTo(110, 6), engaged: expect.closeTo(-10, 6) },
    ]);
  });
});

test('a dial at the end of its range that drives parts into each other is told with its value', async () => {
  const stacked = edited(
    design,
    describeDimensions(['high'], { dial: { min: '6 mm', max: '14 mm' } }),
    addAssembly('a', 'Stack'),
    placeInstances('a', [
      ['i', { of: { part: 'block' }, home: at(0, 0), fixed: true }],
      ['k', { of: { part: 'disc' }, home: at(10, 10, 10) }],
    ]),
  );
  const found = await fitOverDials(stacked, 'a', 0, evaluator, kernel);
  expect(found.map((f) => [f.dial, f.value, f.findings.map((x) => x.kind), f.fault])).toEqual([
    ['high', '6 mm', [], null],
    ['high', '14 mm', ['overlap'], null],
  ]);
  expect(found[1]!.findings[0]).toMatchObject({ volume: expect.closeTo(Math.PI * 25 * 4, 5) });
});
