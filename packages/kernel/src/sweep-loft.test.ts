/** Sweeps and lofts against Pappus and the prismatoid; their names; and what is refused. */
import { describe, expect, test } from '@jest/globals';
import type { Step } from '@helb/core';
import { all, block, designOf, drawn, edgeNear, edited, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle, round, straight, swept, volume } from './sample-parts.ts'; // prettier-ignore
import { setDimension } from '@helb/core';

describe('sweeps', () => {
  /** Straight up, a quarter bend of radius 20, and on to the right. */
  const bent = drawn({ a: [0, 0], b: [0, 30], c: [20, 30], d: [20, 50], e: [45, 50] }, { l: { kind: 'line', from: 'a', to: 'b' }, r: { kind: 'arc', center: 'c', from: 'd', to: 'b' }, m: { kind: 'line', from: 'd', to: 'e' } }); // prettier-ignore
  const bentLength = 30 + (Math.PI / 2) * 20 + 25;
  test.each<[string, Record<string, Step>, number]>([
    ['a disc straight up', { s: round(3), q: straight(20), w: swept(all) }, Math.PI * 9 * 20],
    ['a disc round a bend (Pappus)', { s: round(3), q: bent, w: swept(all) }, Math.PI * 9 * bentLength],
    ['a tube', { s: round(3, {}, [0, 0], 2), q: bent, w: swept({ sketch: 's', regions: [{ outer: ['+o'] }] }) }, Math.PI * 5 * bentLength], // prettier-ignore
    ['a bar round a sharp corner', { s: outline(rectangle(-2, -3, 4, 6)), q: drawn({ a: [0, 0], b: [0, 30], c: [20, 30] }, { l: { kind: 'line', from: 'a', to: 'b' }, m: { kind: 'line', from: 'b', to: 'c' } }), w: swept(all) }, 24 * 50], // prettier-ignore
    [
      'narrowing on its way',
      { s: round(4), q: straight(30), w: swept(all, { grown: '0.5' }) },
      (Math.PI * 30 * (16 + 8 + 4)) / 3,
    ],
    ['a ring round a whole circle', { s: round(2, { plane: { datum: 'wall' } }, [15, 0]), q: { ...round(15), name: 'Path' }, w: swept(all) }, Math.PI * 4 * 2 * Math.PI * 15], // prettier-ignore
    ['along an edge of a body', { ...block(40, 20, 10), t: round(1.5, { plane: { datum: 'side' } }), w: swept({ sketch: 't', regions: 'all' }, { path: { edges: [{ faces: ['e:side:l0', 'e:start:(+l0 +l1 +l2 +l3)'], near: [20, 0, 0] }] } }) }, Math.PI * 2.25 * 40], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 5);
  });

  test('wound about an axis, a profile held level to it takes its area times the way of its centre', async () => {
    for (const [left, reversed] of [
      [false, false],
      [true, false],
      [false, true],
    ]) {
      const steps: Record<string, Step> = {
        s: outline(rectangle(9, -1, 2, 2), { plane: { datum: 'wall' } }),
        q: { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, at: { origin: true }, radius: '10 mm', pitch: '6 mm', turns: '3', taper: '0 deg', left, reversed }, // prettier-ignore
        w: swept(all, { path: { step: 'q' }, held: 'along', direction: { datum: 'z' } }),
      };
      const { volume, box } = (await evaluated(designOf(steps))).bodies[0]!.facts;
      expect(volume / (4 * 2 * Math.PI * 10 * 3)).toBeCloseTo(1, 4);
      expect(reversed ? -box.min[2] : box.max[2]).toBeGreaterThan(18.5);
    }
  });

  // The kernel joins some of them, of others it makes nothing or worse, and finds that sound.
  test.each([
    ['join', 12, 1.75, 20],
    ['join', 24, 3, 30],
    ['cut', 10, 1.5, 12],
  ] as const)('wound %s on a rod of %d mm is right, or is said not to be', async (result, across, pitch, long) => {
    const deep = (5 / 8) * (Math.sqrt(3) / 2) * pitch;
    const [inner, outer] = [across / 2 - deep, across / 2];
    const joined = result === 'join';
    // Over its core a tooth, under its surface a groove: both this trapezium between the two radii.
    const [within, without] = joined ? [0.75 * pitch, pitch / 8] : [pitch / 4, 0.7 * pitch];
    const beyond = 0.1 * pitch;
    const tooth: [number, number][] = [[inner - beyond, -within / 2], [inner, -within / 2], [outer, -without / 2], [outer, without / 2], [inner, within / 2], [inner - beyond, within / 2]]; // prettier-ignore
    const groove: [number, number][] = [[inner, -within / 2], [outer, -without / 2], [outer + beyond, -without / 2], [outer + beyond, without / 2], [outer, without / 2], [inner, within / 2]]; // prettier-ignore
    const turns = (long - 2 * pitch) / pitch;
    const outcome = await evaluated(
      designOf({
        r: { ...outline([]), points: { c: [0, 0] }, curves: { k: { kind: 'circle', center: 'c', radius: joined ? inner : outer } } }, // prettier-ignore
        e: extruded('r', `${long} mm`),
        s: outline(
          (joined ? tooth : groove).map(([x, z]) => [x, z + pitch] as const),
          { plane: { datum: 'wall' } },
        ),
        q: { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, at: { origin: true }, radius: `${outer} mm`, pitch: `${pitch} mm`, turns: `${turns}`, taper: '0 deg' }, // prettier-ignore
        w: swept(all, { path: { step: 'q' }, held: 'along', direction: { datum: 'z' }, result }),
      }),
    );
    const { status, message } = last(outcome);
    if (status === 'failed') expect(message).toMatch(/^The (kernel’s )?outcome/);
    else {
      const area = ((within + without) / 2) * deep;
      const middle = inner + (deep / 3) * ((within + 2 * without) / (within + without));
      const wound = area * 2 * Math.PI * middle * turns;
      const rod = Math.PI * (joined ? inner : outer) ** 2 * long;
      expect((outcome.bodies[0]!.facts.volume - rod) / (joined ? wound : -wound)).toBeCloseTo(1, 3);
    }
  });

  test('its sides keep their names when the path is bent otherwise', async () => {
    const names = async (q: Step) => [...new Set(namesIn((await evaluated(designOf({ s: outline(rectangle(-2, -3, 4, 6)), q, w: swept(all) }))).bodies[0]!))].sort(); // prettier-ignore
    const one = await names(straight(20));
    expect(one).toEqual(['w:end:(+l0 +l1 +l2 +l3)', 'w:side:l0', 'w:side:l1', 'w:side:l2', 'w:side:l3', 'w:start:(+l0 +l1 +l2 +l3)']); // prettier-ignore
    expect(await names(bent)).toEqual(one);
  });

  test.each<[string, Record<string, Step>, RegExp]>([
    ['a path in two pieces', { s: round(3), q: drawn({ a: [0, 0], b: [0, 9], c: [0, 20], d: [0, 30] }, { l: { kind: 'line', from: 'a', to: 'b' }, m: { kind: 'line', from: 'c', to: 'd' } }), w: swept(all) }, /^Path is no path: These curves do not hang together/], // prettier-ignore
    ['an empty path', { s: round(3), q: drawn({}, {}), w: swept(all) }, /^Path has nothing drawn in it/],
    ['a bend tighter than the profile', { s: round(8), q: drawn({ a: [0, 0], b: [0, 30], c: [3, 30], d: [3, 33], e: [45, 33] }, { l: { kind: 'line', from: 'a', to: 'b' }, r: { kind: 'arc', center: 'c', from: 'd', to: 'b' }, m: { kind: 'line', from: 'd', to: 'e' } }), w: swept(all) }, /^Path bends with a radius of 3 mm, and the profile reaches 8 mm inwards/], // prettier-ignore
    ['turns that run into each other', { s: outline(rectangle(9, -4, 2, 8), { plane: { datum: 'wall' } }), q: { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, at: { origin: true }, radius: '10 mm', pitch: '6 mm', turns: '3', taper: '0 deg' }, w: swept(all, { path: { step: 'q' } }) }, /^Helix rises 6 mm in a turn, and the profile is 8 mm high/], // prettier-ignore
    ['growing to nothing', { s: round(3), q: straight(20), w: swept(all, { grown: '0' }) }, /between 0.01 and 100/],
    ['a helix of nothing', { q: { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, at: { origin: true }, radius: '0 mm', pitch: '6 mm', turns: '3', taper: '0 deg' } }, /The radius must be more/], // prettier-ignore
    ['a helix that closes', { q: { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, at: { origin: true }, radius: '5 mm', pitch: '6 mm', turns: '3', taper: '-20 deg' } }, /narrows to nothing/], // prettier-ignore
  ])('%s is refused in a sentence', async (_, steps, sentence) => {
    expect(last(await evaluated(designOf(steps)))).toMatchObject({ status: 'failed', message: expect.stringMatching(sentence) as unknown }); // prettier-ignore
  });
});

describe('lofts', () => {
  const above = (height: number): Step => ({ kind: 'datum_plane', name: `Plane ${height}`, way: 'offset', plane: { datum: 'floor' }, distance: `${height} mm` }); // prettier-ignore
  const on = (step: string) => ({ plane: { step } });
  const through = (sections: readonly unknown[], more: Partial<Step> = {}): Step => ({ kind: 'loft', name: 'Body', sections, way: 'ruled', result: 'new_body', ...more }) as Step; // prettier-ignore
  const region = (sketch: string) => ({ sketch, regions: 'all' });
  const two = (a: Step, b: Step, more?: Partial<Step>) => ({ s: a, p: above(30), t: { ...b, name: 'Upper' }, l: through([region('s'), region('t')], more) }); // prettier-ignore
  const prismatoid = (h: number, a: number, m: number, b: number) => (h / 6) * (a + 4 * m + b);

  test.each<[string, Record<string, Step>, number]>([
    ['between rectangles', two(outline(rectangle(-10, -6, 20, 12)), outline(rectangle(-4, -8, 8, 16), on('p'))), prismatoid(30, 240, 14 * 14, 128)], // prettier-ignore
    ['between discs', two(round(10), round(4, on('p'))), (Math.PI * 30 * (100 + 40 + 16)) / 3],
    ['between discs that lie apart', two(round(10), round(4, on('p'), [25, 0])), (Math.PI * 30 * (100 + 40 + 16)) / 3],
    ['smoothly through three discs', { q: above(70), u: { ...round(10, on('q')), name: 'Top' }, ...two(round(10), round(10, on('p'))), l: through([region('s'), region('t'), region('u')], { way: 'smooth' }) }, Math.PI * 100 * 70], // prettier-ignore
    ['to a place', { s: outline(rectangle(-10, -6, 20, 12)), p: above(30), m: { ...outline([], on('p')), points: { a: [3, 2] }, name: 'Tip' } as Step, l: through([region('s'), { at: { sketch: 'm', point: 'a' } }]) }, 240 * 10], // prettier-ignore
    ['a square into a disc', two(outline(rectangle(-10, -10, 20, 20)), round(10, on('p'))), prismatoid(30, 400, middleOfSquareAndDisc(10), Math.PI * 100)], // prettier-ignore
    ['four corners into six', two(outline(rectangle(-10, -6, 20, 12)), outline([[-10, -6], [0, -6], [10, -6], [10, 6], [0, 6], [-10, 6]], on('p'))), 240 * 30], // prettier-ignore
    ['drawn the other way round', two(outline(rectangle(-10, -6, 20, 12)), outline([...rectangle(-4, -8, 8, 16)].reverse(), on('p'))), prismatoid(30, 240, 14 * 14, 128)], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 4);
  });

  test('a section that is begun elsewhere turns the body, and offers the place to be dragged', async () => {
    const steps = (start?: number) => ({ ...two(outline(rectangle(-10, -10, 20, 20)), outline(rectangle(-10, -10, 20, 20), on('p'))), l: through([region('s'), { ...region('t'), ...(start === undefined ? {} : { start }) }]) }); // prettier-ignore
    const handles = async (start?: number) => last(await evaluated(designOf(steps(start)))).handles.map((h) => h.at);
    expect(await volume(steps())).toBeCloseTo(400 * 30, 6);
    expect(await handles()).toEqual([[-10, -10, 0], [-10, -10, 30]]); // prettier-ignore
    // From the next corner on: at each height t a square half way turned, of sides √(t² + (1 − t)²).
    expect(await volume(steps(-40))).toBeCloseTo((400 * 30 * 2) / 3, 4);
    expect(await handles(-40)).toEqual([[-10, -10, 0], [10, -10, 30]]); // prettier-ignore
    // Half a turn takes all of it through one point.
    const half = last(await evaluated(designOf(steps(45))));
    expect(half).toMatchObject({ status: 'failed', message: expect.stringMatching(/run through each other/) });
    expect(half.handles).toHaveLength(2);
  });

  test('on from a face of a body, joined to it', async () => {
    const base = (await evaluated(designOf(block(20, 12, 10)))).bodies[0]!;
    const steps = { ...block(20, 12, 10), p: above(25), t: { ...outline(rectangle(6, 4, 8, 4), on('p')), name: 'Upper' }, l: through([{ face: faceLooking(base, [0, 0, 1]) }, region('t')], { result: 'join', bodies: 'all' }) }; // prettier-ignore
    expect(await volume(steps)).toBeCloseTo(2400 + prismatoid(15, 240, 14 * 8, 32), 6);
  });

  test('a side keeps its name while a section changes, and an edge on it is rounded', async () => {
    const steps = two(outline(rectangle(-10, -6, 20, 12)), outline(rectangle(-4, -8, 8, 16), on('p')));
    const body = (await evaluated(designOf(steps))).bodies[0]!;
    expect(namesIn(body)).toEqual(expect.arrayContaining(['l:side:l0', 'l:side:l1', 'l:side:l2', 'l:side:l3']));
    const edge = edgeNear(body, [-7, -7, 15]);
    const rounded = designOf({ ...steps, f: { kind: 'fillet', name: 'Round', edges: [edge], radius: '1 mm' } as Step });
    for (const distance of ['30 mm', '55 mm']) {
      const outcome = await evaluated(edited(rounded, setDimension('p.distance', distance)));
      expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
    }
  });

  test.each<[string, Record<string, Step>, RegExp]>([
    [
      'a section with a hole',
      {
        s: round(10, {}, [0, 0], 5),
        p: above(30),
        t: round(4, on('p')),
        l: through([{ sketch: 's', regions: [{ outer: ['+o'] }] }, region('t')]),
      },
      /is one region|no holes/,
    ],
    ['places only', { l: through([{ at: { origin: true } }, { at: { origin: true } }]) }, /at least one outline/],
    ['closed through two', two(round(10), round(4, on('p')), { closed: true }), /needs three outlines/],
  ])('%s is refused in a sentence', async (_, steps, sentence) => {
    expect(last(await evaluated(designOf(steps))).message).toMatch(sentence);
  });
});

/** Half way between a square and the disc in it, each quarter of the circle going with a side. */
function middleOfSquareAndDisc(r: number): number {
  const n = 20000;
  const places = Array.from({ length: n }, (_, i) => {
    const t = (2 * i) / n - 1;
    const [sx, sy] = [r, r * t];
    const angle = (t * Math.PI) / 4;
    return [(sx + r * Math.cos(angle)) / 2, (sy + r * Math.sin(angle)) / 2] as const;
  });
  // The area that one side sweeps about the centre, four times over.
  let area = 0;
  for (let i = 1; i < n; i++) area += (places[i - 1]![0] * places[i]![1] - places[i]![0] * places[i - 1]![1]) / 2;
  return 4 * area;
}

test('a lofted cone hollowed out is what two cones are apart: the measures of offset faces', async () => {
  const [foot, mouth, high, wall] = [20, 12, 40, 2];
  const steps: Record<string, Step> = {
    s: round(foot),
    p: { kind: 'datum_plane', name: 'Up', way: 'offset', plane: { datum: 'floor' }, distance: `${high} mm` },
    t: round(mouth, { plane: { step: 'p' } }),
    l: { kind: 'loft', name: 'Cone', sections: [{ sketch: 's', regions: 'all' }, { sketch: 't', regions: 'all' }], way: 'ruled', result: 'new_body' }, // prettier-ignore
  };
  const [cone] = (await evaluated(designOf(steps))).bodies;
  const hollow = {
    kind: 'shell',
    name: 'Hollow',
    open: [faceLooking(cone!, [0, 0, 1])],
    thickness: `${wall} mm`,
  } as Step;
  const frustum = (a: number, b: number, h: number) => (Math.PI * h * (a * a + a * b + b * b)) / 3;
  const lean = (foot - mouth) / high;
  const inwards = wall * Math.hypot(1, lean);
  const inner = frustum(foot - lean * wall - inwards, mouth - inwards, high - wall);
  const outcome = await evaluated(designOf({ ...steps, h: hollow }));
  expect(last(outcome).message).toBeNull();
  const { volume: made, faces } = outcome.bodies[0]!.facts;
  expect(made / (frustum(foot, mouth, high) - inner)).toBeCloseTo(1, 6);
  const side = (a: number, b: number, h: number) => Math.PI * (a + b) * Math.hypot(h, a - b);
  const within = faces.filter((f) => f.kind !== 'plane').map((f) => f.area).sort((a, b) => a - b)[0]!; // prettier-ignore
  expect(within / side(foot - lean * wall - inwards, mouth - inwards, high - wall)).toBeCloseTo(1, 6);
});

describe('whole curves go over into each other without a twist, wherever each begins', () => {
  const oval = (a: number, b: number, more: Partial<Step> = {}): Step => ({ ...outline([], more), points: { m: [0, 0], j: [a, 0] }, curves: { o: { kind: 'ellipse', center: 'm', major: 'j', minor: b } } }) as Step; // prettier-ignore
  const lofted = (first: Step, second: Step, plane: Partial<Step>): Record<string, Step> => ({
    s: first,
    p: { kind: 'datum_plane', name: 'Up', plane: { datum: 'floor' }, ...plane } as Step,
    t: second,
    l: { kind: 'loft', name: 'Loft', sections: [{ sketch: 's', regions: 'all' }, { sketch: 't', regions: 'all' }], way: 'ruled', result: 'new_body' }, // prettier-ignore
  });
  const up = { way: 'offset', distance: '90 mm' };
  /** Half axes that change evenly on the way up. */
  const volumeOf = (a: number, b: number, c: number, d: number, h: number) =>
    Math.PI * h * (a * b + (a * (d - b) + b * (c - a)) / 2 + ((c - a) * (d - b)) / 3);

  test.each<[string, Record<string, Step>, number]>([
    ['ellipses, the long way and across', lofted(oval(28, 18), oval(16, 24, { plane: { step: 'p' } }), up), volumeOf(28, 18, 16, 24, 90)], // prettier-ignore
    ['both drawn across', lofted(oval(10, 30), oval(8, 20, { plane: { step: 'p' } }), up), volumeOf(10, 30, 8, 20, 90)],
    ['an ellipse up to a circle', lofted(oval(12, 26), round(9, { plane: { step: 'p' } }), up), volumeOf(12, 26, 9, 9, 90)], // prettier-ignore
    ['circles, the upper plane looking down', lofted(round(20), round(14, { plane: { step: 'p' } }), { ...up, flipped: true }), volumeOf(20, 20, 14, 14, 90)], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 5);
  });

  test('a circle on a plane turned about the way up', async () => {
    // The plane through the corners of a tilted square lies level, but its own x runs another way.
    const steps = {
      ...lofted(round(20), round(14, { plane: { step: 'p' } }), { way: 'points', point: { sketch: 'c', point: 'x' }, second: { sketch: 'c', point: 'y' }, third: { sketch: 'c', point: 'z' } }), // prettier-ignore
    };
    const marks: Step = { ...outline([], { name: 'Marks', plane: { step: 'q' } }), points: { x: [3, 0], y: [1, 5], z: [-6, 2] }, curves: {} }; // prettier-ignore
    const q = {
      kind: 'datum_plane',
      name: 'Level',
      way: 'offset',
      plane: { datum: 'floor' },
      distance: '50 mm',
    } as Step;
    expect((await volume({ s: steps.s!, q, c: marks, p: steps.p!, t: steps.t!, l: steps.l! })) / volumeOf(20, 20, 14, 14, 50)).toBeCloseTo(1, 5); // prettier-ignore
  });
});
