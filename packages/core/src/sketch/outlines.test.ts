/** A solution never turns an outline over that was drawn the right way round. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { SketchGeometry } from './schema.ts';
import { solveSketch } from './solve.ts';
import { written } from './written.ts';

/** A plate with rounded corners, 40 × 20, r 5, all from three numbers: k0 width, k1 height, k2 radius. */
const rounded = (): SketchGeometry =>
  written(
    'a 5 0, b 35 0, c 40 5, d 40 15, e 35 20, f 5 20, g 0 15, h 0 5, m 35 5, n 35 15, o 5 15, p 5 5',
    'bottom a b; right c d; top e f; left g h; se m b c; ne n d e; nw o f g; sw p h a',
    `distance:left,right=40; distance:bottom,top=20; radius:se=5; equal:se,ne; equal:ne,nw; equal:nw,sw;
     horizontal:bottom; horizontal:top; vertical:left; vertical:right; tangent:bottom,se; tangent:right,se;
     tangent:right,ne; tangent:top,ne; tangent:top,nw; tangent:left,nw; tangent:left,sw; tangent:bottom,sw`.replaceAll(
      '\n',
      ' ',
    ),
  );
const numbers = (width: number, height: number, radius: number) => (id: string) =>
  ({ k0: width, k1: height, k2: radius })[id] ?? 0;

describe('rounds of a corner', () => {
  test('that are larger than half the side between them are refused, and the radius is among what asks for it', () => {
    const solved = solveSketch(rounded(), numbers(40, 20, 12));
    expect(solved.solved).toBe(false);
    expect(solved.clash).toContain('k2');
    expect(solved.geometry.points).toEqual(rounded().points);
  });

  test('are as given where they fit, and else refused; never folded over', () => {
    const size = fc.double({ min: 2, max: 60, noNaN: true });
    fc.assert(
      fc.property(size, size, fc.double({ min: 0.2, max: 30, noNaN: true }), (width, height, radius) => {
        const room = Math.min(width, height) / 2 - radius;
        fc.pre(Math.abs(room) > 0.01);
        const { solved, geometry } = solveSketch(rounded(), numbers(width, height, radius));
        expect(solved).toBe(room > 0);
        if (!solved) return;
        const at = (id: string) => geometry.points[id]!;
        expect(at('b')[0] - at('a')[0]).toBeCloseTo(width - 2 * radius, 6);
        expect(at('d')[1] - at('c')[1]).toBeCloseTo(height - 2 * radius, 6);
        expect(at('e')[0]).toBeGreaterThan(at('f')[0]);
      }),
      { numRuns: 150 },
    );
  });
});

describe('outlines of lines', () => {
  const stairs = () =>
    written(
      'a 0 0, b 60 0, c 60 30, d 40 30, e 40 20, f 20 20, g 20 10, h 0 10',
      'l0 a b; l1 b c; l2 c d; l3 d e; l4 e f; l5 f g; l6 g h; l7 h a',
      'coincident:a,origin; horizontal:l0; vertical:l1; horizontal:l2; vertical:l3; horizontal:l4; vertical:l5; ' +
        'horizontal:l6; vertical:l7; distance:l7=10; vertical_distance:a,e=20; distance:l1=30; distance:l6=20; ' +
        'horizontal_distance:h,e=40; distance:l0=60',
    );
  const value = (over: Record<string, number>) => (id: string) => {
    const c = stairs().constraints[id]!;
    return over[id] ?? ('value' in c ? Number(c.value) : 0);
  };

  test('a step raised above the next goes down instead of up: nothing is turned over by that', () => {
    const { solved, geometry } = solveSketch(stairs(), value({ k9: 26 }));
    expect(solved).toBe(true);
    expect(geometry.points.g![1]).toBeCloseTo(26, 9);
    expect(geometry.points.f![1]).toBeCloseTo(20, 9);
  });

  test('a triangle is not laid over to its other side to meet an angle', () => {
    const s = written(
      'a 0 0, b 40 0, c 10 20',
      'l a b; m b c; n c a',
      'fixed:a; fixed:b; angle:l,n=1 second; distance:n=22',
    );
    for (const degrees of [30, 80, 120, 160, 175]) {
      const wanted = (degrees * Math.PI) / 180;
      const { solved, geometry } = solveSketch(s, (id) => (id === 'k2' ? wanted : 22));
      expect(solved).toBe(true);
      expect(geometry.points.c![1]).toBeCloseTo(22 * Math.sin(wanted), 6);
    }
    // More than half a turn would be the other side.
    const over = solveSketch(s, (id) => (id === 'k2' ? (200 * Math.PI) / 180 : 22));
    expect(over.solved).toBe(false);
    expect(over.clash).toContain('k2');
  });
});
