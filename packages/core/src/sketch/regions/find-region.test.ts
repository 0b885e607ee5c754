import { describe, expect, test } from '@jest/globals';
import type { SketchGeometry } from '../schema.ts';
import { findRegion } from './find-region.ts';
import { findRegions, refOf, type Region } from './regions.ts';

const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });
const circle = (center: string, radius: number) => ({ kind: 'circle' as const, center, radius });
type Points = SketchGeometry['points'];

/** 60 by 40, with whatever else is drawn in it. */
const plate = (points: Points = {}, curves: SketchGeometry['curves'] = {}) =>
  findRegions({
    points: { a: [0, 0], b: [60, 0], c: [60, 40], d: [0, 40], ...points },
    curves: { l1: line('a', 'b'), l2: line('b', 'c'), l3: line('c', 'd'), l4: line('d', 'a'), ...curves },
    constraints: {},
  });
const divided = (...at: number[]) =>
  plate(
    Object.fromEntries(at.flatMap((x, i) => [[`p${i}`, [x, -5]], [`q${i}`, [x, 45]]])) as unknown as Points,
    Object.fromEntries(at.map((_, i) => [`n${i}`, line(`p${i}`, `q${i}`)])),
  ); // prettier-ignore
const area = (all: readonly Region[]) => all.reduce((sum, r) => sum + r.area, 0);

describe('a region', () => {
  const whole = refOf(plate().regions[0]!);

  test('is stored by the curves round it, on which side of them it lies, and a point inside', () => {
    expect(whole).toEqual({ outer: ['+l1', '+l2', '+l3', '+l4'], at: [30, 20] });
    const inside = plate({ m: [10, 10] }, { o: circle('m', 3) });
    expect(inside.regions.map((r) => refOf(r, inside.regions).outer.join()).sort()).toEqual(['+l1,+l2,+l3,+l4', '+o']);
    const third: Region = { ...plate().regions[0]!, at: [1 / 3, 2 / 3] };
    expect(refOf(third).at).toEqual([0.3333, 0.6667]);
  });

  test('is the one whatever lies in it, and however its outline was drawn out', () => {
    const holed = plate({ b: [90, 0], c: [95, 40], m: [10, 10] }, { o: circle('m', 3) });
    const finding = findRegion(whole, holed);
    expect(finding).toMatchObject({ how: 'one' });
    expect(finding.how === 'one' && finding.found[0]!.loops).toHaveLength(2);
  });

  test('divided by lines is all its parts together, and it is told', () => {
    for (const lines of [[30], [10, 20, 50]]) {
      const finding = findRegion(whole, divided(...lines));
      expect(finding).toMatchObject({ how: 'probably', why: `a line now divides it, and all its ${lines.length + 1} parts are taken` }); // prettier-ignore
      expect(finding.how === 'probably' && area(finding.found)).toBeCloseTo(2400, 9);
    }
    // A hole that the dividing line does not meet stays out of it.
    const holed = plate({ p: [30, -5], q: [30, 45], m: [10, 10] }, { n: line('p', 'q'), o: circle('m', 3) });
    const finding = findRegion(whole, holed);
    expect(finding.how === 'probably' && area(finding.found)).toBeCloseTo(2400 - 9 * Math.PI, 9);
    // One that touches the line is a hole as well.
    const touched = plate({ p: [30, -5], q: [30, 45], m: [25, 10] }, { n: line('p', 'q'), o: circle('m', 5) });
    const beside = findRegion(whole, touched);
    expect(beside.how === 'probably' && area(beside.found)).toBeCloseTo(2400 - 25 * Math.PI, 9);
  });

  test('divided into cells takes those in its middle as well, and those that have a whole side of it', () => {
    const points = { a1: [-5, 15], b1: [65, 15], a2: [-5, 25], b2: [65, 25], p0: [20, -5], q0: [20, 45], p1: [40, -5], q1: [40, 45] } as unknown as Points; // prettier-ignore
    const cells = plate(points, { h1: line('a1', 'b1'), h2: line('a2', 'b2'), n0: line('p0', 'q0'), n1: line('p1', 'q1') }); // prettier-ignore
    const finding = findRegion(whole, cells);
    expect(finding).toMatchObject({ how: 'probably', why: expect.stringMatching(/all its 9 parts/) });
    expect(finding.how === 'probably' && area(finding.found)).toBeCloseTo(2400, 9);
    // Two corners of it and a place within: nothing that bounds these parts goes on beyond them.
    const roof = findRegion(whole, plate({ m: [30, 15] }, { x: line('a', 'm'), y: line('m', 'b') }));
    expect(roof).toMatchObject({ how: 'probably', why: expect.stringMatching(/all its 2 parts/) });
    expect(roof.how === 'probably' && area(roof.found)).toBeCloseTo(2400, 9);
  });

  test('of which a corner was cut off is probable; of which all but one line went, lost', () => {
    const cut = plate({ b: [60, 10], e: [50, 0] }, { l1: line('a', 'e'), x: line('e', 'b') });
    expect(findRegion(whole, cut)).toMatchObject({ how: 'probably', why: 'the curves round it have changed' });
    const other = findRegions({
      points: { a: [0, 0], b: [60, 0], e: [30, 9] },
      curves: { l1: line('a', 'b'), x: line('b', 'e'), y: line('e', 'a') },
      constraints: {},
    });
    expect(findRegion(whole, other)).toEqual({ how: 'lost', why: 'it is no longer closed', candidates: [] });
  });

  test('on one side of a line is never taken for that on the other', () => {
    const [left, right] = [...divided(30).regions].sort((a, b) => a.at[0] - b.at[0]) as [Region, Region];
    expect(findRegion(refOf(right), divided(55))).toMatchObject({ how: 'one', found: [{ at: [57.5, 20] }] });
    expect(findRegion(refOf(left), divided(55))).toMatchObject({ how: 'one', found: [{ at: [27.5, 20] }] });
    const wrongSide = { outer: refOf(left).outer.map((c) => (c.endsWith('n0') ? (c[0] === '+' ? '-n0' : '+n0') : c)) };
    expect(findRegion(wrongSide, divided(30)).how).not.toBe('one');
    // A curve without a sign stands for either side.
    const bare = { outer: left.outer.map((c) => c.slice(1)) };
    expect(findRegion(bare, divided(30))).toMatchObject({ how: 'one', found: [{ at: left.at }] });
    expect(findRegion({ outer: [...bare.outer, 'l2'] }, divided(30)).how).not.toBe('one');
  });

  test('of which curves are gone is told by those it still has: half of them at least, and on their wanted side', () => {
    const [left, right] = [...divided(30).regions].sort((a, b) => a.at[0] - b.at[0]) as [Region, Region];
    // Likeness 4/5 of one and 3/6 of the other, whichever comes first.
    for (const [own, edge] of [[left, 'l4'], [right, 'l2']] as const) // prettier-ignore
      expect(findRegion({ outer: ['+l1', `+${edge}`, '+l3', 'n0', '+gone'] }, divided(30))).toEqual({ how: 'probably', found: [own], why: 'the curves round it have changed' }); // prettier-ignore
    const half = ['+l1', '+l2', '+l3', '+g1', '+g2'];
    expect(findRegion({ outer: half }, plate())).toMatchObject({ how: 'probably', found: [{ at: [30, 20] }] });
    expect(findRegion({ outer: [...half, '+g3'] }, plate())).toMatchObject({ how: 'lost', candidates: [] });
    // The left one’s curves, but right of the line: the right one has that side, and the left one is no candidate.
    const turned = left.outer.map((c) => (c.endsWith('n0') ? `${c[0] === '+' ? '-' : '+'}n0` : c));
    expect(findRegion({ outer: turned }, divided(30))).toMatchObject({ how: 'probably', found: [right] });
  });

  test('as like as another is told by its place, and lost without', () => {
    // Of four lines three are left to each: the upper and the lower half of what was one.
    const ref = { outer: ['+l2', '+l4', '+gone'] };
    const level = plate({ p: [-5, 20], q: [65, 20] }, { n: line('p', 'q') });
    expect(findRegion(ref, level)).toMatchObject({ how: 'lost', why: 'it is no longer closed' });
    const likely = { outer: ['+l2', '+l4', '+gone', 'n'] };
    const lost = findRegion(likely, level);
    expect(lost.how === 'lost' && lost.candidates.map((c) => c.map((r) => r.area))).toEqual([[1200], [1200]]);
    expect(findRegion({ ...likely, at: [30, 30] }, level)).toMatchObject({
      how: 'probably',
      found: [{ at: [30, 30] }],
    });
    expect(findRegion({ ...likely, at: [70, 30] }, level).how).toBe('lost');
  });
});

describe('one of several regions between the same curves', () => {
  /** A wave up and down through a level line. */
  const wave = (...heights: number[]) => {
    const points: Points = { h1: [-10, 0], h2: [30 * heights.length, 0] };
    heights.forEach((y, i) => (points[`w${i}`] = [30 * i, y]));
    return findRegions({
      points,
      curves: { h: line('h1', 'h2'), w: { kind: 'spline', fit: 'through', points: heights.map((_, i) => `w${i}`) } },
      constraints: {},
    });
  };
  const before = wave(-5, 10, -10, 10, -5);
  const upper = before.regions.filter((r) => r.outer.join() === '+h,-w').sort((a, b) => a.at[0] - b.at[0]);
  const [left, right] = upper as [Region, Region];
  const ref = refOf(right, before.regions);

  test('says so, and is found without a word while nothing about it changed', () => {
    expect(upper).toHaveLength(2);
    expect(ref.piece).toBe(true);
    expect(refOf(right).piece).toBeUndefined();
    expect(findRegion(ref, before)).toEqual({ how: 'one', found: [right] });
    expect(findRegion(refOf(left, before.regions), before)).toEqual({ how: 'one', found: [left] });
  });

  test('that changed is told by its place, and it is said', () => {
    const after = wave(-5, 10, -10, 12, -5);
    expect(findRegion(ref, after)).toMatchObject({
      how: 'probably',
      why: expect.stringMatching(/^2 regions lie between/),
    });
    expect(findRegion({ ...ref, at: [45, 1] }, after)).toMatchObject({ how: 'lost', candidates: [[{}], [{}]] });
    expect(findRegion({ outer: ref.outer }, after)).toMatchObject({ how: 'lost', why: '2 regions lie between the same curves' }); // prettier-ignore
  });

  test('left alone is only probable', () => {
    const alone = wave(-5, 10, -10, -12, -5);
    expect(findRegion(ref, alone)).toMatchObject({
      how: 'probably',
      why: expect.stringMatching(/only this one is left/),
    });
    expect(findRegion(refOf(right), alone).how).toBe('one');
  });
});
