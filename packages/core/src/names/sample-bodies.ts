/** For tests: bodies as finding needs them, stated without a kernel. */
import type { Vec3 } from '../space/vector.ts';
import { nameOf, readName, type Name } from './name.ts';

/** A side of a profile, from its place to the next one’s; `also` are further names of its face. */
export interface Side {
  readonly name: string;
  readonly from: readonly [x: number, z: number];
  readonly also?: readonly string[];
}

const read = (text: string): Name => readName(text)!;

/**
 * A profile in x and z, run round with the material on its left, pushed along y: a face a side, in order, then `e:start`
 * at y = 0 and `e:end` at y = `width`; edges along y at the beginning of each side, then those of the two caps.
 */
export function prism(sides: readonly Side[], width = 10, name = nameOf('e', 'body')) {
  const n = sides.length;
  const [start, end] = [n, n + 1];
  const plane = { kind: 'plane', area: 1, radius: null, axis: null, hollow: null } as const;
  const at = (i: number, y: number): Vec3 => [sides[i % n]!.from[0], y, sides[i % n]!.from[1]];
  const middle = (a: Vec3, b: Vec3): Vec3 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
  const mean = (y: number): Vec3 => [sides.reduce((sum, s) => sum + s.from[0], 0) / n, y, sides.reduce((sum, s) => sum + s.from[1], 0) / n]; // prettier-ignore
  const faces = [
    ...sides.map((_, i) => {
      const [p, q] = [at(i, 0), at(i + 1, width)];
      const long = Math.hypot(q[0] - p[0], q[2] - p[2]);
      const normal: Vec3 = [(q[2] - p[2]) / long, 0, (p[0] - q[0]) / long];
      return { ...plane, center: middle(p, q), normal };
    }),
    { ...plane, center: mean(0), normal: [0, -1, 0] as Vec3 },
    { ...plane, center: mean(width), normal: [0, 1, 0] as Vec3 },
  ];
  const line = { kind: 'line', length: 1, radius: null, axis: null } as const;
  const edges = [
    ...sides.map((_, i) => ({ ...line, faces: [(i + n - 1) % n, i], ends: [2 * i, 2 * i + 1], middle: middle(at(i, 0), at(i, width)) })), // prettier-ignore
    ...[start, end].flatMap(
      (cap, k) =>
      sides.map((_, i) => ({ ...line, faces: [i, cap], ends: [2 * i + k, 2 * ((i + 1) % n) + k], middle: middle(at(i, k * width), at(i + 1, k * width)) })), // prettier-ignore
    ),
  ];
  return {
    name,
    faceNames: [...sides.map((s) => [s.name, ...(s.also ?? [])].map(read)), [read('e:start')], [read('e:end')]],
    facts: { faces, edges, corners: sides.flatMap((_, i) => [at(i, 0), at(i, width)]), center: mean(width / 2) },
  };
}

/** A block of 60 by 20 by `width`: floor, right, top, left. */
export const block = (high = 20): Side[] => [
  { name: 'e:side:floor', from: [0, 0] },
  { name: 'e:side:right', from: [60, 0] },
  { name: 'e:side:top', from: [60, high] },
  { name: 'e:side:left', from: [0, high] },
];

/** The block with grooves down into its top, each from one x to another, made by the step `g` one after the other. */
export function grooved(...grooves: readonly (readonly [number, number])[]): Side[] {
  const [floor, right, top, left] = block() as [Side, Side, Side, Side];
  const cuts = [...grooves.entries()].reverse().flatMap(([k, [a, b]]): Side[] => [
    { name: `g${k}:side:right`, from: [b, 20] },
    { name: `g${k}:side:floor`, from: [b, 15] },
    { name: `g${k}:side:left`, from: [a, 15] },
    { ...top, from: [a, 20] },
  ]);
  return [floor, right, top, ...cuts, left];
}
