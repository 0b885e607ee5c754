import {
  emptyDesign, emptyPart, Ledger, PartEvaluator, writeStl, type Design, type PartOutcome, type SketchGeometry, type SketchStep, type Step,
} from '@helb/core'; // prettier-ignore
import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

/** A settled rectangle from (x, y), with curves bottom, right, top, left. */
function rectangle(x: number, y: number, w: number, h: number): SketchGeometry {
  const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });
  return {
    points: { a: [x, y], b: [x + w, y], c: [x + w, y + h], d: [x, y + h] },
    curves: { bottom: line('a', 'b'), right: line('b', 'c'), top: line('c', 'd'), left: line('d', 'a') },
    constraints: {},
  };
}

const on = (plane: SketchStep['plane'], geometry: SketchGeometry, name = 'Outline'): SketchStep => ({
  kind: 'sketch',
  name,
  plane,
  ...geometry,
});
const floor = { datum: 'floor' } as const;
const extrude = (sketch: string, more: Partial<Step> = {}, regions: unknown = 'all'): Step => ({
  kind: 'extrude',
  name: 'Block',
  profile: { sketch, regions },
  way: 'one_way',
  distance: '10 mm',
  result: 'new_body',
  ...more,
});

function design(steps: Record<string, Step>): Design {
  return {
    ...emptyDesign('Test'),
    parts: { p: { ...emptyPart('Part'), steps, stepOrder: Object.keys(steps) } },
    partOrder: ['p'],
  };
}

async function evaluate(steps: Record<string, Step>, evaluator = new PartEvaluator(kernel)): Promise<PartOutcome> {
  const d = design(steps);
  return evaluator.evaluate(d, Ledger.of(d), 'p');
}

const last = (outcome: PartOutcome) => outcome.steps.at(-1)!;

describe('extrude', () => {
  test.each<[string, Partial<Step>, number, number]>([
    ['one way', {}, 0, 10],
    ['reversed', { reversed: true }, -10, 0],
    ['symmetric', { way: 'symmetric' }, -5, 5],
    ['both ways', { way: 'both_ways', back_distance: '4 mm' }, -4, 10],
    ['by a negative distance', { distance: '-10 mm' }, -10, 0],
  ])('%s reaches from %#', async (_, more, low, high) => {
    const { bodies } = await evaluate({ s: on(floor, rectangle(0, 0, 20, 30)), e: extrude('s', more) });
    const { box, volume } = bodies[0]!.facts;
    expect(box.min[2]).toBeCloseTo(low, 6);
    expect(box.max[2]).toBeCloseTo(high, 6);
    expect(volume).toBeCloseTo(600 * (high - low), 6);
  });

  test('stands on each datum plane with x and y as written', async () => {
    for (const [datum, size] of [
      ['floor', [20, 30, 10]],
      ['wall', [20, 10, 30]],
      ['side', [10, 20, 30]],
    ] as const) {
      const { bodies } = await evaluate({ s: on({ datum }, rectangle(0, 0, 20, 30)), e: extrude('s') });
      const { min, max } = bodies[0]!.facts.box;
      expect(max.map((v, i) => Math.round(v - min[i]!))).toEqual(size);
    }
  });

  test('a circle gives a round face with its radius, and a full seam', async () => {
    const { bodies } = await evaluate({
      s: on(floor, {
        points: { c: [5, 5] },
        curves: { k: { kind: 'circle', center: 'c', radius: 7 } },
        constraints: {},
      }),
      e: extrude('s'),
    });
    expect(bodies[0]!.facts.volume).toBeCloseTo(Math.PI * 490, 6);
    expect(bodies[0]!.facts.faces.find((f) => f.kind === 'cylinder')!.radius).toBeCloseTo(7, 9);
  });

  test('joins to what it touches and leaves other bodies alone', async () => {
    const outcome = await evaluate({
      s: on(floor, rectangle(0, 0, 20, 20)),
      one: extrude('s'),
      s2: on(floor, rectangle(50, 0, 10, 10)),
      two: extrude('s2'),
      s3: on(floor, rectangle(10, 5, 20, 10)),
      three: extrude('s3', { result: 'join', distance: '10 mm' }),
    });
    expect(last(outcome).message).toBeNull();
    expect(outcome.bodies.map((b) => [b.name.step, Math.round(b.facts.volume)])).toEqual([
      ['one', 5000],
      ['two', 1000],
    ]);
    expect(outcome.bodies.every((b) => b.facts.valid)).toBe(true);
  });

  test('cuts through, and a cut in two leaves two bodies', async () => {
    const steps = {
      s: on(floor, rectangle(0, 0, 40, 20)),
      one: extrude('s'),
      s2: on(floor, rectangle(15, -5, 10, 30)),
      cut: extrude('s2', { result: 'cut', distance: '20 mm' }),
    };
    const outcome = await evaluate(steps);
    expect(outcome.bodies.map((b) => Math.round(b.facts.volume))).toEqual([3000, 3000]);
    expect(new Set(outcome.bodies.map((b) => b.key)).size).toBe(2);
  });

  test.each<[string, Record<string, Step>, string]>([
    [
      'zero',
      { s: on(floor, rectangle(0, 0, 5, 5)), e: extrude('s', { distance: '0' }) },
      'An extrude of zero makes nothing; give it a distance.',
    ],
    [
      'an open outline',
      {
        s: on(floor, {
          ...rectangle(0, 0, 50, 50),
          curves: { bottom: { kind: 'line', from: 'a', to: 'b' }, right: { kind: 'line', from: 'b', to: 'c' } },
        }),
        e: extrude('s'),
      },
      'Outline has no closed region: a line ends in the open at 0, 0 mm; close the outline.',
    ],
    [
      'an empty sketch',
      { s: on(floor, { points: {}, curves: {}, constraints: {} }), e: extrude('s') },
      'Outline has no closed region yet; draw a closed outline in it.',
    ],
    [
      'a region that touches itself',
      {
        s: on(floor, {
          ...rectangle(0, 0, 100, 100),
          points: { ...rectangle(0, 0, 100, 100).points, h: [50, 10] },
          curves: { ...rectangle(0, 0, 100, 100).curves, hole: { kind: 'circle', center: 'h', radius: 10 } },
        }),
        e: extrude('s', {}, [{ outer: ['left', 'top', 'right', 'bottom'], at: [5, 50] }]),
      },
      'A region of Outline touches itself at 50, 0 mm; part its lines there or make them overlap.',
    ],
    [
      'a join with nothing',
      { s: on(floor, rectangle(0, 0, 5, 5)), e: extrude('s', { result: 'join' }) },
      'There is no body to act on yet; make a new body instead.',
    ],
    [
      'a join that touches nothing',
      {
        s: on(floor, rectangle(0, 0, 5, 5)),
        e: extrude('s'),
        s2: on(floor, rectangle(50, 0, 5, 5)),
        j: extrude('s2', { result: 'join' }),
      },
      'This does not touch Block, so there is nothing to join; make it a new body, or move it.',
    ],
    [
      'a cut that misses',
      {
        s: on(floor, rectangle(0, 0, 5, 5)),
        e: extrude('s'),
        s2: on(floor, rectangle(50, 0, 5, 5)),
        j: extrude('s2', { result: 'cut', name: 'Slot' }),
      },
      'This cuts nothing: Slot does not reach Block.',
    ],
    [
      'a cut that only touches',
      {
        s: on(floor, rectangle(0, 0, 5, 5)),
        e: extrude('s'),
        s2: on({ face: { name: 'e:end' } }, rectangle(1, 1, 2, 2)),
        j: extrude('s2', { result: 'cut', name: 'Slot' }),
      },
      'This cuts nothing: Slot does not reach Block.',
    ],
    [
      'a join that lies within',
      {
        s: on(floor, rectangle(0, 0, 5, 5)),
        e: extrude('s'),
        s2: on(floor, rectangle(1, 1, 2, 2)),
        j: extrude('s2', { result: 'join', name: 'Boss', distance: '3 mm' }),
      },
      'This adds nothing: Boss lies within Block.',
    ],
    [
      'a cut that takes all',
      { s: on(floor, rectangle(0, 0, 5, 5)), e: extrude('s'), j: extrude('s', { result: 'cut' }) },
      'This would cut Block away entirely; nothing would be left.',
    ],
    ['a deleted sketch', { e: extrude('gone') }, 'The sketch this step uses was deleted; choose another.'],
    [
      'a number without value',
      { s: on(floor, rectangle(0, 0, 5, 5)), e: extrude('s', { distance: 'thk' }) },
      'distance: No dimension is called “thk”.',
    ],
  ])('%s is refused in a sentence, and the rest stands', async (_, steps, message) => {
    const outcome = await evaluate(steps);
    expect(last(outcome)).toMatchObject({ status: 'failed', message });
  });
});

test('a cut that goes away from the material is turned round by its cure; one that meets nothing has none', async () => {
  const cut = (reversed: boolean, x = 1) =>
    evaluate({
      s: on(floor, rectangle(0, 0, 5, 5)),
      e: extrude('s'),
      s2: on({ face: { name: 'e:end' } }, rectangle(x, 1, 2, 2)),
      j: extrude('s2', { result: 'cut', distance: '3 mm', reversed }),
    });
  const away = last(await cut(false));
  expect(away.cure).toEqual({ slot: 'reversed', stored: true, says: 'Turn it round' });
  const turned = await cut(true);
  expect(last(turned).status).toBe('ok');
  expect(turned.bodies[0]!.facts.volume).toBeCloseTo(250 - 12, 9);
  expect(last(await cut(false, 50)).cure).toBeNull();
});

describe('a sketch on a face', () => {
  const boss = (height: string): Record<string, Step> => ({
    s: on(floor, rectangle(0, 0, 40, 40)),
    block: extrude('s', { distance: height }),
    s2: on({ face: { name: 'block:end' } }, rectangle(10, 10, 10, 10), 'Boss'),
    boss: extrude('s2', { result: 'join', distance: '5 mm' }),
  });

  test('follows the face when it moves', async () => {
    for (const height of ['10 mm', '25 mm']) {
      const outcome = await evaluate(boss(height));
      expect(last(outcome).message).toBeNull();
      expect(outcome.bodies[0]!.facts.box.max[2]).toBeCloseTo(parseFloat(height) + 5, 6);
    }
  });

  test('is found after the face was split, and says so', async () => {
    const steps = boss('10 mm');
    const { boss: last2, s2, ...first } = steps;
    const outcome = await evaluate({
      ...first,
      slot: on(floor, rectangle(25, -5, 5, 50), 'Slot'),
      groove: extrude('slot', { result: 'cut', way: 'one_way', distance: '30 mm' }),
      s2: { ...(s2 as SketchStep), plane: { face: { name: 'block:end', near: [12, 20, 10], normal: [0, 0, 1] } } },
      boss: last2!,
    });
    const sketch = outcome.steps.find((s) => s.id === 's2')!;
    expect(sketch.status).toBe('ok');
    expect(sketch.message).toBeNull();
    expect(sketch.doubts.map((d) => d.says)).toEqual([
      'The face it lies on is probably the right one: it is the nearest of 2 that came from the same; look, and keep it or pick again.',
    ]);
  });

  test('says what to do when its face is gone', async () => {
    const { boss: _, ...steps } = boss('10 mm');
    const outcome = await evaluate({
      ...steps,
      s2: { ...(steps.s2 as SketchStep), plane: { face: { name: 'other:end' } } },
    });
    expect(last(outcome).message).toBe('The face this lies on is no longer there; pick another face or plane for it.');
  });
});

describe('lettering', () => {
  test('says which letters the typeface lacks', async () => {
    const text = (t: string) => ({
      s: on(floor, { points: { a: [0, 0], b: [40, 0] }, curves: { t: { kind: 'text', from: 'a', to: 'b', text: t } }, constraints: {} }),
    }) as Record<string, Step>; // prettier-ignore
    expect(last(await evaluate(text('Ø 8 b'))).message).toBeNull();
    expect(last(await evaluate(text('A漢B漢'))).message).toBe(
      'The typeface has no “漢”; a stand-in is drawn, so write it another way.',
    );
  });
});

describe('evaluation', () => {
  test('a suppressed step is left out, and what needs it says so', async () => {
    const outcome = await evaluate({ s: { ...on(floor, rectangle(0, 0, 5, 5)), suppressed: true }, e: extrude('s') });
    expect(outcome.steps[0]!.status).toBe('suppressed');
    expect(last(outcome).message).toBe('Outline is suppressed, and this step needs it.');
  });

  test('a clashing sketch keeps its picture and names what disagrees', async () => {
    const geometry = rectangle(0, 0, 20, 20);
    geometry.constraints.one = { kind: 'distance', of: ['bottom'], value: '20 mm', name: 'width' };
    geometry.constraints.two = { kind: 'distance', of: ['bottom'], value: '25 mm', name: 'reach' };
    const outcome = await evaluate({ s: on(floor, geometry) });
    expect(last(outcome).message).toBe('width and reach cannot both hold; change or remove one of them.');
    expect(last(outcome).sketch!.solution.clash).toHaveLength(2);
  });

  test('a thousand re-evaluations hold no more solids than a hundred', async () => {
    const evaluator = new PartEvaluator(kernel, 5_000_000);
    const before = kernel.held;
    const heldAfter: number[] = [];
    for (let i = 1; i <= 1000; i++) {
      const outcome = await evaluate(
        { s: on(floor, rectangle(0, 0, 10 + (i % 200), 10)), e: extrude('s', { distance: `${5 + i / 1000} mm` }) },
        evaluator,
      );
      expect(outcome.bodies).toHaveLength(1);
      evaluator.sweep();
      if (i % 100 === 0) heldAfter.push(kernel.held - before);
    }
    expect(Math.max(...heldAfter)).toBe(heldAfter[0]);
  });

  test('the same recipe is computed once', async () => {
    const evaluator = new PartEvaluator(kernel);
    const steps = { s: on(floor, rectangle(0, 0, 20, 20)), e: extrude('s') };
    const [first, second] = [await evaluate(steps, evaluator), await evaluate(steps, evaluator)];
    expect(second.bodies[0]!.solid).toBe(first.bodies[0]!.solid);
  });
});

describe('files', () => {
  test('STEP names its parts and holds their solids', async () => {
    const { bodies } = await evaluate({ s: on(floor, rectangle(0, 0, 20, 20)), e: extrude('s') });
    const text = new TextDecoder().decode(
      kernel.exportStep([{ name: 'Wall bracket', color: '#C9B27C', opacity: 1, solids: [bodies[0]!.solid] }]),
    );
    expect(text).toMatch(/^ISO-10303-21;/);
    expect(text).toContain("PRODUCT('Wall bracket'");
    expect(text.match(/MANIFOLD_SOLID_BREP/g)).toHaveLength(1);
  });

  test('an STL mesh encloses the volume of the solid', async () => {
    const { bodies } = await evaluate({ s: on(floor, rectangle(0, 0, 20, 30)), e: extrude('s') });
    const bytes = writeStl([kernel.mesh(bodies[0]!.solid, { linear: 0.1, angular: 0.2 })], 'Block');
    const view = new DataView(bytes.buffer);
    const count = view.getUint32(80, true);
    expect(bytes.length).toBe(84 + 50 * count);
    let six = 0;
    for (let t = 0; t < count; t++) {
      const v = (k: number) => view.getFloat32(84 + t * 50 + 12 + k * 4, true);
      six +=
        v(0) * (v(4) * v(8) - v(5) * v(7)) - v(1) * (v(3) * v(8) - v(5) * v(6)) + v(2) * (v(3) * v(7) - v(4) * v(6));
    }
    expect(six / 6).toBeCloseTo(6000, 3);
  });
});
