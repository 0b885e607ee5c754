import { describe, expect, test } from '@jest/globals';
import type { SketchGeometry } from '../sketch/schema.ts';
import { emptyDesign } from '../document/schema.ts';
import { extrude } from './extrude/extrude.ts';

const drawn: Record<string, SketchGeometry> = {
  letters: { points: { a: [0, 0], b: [40, 0] }, curves: { t: { kind: 'text', from: 'a', to: 'b', text: 'R8' } }, constraints: {} },
  bent: { points: { a: [0, 0], b: [40, 0], c: [40, 9] }, curves: { l: { kind: 'line', from: 'a', to: 'b' }, m: { kind: 'line', from: 'b', to: 'c' } }, constraints: {} },
}; // prettier-ignore
const begun = (...sketches: string[]) =>
  extrude.begin({
    picks: sketches.map((step) => ({ kind: 'step', step, is: 'sketch' }) as const),
    units: emptyDesign('Any').units,
    bodies: 0,
    unused: [],
    sketch: (id: string) => (drawn[id] ? { geometry: drawn[id], onFace: false } : null),
  } as never);

describe('a sketch picked as a whole', () => {
  test('is extruded with the counters of its letters open', () => {
    expect(begun('letters')).toMatchObject({ profile: { sketch: 'letters', regions: 'holed' } });
  });
  test('is a wall where its outline is open', () => {
    expect(begun('bent')).toMatchObject({ profile: { sketch: 'bent', regions: 'chain' } });
  });
  test('is nothing to begin from when it is gone, or there are two', () => {
    expect([begun('gone'), begun('letters', 'bent')]).toEqual([null, null]);
  });
});
