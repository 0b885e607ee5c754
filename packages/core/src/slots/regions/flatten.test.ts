import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { EdgeCurve, Frame, Vec3 } from '../../solid/kernel.ts';
import type { SketchGeometry } from '../../sketch/schema.ts';
import type { FlatPiece, LoanPiece } from '../../sketch/borrow/flat-piece.ts';
import { addBorrowed, cutLoose, followSource } from '../../sketch/borrow/borrow.ts';
import { flatten, flatPoint } from './flatten.ts';

const floor: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };
const from = (from: Vec3, to: Vec3, samples: readonly Vec3[] = [from, to]) => ({
  from,
  to,
  middle: samples[samples.length >> 1]!,
  samples,
});

/** A circle in space about an axis, between two angles. */
function circle(center: Vec3, normal: Vec3, along: Vec3, r: number, a0: number, a1: number): EdgeCurve {
  const across: Vec3 = [
    normal[1] * along[2] - normal[2] * along[1],
    normal[2] * along[0] - normal[0] * along[2],
    normal[0] * along[1] - normal[1] * along[0],
  ];
  const at = (t: number): Vec3 =>
    [0, 1, 2].map((k) => center[k]! + r * (along[k]! * Math.cos(t) + across[k]! * Math.sin(t))) as unknown as Vec3;
  const samples = Array.from({ length: 17 }, (_, i) => at(a0 + ((a1 - a0) * i) / 16));
  return {
    kind: 'ellipse',
    ...from(samples[0]!, samples[16]!, samples),
    center,
    normal,
    along,
    major: r,
    minor: r,
    whole: a1 - a0 > 6.28,
  };
}

describe('seen straight onto a plane', () => {
  test('a line is a line, or a point when it stands on the plane', () => {
    expect(flatten(floor, { kind: 'line', ...from([0, 0, 5], [3, 4, 9]) })).toEqual({ kind: 'line', points: [[0, 0], [3, 4]] }); // prettier-ignore
    expect(flatten(floor, { kind: 'line', ...from([1, 2, 0], [1, 2, 9]) })).toEqual({
      kind: 'point',
      points: [[1, 2]],
    });
  });

  test('an arc runs counter-clockwise whichever side it is seen from', () => {
    const up = flatten(floor, circle([0, 0, 3], [0, 0, 1], [1, 0, 0], 5, 0, Math.PI / 2));
    const down = flatten(floor, circle([0, 0, 3], [0, 0, -1], [1, 0, 0], 5, 0, Math.PI / 2));
    expect(up).toMatchObject({
      kind: 'arc',
      points: [
        [0, 0],
        [5, 0],
        [expect.closeTo(0), expect.closeTo(5)],
      ],
    });
    expect(down).toMatchObject({
      kind: 'arc',
      points: [
        [0, 0],
        [expect.closeTo(0), expect.closeTo(-5)],
        [5, 0],
      ],
    });
  });

  test('any circle, tilted any way: every place of it lies on what is drawn', () => {
    const angle = fc.double({ min: 0.05, max: 1.4, noNaN: true });
    fc.assert(
      fc.property(angle, angle, fc.double({ min: 1, max: 40, noNaN: true }), (tilt, turn, r) => {
        const normal: Vec3 = [Math.sin(tilt) * Math.cos(turn), Math.sin(tilt) * Math.sin(turn), Math.cos(tilt)];
        const along: Vec3 = [-Math.sin(turn), Math.cos(turn), 0];
        const curve = circle([4, -3, 7], normal, along, r, 0, 2 * Math.PI);
        const piece = flatten(floor, curve);
        if (piece.kind !== 'ellipse') throw new Error(piece.kind);
        const [c, m] = piece.points;
        const u = [(m[0] - c[0]) / r, (m[1] - c[1]) / r] as const;
        expect(Math.hypot(...u)).toBeCloseTo(1, 9);
        expect(piece.minor).toBeCloseTo(r * Math.cos(tilt), 8);
        for (const p of curve.samples) {
          const [x, y] = flatPoint(floor, p);
          const [dx, dy] = [x - c[0], y - c[1]];
          const [a, b] = [(dx * u[0] + dy * u[1]) / r, (dy * u[0] - dx * u[1]) / piece.minor];
          expect(a * a + b * b).toBeCloseTo(1, 7);
        }
      }),
    );
  });

  test('seen from its side, a circle is the line across it', () => {
    const piece = flatten(floor, circle([0, 0, 0], [0, 1, 0], [1, 0, 0], 6, 0, 2 * Math.PI));
    if (piece.kind !== 'line') throw new Error(piece.kind);
    expect(Math.abs(piece.points[1][0] - piece.points[0][0])).toBeCloseTo(12, 9);
  });

  test('a free curve is drawn through its places, a straight one as a line', () => {
    const bent = flatten(floor, { kind: 'other', ...from([0, 0, 0], [4, 0, 0], [[0, 0, 0], [1, 1, 2], [3, -1, 1], [4, 0, 0]]) }); // prettier-ignore
    expect(bent).toMatchObject({ kind: 'spline', points: [[0, 0], [1, 1], [3, -1], [4, 0]] }); // prettier-ignore
    const straight = flatten(floor, { kind: 'other', ...from([0, 0, 0], [4, 0, 0], [[0, 0, 0], [2, 0, 5], [4, 0, 0]]) }); // prettier-ignore
    expect(straight.kind).toBe('line');
  });
});

describe('loans', () => {
  const empty = (): SketchGeometry => ({ points: {}, curves: {}, constraints: {} });
  const source = { kind: 'section', body: { name: 'b' } } as const;
  const nameless = (...pieces: FlatPiece[]): LoanPiece[] => pieces.map((piece) => ({ piece, key: null }));
  const line = (x: number, key: string | null = null): LoanPiece => ({ piece: { kind: 'line', points: [[x, 0], [x, 10]] }, key }); // prettier-ignore
  const places = (s: SketchGeometry, loan: string) =>
    s.borrowed![loan]!.of.flatMap((id) => (s.points[id] ? [s.points[id][0]] : []));

  test('follow their source, piece by piece, whatever its order', () => {
    const s = empty();
    const loan = addBorrowed(
      s,
      source,
      nameless(
        { kind: 'line', points: [[0, 0], [10, 0]] }, // prettier-ignore
        { kind: 'circle', points: [[5, 5]], radius: 2 },
        { kind: 'point', points: [[1, 1]] },
      ),
    )!;
    expect(s.borrowed![loan]!.of).toHaveLength(6);
    const followed = followSource(
      s,
      loan,
      nameless(
        { kind: 'circle', points: [[6, 5]], radius: 3 },
        { kind: 'point', points: [[2, 2]] },
        { kind: 'line', points: [[0, 0], [14, 0]] }, // prettier-ignore
      ),
    );
    expect(followed).toEqual({ gone: 0, added: 0 });
    const circleNow = Object.values(s.curves).find((c) => c.kind === 'circle')!;
    expect(circleNow.radius).toBe(3);
    expect(s.points[circleNow.center]).toEqual([6, 5]);
    expect(Object.values(s.points)).toContainEqual([14, 0]);
    expect(Object.values(s.points)).toContainEqual([2, 2]);
  });

  test('go by what tells pieces apart at the source, not by place: one goes past another', () => {
    for (const turned of [false, true]) {
      const s = empty();
      const loan = addBorrowed(s, source, [line(0, 'a'), line(10, 'b')])!;
      const now = [line(30, 'a'), line(10, 'b')];
      followSource(s, loan, turned ? now.reverse() : now);
      expect(places(s, loan)).toEqual([30, 30, 10, 10]);
    }
  });

  test('without that, go to the nearest, in whatever order the source lists them', () => {
    for (const turned of [false, true]) {
      const s = empty();
      const loan = addBorrowed(s, source, [line(0), line(10)])!;
      const now = [line(11), line(1), line(40)];
      expect(followSource(s, loan, turned ? now.reverse() : now)).toEqual({ gone: 0, added: 1 });
      expect(places(s, loan)).toEqual([1, 1, 11, 11]);
    }
  });

  test('what is gone at the source stays where it was, and is counted', () => {
    const s = empty();
    const loan = addBorrowed(s, source, nameless({ kind: 'circle', points: [[5, 5]], radius: 2 }))!;
    expect(followSource(s, loan, [])).toEqual({ gone: 1, added: 0 });
    const oval = nameless({ kind: 'ellipse', points: [[5, 5], [9, 5]], minor: 2 }); // prettier-ignore
    expect(followSource(s, loan, oval)).toEqual({ gone: 1, added: 1 });
    expect(Object.values(s.curves)[0]).toMatchObject({ radius: 2 });
    const keyed = empty();
    const own = addBorrowed(keyed, source, [line(0, 'a'), line(10, 'b')])!;
    expect(followSource(keyed, own, [line(0, 'b'), line(20, 'c')])).toEqual({ gone: 1, added: 1 });
    expect(places(keyed, own)).toEqual([0, 0, 0, 0]);
  });

  test('cut loose, the geometry stays and the loan is gone', () => {
    const s = empty();
    addBorrowed(s, source, nameless({ kind: 'circle', points: [[5, 5]], radius: 2 }));
    cutLoose(s, [Object.keys(s.curves)[0]!]);
    expect(s.borrowed).toEqual({});
    expect(Object.keys(s.curves)).toHaveLength(1);
  });

  test('nothing to take makes no loan', () => {
    const s = empty();
    expect(addBorrowed(s, source, [])).toBeNull();
    expect(s).toEqual(empty());
  });
});
