/** Edges rounded and bevelled, walls and slants: volumes in closed form, names that last, and what is said when it does not fit. */
import { describe, expect, test } from '@jest/globals';
import { setDimension, setSlot, type NumberCure, type Step } from '@helb/core';
import {
  block,
  designOf,
  edgeNear,
  edited,
  evaluated,
  extruded,
  faceLooking,
  last,
  namesIn,
  outline,
} from './sample-parts.ts';

const base = await evaluated(designOf(block(40, 20, 10)));
const body = base.bodies[0]!;
const corner = edgeNear(body, [0, 0, 5]);
const top = faceLooking(body, [0, 0, 1]);
const after = async (step: Partial<Step>) => evaluated(designOf({ ...block(40, 20, 10), f: { name: 'Worked', ...step } as Step })); // prettier-ignore
const CORNER = 1 - Math.PI / 4;

describe('rounded and bevelled edges', () => {
  test.each<[string, Partial<Step>, number]>([
    ['one edge', { kind: 'fillet', edges: [corner], radius: '3 mm' }, 8000 - 9 * CORNER * 10],
    // Along the edges, less the two corners where two rounds meet: a mitre of two quarter cylinders.
    ['all round the top', { kind: 'fillet', edges: [{ around: top }], radius: '3 mm' }, 8000 - roundTop(40, 20, 3)],
    ['all edges of a step', { kind: 'fillet', edges: [{ made_by: 'e' }], radius: '2 mm' }, rounded(40, 20, 10, 2)],
    // The square of a radius that runs evenly from a to b has the mean (a² + ab + b²) / 3.
    ['a running radius', { kind: 'fillet', edges: [corner], radius: '2 mm', way: 'running', end_radius: '3 mm' }, 8000 - ((4 + 6 + 9) / 3) * CORNER * 10], // prettier-ignore
    ['through the same radius', { kind: 'fillet', edges: [corner], radius: '3 mm', way: 'through', via_radius: '3 mm', via_at: '0.4', end_radius: '3 mm' }, 8000 - 9 * CORNER * 10], // prettier-ignore
    ['an even chamfer', { kind: 'chamfer', edges: [corner], distance: '3 mm' }, 8000 - 45],
    [
      'two distances',
      { kind: 'chamfer', edges: [corner], distance: '3 mm', way: 'two', other_distance: '2 mm' },
      8000 - 30,
    ],
    ['at an angle', { kind: 'chamfer', edges: [corner], distance: '3 mm', way: 'angled', angle: '30 deg' }, 8000 - 45 / Math.sqrt(3)], // prettier-ignore
    ['a loop', { kind: 'chamfer', edges: [{ loop: edgeNear(body, [20, 0, 10]), of: top }], distance: '1 mm' }, 8000 - 0.5 * 120 + 4 / 3], // prettier-ignore
    ['open at the top', { kind: 'shell', open: [top], thickness: '2 mm' }, 8000 - 36 * 16 * 8],
    [
      'open at two sides',
      { kind: 'shell', open: [top, faceLooking(body, [1, 0, 0])], thickness: '2 mm' },
      8000 - 38 * 16 * 8,
    ],
    // Walls outside: slabs on five faces, quarter cylinders on eight edges, and two eighths of a ball twice over.
    ['walls outside', { kind: 'shell', open: [top], thickness: '2 mm', outward: true }, 2 * (800 + 600 * 2) + Math.PI * (10 * 4 + 120) + (16 * Math.PI) / 3], // prettier-ignore
    ['a slant', { kind: 'draft', faces: [faceLooking(body, [1, 0, 0])], angle: '6 deg', neutral: { datum: 'floor' } }, 8000 - 1000 * Math.tan(Math.PI / 30)], // prettier-ignore
    ['a slant outwards', { kind: 'draft', faces: [faceLooking(body, [0, 1, 0])], angle: '6 deg', neutral: { datum: 'floor' }, outward: true }, 8000 + 2000 * Math.tan(Math.PI / 30)], // prettier-ignore
  ])('%s', async (_, step, volume) => {
    const outcome = await after(step);
    expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
    expect(outcome.bodies[0]!.facts.volume / volume).toBeCloseTo(1, step.way === 'running' ? 4 : 7);
    expect(outcome.bodies[0]!.facts.valid).toBe(true);
  });

  test('a larger radius on the way takes away more, and where it lies shifts the centre', async () => {
    const through = async (at: string) => {
      const outcome = await after({ kind: 'fillet', edges: [corner], radius: '2 mm', way: 'through', via_radius: '5 mm', via_at: at, end_radius: '2 mm' }); // prettier-ignore
      expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
      return outcome.bodies[0]!.facts;
    };
    const [low, middle, high] = [await through('0.3'), await through('0.5'), await through('0.7')];
    const gone = 8000 - middle!.volume;
    expect(gone).toBeGreaterThan(4 * CORNER * 10 * 1.5);
    expect(gone).toBeLessThan(25 * CORNER * 10);
    // Even about the middle, and one way or the other where it is not.
    expect(middle!.center[2]).toBeCloseTo(5, 4);
    expect((low!.center[2] - 5) * (high!.center[2] - 5)).toBeLessThan(0);
    expect(await after({ kind: 'fillet', edges: [corner], radius: '2 mm', way: 'through', via_at: '1.2' })).toMatchObject({ steps: [{}, {}, { status: 'failed', message: expect.stringMatching(/between 0 and 1/) }] }); // prettier-ignore
  });

  test('the order of the two faces turns with the flip', async () => {
    const step = { kind: 'chamfer', edges: [corner], distance: '4 mm', way: 'two', other_distance: '1 mm' };
    const long = (await after(step)).bodies[0]!.facts;
    const short = (await after({ ...step, flipped: true })).bodies[0]!.facts;
    expect(long.volume).toBeCloseTo(short.volume, 9);
    // The front, 40 by 10, is the larger of the two faces beside the edge.
    const front = (facts: typeof long) => facts.faces.find((f) => f.normal && f.normal[1] < -0.99)!.area;
    expect([front(long), front(short)]).toEqual([expect.closeTo(360, 6), expect.closeTo(390, 6)]);
  });

  test('what does not fit says what does, and that does', async () => {
    for (const [step, number] of [
      [{ kind: 'fillet', edges: [{ made_by: 'e' }], radius: '7 mm' }, 'radius'],
      [{ kind: 'chamfer', edges: [{ around: top }], distance: '30 mm' }, 'distance'],
      [{ kind: 'shell', open: [top], thickness: '22 mm' }, 'thickness'],
    ] as const) {
      const failed = last(await after(step));
      expect(failed.status).toBe('failed');
      const cure = failed.cure as NumberCure;
      expect(failed.message).toContain(`; ${cure.value} mm does.`);
      expect(cure).toMatchObject({ number, kind: 'length' });
      // Half of the height, or of the narrower side, less what makes a face vanish.
      expect(cure.value).toBeGreaterThan(4.8);
      expect(cure.value).toBeLessThan(10);
      // The body stays as it was before the step.
      expect(failed.bodies[0]!.facts.volume).toBeCloseTo(8000, 6);
      const cured = await after({ ...step, [number]: `${cure.value} mm` });
      expect(last(cured).status).toBe('ok');
    }
  });

  test.each<[string, Partial<Step>, RegExp]>([
    ['no radius', { kind: 'fillet', edges: [corner], radius: '0 mm' }, /^The radius must be more than nothing\.$/],
    ['a radius below nothing', { kind: 'fillet', edges: [corner], radius: '-2 mm' }, /^The radius must be more/],
    [
      'a chamfer of 90°',
      { kind: 'chamfer', edges: [corner], distance: '1', way: 'angled', angle: '90 deg' },
      /between 0° and 90°/,
    ],
    ['no face closed', { kind: 'shell', open: sides(), thickness: '1 mm' }, /every face open/],
    [
      'a step without edges',
      { kind: 'fillet', edges: [{ made_by: 's' }], radius: '1 mm' },
      /^No sharp edge made by Outline is there/,
    ],
    [
      'a slant of nothing',
      { kind: 'draft', faces: [top], angle: '0 deg', neutral: { datum: 'floor' } },
      /A draft of nothing/,
    ],
    [
      'a slant of the face that stays',
      { kind: 'draft', faces: [top], angle: '5 deg', neutral: { datum: 'floor' } },
      /slanted/,
    ],
  ])('%s is refused in a sentence', async (_, step, sentence) => {
    const failed = last(await after(step));
    expect(failed.status).toBe('failed');
    expect(failed.message).toMatch(sentence);
    expect(failed.bodies[0]!.facts.volume).toBeCloseTo(8000, 6);
  });
});

describe('walls thicker than a rounding', () => {
  /** A disc rounded by 4 round its top; thicker walls would turn the round inside out, which the kernel finds sound. */
  const rounded = (thickness: string, outward = false) =>
    evaluated(
      designOf({
        s: { ...outline([]), points: { c: [0, 0] }, curves: { o: { kind: 'circle', center: 'c', radius: 20 } } },
        e: extruded('s', '12 mm'),
        f: { kind: 'fillet', name: 'Rounds', edges: [{ around: { name: 'e:end' } }], radius: '4 mm' } as Step,
        h: { kind: 'shell', name: 'Hollow', open: [{ name: 'e:start' }], thickness, outward } as Step,
      }),
    );
  /** What lies outside a quarter circle in its square has its centre this share of the radius from the corner. */
  const away = (10 - 3 * Math.PI) / (3 * (4 - Math.PI));
  const disc = (R: number, h: number, r: number) => Math.PI * R * R * h - 2 * Math.PI * (R - away * r) * CORNER * r * r;

  test.each(['4 mm', '4.5 mm', '6 mm'])('%s is refused, and what fits is told', async (thickness) => {
    const failed = last(await rounded(thickness));
    expect(failed).toMatchObject({ status: 'failed', cure: { number: 'thickness', value: 3.9 } });
    expect(failed.message).toBe(`Walls of ${thickness} do not fit, as the smallest rounding is 4 mm; 3.9 mm does.`);
    expect(failed.bodies[0]!.facts.volume).toBeCloseTo(disc(20, 12, 4), 6);
  });

  test('thinner ones, and any outside, are made: the hollow is the disc with a smaller round', async () => {
    for (const t of [1, 3, 3.9]) {
      const { bodies } = await rounded(`${t} mm`);
      expect(bodies[0]!.facts.volume).toBeCloseTo(disc(20, 12, 4) - disc(20 - t, 12 - t, 4 - t), 5);
    }
    const outside = await rounded('9 mm', true);
    expect(outside.bodies[0]!.facts.volume).toBeCloseTo(disc(29, 21, 13) - disc(20, 12, 4), 5);
  });
});

describe('edges by rule', () => {
  const tower = (radius = '1 mm') => ({
    ...block(40, 20, 10),
    t: outline([[5, 5], [15, 5], [15, 15], [5, 15]], { plane: { face: top }, name: 'Tower outline' }), // prettier-ignore
    u: extruded('t', '6 mm', { name: 'Tower', result: 'join' }),
    f: { kind: 'fillet', name: 'Rounds', edges: [{ made_by: 'u' }], radius } as Step,
  });

  test('all edges made by a step follow its outline when a side is added', async () => {
    const before = (await evaluated(designOf(tower()))).bodies[0]!;
    const rounds = (names: string[]) => names.filter((n) => n.startsWith('f:round')).length;
    // Four uprights, four above, four below.
    expect(rounds(namesIn(before))).toBe(12);
    const five = { ...tower(), t: outline([[5, 5], [15, 5], [17, 10], [15, 15], [5, 15]], { plane: { face: top }, name: 'Tower outline' }) }; // prettier-ignore
    const outcome = await evaluated(designOf(five));
    expect(last(outcome).status).toBe('ok');
    expect(rounds(namesIn(outcome.bodies[0]!))).toBe(15);
  });

  test('the sharp edges of a face are those it has now', async () => {
    const steps = { ...block(40, 20, 10), f: { kind: 'fillet', name: 'Rounds', edges: [{ around: top }], radius: '1 mm' } as Step }; // prettier-ignore
    const l = { ...steps, s: outline([[0, 0], [40, 0], [40, 8], [20, 8], [20, 20], [0, 20]]) }; // prettier-ignore
    expect(namesIn((await evaluated(designOf(l))).bodies[0]!).filter((n) => n.startsWith('f:round'))).toHaveLength(6);
  });

  test('an edge picked alone keeps its name when the block grows, and says so when its face is gone', async () => {
    const design = designOf({ ...block(40, 20, 10), f: { kind: 'fillet', name: 'Round', edges: [corner], radius: '3 mm' } as Step }, { h: '10 mm' }); // prettier-ignore
    const taller = await evaluated(edited(design, setDimension('e.distance', '25 mm')));
    expect(last(taller)).toMatchObject({ status: 'ok', doubts: [] });
    expect(taller.bodies[0]!.facts.volume).toBeCloseTo(20000 - 9 * CORNER * 25, 6);
    const gone = edited(design, setSlot('p', 'f', 'edges', [{ ...corner, faces: ['e:side:l0', 'e:side:l7'] }]));
    expect(last(await evaluated(gone))).toMatchObject({ status: 'failed', doubts: [{ how: 'lost', slot: 'edges' }] });
  });
});

function sides() {
  return [[1, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]].map((way) => faceLooking(body, way as never)); // prettier-ignore
}

/** What rounding the four edges round a rectangle takes away: the straight rounds, and where two meet less what both take. */
function roundTop(width: number, depth: number, r: number): number {
  // At height z above the round's foot each side is set back by s(z) = r − √(r² − z²).
  const steps = 20000;
  let lost = 0;
  for (let i = 0; i < steps; i++) {
    const z = ((i + 0.5) / steps) * r;
    const s = r - Math.sqrt(r * r - z * z);
    lost += ((width * depth - (width - 2 * s) * (depth - 2 * s)) * r) / steps;
  }
  return lost;
}

/** A block with all edges rounded (Steiner): the inner block grown by r. */
function rounded(w: number, d: number, h: number, r: number): number {
  const [a, b, c] = [w - 2 * r, d - 2 * r, h - 2 * r];
  return a * b * c + 2 * r * (a * b + b * c + c * a) + Math.PI * r * r * (a + b + c) + (4 / 3) * Math.PI * r ** 3;
}
