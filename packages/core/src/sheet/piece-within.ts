/** The stretches of a piece that lie in a part of the plane: a circle, or one side of a line. */
import { onOval, ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { centripetal, type Vec2 } from '../sketch/curves/spline.ts';

/** A part of the plane, with where its rim is crossed. */
export interface Region {
  inside(p: Vec2): boolean;
  /** By the line from a to b: shares of it, between 0 and 1, in order. */
  ofLine(a: Vec2, b: Vec2): number[];
  /** By a circle: angles on it. */
  ofCircle(center: Vec2, radius: number): number[];
}

export interface Round {
  readonly center: Vec2;
  readonly radius: number;
}

/** Stretches shorter than this, of parameter or mm, are none. */
const SHORT = 1e-7;
const TURN = 2 * Math.PI;
const CLOSE = 180;
/** Halvings, to where a free curve crosses a rim. */
const HALVINGS = 40;

/** Within a circle; what only touches it lies out of it. */
export const inRound = ({ center, radius }: Round): Region => ({
  inside: ([x, y]) => Math.hypot(x - center[0], y - center[1]) < radius * (1 - 1e-9),
  ofLine(a, b) {
    const [dx, dy, fx, fy] = [b[0] - a[0], b[1] - a[1], a[0] - center[0], a[1] - center[1]];
    const [p, q, r] = [dx * dx + dy * dy, fx * dx + fy * dy, fx * fx + fy * fy - radius * radius];
    const d = q * q - p * r;
    if (d <= 0 || p === 0) return [];
    return [(-q - Math.sqrt(d)) / p, (-q + Math.sqrt(d)) / p].filter((t) => t > 0 && t < 1);
  },
  ofCircle(own, r) {
    const [dx, dy] = [center[0] - own[0], center[1] - own[1]];
    const apart = Math.hypot(dx, dy);
    const cos = (apart * apart + r * r - radius * radius) / (2 * apart * r);
    if (!(Math.abs(cos) < 1)) return [];
    const [to, by] = [Math.atan2(dy, dx), Math.acos(cos)];
    return [to - by, to + by];
  },
});

/** On one side of a line square to an axis. @param k 0 for x, 1 for y. @param at mm. @param sign -1 what lies below it, 1 above */
export const onSide = (k: 0 | 1, at: number, sign: -1 | 1): Region => ({
  inside: (p) => (p[k] - at) * sign >= 0,
  ofLine(a, b) {
    const t = (at - a[k]) / (b[k] - a[k]);
    return t > 0 && t < 1 ? [t] : [];
  },
  ofCircle(center, radius) {
    const share = (at - center[k]) / radius;
    if (!(Math.abs(share) < 1)) return [];
    return k === 0 ? [Math.acos(share), -Math.acos(share)] : [Math.asin(share), Math.PI - Math.asin(share)];
  },
});

/** Exact but for free curves and ellipses, which are cut between close places. */
export function pieceWithin(piece: FlatPiece, region: Region): FlatPiece[] {
  if (piece.kind === 'point') return region.inside(piece.points[0]) ? [piece] : [];
  if (piece.kind === 'line') {
    const [a, b] = piece.points;
    const at = (t: number): Vec2 => [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
    return stretches([0, ...region.ofLine(a, b), 1], at, region).map(([s, e]) => ({ kind: 'line', points: [at(s), at(e)] })); // prettier-ignore
  }
  if (piece.kind === 'spline') return runsOf(piece.points, region).map((points) => ({ kind: 'spline', points, parameters: centripetal(points) })); // prettier-ignore
  const oval = ovalOf(piece);
  const at = (t: number) => onOval(oval, t);
  if (piece.kind === 'circle' || piece.kind === 'arc') {
    const turns = region.ofCircle(oval.center, oval.long).map((t) => oval.from + ((((t - oval.from) % TURN) + TURN) % TURN)); // prettier-ignore
    const all = [oval.from, ...turns.filter((t) => t < oval.to).sort((p, q) => p - q), oval.to];
    const found = stretches(all, at, region);
    if (piece.kind === 'circle' && found.length === 1 && found[0]![1] - found[0]![0] > TURN - SHORT) return [piece];
    return found.map(([s, e]) => ({ kind: 'arc', points: [oval.center, at(s), at(e)] }));
  }
  const places = Array.from({ length: CLOSE + 1 }, (_, i) => at(oval.from + ((oval.to - oval.from) * i) / CLOSE));
  return places.every((p) => region.inside(p)) ? [piece] : runsOf(places, region).map((points) => ({ kind: 'spline', points, parameters: centripetal(points) })); // prettier-ignore
}

/** Between places that follow each other: those whose middle lies inside. */
function stretches(at: readonly number[], place: (t: number) => Vec2, { inside }: Region): [number, number][] {
  return at.slice(1).flatMap((to, i): [number, number][] => {
    const from = at[i]!;
    return to - from > SHORT && inside(place((from + to) / 2)) ? [[from, to]] : [];
  });
}

/** Runs of places that follow each other inside, led on to the rim. */
function runsOf(points: readonly Vec2[], { inside }: Region): Vec2[][] {
  const runs: Vec2[][] = [];
  let run: Vec2[] | null = null;
  points.forEach((p, i) => {
    const before = points[i - 1];
    const isIn = inside(p);
    if (isIn && !run) runs.push((run = before ? [rimBetween(p, before, inside)] : []));
    if (isIn) run!.push(p);
    else if (run) {
      run.push(rimBetween(before!, p, inside));
      run = null;
    }
  });
  return runs.filter((found) => found.length > 1);
}

function rimBetween(within: Vec2, without: Vec2, inside: (p: Vec2) => boolean): Vec2 {
  let [a, b] = [within, without];
  for (let i = 0; i < HALVINGS; i++) {
    const middle: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    if (inside(middle)) a = middle;
    else b = middle;
  }
  return a;
}
