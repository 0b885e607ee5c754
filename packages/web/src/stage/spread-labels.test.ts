import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { spreadLabels, type Label } from './spread-labels.ts';

describe('labels on the stage', () => {
  test('stay where they belong while there is room', () => {
    const labels: Label[] = [0, 1, 2].map((i) => ({ at: [100 * i, 40], width: 80 }));
    expect(spreadLabels(labels)).toEqual(labels.map((l) => l.at));
  });

  test('never cover each other, however they crowd', () => {
    const place = fc.tuple(fc.double({ min: 0, max: 200, noNaN: true }), fc.double({ min: 0, max: 120, noNaN: true }));
    const label = fc.record({ at: place, width: fc.integer({ min: 20, max: 160 }) });
    fc.assert(
      fc.property(fc.array(label, { maxLength: 25 }), (labels) => {
        const places = spreadLabels(labels);
        places.forEach((p, i) => {
          if (!p) return;
          places.slice(0, i).forEach((q, j) => {
            if (!q) return;
            const apart =
              Math.abs(p[1] - q[1]) >= 26 || Math.abs(p[0] - q[0]) >= (labels[i]!.width + labels[j]!.width) / 2;
            expect(apart).toBe(true);
          });
        });
        expect(places.filter((p) => !p).length).toBeLessThanOrEqual(labels.length / 4);
      }),
    );
  });
});
