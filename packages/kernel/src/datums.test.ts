/** Planes, axes and points of one's own; bodies combined, split and moved. */
import { describe, expect, test } from '@jest/globals';
import { refOfFace, type Datum, type Step, type Vec3 } from '@helb/core';
import { block, designOf, edgeNear, evaluated, extruded, faceLooking, last, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

const base = (await evaluated(designOf(block(40, 20, 10)))).bodies[0]!;
const look = (way: Vec3) => ({ face: faceLooking(base, way) });
const corner = (x: number, y: number, z: number) => ({
  vertex: { faces: [x > 0 ? 'e:side:l1' : 'e:side:l3', y > 0 ? 'e:side:l2' : 'e:side:l0', z > 0 ? 'e:end' : 'e:start'].map((n) => nameAt(n)), near: [x, y, z] as [number, number, number] }, // prettier-ignore
});
const nameAt = (start: string) => base.faceNames.flat().find((n) => n.text.startsWith(start))!.text;
const set = async (step: Partial<Step>) => last(await evaluated(designOf({ ...block(40, 20, 10), d: { name: 'Datum', ...step } as Step }))); // prettier-ignore
const frameOf = (datum: Datum | null) => (datum?.kind === 'plane' ? datum.frame : null)!;
/** Where the plane lies: its normal, and how far from the origin. */
const lies = (datum: Datum | null) => {
  const { normal, origin } = frameOf(datum);
  return [...normal, normal[0] * origin[0] + normal[1] * origin[1] + normal[2] * origin[2]];
};
const S = Math.SQRT1_2;

describe('frames', () => {
  const H = Math.sqrt(3) / 2;
  test.each<[string, Partial<Step>, Vec3, Vec3, Vec3]>([
    ['as the floor lies', { point: corner(40, 20, 10) }, [40, 20, 10], [1, 0, 0], [0, 0, 1]],
    ['turned', { point: corner(40, 0, 10), turn: '30 deg' }, [40, 0, 10], [H, 0.5, 0], [0, 0, 1]],
    ['looking back', { plane: { datum: 'floor' }, flipped: true }, [0, 0, 0], [1, 0, 0], [0, 0, -1]],
    ['looking back, turned', { flipped: true, turn: '30 deg' }, [0, 0, 0], [H, -0.5, 0], [0, 0, -1]],
    ['along an edge', { point: corner(40, 20, 0), plane: look([1, 0, 0]), x: 'along', direction: { edge: edgeNear(base, [40, 0, 5]) } }, [40, 20, 0], [0, 0, 1], [1, 0, 0]], // prettier-ignore
    ['along what leans over the plane', { plane: { step: 'l' }, x: 'along', direction: { datum: 'z' } }, [0, 0, 0], [-0.5, 0, H], [H, 0, 0.5]], // prettier-ignore
  ])('%s', async (_, step, origin, x, normal) => {
    const leaning = { kind: 'datum_plane', name: 'Leaning', way: 'angled', line: { datum: 'y' }, plane: { datum: 'floor' }, angle: '60 deg' } as Step; // prettier-ignore
    const all = { ...block(40, 20, 10), l: leaning, d: { kind: 'datum_frame', name: 'Frame', ...step } as Step };
    const outcome = last(await evaluated(designOf(all)));
    expect(outcome).toMatchObject({ status: 'ok', doubts: [] });
    const found = frameOf(outcome.datum);
    const close = (v: Vec3) => v.map((c) => expect.closeTo(c, 9) as unknown);
    expect([found.origin, found.x, found.normal]).toEqual([close(origin), close(x), close(normal)]);
    // Right-handed.
    const [a, b, c] = [found.x, found.y, found.normal];
    expect(a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0])).toBeCloseTo(1, 12); // prettier-ignore
  });

  test('one is sketched on from its origin, along its x', async () => {
    const on = { kind: 'datum_frame', name: 'Frame', point: corner(40, 20, 10), turn: '90 deg' } as Step;
    const drawn = { ...outline(rectangle(0, 0, 5, 3)), name: 'Marks', plane: { step: 'd' } };
    const all = { ...block(40, 20, 10), d: on, t: drawn, m: { ...extruded('t', '4 mm'), name: 'Mark' } };
    const body = (await evaluated(designOf(all))).bodies.find((b) => Math.abs(b.facts.volume - 60) < 1e-6)!;
    expect(body.facts.box.min.map((c) => Math.round(c))).toEqual([37, 20, 10]);
    expect(body.facts.box.max.map((c) => Math.round(c))).toEqual([40, 25, 14]);
  });

  test('a direction that stands square on its plane is refused in words', async () => {
    const outcome = await set({ kind: 'datum_frame', x: 'along', direction: { datum: 'z' } });
    expect(outcome).toMatchObject({ status: 'failed', message: expect.stringMatching(/stands square on the plane/) });
  });
});

describe('planes', () => {
  test.each<[string, Partial<Step>, number[]]>([
    ['off a face', { way: 'offset', plane: look([0, 0, 1]), distance: '7 mm' }, [0, 0, 1, 17]],
    [
      'off a face, looking back',
      { way: 'offset', plane: look([0, 0, 1]), distance: '-7 mm', flipped: true },
      [0, 0, -1, -3],
    ],
    ['midway between two faces', { way: 'middle', plane: look([1, 0, 0]), other: look([-1, 0, 0]) }, [1, 0, 0, 20]],
    ['halving an angle', { way: 'middle', plane: { datum: 'floor' }, other: { datum: 'side' } }, [S, 0, S, 0]],
    ['through an edge, leaning', { way: 'angled', line: { datum: 'x' }, plane: { datum: 'floor' }, angle: '30 deg' }, [0, -0.5, Math.sqrt(3) / 2, 0]], // prettier-ignore
    [
      'through a corner, along a plane',
      { way: 'through', plane: { datum: 'wall' }, point: corner(40, 20, 10) },
      [0, -1, 0, -20],
    ],
    ['square to an edge', { way: 'square', line: { datum: 'z' }, point: corner(40, 20, 10) }, [0, 0, 1, 10]],
    ['through three corners', { way: 'points', point: corner(0, 0, 0), second: corner(40, 0, 0), third: corner(0, 20, 10) }, [0, -1 / Math.sqrt(5), 2 / Math.sqrt(5), 0]], // prettier-ignore
  ])('%s', async (_, step, plane) => {
    const outcome = await set({ kind: 'datum_plane', ...step });
    expect(outcome).toMatchObject({ status: 'ok', doubts: [] });
    expect(lies(outcome.datum)).toEqual(plane.map((x) => expect.closeTo(x, 9) as unknown));
  });

  describe('touching a round face, and square to a path', () => {
    const pin: Record<string, Step> = {
      c: { ...outline([]), plane: { datum: 'wall' }, points: { m: [12, 9] }, curves: { k: { kind: 'circle', center: 'm', radius: 5 } } }, // prettier-ignore
      r: extruded('c', '30 mm'),
      w: { ...outline([]), name: 'Path', points: { a: [0, 0], b: [20, 0], d: [20, 10], n: [20, 5] }, curves: { p: { kind: 'line', from: 'a', to: 'b' }, q: { kind: 'arc', center: 'n', from: 'b', to: 'd' } } }, // prettier-ignore
    };
    const plane = async (step: Partial<Step>) => last(await evaluated(designOf({ ...pin, d: { kind: 'datum_plane', name: 'Datum', ...step } as Step }))); // prettier-ignore
    const about = async () => (await evaluated(designOf(pin))).bodies[0]!;
    const round = async () => [
      refOfFace(
        await about(),
        (await about()).facts.faces.findIndex((f) => f.axis !== null),
      ),
    ];

    test.each<[string, Partial<Step>, number[]]>([
      ['over it', { plane: { datum: 'floor' } }, [0, 0, 1, 14]],
      ['under it', { plane: { datum: 'floor' }, behind: true }, [0, 0, -1, -4]],
      ['beside it, looking back', { plane: { datum: 'side' }, flipped: true }, [-1, 0, 0, -17]],
    ])('%s', async (_, step, where) => {
      const outcome = await plane({ way: 'touching', round: await round(), ...step });
      expect(outcome).toMatchObject({ status: 'ok', doubts: [] });
      expect(lies(outcome.datum)).toEqual(where.map((x) => expect.closeTo(x, 9) as unknown));
    });

    test.each<[string, Partial<Step>, Vec3, Vec3]>([
      ['at its beginning', {}, [0, 0, 0], [1, 0, 0]],
      ['at its end', { from_end: true }, [20, 10, 0], [-1, 0, 0]],
      ['half round the arc', { distance: `${20 + (5 * Math.PI) / 2} mm` }, [25, 5, 0], [0, 1, 0]],
    ])('%s', async (_, step, origin, normal) => {
      const outcome = await plane({ way: 'along', path: { sketch: 'w' }, ...step });
      expect(outcome.message).toBeNull();
      expect(frameOf(outcome.datum).origin).toEqual(origin.map((x) => expect.closeTo(x, 9)));
      expect(frameOf(outcome.datum).normal).toEqual(normal.map((x) => expect.closeTo(x, 9)));
    });

    test('what cannot be is said', async () => {
      expect((await plane({ way: 'touching', round: await round(), plane: { datum: 'wall' } })).message).toMatch(/does not run along the plane/); // prettier-ignore
      expect((await plane({ way: 'touching' })).message).toBe('No round face is chosen yet to touch; pick one.');
      expect((await plane({ way: 'along', path: { sketch: 'w' }, distance: '90 mm' })).message).toMatch(/^Path is 35.708 mm long/); // prettier-ignore
    });
  });

  test('one is sketched on, and follows the face it is off', async () => {
    const steps = (h: number): Record<string, Step> => ({
      ...block(40, 20, h),
      d: { kind: 'datum_plane', name: 'Above', way: 'offset', plane: look([0, 0, 1]), distance: '5 mm' },
      g: outline(rectangle(0, 0, 10, 10), { plane: { step: 'd' }, name: 'Lid outline' }),
      l: extruded('g', '2 mm', { name: 'Lid' }),
    });
    for (const h of [10, 16]) {
      const { bodies } = await evaluated(designOf(steps(h)));
      expect(bodies[1]!.facts.center[2]).toBeCloseTo(h + 6, 9);
    }
  });

  test.each<[string, Partial<Step>, RegExp]>([
    ['three points in line', { kind: 'datum_plane', way: 'points', point: { origin: true }, second: corner(40, 0, 0), third: { edge: edgeNear(base, [20, 0, 0]) } }, /three points lie in one line/], // prettier-ignore
    [
      'a line across the plane',
      { kind: 'datum_plane', way: 'angled', line: { datum: 'z' }, plane: { datum: 'floor' } },
      /does not run along/,
    ],
    [
      'parallel planes',
      { kind: 'datum_axis', way: 'planes', plane: look([0, 0, 1]), other: { datum: 'floor' } },
      /parallel and meet nowhere/,
    ],
    [
      'one point twice',
      { kind: 'datum_axis', way: 'points', point: { origin: true }, second: { origin: true } },
      /lie in one place/,
    ],
  ])('%s is refused in a sentence', async (_, step, sentence) => {
    expect(await set(step)).toMatchObject({ status: 'failed', message: expect.stringMatching(sentence) as unknown });
  });
});

describe('a point on a face, by its distances from two edges', () => {
  const onTop = (
    more: Partial<Step> = {},
    size: readonly [number, number, number] = [40, 20, 10],
  ): Record<string, Step> => ({
    ...block(...size),
    d: { kind: 'datum_point', name: 'Place', way: 'face', face: [look([0, 0, 1]).face], first_line: { edge: edgeNear(base, [20, 0, 10]) }, first_distance: '6 mm', second_line: { edge: edgeNear(base, [40, 10, 10]) }, second_distance: '9 mm', ...more } as Step, // prettier-ignore
  });

  test('is drilled straight in, and keeps its distances when the plate changes', async () => {
    for (const size of [
      [40, 20, 10],
      [70, 30, 5],
    ] as const) {
      // prettier-ignore
      const hole = { kind: 'hole', name: 'Hole', places: [{ step: 'd' }], size: 'own', diameter: '4 mm' } as Step;
      const outcome = await evaluated(designOf({ ...onTop({}, size), h: hole }));
      expect(outcome.steps.map((s) => s.message)).toEqual([null, null, null, null]);
      const [w, d, t] = size;
      expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(w * d * t - 4 * Math.PI * t, 6);
      expect(outcome.bodies[0]!.facts.faces.find((f) => f.axis)!.axis!.origin.slice(0, 2)).toEqual([w - 9, 6].map((x) => expect.closeTo(x, 9))); // prettier-ignore
    }
  });

  test.each<[string, Partial<Step>, RegExp]>([
    ['parallel edges', { second_line: { edge: edgeNear(base, [20, 20, 10]) } }, /two lines are parallel/],
    [
      'an edge that leaves the face',
      { second_line: { edge: edgeNear(base, [40, 0, 5]) } },
      /does not run along the face/,
    ],
    ['no face', { face: [] }, /^No face is chosen yet/],
  ])('%s is said', async (_, more, says) => {
    expect(last(await evaluated(designOf(onTop(more))))).toMatchObject({ status: 'failed', message: expect.stringMatching(says) }); // prettier-ignore
  });
});

describe('axes and points', () => {
  test('an axis through two corners, where planes meet, and out of a plane', async () => {
    const axis = async (step: Partial<Step>) => {
      const { datum } = await set({ kind: 'datum_axis', ...step });
      return datum?.kind === 'axis' ? datum.axis : null;
    };
    const diagonal = await axis({ way: 'points', point: corner(0, 0, 0), second: corner(40, 20, 0) });
    expect(diagonal!.direction).toEqual([2 / Math.sqrt(5), 1 / Math.sqrt(5), 0].map((x) => expect.closeTo(x, 9) as unknown)); // prettier-ignore
    const edge = await axis({ way: 'planes', plane: look([1, 0, 0]), other: look([0, 0, 1]) });
    expect([edge!.origin[0], edge!.origin[2]]).toEqual([expect.closeTo(40, 9), expect.closeTo(10, 9)]);
    expect(Math.abs(edge!.direction[1])).toBeCloseTo(1, 9);
    const up = await axis({ way: 'square', point: corner(40, 20, 0), plane: { datum: 'floor' } });
    expect(up).toMatchObject({ origin: [40, 20, 0], direction: [0, 0, 1] });
  });

  test('a point some way off a corner', async () => {
    const { datum } = await set({ kind: 'datum_point', point: corner(40, 0, 10), distance: '3 mm', direction: { out_of: look([0, 0, 1]).face } }); // prettier-ignore
    expect(datum).toEqual({ kind: 'point', at: [40, 0, 13], into: null });
  });
});

describe('bodies', () => {
  /** Two blocks of 40 by 20 by 10 and 10 by 10 by 30, which share 10 by 10 by 10. */
  const two: Record<string, Step> = {
    ...block(40, 20, 10),
    t: outline(rectangle(5, 5, 10, 10), { name: 'Post outline' }),
    u: extruded('t', '30 mm', { name: 'Post' }),
  };
  const with2 = async (step: Partial<Step>) => evaluated(designOf({ ...two, c: { name: 'Done', ...step } as Step }));
  const volumes = (outcome: Awaited<ReturnType<typeof with2>>) => outcome.bodies.map((b) => Math.round(b.facts.volume * 1e6) / 1e6); // prettier-ignore

  test.each<[string, Partial<Step>, number[]]>([
    ['joined', { kind: 'combine', way: 'join', tools: [{ name: 'u' }], bodies: [{ name: 'e' }] }, [10000]],
    ['taken away', { kind: 'combine', way: 'cut', tools: [{ name: 'u' }], bodies: [{ name: 'e' }] }, [7000]],
    ['taken away, the tool kept', { kind: 'combine', way: 'cut', tools: [{ name: 'u' }], bodies: [{ name: 'e' }], keep: true }, [7000, 3000]], // prettier-ignore
    ['in common', { kind: 'combine', way: 'common', tools: [{ name: 'u' }], bodies: [{ name: 'e' }] }, [1000]],
    ['split', { kind: 'split', bodies: [{ name: 'e' }], plane: { step: 'x' }, kept: 'both' }, [2000, 6000, 3000]],
    [
      'split, what lies before kept',
      { kind: 'split', bodies: [{ name: 'e' }], plane: { step: 'x' }, kept: 'front' },
      [6000, 3000],
    ],
    [
      'moved',
      { kind: 'move', bodies: [{ name: 'e' }], way: 'shift', direction: { datum: 'y' }, distance: '15 mm' },
      [8000, 3000],
    ],
    [
      'a copy enlarged',
      { kind: 'move', bodies: [{ name: 'u' }], way: 'enlarge', factor: '2', copy: true },
      [8000, 3000, 24000],
    ],
  ])('%s', async (_, step, expected) => {
    const plane: Step = {
      kind: 'datum_plane',
      name: 'Cut',
      way: 'offset',
      plane: { datum: 'side' },
      distance: '10 mm',
    };
    const outcome = await evaluated(designOf({ ...two, x: plane, c: { name: 'Done', ...step } as Step }));
    expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
    expect(volumes(outcome)).toEqual(expected);
    expect(outcome.bodies.every((b) => b.facts.valid)).toBe(true);
  });

  test('a turned body keeps the names of its faces', async () => {
    const outcome = await with2({
      kind: 'move',
      bodies: [{ name: 'e' }],
      way: 'turn',
      axis: { datum: 'z' },
      angle: '90 deg',
    });
    expect(outcome.bodies[0]!.facts.center).toEqual([-10, 20, 5].map((x) => expect.closeTo(x, 9) as unknown));
    expect(outcome.bodies[0]!.faceNames.flat()).toEqual(base.faceNames.flat());
  });

  test('a piece of a split body is known again by the faces only it has', async () => {
    const cut: Step = { kind: 'split', name: 'Cut', bodies: [{ name: 'e' }], plane: { datum: 'side' }, kept: 'both' };
    const shifted = { ...block(40, 20, 10), s: outline(rectangle(-10, 0, 40, 20)) };
    const both = await evaluated(designOf({ ...shifted, c: cut }));
    expect(both.bodies.map((b) => b.facts.volume).sort((a, b) => a - b)).toEqual([2000, 6000].map((v) => expect.closeTo(v, 6) as unknown)); // prettier-ignore
    const { refOfBody } = await import('@helb/core');
    const small = both.bodies.find((b) => b.facts.volume < 3000)!;
    const gone: Step = { kind: 'move', name: 'Off', bodies: [refOfBody(small, both.bodies)], way: 'shift', direction: { datum: 'z' }, distance: '50 mm' }; // prettier-ignore
    const outcome = await evaluated(designOf({ ...shifted, s: outline(rectangle(-15, 0, 40, 20)), c: cut, m: gone }));
    expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
    expect(outcome.bodies.find((b) => b.facts.center[2] > 40)!.facts.volume).toBeCloseTo(3000, 6);
  });

  test.each<[string, Partial<Step>, RegExp]>([
    [
      'a body with itself',
      { kind: 'combine', way: 'cut', tools: [{ name: 'e' }], bodies: [{ name: 'e' }] },
      /stand on both sides/,
    ],
    [
      'a plane that passes by',
      { kind: 'split', bodies: [{ name: 'e' }], plane: { datum: 'side' }, kept: 'both' },
      /passes by/,
    ],
    [
      'the empty side',
      { kind: 'split', bodies: [{ name: 'e' }], plane: { datum: 'side' }, kept: 'back' },
      /Nothing lies on the side/,
    ],
    ['a size of nothing', { kind: 'move', bodies: [{ name: 'e' }], way: 'enlarge', factor: '0' }, /cannot be made/],
  ])('%s is refused in a sentence', async (_, step, sentence) => {
    const outcome = await with2(step);
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(sentence) as unknown });
    expect(volumes(outcome)).toEqual([8000, 3000]);
  });
});
