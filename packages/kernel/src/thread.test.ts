import { refOfFace, type Step } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { designOf, evaluated, extruded, last, outline, rectangle } from './sample-parts.ts';

const circle = (radius: number): Step => ({
  ...outline([]),
  points: { c: [0, 0] },
  curves: { k: { kind: 'circle', center: 'c', radius } },
});
const rod = (radius: number, length: number): Record<string, Step> => ({ s: circle(radius), e: extruded('s', `${length} mm`) }); // prettier-ignore
const bored = (radius: number): Record<string, Step> => ({
  h: outline(rectangle(-15, -15, 30, 30)),
  k: extruded('h', '12 mm'),
  s: circle(radius),
  e: extruded('s', '12 mm', { result: 'cut' }),
});

async function threaded(steps: Record<string, Step>, more: Partial<Step> = {}) {
  const [body] = (await evaluated(designOf(steps))).bodies;
  const faces = body!.facts.faces.flatMap((f, i) => (f.kind === 'cylinder' ? [refOfFace(body!, i)] : []));
  return evaluated(designOf({ ...steps, t: { kind: 'thread', name: 'Thread', faces, size: 'fitting', ...more } }));
}

describe('a marked thread', () => {
  test.each<[string, Record<string, Step>, Partial<Step>, string]>([
    ['on a rod of 10 mm', rod(5, 18), {}, 'M10'],
    ['on one turned a little thinner', rod(4.95, 18), {}, 'M10'],
    ['in the bore of its tapping drill', bored(3.4), {}, 'M8'],
    ['in a bore of a fine pitch', bored(3.5), { size: 'M8x1' }, 'M8 × 1'],
    ['of unified size', rod(6.35, 30), { size: '1/2-13' }, '1/2-13 UNC'],
    ['of a pitch of its own', rod(11, 30), { size: 'own', pitch: '2 mm', left: true }, 'Ø22 × 2'],
    ['in a bore, of a pitch of its own', bored(10), { size: 'own', pitch: '1 mm' }, 'Ø21.083 × 1'],
    ['for some of its length', rod(5, 18), { whole: false, length: '18 mm' }, 'M10'],
  ])('%s', async (_, steps, more, label) => {
    const outcome = await threaded(steps, more);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: `${label}: marked, not modelled.` });
    const [plain] = (await evaluated(designOf(steps))).bodies;
    expect(outcome.bodies[0]!.facts.volume).toBe(plain!.facts.volume);
  });

  test.each<[string, Record<string, Step>, Partial<Step>, string]>([
    ['a size that is too large', rod(5, 18), { size: 'M12' }, 'M12 is cut on a rod of 12 mm, and this one is 10 mm across; choose another size, or change the rod.'],
    ['a radius taken for a diameter', rod(10, 18), { size: 'M10' }, 'M10 is cut on a rod of 10 mm, and this one is 20 mm across; choose another size, or change the rod.'],
    ['a bore that is too wide', bored(5), { size: 'M8' }, 'M8 is cut into a bore of about 6.8 mm, and this one is 10 mm across; choose another size, or change the bore.'],
    ['no size that fits', rod(50, 18), {}, 'The table has no thread for a rod 100 mm across; give a pitch of your own, or another diameter.'],
    ['a pitch too coarse', rod(5, 18), { size: 'own', pitch: '8 mm' }, 'A pitch of 8 mm is too coarse for a diameter of 10 mm; give a smaller one.'],
    ['a length beyond its face', rod(5, 18), { whole: false, length: '19 mm' }, 'The thread is longer than its face, which is 18 mm long; give less, or make the face longer.'],
  ])('%s is refused in a sentence', async (_, steps, more, message) => {
    expect(last(await threaded(steps, more)).message).toBe(message);
  }); // prettier-ignore
});

describe('a modelled thread', () => {
  const DEPTH = (5 / 8) * (Math.sqrt(3) / 2);
  const LEAN = Math.tan(Math.PI / 6);
  /** What a thread takes off a rod, or off the wall of a bore: of any cut across it the area is the same. */
  const taken = (across: number, diameter: number, pitch: number, hollow: boolean): number => {
    const [high, low] = hollow ? [diameter / 2, across / 2 + 1e-3] : [across / 2 - 1e-3, diameter / 2 - DEPTH * pitch];
    const wide = pitch / 8 + 2 * (diameter / 2 - high) * LEAN;
    const flank = (high - low) * LEAN;
    const share = (wide * high ** 2 + (2 * flank * (high ** 2 + high * low + low ** 2)) / 3 + (pitch - wide - 2 * flank) * low ** 2) / pitch; // prettier-ignore
    return Math.PI * Math.abs((across / 2) ** 2 - share);
  };
  const modelled = (steps: Record<string, Step>, more: Partial<Step> = {}) => threaded(steps, { modelled: true, ...more } as Partial<Step>); // prettier-ignore

  test.each<[string, Record<string, Step>, Partial<Step>, number]>([
    ['all along a rod of M10', rod(5, 5), {}, Math.PI * 25 * 5 - 5 * taken(10, 10, 1.5, false)],
    ['left-handed on a thinner rod', rod(3.95, 4), { size: 'M8', left: true }, Math.PI * 3.95 ** 2 * 4 - 4 * taken(7.9, 8, 1.25, false)],
    ['some way into a bore for M8', bored(3.4), { whole: false, length: '4 mm' }, 900 * 12 - Math.PI * 3.4 ** 2 * 12 - 4 * taken(6.8, 8, 1.25, true)],
    ['for some of a rod', rod(6, 20), { whole: false, length: '6 mm' }, Math.PI * 36 * 20 - 6 * taken(12, 12, 1.75, false)],
  ])('%s', async (_, steps, more, volume) => {
    const outcome = await modelled(steps, more);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: expect.stringMatching(/, modelled\.$/) });
    const [body] = outcome.bodies;
    expect(outcome.bodies).toHaveLength(1);
    expect(body!.facts.valid).toBe(true);
    expect(body!.facts.volume / volume).toBeCloseTo(1, 4);
    expect(body!.faceNames.flat().some((n) => n.text === 't:thread:(e:side:k)')).toBe(true);
  }, 60_000); // prettier-ignore

  test('where something cuts into its wall, and of too many turns, it is refused', async () => {
    const crossed: Record<string, Step> = {
      ...rod(5, 12),
      w: { ...outline(rectangle(-1, 4, 2, 3), { plane: { datum: 'wall' } }) },
      x: extruded('w', '20 mm', { way: 'through_both', result: 'cut' }),
    };
    expect(last(await modelled(crossed, { size: 'M10' })).message).toMatch(/^Something cuts into the wall in which this thread lies/); // prettier-ignore
    expect(last(await modelled(rod(5, 100), {})).message).toMatch(/^This thread has 67 turns/);
  });
});
