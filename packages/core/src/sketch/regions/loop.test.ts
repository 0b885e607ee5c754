import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { HalfEdge } from './arrange.ts';
import { isInside, loopOf, pointInside, type Loop } from './loop.ts';
import { TAU, type Primitive, type Vec2 } from './primitives.ts';
import { lineThrough } from './sample-pieces.ts';

const half = (primitive: Primitive, t0: number, t1: number): HalfEdge => ({ primitive, t0, t1, from: 0, to: 0, twin: 0 }); // prettier-ignore
const line = (curve: string, from: Vec2, to: Vec2): Primitive => ({ kind: 'line', curve, from, to });
/** The same walk begun at each of its places. */
const begunAnywhere = (walk: readonly HalfEdge[]): HalfEdge[][] => walk.map((_, i) => [...walk.slice(i), ...walk.slice(0, i)]); // prettier-ignore
const kinds = (walk: readonly HalfEdge[]) => loopOf(walk).pieces.map((p) => p.curve);

const circle: Primitive = { kind: 'arc', curve: 'o', center: [5, 5], radius: 5, start: 0, sweep: TAU };
const oval: Primitive = { kind: 'ellipse', curve: 'e', center: [5, 5], major: [6, 0], minor: [0, 3], start: 0, sweep: TAU }; // prettier-ignore
const wave = (control: Vec2[]): Primitive => ({ kind: 'spline', curve: 's', degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], control }); // prettier-ignore

describe('a walk becomes a loop', () => {
  test('of as few pieces as its curves allow, wherever it begins', () => {
    const bottom = line('b', [0, 0], [10, 0]);
    const walk = [half(bottom, 0, 0.25), half(bottom, 0.25, 0.6), half(bottom, 0.6, 1), half(line('r', [10, 0], [10, 8]), 0, 1), half(line('t', [10, 8], [0, 8]), 0, 1), half(line('l', [0, 8], [0, 0]), 0, 1)]; // prettier-ignore
    for (const begun of begunAnywhere(walk)) {
      const { pieces, area } = loopOf(begun);
      expect(pieces.map((p) => p.curve).sort()).toEqual(['b', 'l', 'r', 't']);
      expect(area).toBeCloseTo(80, 9);
      const [own] = pieces.filter((p) => p.curve === 'b');
      expect([own!.from, own!.to]).toEqual([[0, 0], [10, 0]]); // prettier-ignore
    }
  });

  test('its arcs of one circle or ellipse joined, sweep and all', () => {
    for (const [round, area] of [
      [circle, 25 * Math.PI],
      [oval, 18 * Math.PI],
    ] as const) {
      // prettier-ignore
      const cut = line('c', [5, 10], [5, 0]);
      const right = [half(round, 0.75, 0.9), half(round, 0.9, 1.1), half(round, 1.1, 1.25)];
      for (const begun of begunAnywhere([...right, half(cut, round === oval ? 0.2 : 0, round === oval ? 0.8 : 1)])) {
        const { pieces, area: own } = loopOf(begun);
        expect(pieces).toHaveLength(2);
        expect((pieces.find((p) => p.kind !== 'line') as { sweep: number }).sweep).toBeCloseTo(Math.PI, 9);
        expect(own).toBeCloseTo(area / 2, 9);
      }
      for (const begun of begunAnywhere([half(round, 0, 0.4), half(round, 0.4, 0.7), half(round, 0.7, 1)])) {
        expect(loopOf(begun).pieces).toHaveLength(1);
        expect(loopOf(begun).area).toBeCloseTo(area, 9);
      }
    }
  });

  test('corners of one outline kept, as letters have them', () => {
    const corners: Vec2[] = [[0, 0], [6, 0], [6, 4], [0, 4]]; // prettier-ignore
    const letter = corners.map((from, i) => half(line('x', from, corners[(i + 1) % 4]!), 0, 1));
    expect(loopOf(letter).pieces).toHaveLength(4);
    const there = half(line('x', [0, 0], [6, 0]), 0, 1);
    // A spike runs back on itself: its tip stays.
    expect(loopOf([there, half(line('x', [6, 0], [2, 0]), 0, 1), half(line('y', [2, 0], [0, 0]), 0, 1)]).pieces).toHaveLength(3); // prettier-ignore
    const level = half(line('x', [6, 0], [9, 0]), 0, 1);
    expect(loopOf([there, level, half(line('y', [9, 0], [0, 0]), 0, 1)]).pieces[0]!.to).toEqual([9, 0]);
    const steep = [half(line('x', [0, 0], [3, 6]), 0, 1), half(line('x', [3, 6], [5, 10]), 0, 1)];
    expect(kinds([...steep, half(line('y', [5, 10], [0, 0]), 0, 1)])).toEqual(['x', 'y']);
    const bent = [half(line('x', [0, 0], [3, 6]), 0, 1), half(line('x', [3, 6], [6, 10]), 0, 1)];
    expect(kinds([...bent, half(line('y', [6, 10], [0, 0]), 0, 1)])).toEqual(['x', 'x', 'y']);
  });

  test('nothing joined that is of two curves, runs two ways, or leaves a gap', () => {
    const close = half(line('z', [9, 0], [0, 0]), 0, 1);
    const first = half(line('x', [0, 0], [6, 0]), 0, 1);
    expect(kinds([first, half(line('y', [6, 0], [9, 0]), 0, 1), close])).toEqual(['x', 'y', 'z']);
    expect(kinds([first, half(line('x', [9, 0], [6, 0]), 1, 0), close])).toEqual(['x', 'x', 'z']);
    expect(kinds([first, half(line('x', [6.001, 0], [9, 0]), 0, 1), close])).toEqual(['x', 'x', 'z']);
    const [arc] = [half({ ...circle, curve: 'x', center: [6, 3], radius: 3, start: 1.5 * Math.PI }, 0, 0.5)];
    expect(kinds([first, arc!, close])).toEqual(['x', 'x', 'z']);
    const away = half({ ...oval, curve: 'x', center: [6, 3], major: [3, 0], minor: [0, 3] }, 0.75, 1.25);
    expect(kinds([half({ ...circle, curve: 'x', center: [6, 3], radius: 3 }, 0.5, 0.75), away, close])).toEqual(['x', 'x', 'z']); // prettier-ignore
  });

  test('pieces of a spline joined where one goes on from the other, and only there', () => {
    const control: Vec2[] = [[0, 0], [2, 4], [6, 4], [8, 0]]; // prettier-ignore
    const own = wave(control);
    const close = half(line('c', [8, 0], [0, 0]), 0, 1);
    for (const begun of begunAnywhere([half(own, 0, 0.3), half(own, 0.3, 1), close])) {
      const { pieces, area } = loopOf(begun);
      expect(pieces).toHaveLength(2);
      const [spline] = pieces.filter((p) => p.kind === 'spline');
      expect([spline!.from, spline!.to]).toEqual([[0, 0], [8, 0]]); // prettier-ignore
      // Green’s integral of the cubic, in closed form.
      expect(area).toBeCloseTo(-16.8, 9);
    }
    // Another spline of the same curve, as outlines of letters have them, begins where this one ends.
    const other = wave([[8, 0], [9, -3], [10, -3], [12, 0]]); // prettier-ignore
    expect(kinds([half(own, 0, 1), half(other, 0, 1), half(line('c', [12, 0], [0, 0]), 0, 1)])).toEqual(['s', 's', 'c']); // prettier-ignore
    const same = { ...own, control: control.map((p): Vec2 => [...p]) };
    expect(kinds([half(own, 0, 0.3), half(same, 0.3, 1), close])).toEqual(['s', 's', 'c']);
    // It crosses itself, and is left out between: the place is the same, the parameter is not.
    const loop = wave([[0, 0], [10, 8], [-2, 8], [8, 0]]); // prettier-ignore
    expect(kinds([half(loop, 0, 0.25), half(loop, 0.5, 1), close])).toEqual(['s', 's', 'c']);
  });
});

describe('a loop with holes', () => {
  const square = (x: number, y: number, size: number): Loop => {
    const pieces = lineThrough([[x, y], [x + size, y], [x + size, y + size], [x, y + size]], `q${x}`); // prettier-ignore
    return { pieces, area: size ** 2 };
  };

  test('holds what lies in it and not in them', () => {
    const loops = [square(0, 0, 10), square(2, 2, 3)];
    // Tenths, and never level with a side.
    const place = fc.integer({ min: -20, max: 120 }).map((n) => n / 10 + 0.05);
    fc.assert(
      fc.property(place, place, (x, y) => {
        const within = (at: number, size: number) => x > at && x < at + size && y > at && y < at + size;
        expect(isInside(loops, [x, y])).toBe(within(0, 10) && !within(2, 3));
      }),
    );
    // Level with corners.
    expect([isInside(loops, [1, 2]), isInside(loops, [3, 5]), isInside(loops, [-1, 0]), isInside(loops, [1, 5])]).toEqual([true, true, false, true]); // prettier-ignore
  });

  test('has a point well inside, in the widest stretch', () => {
    const [x, y] = pointInside([square(0, 0, 10), square(2, 2, 3)]);
    expect(isInside([square(0, 0, 10), square(2, 2, 3)], [x, y])).toBe(true);
    expect(Math.min(x, y, 10 - x, 10 - y)).toBeGreaterThan(0.9);
    // A T: its bar is the wide part.
    const tee = lineThrough([[4, 0], [6, 0], [6, 7], [10, 7], [10, 10], [0, 10], [0, 7], [4, 7]], 't'); // prettier-ignore
    const [, height] = pointInside([{ pieces: tee, area: 44 }]);
    expect(height).toBeGreaterThan(7);
    // Of stretches nearly as wide the middle one.
    expect(pointInside([square(0, 0, 10)])).toEqual([5, 5]);
    const wedge = lineThrough([[0, 0], [10, 0], [10.5, 10], [0, 10]], 'w'); // prettier-ignore
    expect(pointInside([{ pieces: wedge, area: 102.5 }])[1]).toBe(5);
  });
});
