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
