/** The twelve parts are exact at their numbers, and whole over the range of each dial. */
import { describe, expect, test } from '@jest/globals';
import { setDimension, type Design, type NumberCure } from '@helb/core';
import { designOf, edited, evaluated } from './sample-parts.ts';
import {
  bottle, bracket, fanScroll, foot, fork, hollowLink, plate, rim, slottedDisc, toothedWheel, tube, turnedKnob,
  type SamplePart,
} from './twelve-parts.ts'; // prettier-ignore

/** All steps are made, of nothing is there a doubt, and the bodies are sound. */
async function whole(design: Design, at = 'as drawn') {
  const outcome = await evaluated(design);
  const told = outcome.steps.flatMap((s) => [...(s.status === 'ok' ? [] : [`${s.id}: ${s.message}`]), ...s.doubts.map((d) => d.says)]); // prettier-ignore
  expect([at, told]).toEqual([at, []]);
  for (const body of outcome.bodies) expect(body.facts.valid).toBe(true);
  return outcome;
}
/** And over the range of every dial. @returns the volume as drawn */
async function flexed({ steps, numbers, ranges }: SamplePart): Promise<number> {
  const design = designOf(steps, numbers);
  const { bodies } = await whole(design);
  for (const [name, ends] of Object.entries(ranges))
    for (const end of ends) await whole(edited(design, setDimension(name, end)), `${name} = ${end}`);
  return bodies.reduce((sum, b) => sum + b.facts.volume, 0);
}

describe('the twelve parts', () => {
  test('a turned knob: groove and fillets repeated round it', async () => {
    const volume = await flexed(await turnedKnob());
    expect(volume).toBeLessThan(Math.PI * 18 * 18 * 20 - Math.PI * 16 * 12);
  });

  test('a slotted disc: pins the other way, bars from an offset start', async () => {
    const volume = await flexed(slottedDisc());
    expect(volume).toBeCloseTo(Math.PI * 900 * 4 - 6 * 36 * 4 + 3 * Math.PI * 2.25 * 6 + 2 * 2 * 20 * 3, 5);
  });

  test('a bottle: crossed ellipses, a slanted cut, a neck down to the next, hollow', async () => {
    const part = await bottle();
    const volume = await flexed(part);
    const { h: _, ...solid } = part.steps;
    const filled = (await whole(designOf(solid, part.numbers))).bodies[0]!;
    expect(volume).toBeLessThan(0.4 * filled.facts.volume);
  });

  test('a fan scroll: swept housing, cut up to next, a row of holes that stays in the middle', async () => {
    const part = fanScroll();
    await flexed(part);
    const design = designOf(part.steps, part.numbers);
    for (const wide of ['50 mm', '74 mm']) {
      const { bodies } = await whole(edited(design, setDimension('wide', wide)));
      // The duct parts the walls of some holes.
      const all = bodies[0]!.facts.faces.flatMap((f) => (f.axis ? [f.axis.origin[0].toFixed(6)] : []));
      const at = [...new Set(all)].map(Number);
      expect(at).toHaveLength(4);
      expect(at.reduce((a, b) => a + b, 0) / at.length).toBeCloseTo(parseFloat(wide) / 2, 5);
    }
  });

  test('a plate whose holes are mirrored both ways', async () => {
    const volume = await flexed(plate());
    expect(volume).toBeCloseTo(80 * 50 * 6 - 4 * Math.PI * 6.25 * 6, 5);
  });

  test('a toothed wheel: one tooth, twelve by pattern, a chamfered bore', async () => {
    const volume = await flexed(await toothedWheel());
    // A tooth from the circle of the root to its flat end, less what lies within the circle (its chord of 4 mm).
    const within = 2 * Math.sqrt(400 - 4) + 400 * Math.asin(2 / 20);
    const tooth = 4 * 23 - within;
    const cone = (Math.PI * 1 * (36 + 30 + 25)) / 3 - Math.PI * 25;
    expect(volume).toBeCloseTo(Math.PI * (400 - 25) * 8 + 12 * tooth * 8 - 2 * cone, 4);
  });

  test('a rim with spokes and a tread cut 25 times', async () => {
    const { steps, numbers } = rim();
    await flexed(rim());
    expect((await whole(designOf(steps, numbers))).bodies).toHaveLength(1);
  });

  test('a bracket from an open outline, holes through both legs', async () => {
    const volume = await flexed(bracket());
    // The wall lies left of the line as it runs: inside the corner.
    expect(volume).toBeCloseTo((50 + 40 - 4) * 4 * 30 - 2 * Math.PI * 9 * 4, 4);
  });

  test('a fork with its pin', async () => {
    const volume = await flexed(fork());
    expect(volume).toBeCloseTo(40 * 24 * 20 - 26 * 12 * 20 - 2 * 6 * Math.PI * 16 + 28 * Math.PI * 3.9 ** 2, 4);
  });

  test('a tube with a cone and a ball end', async () => {
    const volume = await flexed(tube());
    expect(volume).toBeCloseTo(Math.PI * (49 - 25) * 50 + (2 / 3) * Math.PI * 343, 4);
  });

  test('a hollow link whose corner rounds fail when its wall is thinned, and say so', async () => {
    const link = await hollowLink();
    const volume = await flexed(link);
    expect(volume).toBeLessThan((60 * 24 - 50 * 14) * 10);
    const thin = await evaluated(edited(designOf(link.steps, link.numbers), setDimension('wall', '1.5 mm')));
    const failing = thin.steps.find((s) => s.id === 'n')!;
    expect(failing).toMatchObject({ status: 'failed', message: expect.stringMatching(/^A radius of 2 mm does not fit this edge/) }); // prettier-ignore
    const { value } = failing.cure as NumberCure;
    expect(value).toBeGreaterThan(1);
    expect(value).toBeLessThan(1.5);
    expect(thin.bodies[0]!.facts.valid).toBe(true);
  });

  test('a foot with a boss and a chamfer of two distances', async () => {
    const volume = await flexed(await foot());
    const plain = 50 * 50 * 10 + Math.PI * 100 * 18 - Math.PI * 16 * 28;
    // A ring whose section is a right triangle: Pappus. Which way round it lies is told by which fits.
    const chamfer = (inward: number, down: number) => 2 * Math.PI * (10 - inward / 3) * ((inward * down) / 2);
    expect([plain - chamfer(3, 1), plain - chamfer(1, 3)].map((v) => Math.abs(v - volume) < 1e-3)).toContain(true);
  });
});
