import type { Step } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { designOf, evaluated, extruded, last, namesIn, outline, type At } from './sample-parts.ts';

/** A bracket 40 wide, its legs 60 and 50 long and 10 thick; the inner corner at (10, 10). */
const bracket: Record<string, Step> = {
  s: outline([[0, 0], [60, 0], [60, 10], [10, 10], [10, 50], [0, 50]]),
  e: extruded('s', '40 mm', { way: 'symmetric' }),
}; // prettier-ignore
const LEGS = (60 * 10 + 40 * 10) * 40;

/** An open line through these places. */
const line = (places: readonly At[], more: Partial<Step> = {}): Step => ({
  ...outline([]),
  name: 'Line',
  points: Object.fromEntries(places.map((p, i) => [`q${i}`, [...p]])),
  curves: Object.fromEntries(places.slice(1).map((_, i) => [`m${i}`, { kind: 'line', from: `q${i}`, to: `q${i + 1}` }])), // prettier-ignore
  ...more,
});
const rib = (more: Partial<Step> = {}): Step => ({ kind: 'rib', name: 'Rib', profile: { sketch: 'l', regions: 'chain' }, thickness: '6 mm', flipped: false, ...more }); // prettier-ignore
const made = (places: readonly At[], more: Partial<Step> = {}, drawn: Partial<Step> = {}) =>
  evaluated(designOf({ ...bracket, l: line(places, drawn), r: rib(more) }));

describe('a rib', () => {
  test.each<[string, At[], Partial<Step>, number]>([
    ['from leg to leg', [[50, 10], [10, 40]], {}, (40 * 30) / 2 * 6],
    ['drawn the other way, towards its other side', [[10, 40], [50, 10]], { flipped: true }, (40 * 30) / 2 * 6],
    ['drawn short of both legs', [[42, 16], [18, 34]], {}, (40 * 30) / 2 * 6],
    ['bent', [[50, 10], [30, 20], [10, 45]], {}, 550 * 6],
    ['thick as the bracket is wide', [[50, 10], [10, 40]], { thickness: '40 mm' }, 600 * 40],
  ])('%s', async (_, places, more, volume) => {
    const outcome = await made(places, more);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
    const [body, ...others] = outcome.bodies;
    expect(others).toEqual([]);
    expect(body!.facts.volume).toBeCloseTo(LEGS + volume, 5);
    expect(body!.facts.valid).toBe(true);
    // Nothing is left of how far it was drawn out.
    expect(namesIn(body!).filter((n) => n.includes('far'))).toEqual([]);
  }); // prettier-ignore

  test('goes with the legs, its sides under the same names', async () => {
    const at = async (height: number) => {
      const legs = { ...bracket, s: outline([[0, 0], [60, 0], [60, 10], [10, 10], [10, height], [0, height]]) };
      const [body] = (await evaluated(designOf({ ...legs, l: line([[50, 10], [10, 40]]), r: rib() }))).bodies;
      return namesIn(body!).filter((n) => n.startsWith('r:')).sort();
    }; // prettier-ignore
    expect(await at(80)).toEqual(await at(50));
  });

  test.each<[string, At[], Partial<Step>, Partial<Step>, string]>([
    ['towards the open side', [[50, 10], [10, 40]], { flipped: true }, {}, 'The rib does not meet the body all along that way; turn it to the other side, or move its line or its sketch.'],
    ['a line in the body', [[5, 5], [8, 5]], {}, {}, 'The line lies within the body; draw it outside.'],
    ['no thickness', [[50, 10], [10, 40]], { thickness: '0 mm' }, {}, 'The thickness must be more than nothing.'],
    ['a round line', [[50, 10], [10, 40]], {}, { points: { a: [50, 10], b: [10, 40], c: [10, 0] }, curves: { k: { kind: 'arc', center: 'c', from: 'a', to: 'b' } } }, 'A rib follows straight lines, and Line has others; draw it of lines.'],
  ])('%s is refused in a sentence', async (_, places, more, drawn, message) => {
    expect(last(await made(places, more, drawn)).message).toBe(message);
  }); // prettier-ignore
});
