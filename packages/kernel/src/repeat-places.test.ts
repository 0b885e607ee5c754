/** Steps repeated along paths, at places, by tables, within each other, and each fitted to where it goes. */
import { describe, expect, test } from '@jest/globals';
import type { Step, Vec3 } from '@helb/core';
import { block, designOf, edgeNear, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

/** A disc Ø4 by 3 standing alone at a place of the floor. */
const pin = (x: number, y: number): Record<string, Step> => ({
  c: { ...outline([]), name: 'Pin outline', points: { m: [x, y] }, curves: { k: { kind: 'circle', center: 'm', radius: 2 } } }, // prettier-ignore
  h: extruded('c', '3 mm', { name: 'Pin' }),
});
const PIN = Math.PI * 4 * 3;
const drawn = (
  points: Record<string, readonly [number, number]>,
  curves: Record<string, unknown>,
  more: Partial<Step> = {},
): Step =>
  // prettier-ignore
  ({ ...outline([]), name: 'Path', points, curves, ...more }) as Step;
const pattern = (more: Partial<Step>): Step => ({ kind: 'pattern', name: 'Row', what: 'steps', steps: ['h'], ...more }) as Step; // prettier-ignore

const centres = async (steps: Record<string, Step>) => {
  const outcome = await evaluated(designOf(steps));
  expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
  for (const body of outcome.bodies) expect(body.facts.volume).toBeCloseTo(PIN, 6);
  return outcome.bodies.map((b) => b.facts.center);
};
const near = (at: readonly number[]) => at.map((x) => expect.closeTo(x, 6)) as unknown as Vec3;

describe('along a path', () => {
  const ell = drawn({ a: [0, 0], b: [30, 0], d: [30, 20] }, { p: { kind: 'line', from: 'a', to: 'b' }, q: { kind: 'line', from: 'b', to: 'd' } }); // prettier-ignore

  test('evenly over lines with a corner; the last is at the end', async () => {
    const all = await centres({ ...pin(0, 0), w: ell, r: pattern({ layout: 'path', path: { sketch: 'w' }, count: '6' }) }); // prettier-ignore
    expect(all).toEqual([[0, 0, 1.5], [10, 0, 1.5], [20, 0, 1.5], [30, 0, 1.5], [30, 10, 1.5], [30, 20, 1.5]].map(near)); // prettier-ignore
  });

  test('at a pitch, beside the path and turning with it', async () => {
    // 5 mm left of the way, which turns left after 30: from then on left is towards −x.
    const beside = { ...pin(0, 5), w: ell };
    const laid = { layout: 'path', path: { sketch: 'w' }, count: '5', spaced_by: 'every', pitch: '12 mm' };
    const turning = await centres({ ...beside, r: pattern(laid) });
    expect(turning).toEqual([[0, 5, 1.5], [12, 5, 1.5], [24, 5, 1.5], [25, 6, 1.5], [25, 18, 1.5]].map(near)); // prettier-ignore
    const facing = await centres({ ...beside, r: pattern({ ...laid, turning: false }) });
    expect(facing[4]).toEqual(near([30, 18 + 5, 1.5]));
  });

  test('round a circle the last stops short of the first', async () => {
    const ring = drawn({ m: [0, 0] }, { k: { kind: 'circle', center: 'm', radius: 25 } });
    const all = await centres({ ...pin(25, 0), w: ring, r: pattern({ layout: 'path', path: { sketch: 'w' }, count: '8' }) }); // prettier-ignore
    const angles = all.map(([x, y]) => Math.round((Math.atan2(y, x) * 180) / Math.PI + 360) % 360);
    expect(angles.sort((a, b) => a - b)).toEqual([0, 45, 90, 135, 180, 225, 270, 315]);
    for (const [x, y] of all) expect(Math.hypot(x, y)).toBeCloseTo(25, 9);
  });

  test('along an ellipse by its true length', async () => {
    const oval = drawn({ m: [0, 0], a: [20, 0] }, { k: { kind: 'ellipse', center: 'm', major: 'a', minor: 12 } });
    const all = await centres({ ...pin(20, 0), w: oval, r: pattern({ layout: 'path', path: { sketch: 'w' }, count: '4', turning: false }) }); // prettier-ignore
    // By symmetry a quarter of the way round is a quarter of the length.
    expect(all).toEqual([[20, 0, 1.5], [0, 12, 1.5], [-20, 0, 1.5], [0, -12, 1.5]].map(near)); // prettier-ignore
  });

  test('along a helix as a screw', async () => {
    const up: Step = { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, radius: '15 mm', pitch: '8 mm', turns: '2' } as Step; // prettier-ignore
    const all = await evaluated(designOf({ ...pin(15, 0), w: up, r: pattern({ layout: 'path', path: { step: 'w' }, count: '9' }) })); // prettier-ignore
    expect(all.steps.map((s) => s.message)).toEqual([null, null, null, null]);
    expect(all.bodies.map((b) => b.facts.center)[1]).toEqual(near([0, 15, 3.5]));
    expect(all.bodies.map((b) => b.facts.center)[8]).toEqual(near([15, 0, 17.5]));
  });

  test('edges of the part are a path too', async () => {
    const plate = (await evaluated(designOf(block(40, 30, 5)))).bodies[0]!;
    const edges = [edgeNear(plate, [20, 0, 5]), edgeNear(plate, [40, 15, 5])];
    const holes: Record<string, Step> = {
      ...block(40, 30, 5),
      c: { ...outline([]), plane: { face: faceLooking(plate, [0, 0, 1]) }, points: { m: [0, 0] }, curves: { k: { kind: 'circle', center: 'm', radius: 2 } } }, // prettier-ignore
      h: extruded('c', '5 mm', { name: 'Pin', result: 'join' }),
      r: pattern({ layout: 'path', path: { edges }, count: '8', turning: false }),
    };
    const outcome = await evaluated(designOf(holes));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(40 * 30 * 5 + 8 * Math.PI * 4 * 5, 5);
  });

  test.each<[string, Partial<Step>, RegExp]>([
    ['no path yet', { path: { edges: [] } }, /^No path is chosen yet/],
    ['too long', { path: { sketch: 'w' }, spaced_by: 'every', pitch: '20 mm' }, /^Path is 50 mm long, and the members reach 100 mm/], // prettier-ignore
    ['backwards', { path: { sketch: 'w' }, spaced_by: 'every', pitch: '-2 mm' }, /one way only/],
  ])('%s is said', async (_, more, says) => {
    const outcome = await evaluated(designOf({ ...pin(0, 0), w: ell, r: pattern({ layout: 'path', count: '6', ...more }) })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
    expect(outcome.bodies).toHaveLength(1);
  });
});

describe('at places and by a table', () => {
  const marks = drawn({ m: [0, 0], a: [10, 5], b: [-7, 12] }, { k: { kind: 'circle', center: 'm', radius: 1 } }, { name: 'Marks' }); // prettier-ignore

  test('at the points of a sketch, members known by their points', async () => {
    const laid = {
      layout: 'places',
      places: [
        { sketch: 'w', point: 'a' },
        { sketch: 'w', point: 'b' },
      ],
    };
    const steps = { ...pin(0, 0), w: marks, r: pattern(laid) };
    expect(await centres(steps)).toEqual([[0, 0, 1.5], [10, 5, 1.5], [-7, 12, 1.5]].map(near)); // prettier-ignore
    const both = (await evaluated(designOf(steps))).bodies.at(-1)!;
    const fewer = (await evaluated(designOf({ ...steps, r: pattern({ ...laid, places: [{ sketch: 'w', point: 'b' }] }) }))).bodies.at(-1)!; // prettier-ignore
    expect(namesIn(fewer)).toEqual(namesIn(both));
  });

  test('from a place of its own', async () => {
    const laid = { layout: 'places', from: { sketch: 'c', point: 'm' }, places: [{ sketch: 'w', point: 'a' }, { sketch: 'c', point: 'm' }] }; // prettier-ignore
    expect(await centres({ ...pin(3, 3), w: marks, r: pattern(laid) })).toEqual([[3, 3, 1.5], [10, 5, 1.5]].map(near)); // prettier-ignore
  });

  test('places are left out by their number in the list', async () => {
    const laid = {
      layout: 'places',
      places: [
        { sketch: 'w', point: 'a' },
        { sketch: 'w', point: 'b' },
      ],
      left_out: '1',
    };
    expect(await centres({ ...pin(0, 0), w: marks, r: pattern(laid) })).toEqual([[0, 0, 1.5], [-7, 12, 1.5]].map(near)); // prettier-ignore
  });

  test('by a pasted table', async () => {
    const table = '10, 0; 0 20;\n -15\t-5 4';
    const all = await centres({ ...pin(0, 0), r: pattern({ layout: 'table', table }) });
    expect(all).toEqual([[0, 0, 1.5], [10, 0, 1.5], [0, 20, 1.5], [-15, -5, 5.5]].map(near)); // prettier-ignore
  });

  test.each([
    [{ layout: 'table', table: '10, 0; 7' }, /^Row 2 of the offsets, “7”, is not two or three numbers/],
    [{ layout: 'table', table: 'a, b' }, /^Row 1 of the offsets/],
    [{ layout: 'table', table: '12,5, 30' }, /^Row 1 of the offsets, “12,5, 30”, is not/],
    [{ layout: 'places' }, /^No place is chosen yet/],
  ])('%j is refused in words', async (laid, says) => {
    const outcome = await evaluated(designOf({ ...pin(0, 0), r: pattern(laid) }));
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});

describe('patterns of patterns', () => {
  const base: Record<string, Step> = {
    ...block(100, 60, 4),
    c: drawn({ m: [10, 10] }, { k: { kind: 'circle', center: 'm', radius: 2 } }, { name: 'Hole outline' }),
    h: extruded('c', '20 mm', { name: 'Hole', way: 'symmetric', result: 'cut' }),
    r: pattern({ name: 'Row', layout: 'row', axis: { datum: 'x' }, count: '4', pitch: '8 mm' }),
  };
  const hole = Math.PI * 4 * 4;

  test.each<[string, string[]]>([
    ['with what it repeats', ['h', 'r']],
    ['alone, which means all of it', ['r']],
  ])('a row repeated %s', async (_, steps) => {
    const outcome = await evaluated(designOf({ ...base, q: pattern({ name: 'Rows', steps, layout: 'row', axis: { datum: 'y' }, count: '3', pitch: '15 mm' }) })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(24000 - 12 * hole, 5);
    expect(new Set(namesIn(outcome.bodies[0]!)).size).toBe(6 + 12);
  });

  test('a mirrored row turned about an axis', async () => {
    const steps: Record<string, Step> = {
      ...base,
      s: outline(rectangle(-50, -30, 100, 60)),
      r: pattern({ name: 'Row', layout: 'row', axis: { datum: 'x' }, count: '3', pitch: '8 mm' }),
      q: { kind: 'mirror', name: 'Twin', what: 'steps', steps: ['r'], plane: { datum: 'side' } } as Step,
      t: pattern({ name: 'Round', steps: ['q', 'r', 'h'], layout: 'round', axis: { datum: 'z' }, count: '2' }),
    };
    const outcome = await evaluated(designOf(steps));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(24000 - 12 * hole, 5);
    expect(Math.hypot(outcome.bodies[0]!.facts.center[0], outcome.bodies[0]!.facts.center[1])).toBeLessThan(1e-9);
  });

  test('holes with rounded mouths, in rows of rows: each member’s own edge is rounded', async () => {
    const plate = (await evaluated(designOf({ ...block(100, 60, 4), c: base.c!, h: base.h! }))).bodies[0]!;
    const mouth = { kind: 'fillet', name: 'Mouth', edges: [edgeNear(plate, [8, 10, 4])], radius: '0.5 mm' } as Step;
    const steps: Record<string, Step> = {
      ...block(100, 60, 4),
      c: base.c!,
      h: base.h!,
      f: mouth,
      r: pattern({ name: 'Row', steps: ['h', 'f'], layout: 'row', axis: { datum: 'x' }, count: '3', pitch: '9 mm' }),
      q: pattern({ name: 'Rows', steps: ['h', 'f', 'r'], layout: 'row', axis: { datum: 'y' }, count: '2', pitch: '20 mm' }), // prettier-ignore
    };
    const one = (await evaluated(designOf({ ...block(100, 60, 4), c: base.c!, h: base.h!, f: mouth }))).bodies[0]!;
    const lost = 24000 - one.facts.volume;
    const outcome = await evaluated(designOf(steps));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(24000 - 6 * lost, 5);
  });

  test('too many are refused before they are made', async () => {
    const many = { ...pin(0, 0), r: pattern({ layout: 'row', axis: { datum: 'x' }, count: '200', pitch: '5 mm' }), q: pattern({ name: 'Rows', steps: ['r'], layout: 'row', axis: { datum: 'y' }, count: '200', pitch: '5 mm' }) }; // prettier-ignore
    expect(last(await evaluated(designOf(many))).message).toMatch(/^With Row this makes 39800 members/);
  });
});

describe('each fitted to where it goes', () => {
  /** A wedge 80 long whose top rises from 10 to 30; pins stand in the air above and reach down to it. */
  const wedge: Record<string, Step> = {
    s: outline([[0, 0], [80, 0], [80, 30], [0, 10]], { plane: { datum: 'wall' } }), // prettier-ignore
    e: extruded('s', '20 mm'),
    p: { kind: 'datum_plane', name: 'Above', way: 'offset', plane: { datum: 'floor' }, distance: '50 mm' } as Step,
    c: { ...outline(rectangle(9, -12, 2, 4)), name: 'Leg outline', plane: { step: 'p' } },
  };

  test('a leg down to the next face finds its own', async () => {
    const leg = extruded('c', '1 mm', { name: 'Leg', way: 'to_next', reversed: true, result: 'join' });
    const laid = { layout: 'row', axis: { datum: 'x' }, count: '4', pitch: '20 mm' };
    const outcome = await evaluated(designOf({ ...wedge, h: leg, r: pattern({ ...laid, adapting: true }) }));
    expect(outcome.steps.map((s) => s.message)).toEqual([null, null, null, null, null, null]);
    // Each leg 2 by 4, its mean height from where the slope is under its middle.
    const legs = [10, 30, 50, 70].map((x) => 8 * (50 - (10 + x / 4)));
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(80 * 20 * 20 + legs.reduce((a, b) => a + b), 5);
    const copied = await evaluated(designOf({ ...wedge, h: leg, r: pattern(laid) }));
    expect(last(copied)).toMatchObject({ status: 'ok', message: null });
    // Uphill, a copy as long as the first ends within the wedge.
    expect(copied.bodies[0]!.facts.volume).toBeCloseTo(outcome.bodies[0]!.facts.volume, 5);
  });

  test('a cut to where it comes out is copied as deep as it was, though what it took away is gone', async () => {
    const steps = {
      s: outline(rectangle(0, 0, 80, 30)),
      e: extruded('s', '10 mm'),
      c: { ...outline(rectangle(5, 5, 4, 6)), name: 'Slot outline' },
      h: extruded('c', '1 mm', { name: 'Slot', way: 'to_next', result: 'cut' }),
    };
    for (const adapting of [false, true]) {
      const outcome = await evaluated(designOf({ ...steps, r: pattern({ layout: 'row', axis: { datum: 'x' }, count: '3', pitch: '20 mm', adapting }) })); // prettier-ignore
      expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
      expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(80 * 30 * 10 - 3 * 4 * 6 * 10, 6);
    }
  });

  test('where one finds nothing it is said which', async () => {
    const leg = extruded('c', '1 mm', { name: 'Leg', way: 'to_next', reversed: true, result: 'join' });
    const outcome = await evaluated(designOf({ ...wedge, h: leg, r: pattern({ layout: 'row', axis: { datum: 'x' }, count: '3', pitch: '40 mm', adapting: true }) })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(/^Leg in member 3: /) });
  });
});

describe('over an area', () => {
  const area = (w: number, h: number) => outline(rectangle(0, 0, w, h), { name: 'Area' });
  const fill = (more: Partial<Step>) => pattern({ layout: 'fill', area: { sketch: 'a', regions: 'all' }, ...more } as Partial<Step>); // prettier-ignore
  const flat = (all: readonly Vec3[]) => all.map(([x, y]) => [x, y].map((c) => (Math.round(c * 1e4) / 1e4 + 0).toFixed(4)).join(' ')).sort(); // prettier-ignore

  test('in square rows that keep off the outline', async () => {
    const all = await centres({ a: area(50, 30), ...pin(10, 10), r: fill({ pitch: '10 mm', margin: '4 mm' }) });
    const expected = [10, 20, 30, 40].flatMap((x) => [10, 20].map((y) => `${x.toFixed(4)} ${y.toFixed(4)}`));
    expect(flat(all)).toEqual(expected.sort());
  });

  test('in staggered rows each is a pitch from its neighbours, and a region within is kept off', async () => {
    const ring: Record<string, Step> = {
      a: drawn({ m: [0, 0] }, { o: { kind: 'circle', center: 'm', radius: 30 }, i: { kind: 'circle', center: 'm', radius: 10 } }), // prettier-ignore
    };
    const all = await centres({ ...ring, ...pin(20, 0), r: fill({ area: { sketch: 'a', regions: [{ outer: ['+o'] }] }, rows: 'staggered', pitch: '7 mm', margin: '3 mm' } as Partial<Step>) }); // prettier-ignore
    const rise = (7 * Math.sqrt(3)) / 2;
    const wanted: string[] = [];
    for (let j = -6; j <= 6; j++)
      for (let i = -12; i <= 6; i++) {
        const [x, y] = [20 + (i + (j % 2 !== 0 ? 0.5 : 0)) * 7, j * rise];
        if (Math.hypot(x, y) <= 27 + 1e-9 && Math.hypot(x, y) >= 13 - 1e-9)
          wanted.push(`${x.toFixed(4)} ${y.toFixed(4)}`);
      }
    expect(wanted.length).toBeGreaterThan(20);
    expect(flat(all)).toEqual(wanted.sort());
    for (const p of all) {
      const next = Math.min(...all.filter((q) => q !== p).map((q) => Math.hypot(q[0] - p[0], q[1] - p[1])));
      expect(next).toBeCloseTo(7, 6);
    }
  });

  test('through a point of one’s own, which then stands for the original', async () => {
    // The place, 5 mm right of the pin, is what keeps off the outline.
    const all = await centres({ a: area(50, 30), d: drawn({ n: [15, 10] }, {}), ...pin(10, 10), r: fill({ pitch: '10 mm', margin: '4 mm', from: { sketch: 'd', point: 'n' } } as Partial<Step>) }); // prettier-ignore
    const expected = [5, 15, 25, 35, 45].flatMap((x) => [10, 20].map((y) => `${(x - 5).toFixed(4)} ${y.toFixed(4)}`));
    expect(flat(all)).toEqual(expected.sort());
  });

  test('what there was keeps its name while the area grows', async () => {
    const names = async (w: number) => (await evaluated(designOf({ a: area(w, 30), ...pin(10, 10), r: fill({ pitch: '10 mm', margin: '4 mm' }) }))).bodies.flatMap(namesIn); // prettier-ignore
    const [small, large] = [await names(50), await names(70)];
    expect(small.filter((n) => !large.includes(n))).toEqual([]);
    expect(large.length).toBeGreaterThan(small.length);
  });

  test.each([
    ['no area', { area: undefined }, /^No area is chosen yet/],
    ['no pitch', { pitch: '0 mm' }, /more than nothing/],
    ['a pitch that asks for too many', { pitch: '0.01 mm' }, /is the most there can be/],
  ])('%s is refused', async (_, more, says) => {
    const outcome = await evaluated(designOf({ a: area(50, 30), ...pin(10, 10), r: fill({ pitch: '10 mm', ...more } as Partial<Step>) })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});
