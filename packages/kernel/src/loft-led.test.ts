/** Lofts whose ends are left square, and lofts led by guides, against the areas of their sections summed up. */
import { describe, expect, test } from '@jest/globals';
import type { Step } from '@helb/core';
import {
  designOf,
  drawn,
  extruded,
  evaluated,
  faceLooking,
  last,
  namesIn,
  outline,
  rectangle,
  round,
  volume,
} from './sample-parts.ts';

const above = (height: number): Step => ({ kind: 'datum_plane', name: `Plane ${height}`, way: 'offset', plane: { datum: 'floor' }, distance: `${height} mm` }); // prettier-ignore
const on = (step: string) => ({ plane: { step } });
const region = (sketch: string) => ({ sketch, regions: 'all' });
const through = (sections: readonly unknown[], more: Partial<Step> = {}): Step => ({ kind: 'loft', name: 'Body', sections, way: 'ruled', result: 'new_body', ...more }) as Step; // prettier-ignore
/** From one on the floor to one 30 mm over it, and what leads it, in between. */
const two = (a: Step, b: Step, more: Partial<Step> = {}, leading: Record<string, Step> = {}) => ({ s: a, p: above(30), t: { ...b, name: 'Upper' }, ...leading, l: through([region('s'), region('t')], more) }); // prettier-ignore

describe('a loft that leaves its ends square', () => {
  /** Of a size that goes from a to b as 3t² − 2t³, its square over the way. */
  const eased = (a: number, b: number, h: number) => h * (a * a + a * (b - a) + (13 / 35) * (b - a) ** 2);
  const pulled = { way: 'smooth', start_pull: '1', end_pull: '1' };
  test.each<[string, Record<string, Step>, number]>([
    ['rectangles', two(outline(rectangle(-10, -10, 20, 20)), outline(rectangle(-6, -6, 12, 12), on('p')), pulled), 4 * eased(10, 6, 30)], // prettier-ignore
    ['whole circles', two(round(9), round(4, on('p')), pulled), Math.PI * eased(9, 4, 30)],
    ['alike and in line they are straight', two(round(7), round(7, on('p')), pulled), Math.PI * 49 * 30],
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 7);
  });

  test('an end that is free goes over as it comes; a stronger pull keeps the size longer', async () => {
    const size = (start: string, end?: string) => volume(two(round(9), round(4, on('p')), { way: 'smooth', start_pull: start, ...(end ? { end_pull: end } : {}) } as Partial<Step>)); // prettier-ignore
    const [weak, one, strong] = [await size('0.5', '1'), await size('1', '1'), await size('2', '1')];
    expect([weak < one, one < strong]).toEqual([true, true]);
    // With a free end, the slope at the end is the straight one: t³ − … by Hermite: 9 − 5 (2t² − t³).
    const free = (t: number) => (9 - 5 * (2 * t * t - t ** 3)) ** 2;
    const simpson = Array.from({ length: 200 }, (_, i) => (free(i / 200) + 4 * free((i + 0.5) / 200) + free((i + 1) / 200)) / 1200).reduce((a, b) => a + b); // prettier-ignore
    expect((await size('1')) / (Math.PI * 30 * simpson)).toBeCloseTo(1, 6);
  });

  test('between a rectangle and a circle its sides and caps keep their names, and it can be hollowed', async () => {
    const steps = two(outline(rectangle(-10, -10, 20, 20)), round(6, on('p')), pulled);
    const body = (await evaluated(designOf(steps))).bodies[0]!;
    expect(namesIn(body).sort()).toEqual(['l:end:+o', 'l:side:l0', 'l:side:l1', 'l:side:l2', 'l:side:l3', 'l:start:(+l0 +l1 +l2 +l3)']); // prettier-ignore
    expect(await volume({ ...steps, h: { kind: 'shell', name: 'Hollow', open: [faceLooking(body, [0, 0, 1])], thickness: '1 mm' } as Step })).toBeLessThan(body.facts.volume / 2); // prettier-ignore
  });

  test.each([
    ['straight', { way: 'ruled', start_pull: '1' }, /Only a smooth loft/],
    ['a pull of nothing', { ...pulled, end_pull: '0' }, /more than 0/],
  ])('%s is refused', async (_, more, says) => {
    const outcome = await evaluated(designOf(two(round(9), round(4, on('p')), more as Partial<Step>)));
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});

describe('a loft that runs on as the faces beside its section do', () => {
  /** A body that narrows to the height of 10 mm, lofted on by 20 mm to an outline drawn there. */
  const onwards = async (s: Step, e: Partial<Step>, t: Step, more: Partial<Step> = {}) => {
    const below = { s, e: { ...extruded('s', '10 mm'), taper: '10 deg', ...e } as Step };
    const base = (await evaluated(designOf(below))).bodies[0]!;
    const steps: Record<string, Step> = { ...below, p: above(30), t: { ...t, ...on('p'), name: 'Upper' }, l: through([{ face: faceLooking(base, [0, 0, 1]) }, region('t')], { way: 'smooth', start_pull: '1', start_as: 'running', ...more }) }; // prettier-ignore
    return { steps, base };
  };
  const lean = Math.tan((10 * Math.PI) / 180);
  const inset = (by: number) => rectangle(-20 + by, -12 + by, 40 - 2 * by, 24 - 2 * by);
  const pyramid = (from: number, to: number, h: number) => {
    const area = (by: number) => (40 - 2 * by) * (24 - 2 * by);
    return (h / 6) * (area(from) + 4 * area((from + to) / 2) + area(to));
  };
  const cone = (a: number, b: number, h: number) => (Math.PI * h * (a * a + a * b + b * b)) / 3;

  test('what goes on as it came is one straight body: of flat sides with their corners, and round', async () => {
    const flat = await onwards(outline(inset(0)), {}, outline(inset(30 * lean)));
    expect((await volume(flat.steps)) / pyramid(10 * lean, 30 * lean, 20)).toBeCloseTo(1, 6);
    const turned = await onwards(round(15), {}, round(15 - 30 * lean));
    expect((await volume(turned.steps)) / cone(15 - 10 * lean, 15 - 30 * lean, 20)).toBeCloseTo(1, 6);
  });

  test('sides that bulge leave along their faces, and reach the last face along its own', async () => {
    const { steps, base } = await onwards(round(15), {}, round(6));
    const loft = async (more: Partial<Step>) => {
      const outcome = await evaluated(designOf({ ...steps, l: { ...steps.l!, ...more } as Step }));
      return outcome.bodies.at(-1)!;
    };
    // Radius by Hermite: from r₀ with slope −tan 10°, to 6 with the straight slope.
    const r0 = 15 - 10 * lean;
    const radius = (t: number) => (1 + 2 * t) * (1 - t) ** 2 * r0 + t * t * (3 - 2 * t) * 6 - 20 * t * (1 - t) ** 2 * lean + t * t * (t - 1) * (6 - r0); // prettier-ignore
    const n = 400;
    const expected = 20 * Math.PI * Array.from({ length: n }, (_, i) => (radius(i / n) ** 2 + 4 * radius((i + 0.5) / n) ** 2 + radius((i + 1) / n) ** 2) / (6 * n)).reduce((a, b) => a + b); // prettier-ignore
    expect((await loft({})).facts.volume / expected).toBeCloseTo(1, 6);
    const squarely = (await loft({ start_as: 'square' })).facts.volume;
    expect(squarely).toBeGreaterThan(expected * 1.01);
    // The other way about: from the outline down to the face.
    const back = await loft({ sections: [region('t'), { face: faceLooking(base, [0, 0, 1]) }], start_pull: undefined, start_as: undefined, end_pull: '1', end_as: 'running' } as Partial<Step>); // prettier-ignore
    expect(back.facts.volume / expected).toBeCloseTo(1, 6);
  });

  test('a section that is no face, and a face whose neighbours lean unevenly, are refused', async () => {
    const none = two(round(9), round(4, on('p')), { way: 'smooth', start_pull: '1', start_as: 'running' });
    expect(last(await evaluated(designOf(none))).message).toMatch(/^The first section is no face of a body/);
    // A cylinder cut off at a slant: its angle to the cut changes all round.
    const cut: Record<string, Step> = {
      s: round(10),
      e: extruded('s', '40 mm', { way: 'symmetric' }),
      c: { kind: 'datum_plane', name: 'Slant', way: 'angled', plane: { datum: 'floor' }, line: { datum: 'y' }, angle: '20 deg' } as Step, // prettier-ignore
      x: { kind: 'split', name: 'Cut', bodies: [{ name: 'e:body:+o' }], plane: { step: 'c' }, kept: 'back' } as Step,
    };
    const below = (await evaluated(designOf(cut))).bodies[0]!;
    const slant = faceLooking(below, [Math.sin(Math.PI / 9), 0, Math.cos(Math.PI / 9)]);
    const steps = { ...cut, p: above(40), t: { ...round(6, on('p')), name: 'Upper' }, l: through([{ face: slant }, region('t')], { way: 'smooth', start_pull: '1', start_as: 'running' }) }; // prettier-ignore
    expect(last(await evaluated(designOf(steps))).message).toMatch(/does not keep its angle to it/);
  });
});

describe('a loft led by guides', () => {
  const line = (from: string, to: string) => ({ kind: 'line', from, to });
  const led = (...guides: string[]) => ({ guides: guides.map((sketch) => ({ sketch })) }) as unknown as Partial<Step>;
  /** On the wall from (x, 0) to (x, 30), bowed out to the right by so much in the middle. */
  const bow = (x: number, by: number, more: Partial<Step> = {}) => {
    const radius = (15 ** 2 + by ** 2) / (2 * by);
    return { ...drawn({ a: [x, 0], b: [x, 30], m: [x + by - radius, 15] }, { c: { kind: 'arc', center: 'm', from: 'a', to: 'b' } }), name: 'Guide', ...more }; // prettier-ignore
  };
  /** How far it is bowed out at a share of the height. */
  const bowed = (by: number, t: number) => {
    const radius = (15 ** 2 + by ** 2) / (2 * by);
    return Math.sqrt(radius ** 2 - (30 * t - 15) ** 2) - radius + by;
  };
  const over = (f: (t: number) => number) => Array.from({ length: 400 }, (_, i) => (f(i / 400) + 4 * f((i + 0.5) / 400) + f((i + 1) / 400)) / 2400).reduce((a, b) => a + b); // prettier-ignore
  const square = outline(rectangle(-10, -10, 20, 20));
  const same = outline(rectangle(-10, -10, 20, 20), on('p'));
  /** The wall moved to y = ±10: through two corners of the square. */
  const walls: Record<string, Step> = {
    v: { kind: 'datum_plane', name: 'Front', way: 'offset', plane: { datum: 'wall' }, distance: '10 mm' },
    w: { kind: 'datum_plane', name: 'Back', way: 'offset', plane: { datum: 'wall' }, distance: '-10 mm' },
  };
  /** What a place of a circle goes along with guides at both ends of a diameter that go apart: 1 at the one, −1 at the other. */
  const shared = (angle: number) => 1 - 2 * (3 * (angle / Math.PI) ** 2 - 2 * (angle / Math.PI) ** 3);
  /** ∮ x dy of it, by the radius and by how far. */
  const added = 2 * Math.PI * over((t) => shared(t * Math.PI) * Math.cos(t * Math.PI));

  test.each<[string, Record<string, Step>, number]>([
    ['one side of a square', two(square, same, led('g', 'h'), { ...walls, g: bow(10, 6, on('v')), h: bow(10, 6, on('w')) }), 400 * 30 + 20 * 30 * over((t) => bowed(6, t))], // prettier-ignore
    ['guides that bow by unlike much', two(square, same, led('g', 'h'), { ...walls, g: bow(10, 6, on('v')), h: bow(10, 3, on('w')) }), 400 * 30 + 20 * 30 * over((t) => (bowed(6, t) + bowed(3, t)) / 2)], // prettier-ignore
    ['a guide with a corner in it', two(square, same, led('g', 'h'), { ...walls, g: { ...drawn({ a: [10, 0], b: [16, 12], c: [10, 30] }, { l: line('a', 'b'), m: line('c', 'b') }), ...on('v') }, h: { ...drawn({ a: [10, 0], b: [16, 12], c: [10, 30] }, { l: line('a', 'b'), m: line('c', 'b') }), ...on('w') } }), 400 * 30 + 20 * (30 * 3)], // prettier-ignore
    ['one guide, which whole circles go with', two(round(8), round(8, on('p')), led('g'), { g: bow(8, 5) }), Math.PI * 64 * 30], // prettier-ignore
    ['two in one sketch, one drawn from above', two(round(8), round(8, on('p')), led('g'), { g: twoIn(5) }), 30 * over((t) => Math.PI * 64 + bowed(5, t) * 8 * added)], // prettier-ignore
    ['in the middle of a side, which goes over into its corners', two(square, same, led('g'), { g: bow(10, 6) }), 400 * 30 + 30 * over((t) => bowed(6, t)) * 20 * 0.625], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 6);
  });

  function twoIn(by: number): Step {
    const radius = (15 ** 2 + by ** 2) / (2 * by);
    return drawn({ a: [8, 0], b: [8, 30], m: [8 + by - radius, 15], c: [-8, 0], d: [-8, 30], n: [-8 - by + radius, 15] }, { r: { kind: 'arc', center: 'm', from: 'a', to: 'b' }, l: { kind: 'arc', center: 'n', from: 'd', to: 'c' } }); // prettier-ignore
  }

  test('through three sections it keeps to all of them and to its guide', async () => {
    const steps = {
      s: round(8),
      p: above(15),
      q: above(30),
      t: { ...round(8, on('p'), [5, 0]), name: 'Middle' },
      u: { ...round(8, on('q')), name: 'Upper' },
      g: bow(8, 5),
      l: through([region('s'), region('t'), region('u')], { way: 'smooth', ...led('g') }),
    };
    expect((await volume(steps)) / (Math.PI * 64 * 30)).toBeCloseTo(1, 6);
    const body = (await evaluated(designOf(steps))).bodies[0]!;
    const [low, high] = [body.facts.box.min, body.facts.box.max];
    expect([low[0], high[0]]).toEqual([expect.closeTo(-8, 4), expect.closeTo(13, 4)]);
  });

  test('a guide drawn a hair beside the outlines is taken, and it is said', async () => {
    const outcome = await evaluated(designOf(two(round(8), round(8, on('p')), led('g'), { g: bow(8.02, 5) })));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: 'A guide passes 0.02 mm beside an outline, and is taken as if it ran through; join them to be sure.' }); // prettier-ignore
    expect(outcome.bodies[0]!.facts.volume / (Math.PI * 64 * 30)).toBeCloseTo(1, 6);
  });

  test('sides that a guide parts keep the name of their line', async () => {
    const body = (await evaluated(designOf(two(square, same, led('g'), { g: bow(10, 6) })))).bodies[0]!;
    expect(namesIn(body).filter((n) => n === 'l:side:l1')).toHaveLength(2);
  });

  test.each<[string, Record<string, Step>, RegExp]>([
    ['one that misses an outline', two(round(8), round(8, on('p')), led('g'), { g: bow(9, 5) }), /^A guide passes 1 mm beside the outline of section 1/], // prettier-ignore
    ['one that ends too low', two(round(8), round(8, on('p')), led('g'), { g: drawn({ a: [8, 0], b: [8, 25] }, { l: line('a', 'b') }) }), /^A guide passes 5 mm beside the outline of section 2/], // prettier-ignore
    ['one that turns back', two(round(8), round(8, on('p')), led('g'), { g: drawn({ a: [8, 0], b: [14, 22], c: [20, 12], d: [8, 30] }, { l: line('a', 'b'), m: line('b', 'c'), n: line('c', 'd') }) }), /turns back or runs across/], // prettier-ignore
    ['guides that bow through each other', two(round(8), round(8, on('p')), led('g'), { g: drawn({ a: [8, 0], b: [-3, 15], c: [8, 30], d: [-8, 0], e: [3, 15], f: [-8, 30] }, { r: { kind: 'spline', fit: 'through', points: ['a', 'b', 'c'] }, l: { kind: 'spline', fit: 'through', points: ['d', 'e', 'f'] } }) }), /run through each other on their way/], // prettier-ignore
    ['none yet', two(round(8), round(8, on('p')), led()), /^No guide is chosen yet/],
    ['guides up to a place', { ...two(round(8), { ...outline([], on('p')), points: { a: [0, 0] } } as Step, {}, { g: bow(8, 5) }), l: through([region('s'), { at: { sketch: 't', point: 'a' } }], led('g')) }, /^Guides lead a loft through outlines/], // prettier-ignore
    ['guides that cross', two(square, same, led('g', 'h'), { ...walls, g: { ...drawn({ a: [10, 0], b: [10, 30] }, { l: line('a', 'b') }), ...on('v') }, h: { ...drawn({ a: [10, 0], b: [-10, 30] }, { l: line('a', 'b') }), ...on('v') } }), /meet, or touch its sections in different orders/], // prettier-ignore
  ])('%s is refused', async (_, steps, says) => {
    const outcome = await evaluated(designOf(steps));
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});
