/** Holes called out as they are: alike ones counted, depth, what is bored and sunk; and what is no hole. */
import { addSheet, Known, newSheet, PartEvaluator, putSize, sheetGeometry, wordsOfSize, type Design, type Step } from '@helb/core'; // prettier-ignore
import { describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import {
  designOf,
  edgeNear,
  edited,
  evaluated,
  extruded,
  faceLooking,
  outline,
  rectangle,
  round,
} from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const cut = (distance: string, sketch: string, more: object = {}) => extruded(sketch, distance, { result: 'cut', bodies: 'all', ...more } as never); // prettier-ignore
const plate = designOf({ s: outline(rectangle(0, 0, 90, 60)), e: extruded('s', '12 mm') });
const top = faceLooking((await evaluated(plate)).bodies[0]!, [0, 0, 1]);

async function callOuts(steps: Record<string, Step>, radius: number): Promise<string[]> {
  const design: Design = designOf({ s: outline(rectangle(0, 0, 90, 60)), e: extruded('s', '12 mm'), ...steps });
  const sheet = newSheet('Sheet', { part: 'p' }, { min: [0, 0, 0], max: [90, 60, 12] });
  const whole = edited(design, addSheet('h', sheet));
  const geometry = await sheetGeometry(whole, 'h', evaluator, kernel, new Known());
  const [view, drawn] = [...geometry.views].find(([, v]) => v.look === 'front')!;
  const spots = drawn.spots.filter((s) => s.what === 'round' && 'radius' in s.piece && Math.abs(s.piece.radius - radius) < 1e-6); // prettier-ignore
  const sized = edited(whole, putSize('h', spots.map((s, i) => [`z${i}`, { kind: 'hole', view, of: [s.spot] }] as const))); // prettier-ignore
  const { sizes } = await sheetGeometry(sized, 'h', evaluator, kernel, new Known());
  return [...sizes.values()].map(({ measured, lost }) => (measured ? wordsOfSize({}, measured, whole.units) : lost!));
}

describe('a hole is called out', () => {
  test('through, with how many are alike; others of its width but not its depth apart', async () => {
    const words = await callOuts({ a: round(3, {}, [20, 20]), b: cut('12 mm', 'a'), c: round(3, {}, [70, 20]), d: cut('12 mm', 'c'), f: round(3, {}, [45, 40]), g: cut('5 mm', 'f') }, 3); // prettier-ignore
    expect(new Set(words)).toEqual(new Set(['2× Ø6 THRU', 'Ø6 × 5 deep']));
  });

  test('bored and sunk at its mouth', async () => {
    const words = await callOuts({ a: round(3.3, {}, [30, 30]), b: cut('12 mm', 'a'), c: round(5.5, {}, [30, 30]), d: cut('4 mm', 'c') }, 5.5); // prettier-ignore
    expect(words).toEqual(['Ø6.6 THRU, bored Ø11 × 4']);
  });

  test.each([
    ['countersunk', { size: 'own', diameter: '5 mm', form: 'countersunk', head_diameter: '9 mm' }, 4.5, '2× Ø5 THRU, sunk Ø9 × 90°'],
    ['counterbored, not through', { size: 'own', diameter: '5 mm', form: 'counterbored', head_diameter: '9 mm', head_depth: '3 mm', through: false, depth: '8 mm', pointed: false }, 4.5, '2× Ø5 × 8 deep, bored Ø9 × 3'],
    ['with a drill’s point', { size: 'own', diameter: '5 mm', through: false, depth: '8 mm', pointed: true }, 2.5, '2× Ø5 × 8 deep'],
    ['tapped', { size: 'M6', form: 'tapped' }, 2.5, '2× M6 THRU'],
  ])('drilled by one step: %s', async (_, more, radius, words) => {
    const marks: Step = { ...outline([], { plane: { face: top }, name: 'Marks' }), points: { a: [20, 20], b: [70, 40] } }; // prettier-ignore
    const steps = { m: marks, hole: { kind: 'hole', name: 'Holes', places: [{ all_of: 'm' }], ...more } as Step };
    expect(new Set(await callOuts(steps, radius))).toEqual(new Set([words]));
  }); // prettier-ignore

  test('blind though its bottom is broken through beside its middle', async () => {
    const words = await callOuts({ a: round(6, {}, [30, 30]), b: cut('5 mm', 'a'), c: round(1.5, {}, [33, 30]), d: cut('12 mm', 'c') }, 6); // prettier-ignore
    expect(words).toEqual(['Ø12 × 5 deep']);
  });

  test('not where it ends rounded, or begins in a slanted face: its depth would be a guess', async () => {
    const steps = { a: round(6, {}, [30, 30]), b: cut('5 mm', 'a') };
    const [body] = (await evaluated(designOf({ s: outline(rectangle(0, 0, 90, 60)), e: extruded('s', '12 mm'), ...steps }))).bodies; // prettier-ignore
    const rim = edgeNear(body!, [24, 30, 5]);
    const rounded = await callOuts({ ...steps, f: { kind: 'fillet', name: 'Fillet', edges: [rim], radius: '1 mm' } as Step }, 6); // prettier-ignore
    expect(rounded).toEqual(['Where this hole ends is rounded, so its depth is not told; take its diameter, and a length.']); // prettier-ignore
    // A wedge taken off the underside, so that the hole begins in its slope.
    const slope: Step = { ...outline([[0, 0], [0, 3], [90, 0]], { name: 'Slope', plane: { datum: 'wall' } }) }; // prettier-ignore
    const slanted = await callOuts({ ...steps, w: slope, x: extruded('w', '200 mm', { result: 'cut', bodies: 'all', way: 'symmetric' } as never) }, 6); // prettier-ignore
    expect(slanted).toEqual(['The mouth of this hole is not square to it, so its depth is not told; take its diameter, and a length.']); // prettier-ignore
  });

  test('a boss is no hole', async () => {
    expect(await callOuts({ a: round(8, {}, [45, 30]), b: extruded('a', '20 mm', { result: 'join', bodies: 'all' } as never) }, 8)).toEqual(['This round is no hole; take its diameter.']); // prettier-ignore
  });
});
