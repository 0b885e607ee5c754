import { findRegions, type SketchGeometry } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { layoutDimension } from './dimension-layout.ts';
import { Extent, keyOf, movedBetween, ringsOf, splitFillings } from './moving-picture.ts';
import { PlaneMap } from './plane-map.ts';

/** Straight on, four pixels to the mm, the origin at 300, 200. */
const map = new PlaneMap({ origin: [300, 200], x: [4, 0], y: [0, -4] });
const REACH = 0.005;

/** A square of four lines, a circle in it, and a line with two open ends beside it. */
const rest = (): SketchGeometry => ({
  points: { a: [-20, -20], b: [20, -20], c: [20, 20], d: [-20, 20], m: [0, 0], p: [30, 0], q: [40, 10] },
  curves: {
    ab: { kind: 'line', from: 'a', to: 'b' },
    bc: { kind: 'line', from: 'b', to: 'c' },
    cd: { kind: 'line', from: 'c', to: 'd' },
    da: { kind: 'line', from: 'd', to: 'a' },
    k: { kind: 'circle', center: 'm', radius: 5 },
    pq: { kind: 'line', from: 'p', to: 'q' },
  },
  constraints: {
    width: { kind: 'distance', of: ['ab'], value: '40 mm' },
    round: { kind: 'radius', of: ['k'], value: '5 mm' },
    level: { kind: 'horizontal', of: ['ab'] },
  },
});

describe('what moves', () => {
  test('nothing, where nothing stands elsewhere', () => {
    expect(movedBetween(rest(), rest(), REACH).size).toBe(0);
    const shaken = rest();
    shaken.points.a = [-20 + REACH / 2, -20];
    expect(movedBetween(rest(), shaken, REACH).size).toBe(0);
  });

  test('a point takes along the curves on it and what is said of them, and nothing else', () => {
    const now = rest();
    now.points.b = [22, -20];
    expect([...movedBetween(rest(), now, REACH)].sort()).toEqual(['ab', 'b', 'bc', 'level', 'width']);
  });

  test('a circle that grows, an ellipse that widens, a pattern that is spread', () => {
    const [before, now] = [rest(), rest()];
    const ellipse = { kind: 'ellipse', center: 'm', major: 'p', minor: 4 } as const;
    before.curves.e = { ...ellipse };
    now.curves.e = { ...ellipse, minor: 6 };
    now.curves.k = { kind: 'circle', center: 'm', radius: 7 };
    const pattern = { kind: 'linear', of: ['pq'] } as const;
    before.patterns = { row: { ...pattern, steps: [1, 0, 0, 1] } as never };
    now.patterns = { row: { ...pattern, steps: [2, 0, 0, 1] } as never };
    before.constraints.count = now.constraints.count = { kind: 'count', of: ['row'], value: '3' };
    expect([...movedBetween(before, now, REACH)].sort()).toEqual(['count', 'e', 'k', 'round', 'row']);
  });
});

describe('regions and rings', () => {
  test('are told by what bounds them', () => {
    const now = rest();
    now.curves.k = { kind: 'circle', center: 'm', radius: 7 };
    const { still, moving } = splitFillings(now, findRegions(now), movedBetween(rest(), now, REACH));
    // The circle bounds its own disc and the hole in the square.
    expect(moving.regions).toHaveLength(2);
    expect(still.regions).toHaveLength(0);
    expect(still.rings.map((r) => r.at)).toEqual(expect.arrayContaining([[30, 0], [40, 10]])); // prettier-ignore
    now.points.q = [40, 12];
    const later = splitFillings(now, findRegions(now), movedBetween(rest(), now, REACH));
    expect(later.still.rings.map((r) => r.at)).toEqual([[30, 0]]);
    expect(later.moving.rings.map((r) => r.at)).toEqual([[40, 12]]);
  });

  test('the still ones look the same until something moving cuts or leaves them', () => {
    const still = (sketch: SketchGeometry) =>
      keyOf(splitFillings(sketch, findRegions(sketch), new Set(['p', 'q', 'pq'])).still);
    const dragged = rest();
    dragged.points.q = [50, 15];
    expect(still(dragged)).toBe(still(rest()));
    // Right through the square.
    dragged.points.p = [-30, 10];
    expect(still(dragged)).not.toBe(still(rest()));
  });

  test('a gap is one ring between its ends', () => {
    const gap = rest();
    gap.points.e = [19.9, -20];
    gap.curves.ab = { kind: 'line', from: 'a', to: 'e' };
    const wide = ringsOf(findRegions(gap)).filter((r) => r.ends.length === 2);
    expect(wide).toHaveLength(1);
    expect(wide[0]!.at[0]).toBeCloseTo(19.95, 9);
  });
});

describe('the box drawn anew', () => {
  test('holds all that moves, never leaves the stage, and never shrinks', () => {
    const place = fc.tuple(
      fc.double({ min: -120, max: 120, noNaN: true }),
      fc.double({ min: -90, max: 90, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 5 }), place, (places, other) => {
        const extent = new Extent(map);
        for (const p of places) extent.point(p);
        const box = extent.within(692, 597, null);
        const holds = ([left, top, w, h]: readonly number[], [x, y]: readonly number[]) =>
          x! >= left! && x! <= left! + w! && y! >= top! && y! <= top! + h!;
        const shown = places.map((p) => map.toPixel(p)).filter(([x, y]) => holds([0, 0, 692, 597], [x, y]));
        if (!box) return expect(shown).toEqual([]);
        expect(holds([0, 0, 692, 597], box) && holds([0, 0, 692, 597], [box[0] + box[2], box[1] + box[3]])).toBe(true);
        for (const at of shown) expect(holds(box, at)).toBe(true);
        const next = new Extent(map);
        next.point(other);
        const grown = next.within(692, 597, box)!;
        expect(holds(grown, box) && holds(grown, [box[0] + box[2], box[1] + box[3]])).toBe(true);
      }),
    );
  });

  test('takes in a circle whole, a region, a ring and a dimension with its number', () => {
    const sketch = rest();
    const boxOf = (add: (extent: Extent) => void) => {
      const extent = new Extent(map);
      add(extent);
      return extent.within(692, 597, null)!;
    };
    const circle = boxOf((e) => e.curve(sketch, 'k'));
    expect(circle[0]).toBeLessThanOrEqual(280);
    expect(circle[0] + circle[2]).toBeGreaterThanOrEqual(320);
    const { regions, ...found } = findRegions(sketch);
    expect(boxOf((e) => e.fillings({ regions, rings: [] }))[1]).toBeLessThanOrEqual(120);
    const rings = ringsOf({ regions, ...found });
    expect(boxOf((e) => e.fillings({ regions: [], rings }))[0]).toBeLessThanOrEqual(420);
    const drawing = layoutDimension(sketch, sketch.constraints.width as never, map)!;
    const box = boxOf((e) => e.dimension(drawing));
    expect(box[1] + box[3]).toBeGreaterThan(drawing.text.at[1]);
    expect(
      boxOf((e) => e.dimension({ ...drawing, arcs: [{ center: [600, 300], radius: 50, from: 0, to: 1 }] }))[2],
    ).toBe(692 - box[0]);
  });

  test('is none when everything is off the stage', () => {
    const extent = new Extent(map);
    extent.point([500, 500]);
    expect(extent.within(692, 597, null)).toBeNull();
  });
});
