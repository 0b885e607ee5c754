import {
  emptyDesign, emptyPart, Ledger, PartEvaluator, type Curve, type Design, type PartOutcome, type SketchGeometry, type Step,
} from '@helb/core'; // prettier-ignore
import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

type Drawn = Omit<SketchGeometry, 'constraints'>;
const rectangle = (x: number, y: number, w: number, h: number): Drawn => {
  const line = (from: string, to: string): Curve => ({ kind: 'line', from, to });
  return {
    points: { a: [x, y], b: [x + w, y], c: [x + w, y + h], d: [x, y + h] },
    curves: { bottom: line('a', 'b'), right: line('b', 'c'), top: line('c', 'd'), left: line('d', 'a') },
  };
};
const disc = (x: number, r: number): Drawn => ({
  points: { m: [x, 0] },
  curves: { rim: { kind: 'circle', center: 'm', radius: r } },
});

/** Closed by a straight side at 10; in its middle, where two spans meet, it bulges to half of `least`. */
const bulge = (least: number): Drawn => ({
  points: { a: [10, -20], b: [0, -10], c: [least, 0], d: [0, 10], e: [10, 20] },
  curves: { s: { kind: 'spline', fit: 'control', points: ['a', 'b', 'c', 'd', 'e'] }, l: { kind: 'line', from: 'e', to: 'a' } }, // prettier-ignore
});

async function turned(drawn: Drawn, more: Partial<Step> = {}, before: Record<string, Step> = {}): Promise<PartOutcome> {
  const steps: Record<string, Step> = {
    ...before,
    s: { kind: 'sketch', name: 'Profile', plane: { datum: 'wall' }, constraints: {}, ...drawn },
    e: {
      kind: 'revolve',
      name: 'Turned',
      profile: { sketch: 's', regions: 'all' },
      axis: { sketch: 's', line: 'y_axis' },
      way: 'whole',
      result: 'new_body',
      ...more,
    },
  };
  const design: Design = {
    ...emptyDesign('Test'),
    parts: { p: { ...emptyPart('Part'), steps, stepOrder: Object.keys(steps) } },
    partOrder: ['p'],
  };
  return new PartEvaluator(kernel).evaluate(design, Ledger.of(design), 'p');
}

const last = (o: PartOutcome) => o.steps.at(-1)!;

describe('revolve, by Pappus: volume is area times the way of its centre', () => {
  test.each([
    ['a ring of a rectangle', rectangle(10, 0, 5, 8), 40 * 2 * Math.PI * 12.5, 6],
    ['a cylinder, its side on the axis', rectangle(0, 0, 7, 20), Math.PI * 49 * 20, 6],
    ['a torus', disc(20, 6), Math.PI * 36 * 2 * Math.PI * 20, 6],
  ])('%s', async (_, drawn, volume, digits) => {
    const { bodies } = await turned(drawn);
    expect(bodies).toHaveLength(1);
    expect(bodies[0]!.facts.valid).toBe(true);
    expect(bodies[0]!.facts.volume / volume).toBeCloseTo(1, digits);
  });

  test('by an angle, both ways, symmetric and reversed: the share of the turn, where it lies', async () => {
    const whole = 40 * 2 * Math.PI * 12.5;
    for (const [more, share, low, high] of [
      [{ way: 'one_way', angle: '90 deg' }, 1 / 4, 0, 90],
      [{ way: 'one_way', angle: '90 deg', reversed: true }, 1 / 4, -90, 0],
      [{ way: 'both_ways', angle: '60 deg', back_angle: '30 deg' }, 1 / 4, -30, 60],
      [{ way: 'symmetric', angle: '120 deg' }, 1 / 3, -60, 60],
      [{ way: 'one_way', angle: '-45 deg' }, 1 / 8, -45, 0],
    ] as const) {
      const { bodies } = await turned(rectangle(10, 0, 5, 8), more);
      const { volume, center } = bodies[0]!.facts;
      expect(volume / whole).toBeCloseTo(share, 9);
      // On the wall plane the axis runs up z and x looks along x: turning left takes x to y.
      const middle = ((low + high) / 2) * (Math.PI / 180);
      expect(Math.atan2(center[1], center[0])).toBeCloseTo(middle, 9);
    }
  });

  test('a half turn of a half disc is half a ball, with its centre at 3/8 of the radius', async () => {
    const half: Drawn = {
      points: { o: [0, 0], low: [0, -9], high: [0, 9] },
      curves: { arc: { kind: 'arc', center: 'o', from: 'low', to: 'high' }, side: { kind: 'line', from: 'high', to: 'low' } },
    }; // prettier-ignore
    const { bodies } = await turned(half, { way: 'one_way', angle: '180 deg' });
    expect(bodies[0]!.facts.volume).toBeCloseTo((2 / 3) * Math.PI * 729, 5);
    expect(bodies[0]!.facts.center[1]).toBeCloseTo((3 / 8) * 9, 6);
  });

  test('a groove is cut from a shaft', async () => {
    const shaft: Record<string, Step> = {
      r: { kind: 'sketch', name: 'Shaft', plane: { datum: 'wall' }, constraints: {}, ...rectangle(0, 0, 10, 40) },
      b: { kind: 'revolve', name: 'Shaft', profile: { sketch: 'r', regions: 'all' }, axis: { datum: 'z' }, way: 'whole', result: 'new_body' },
    }; // prettier-ignore
    const { bodies, steps } = await turned(rectangle(8, 10, 5, 4), { result: 'cut' }, shaft);
    expect(steps.at(-1)!.message).toBeNull();
    expect(bodies[0]!.facts.volume).toBeCloseTo(Math.PI * (100 * 40 - (100 - 64) * 4), 5);
    expect(bodies[0]!.faceNames.flat().map((n) => n.text)).toContain('e:side:left');
  });
});

describe('names of what is turned', () => {
  test('every face has one, also those square to the axis in a whole turn', async () => {
    const { bodies } = await turned(rectangle(10, 0, 5, 8));
    expect(bodies[0]!.faceNames.map((n) => n.map((m) => m.text).join()).sort()).toEqual([
      'e:side:bottom',
      'e:side:left',
      'e:side:right',
      'e:side:top',
    ]);
  });

  test('an axis is found on an edge and on a round face', async () => {
    const pin: Record<string, Step> = {
      r: { kind: 'sketch', name: 'Pin', plane: { datum: 'floor' }, constraints: {}, ...disc(0, 3) },
      x: { kind: 'extrude', name: 'Pin', profile: { sketch: 'r', regions: 'all' }, way: 'one_way', distance: '5 mm', result: 'new_body' },
    }; // prettier-ignore
    for (const axis of [
      { face: { name: 'x:side:rim' } },
      { edge: { faces: ['x:side:rim', 'x:end:+rim'], near: [3, 0, 5] } },
    ]) {
      const outcome = await turned(rectangle(10, 0, 5, 8), { axis }, pin);
      expect(last(outcome).message).toBeNull();
      expect(outcome.bodies[1]!.facts.volume).toBeCloseTo(40 * 2 * Math.PI * 12.5, 5);
    }
  });
});

describe('what cannot be turned is told in a sentence', () => {
  test.each<[string, Drawn, Partial<Step>, RegExp]>([
    ['an axis that crosses the profile', rectangle(-3, 0, 10, 8), {}, /^The axis crosses the profile in Profile; keep/],
    ['an axis that a bulge crosses, where two spans of its spline meet', bulge(-4), {}, /^The axis crosses the profile in Profile; keep/],
    ['an axis out of the plane', rectangle(10, 0, 5, 8), { axis: { datum: 'y' } }, /^The axis does not lie in the plane of Profile/],
    ['an axis beside the plane', rectangle(10, 0, 5, 8), { axis: { sketch: 's', line: 'gone' } }, /^The line of Profile used as axis is gone/],
    ['no turn', rectangle(10, 0, 5, 8), { way: 'one_way', angle: '0' }, /^A turn of nothing makes nothing/],
    ['more than a turn', rectangle(10, 0, 5, 8), { way: 'both_ways', angle: '200 deg', back_angle: '170 deg' }, /more than a whole turn/],
    ['an angle that is a length', rectangle(10, 0, 5, 8), { way: 'one_way', angle: '5 mm' }, /angle/],
    ['an empty profile', { points: {}, curves: {} }, {}, /^Profile has no closed region yet/],
  ])('%s', async (_, drawn, more, message) => {
    const outcome = await turned(drawn, more);
    expect(last(outcome).status).toBe('failed');
    expect(last(outcome).message).toMatch(message);
  }); // prettier-ignore
});
