/** Where things go: turned, mirrored or enlarged, then moved. */
import { cross, dot, type Axis, type Frame, type Vec3 } from './vector.ts';

type Row = readonly [number, number, number, number];
/** Rows of a 3 by 4 matrix: what p becomes is (row₀·(p, 1), row₁·(p, 1), row₂·(p, 1)). */
export type Transform = readonly [Row, Row, Row];

export const STAY: Transform = [
  [1, 0, 0, 0],
  [0, 1, 0, 0],
  [0, 0, 1, 0],
];

export function shiftBy([x, y, z]: Vec3): Transform {
  return [
    [1, 0, 0, x],
    [0, 1, 0, y],
    [0, 0, 1, z],
  ];
}

/** Counter-clockwise about the axis, rad (Rodrigues). */
export function turnAbout({ origin, direction }: Axis, angle: number): Transform {
  const [x, y, z] = direction;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const t = 1 - c;
  return keeping(origin, [
    [c + t * x * x, t * x * y - s * z, t * x * z + s * y],
    [t * x * y + s * z, c + t * y * y, t * y * z - s * x],
    [t * x * z - s * y, t * y * z + s * x, c + t * z * z],
  ]);
}

/** To the other side of a plane (Householder). */
export function mirrorIn({ origin, normal: n }: Pick<Frame, 'origin' | 'normal'>): Transform {
  const row = (i: 0 | 1 | 2): Vec3 => [-2 * n[i] * n[0], -2 * n[i] * n[1], -2 * n[i] * n[2]];
  const [a, b, c] = [row(0), row(1), row(2)];
  return keeping(origin, [
    [1 + a[0], a[1], a[2]],
    [b[0], 1 + b[1], b[2]],
    [c[0], c[1], 1 + c[2]],
  ]);
}

/** Alike in all directions, about a point that stays. */
export function enlargeAbout(about: Vec3, factor: number): Transform {
  return keeping(about, [
    [factor, 0, 0],
    [0, factor, 0],
    [0, 0, factor],
  ]);
}

function keeping(point: Vec3, [a, b, c]: readonly [Vec3, Vec3, Vec3]): Transform {
  return [
    [...a, point[0] - dot(a, point)],
    [...b, point[1] - dot(b, point)],
    [...c, point[2] - dot(c, point)],
  ];
}

/** First the one, then the other. */
export function followedBy(first: Transform, then: Transform): Transform {
  const row = (r: Row): Row => {
    const at = (i: 0 | 1 | 2 | 3) => r[0] * first[0][i] + r[1] * first[1][i] + r[2] * first[2][i];
    return [at(0), at(1), at(2), at(3) + r[3]];
  };
  return [row(then[0]), row(then[1]), row(then[2])];
}

export function movedPoint([a, b, c]: Transform, [x, y, z]: Vec3): Vec3 {
  const at = (r: Row) => r[0] * x + r[1] * y + r[2] * z + r[3];
  return [at(a), at(b), at(c)];
}

/** Unit vectors stay unit vectors. */
export function movedDirection([a, b, c]: Transform, [x, y, z]: Vec3): Vec3 {
  const at = (r: Row) => r[0] * x + r[1] * y + r[2] * z;
  const size = Math.hypot(at(a), at(b), at(c));
  return [at(a) / size, at(b) / size, at(c) / size];
}

/** A mirrored frame would be left-handed: its y is turned about. @throws never */
export function movedFrame(to: Transform, { origin, x, normal }: Frame): Frame {
  const [along, up] = [movedDirection(to, x), movedDirection(to, normal)];
  return { origin: movedPoint(to, origin), x: along, y: cross(up, along), normal: up };
}

export function movedAxis(to: Transform, { origin, direction }: Axis): Axis {
  return { origin: movedPoint(to, origin), direction: movedDirection(to, direction) };
}

/** Does it turn a right hand into a left one? */
export function isMirrored([a, b, c]: Transform): boolean {
  const vector = ([x, y, z]: Row): Vec3 => [x, y, z];
  return dot(vector(a), cross(vector(b), vector(c))) < 0;
}

/** What takes everything back (of what turns, mirrors and enlarges alike the inverse is the transpose over the scale squared). */
export function undone([a, b, c]: Transform): Transform {
  const scale = a[0] ** 2 + b[0] ** 2 + c[0] ** 2;
  const row = (k: 0 | 1 | 2): Vec3 => [a[k] / scale, b[k] / scale, c[k] / scale];
  const by: Vec3 = [a[3], b[3], c[3]];
  const all = (k: 0 | 1 | 2): Row => [...row(k), -dot(row(k), by)];
  return [all(0), all(1), all(2)];
}
