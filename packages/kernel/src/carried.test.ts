/** Profiles turned and grown on their way, against what Pappus says of areas that turn as they go. */
import { describe, expect, test } from '@jest/globals';
import type { Step } from '@helb/core';
import { all, designOf, drawn, evaluated, last, outline, rectangle, round, straight, swept, volume, type At } from './sample-parts.ts'; // prettier-ignore

const line = (from: string, to: string) => ({ kind: 'line', from, to });
/** Straight up, a quarter bend of radius 20, and on to the right. */
const bent = drawn({ a: [0, 0], b: [0, 30], c: [20, 30], d: [20, 50], e: [45, 50] }, { l: line('a', 'b'), r: { kind: 'arc', center: 'c', from: 'd', to: 'b' }, m: line('d', 'e') }); // prettier-ignore
const bentLength = 30 + (Math.PI / 2) * 20 + 25;
/** A quarter of a circle of this radius, up from the origin and over to the right. */
const quarter = (radius: number) => drawn({ a: [0, 0], c: [radius, 0], d: [radius, radius] }, { r: { kind: 'arc', center: 'c', from: 'd', to: 'a' } }); // prettier-ignore
const bar = outline(rectangle(-2, -3, 4, 6));
const twisted = (twist: string, more: Partial<Step> = {}) => swept(all, { twist, ...more });

/** By Simpson's rule over 0 … 1. */
function integral(f: (t: number) => number): number {
  const n = 400;
  return Array.from({ length: n }, (_, i) => (f(i / n) + 4 * f((i + 0.5) / n) + f((i + 1) / n)) / (6 * n)).reduce((a, b) => a + b); // prettier-ignore
}

describe('a twist', () => {
  /** Of a bar whose middle lies 5 mm off its path, into the bend at first: how much longer or shorter its middle goes. */
  const offset = (radius: number, twist: number) => integral((t) => 1 - (5 / radius) * Math.cos(twist * t));
  test.each<[string, Record<string, Step>, number]>([
    ['straight up', { s: bar, q: straight(20), w: twisted('120 deg') }, 24 * 20],
    ['round a bend', { s: bar, q: bent, w: twisted('150 deg') }, 24 * bentLength],
    ['the other way', { s: bar, q: bent, w: twisted('-400 deg') }, 24 * bentLength],
    ['of a bar beside its path', { s: outline(rectangle(3, -1, 4, 2)), q: quarter(30), w: twisted('200 deg') }, 8 * 15 * Math.PI * offset(30, (200 / 180) * Math.PI)], // prettier-ignore
    ['growing as it goes', { s: bar, q: bent, w: twisted('90 deg', { grown: '0.5' }) }, (24 * bentLength * (1 + 0.5 + 0.25)) / 3], // prettier-ignore
    ['of a round bar with a bore', { s: round(3, {}, [0, 0], 2), q: quarter(25), w: twisted('360 deg', { profile: { sketch: 's', regions: [{ outer: ['+o'], holes: [['+i']] }] } }) }, Math.PI * 5 * 12.5 * Math.PI], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 6);
  });

  test('along a free curve goes its length', async () => {
    const control: At[] = [[0, 0], [0, 20], [25, 20], [25, 45]]; // prettier-ignore
    const points = Object.fromEntries(control.map((p, i) => [`p${i}`, p]));
    const free = drawn(points, { f: { kind: 'spline', fit: 'control', points: Object.keys(points) } });
    const slope = (t: number, k: 0 | 1) => 3 * ((1 - t) ** 2 * (control[1]![k] - control[0]![k]) + 2 * t * (1 - t) * (control[2]![k] - control[1]![k]) + t * t * (control[3]![k] - control[2]![k])); // prettier-ignore
    const long = integral((t) => Math.hypot(slope(t, 0), slope(t, 1)));
    expect((await volume({ s: bar, q: free, w: twisted('180 deg') })) / (24 * long)).toBeCloseTo(1, 6);
  });

  test.each<[string, At, readonly [number, number, number]]>([
    ['along a straight line', [0, 20], [0, 5, 20]],
    ['round a bend', [20, 20], [20, 5, 20]],
  ])('%s turns what is at its end by so much, counter-clockwise', async (_, [x, y], middle) => {
    const path = x === 0 ? straight(y) : quarter(x);
    const { bodies } = await evaluated(designOf({ s: outline(rectangle(2, -1, 6, 2)), q: path, w: twisted('90 deg') }));
    const way = x === 0 ? 2 : 0;
    const end = bodies[0]!.facts.faces.find((f) => f.normal && f.normal[way] > 0.99)!;
    expect(end.center).toEqual(middle.map((c) => expect.closeTo(c, 4)));
  });
});

describe('a guide', () => {
  const guide = (points: Record<string, At>, curves: Record<string, unknown>) => ({ ...drawn(points, curves), name: 'Guide' }); // prettier-ignore
  const beside = (from: At, to: At) => guide({ a: from, b: to }, { l: line('a', 'b') });
  const guided = (more: Partial<Step> = {}) => swept(all, { held: 'guide', guide: { sketch: 'g' }, ...more } as Partial<Step>); // prettier-ignore
  const met = guided({ meeting: true } as Partial<Step>);
  const ball = guide({ m: [0, 0], a: [50, 0], b: [30, 40] }, { c: { kind: 'arc', center: 'm', from: 'a', to: 'b' } });
  const bentGuide = guide({ a: [-6, 0], b: [-6, 30], c: [20, 30], d: [20, 56], e: [45, 56] }, { l: line('a', 'b'), r: { kind: 'arc', center: 'c', from: 'd', to: 'b' }, m: line('d', 'e') }); // prettier-ignore
  const hollow = { ...outline(rectangle(-4, -3, 8, 6)), points: { ...outline(rectangle(-4, -3, 8, 6)).points, c: [0, 0] }, curves: { ...outline(rectangle(-4, -3, 8, 6)).curves, o: { kind: 'circle', center: 'c', radius: 2 } } } as Step; // prettier-ignore
  /** About a middle 4 mm further right than the path's: at angle θ of the path so far outside it, over what it was. */
  const eccentric = (theta: number) =>
    (-4 * Math.cos(theta) + Math.sqrt(40 ** 2 - (4 * Math.sin(theta)) ** 2) - 30) / 6;
  test.each<[string, Record<string, Step>, number]>([
    ['keeping its size', { s: bar, q: straight(40), g: beside([5, 0], [12, 40]), w: guided() }, 24 * 40],
    ['keeping its size round a bend', { s: bar, q: bent, g: bentGuide, w: guided() }, 24 * bentLength],
    ['keeping its size, growing by a number', { s: bar, q: straight(40), g: beside([5, 0], [12, 40]), w: guided({ grown: '2' } as Partial<Step>) }, (24 * 40 * 7) / 3], // prettier-ignore
    ['met: a cone (prismatoid)', { s: round(5), q: straight(40), g: beside([5, 0], [10, 40]), w: met }, (Math.PI * 40 * (25 + 50 + 100)) / 3], // prettier-ignore
    ['met: a hollow bar, the guide drawn from its far end', { s: hollow, q: straight(30), g: beside([8, 30], [4, 0]), w: swept({ sketch: 's', regions: [{ outer: ['+l0', '+l1', '+l2', '+l3'], holes: [['+o']] }] }, { held: 'guide', guide: { sketch: 'g' }, meeting: true } as Partial<Step>) }, ((48 - 4 * Math.PI) * 30 * (1 + 2 + 4)) / 3], // prettier-ignore
    ['met: an arc beside a straight path', { s: round(5), q: straight(40), g: ball, w: met }, Math.PI * 25 * (40 - 64000 / 3 / 2500)], // prettier-ignore
    ['met along a bend with it', { s: round(3), q: bent, g: bentGuide, w: met }, Math.PI * 9 * bentLength],
    ['met along a bend, going away', { s: round(3), q: quarter(30), g: guide({ m: [34, 0], a: [-6, 0], b: [30, Math.sqrt(1600 - 16)] }, { c: { kind: 'arc', center: 'm', from: 'b', to: 'a' } }), w: met }, Math.PI * 9 * 30 * (Math.PI / 2) * integral((t) => eccentric((t * Math.PI) / 2) ** 2)], // prettier-ignore
    ['met with a corner in it', { s: round(5), q: straight(40), g: guide({ a: [5, 0], b: [10, 20], c: [5, 40] }, { l: line('a', 'b'), m: line('b', 'c') }), w: met }, (2 * Math.PI * 20 * (25 + 50 + 100)) / 3], // prettier-ignore
    ['met on a path drawn from its far end', { s: round(5), q: drawn({ a: [0, 40], b: [0, 0] }, { l: line('a', 'b') }), g: beside([5, 0], [10, 40]), w: met }, (Math.PI * 40 * (25 + 50 + 100)) / 3], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 6);
  });

  test.each<[string, Record<string, Step>, RegExp]>([
    ['a guide that touches the path', { s: round(5), q: straight(40), g: beside([5, 0], [-5, 40]), w: guided() }, /touches its path/], // prettier-ignore
    ['one that is too short', { s: round(5), q: straight(40), g: beside([5, 5], [5, 30]), w: met }, /begin and end level with its path \(10.000 mm off\)/], // prettier-ignore
    ['one that turns back', { s: round(5), q: straight(40), g: guide({ a: [5, 0], b: [15, 25], c: [20, 15], d: [5, 40] }, { l: line('a', 'b'), m: line('b', 'c'), n: line('c', 'd') }), w: guided() }, /turns back or runs across/], // prettier-ignore
    ['a profile to be met that does not lie where the path begins', { s: round(3), q: drawn({ a: [0, 2], b: [0, 40] }, { l: line('a', 'b') }), g: beside([5, 2], [5, 40]), w: met }, /lies where the path begins and square to it/], // prettier-ignore
    ['growing by a number as well', { s: round(3), q: straight(40), g: beside([5, 0], [12, 40]), w: guided({ grown: '2', meeting: true } as Partial<Step>) }, /does not grow by a number/], // prettier-ignore
    ['none yet', { s: round(3), q: straight(40), w: swept(all, { held: 'guide' } as Partial<Step>) }, /No path is chosen yet/], // prettier-ignore
    ['a twist round a corner', { s: round(3), q: drawn({ a: [0, 0], b: [0, 20], c: [20, 20] }, { l: line('a', 'b'), m: line('b', 'c') }), w: twisted('90 deg') }, /^Path has corners/], // prettier-ignore
    ['a twist all round', { s: round(2, { plane: { datum: 'wall' } }, [15, 0]), q: { ...round(15), name: 'Path' }, w: twisted('90 deg') }, /comes back to where it begins/], // prettier-ignore
    ['a twist of what is held level', { s: bar, q: bent, w: twisted('90 deg', { held: 'along', direction: { datum: 'y' } } as Partial<Step>) }, /hold the profile evenly/], // prettier-ignore
    ['a twist along a helix', { s: bar, q: { kind: 'helix', name: 'Helix', axis: { datum: 'z' }, at: { origin: true }, radius: '10 mm', pitch: '16 mm', turns: '3', taper: '0 deg' } as Step, w: twisted('90 deg', { path: { step: 'q' } }) }, /^Along a helix/], // prettier-ignore
    ['a twisted bar too wide for its bend', { s: outline(rectangle(-2, -13, 4, 26)), q: quarter(12), w: twisted('90 deg') }, /^Carried along Path, the profile runs into itself/], // prettier-ignore
  ])('%s is refused', async (_, steps, says) => {
    const outcome = await evaluated(designOf(steps));
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});
