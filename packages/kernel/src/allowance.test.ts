/** Allowances: faces give way by half of what a fit leaves across, where they are taken; the fit check knows what is meant. */
import { describe, expect, test } from '@jest/globals';
import {
  acrossOf, addPart, addStep, checkFit, checkThroughMotion, emptyDesign, evaluateAsMade, exportParts, HERE, Ledger, PartEvaluator, refOfFace, turnOf,
  type Body, type Design, type Edit, type FitFinding, type Pose, type Standing, type Step, type Traveller,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, faceLooking, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

/** A disc of radius 7, 25 high; a ring of radii 12 and 7, 10 high; a tab 8 wide. */
const drawn = (pin: number): Design =>
  edited(
    emptyDesign('Fits'),
    addPart('disc', 'Disc'),
    addStep('disc', 's', round(pin)),
    addStep('disc', 'e', extruded('s', '25 mm')),
    addPart('ring', 'Ring'),
    addStep('ring', 's2', round(12, {}, [0, 0], 7)),
    addStep('ring', 'e2', extruded('s2', '10 mm', { profile: { sketch: 's2', regions: [{ outer: ['o'], at: [9, 0] }] } } as Partial<Step>)), // prettier-ignore
    addPart('tab', 'Tab'),
    addStep('tab', 's3', outline(rectangle(0, 0, 30, 8))),
    addStep('tab', 'e3', extruded('s3', '6 mm')),
  );
const bare = drawn(7);
const bodyOf = async (part: string, design = bare): Promise<Body> =>
  (await evaluator.evaluate(design, Ledger.of(design), part)).bodies[0]!;
const ring = await bodyOf('ring');
const bore = refOfFace(ring, ring.facts.faces.findIndex((f) => f.hollow), [ring]); // prettier-ignore
const tab = await bodyOf('tab');
const [front, back, top] = ([[0, -1, 0], [0, 1, 0], [0, 0, 1]] as const).map((d) => faceLooking(tab, d)); // prettier-ignore

const allowing = (part: string, slots: Record<string, unknown>): Edit =>
  addStep(part, 'a', { kind: 'allowance', name: 'Allowance', ...slots } as unknown as Step);
const radiusOf = (body: Body) => body.facts.faces.find((f) => f.hollow)!.radius!;
const made = async (design: Design, part: string) => (await evaluateAsMade(design, part, evaluator)).outcome.bodies[0]!;
const noteOf = async (design: Design, part: string) => {
  const { steps } = await evaluator.evaluate(design, Ledger.of(design), part);
  return [steps.at(-1)!.status, steps.at(-1)!.message, steps.at(-1)!.tells];
};

describe('a bore of Ø14', () => {
  test.each([
    ['sliding', 'milled'],
    ['loose', 'milled'],
    ['press', 'milled'],
    ['sliding', 'printed'],
    ['press', 'sawn'],
  ] as const)('%s, %s: as made it is wider by the table, here it stays nominal', async (fit, process) => {
    const design = edited(bare, allowing('ring', { faces: [bore], fit, process, applied: 'exports' }));
    const across = acrossOf(fit, process, 14)!;
    expect(radiusOf(await bodyOf('ring', design))).toBe(7);
    expect(radiusOf(await made(design, 'ring'))).toBeCloseTo(7 + across / 2, 9);
    expect((await noteOf(design, 'ring'))[2]).toMatch(/stay nominal/);
    const shown = edited(bare, allowing('ring', { faces: [bore], fit, process, applied: 'model' }));
    expect(radiusOf(await bodyOf('ring', shown))).toBeCloseTo(7 + across / 2, 9);
    const nowhere = edited(bare, allowing('ring', { faces: [bore], fit, process, applied: 'neither' }));
    expect(radiusOf(await made(nowhere, 'ring'))).toBe(7);
  });

  test('its own gap is an expression; the laser’s beam takes its width itself; a press tells of its danger', async () => {
    const own = edited(
      bare,
      allowing('ring', { faces: [bore], fit: 'own', across: '2 * 0.15 mm', applied: 'exports' }),
    );
    expect(radiusOf(await made(own, 'ring'))).toBeCloseTo(7.15, 9);
    const laser = edited(bare, allowing('ring', { faces: [bore], fit: 'loose', process: 'laser', cut: '0.2 mm' }));
    expect(radiusOf(await made(laser, 'ring'))).toBeCloseTo(7 + (0.3 - 0.2) / 2, 9);
    const press = edited(bare, allowing('ring', { faces: [bore], fit: 'press', process: 'printed' }));
    expect(await noteOf(press, 'ring')).toEqual([
      'ok',
      expect.stringMatching(/computes no strength/),
      '-0.05 mm across, 0.025 mm onto the face; the sizes here stay nominal.',
    ]);
  });

  test('an exported file has it, and the part beside stays as drawn', async () => {
    const design = edited(bare, allowing('ring', { faces: [bore], fit: 'sliding', process: 'printed' }));
    const step = new TextDecoder().decode(await exportParts(design, 'step', ['ring', 'disc'], evaluator, kernel));
    expect(step).toMatch(/CYLINDRICAL_SURFACE\('',#\d+,7\.2/);
    expect(step).toMatch(/CYLINDRICAL_SURFACE\('',#\d+,7\.\)/);
  });
});

test('a tab’s two sides give way by half each, by its width; one side alone has no width for the table', async () => {
  const both = edited(bare, allowing('tab', { faces: [front, back], fit: 'sliding', process: 'milled' }));
  const { box } = (await made(both, 'tab')).facts;
  expect(box.max[1] - box.min[1]).toBeCloseTo(8 - acrossOf('sliding', 'milled', 8)!, 6);
  const one = edited(bare, allowing('tab', { faces: [top], fit: 'sliding', process: 'milled' }));
  expect(await noteOf(one, 'tab')).toEqual(['failed', expect.stringMatching(/pick both faces across it/), null]);
  const small = edited(bare, addStep('disc', 'x', round(1)), addStep('disc', 'y', extruded('x', '40 mm', { result: 'join' }))); // prettier-ignore
  const thin = await bodyOf('disc', small);
  const face = refOfFace(thin, thin.facts.faces.findIndex((f) => f.radius === 1), [thin]); // prettier-ignore
  expect(await noteOf(edited(small, allowing('disc', { faces: [face], fit: 'tight', process: 'milled' })), 'disc')).toEqual([
    'failed', expect.stringMatching(/nothing for 2 mm/), null,
  ]); // prettier-ignore
});

describe('the fit check', () => {
  const fit = async (design: Design, clearance = 0, x = 0): Promise<FitFinding[]> => {
    const standing: Standing[] = [];
    for (const [i, part] of ['ring', 'disc'].entries()) {
      const { outcome, allowed } = await evaluateAsMade(design, part, evaluator);
      standing.push({ member: { key: part, link: i }, pose: { at: [i * x, 0, 0], turn: [0, 0, 0, 1] }, bodies: outcome.bodies, allowed }); // prettier-ignore
    }
    return checkFit(standing, clearance, kernel);
  };
  const allowed = (fit: string, process: string, pin = 7) =>
    edited(drawn(pin), allowing('ring', { faces: [bore], fit, process }));

  test('a press fit is told as meant, with the skin both have in common', async () => {
    const [found, ...more] = await fit(allowed('press', 'sawn'));
    expect([found!.kind, more]).toEqual(['overlap', []]);
    if (found?.kind !== 'overlap') throw new Error();
    expect(found.wanted).toBe(true);
    expect(found.volume).toBeCloseTo(Math.PI * (49 - 6.95 ** 2) * 10, 4);
  });

  test('on the way too: a disc that turns in its press is meant, one that is too large or leaves its bore is not', async () => {
    const way = async (design: Design, at: (i: number) => Pose) => {
      const travellers: Traveller[] = [];
      for (const [link, part] of ['ring', 'disc'].entries()) {
        const { outcome, allowed } = await evaluateAsMade(design, part, evaluator);
        travellers.push({ key: part, link, within: HERE, bodies: outcome.bodies, allowed });
      }
      const stations = Array.from({ length: 5 }, (_, i) => ({ value: i, poses: [HERE, at(i)] }));
      return (await checkThroughMotion(travellers, [HERE, HERE], stations, 0, kernel)).map((f) => f.kind);
    };
    const turning = (i: number): Pose => ({ at: [0, 0, 0], turn: turnOf([0, 0, 1], i) });
    const aside = (i: number): Pose => ({ at: [i, 0, 0], turn: HERE.turn });
    expect(await way(allowed('press', 'sawn'), turning)).toEqual([]);
    expect(await way(allowed('press', 'sawn', 7.04), turning)).toEqual(['runs_into']);
    expect(await way(allowed('press', 'sawn'), aside)).toEqual(['runs_into']);
  });

  test('a pin too large for its press is not meant, nor one that stands beside its bore', async () => {
    const told = await fit(allowed('press', 'sawn', 7.04));
    expect(told.filter((f) => f.kind === 'overlap').map((f) => 'wanted' in f)).toEqual([false]);
    const beside = (await fit(allowed('press', 'sawn'), 0, 2)).find((f) => f.kind === 'overlap');
    expect(beside && 'wanted' in beside).toBe(false);
  });

  test('a gap that the fit leaves is meant, one that is less is not', async () => {
    expect(await fit(allowed('sliding', 'printed'), 0.5)).toEqual([{ kind: 'close', members: ['ring', 'disc'], gap: expect.closeTo(0.2, 6), wanted: true }]); // prettier-ignore
    expect(await fit(allowed('sliding', 'printed', 7.05), 0.5)).toEqual([
      { kind: 'close', members: ['ring', 'disc'], gap: expect.closeTo(0.15, 6) },
    ]);
  });
});
