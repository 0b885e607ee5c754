/** A detail of a view: what of it lies within a circle, to be drawn larger (ISO 128-3, partial views). */
import { onOval, ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { centripetal, type Vec2 } from '../sketch/curves/spline.ts';
import type { DrawnView } from './drawn-view.ts';
import { awayFromPiece } from './piece-places.ts';

export interface Round {
  readonly center: Vec2;
  readonly radius: number;
}

/** Stretches shorter than this, of parameter or mm, are none. */
const SHORT = 1e-7;
const TURN = 2 * Math.PI;

/** What of a drawn view lies in a circle. @param round mm of the model, in the view */
export function detailOf(view: DrawnView, round: Round): DrawnView {
  const { center, radius } = round;
  const inside = ([x, y]: Vec2) => Math.hypot(x - center[0], y - center[1]) <= radius;
  return {
    ...view,
    lines: view.lines.flatMap((line) => withinRound(line.piece, round).map((piece) => ({ ...line, piece }))),
    crosses: view.crosses.filter(({ at }) => inside(at)),
    axes: view.axes.flatMap((ends) => withinRound({ kind: 'line', points: ends }, round).flatMap((p) => (p.kind === 'line' ? [p.points] : []))), // prettier-ignore
    spots: view.spots.filter(({ piece }) => (piece.kind === 'point' ? inside(piece.points[0]) : awayFromPiece(center, piece) < radius)), // prettier-ignore
    round,
    box: [center[0] - radius, center[1] - radius, center[0] + radius, center[1] + radius],
  };
}

/** The stretches of a piece in a circle, exact but for free curves and ellipses, which are cut between close places. */
export function withinRound(piece: FlatPiece, { center, radius }: Round): FlatPiece[] {
  // What only touches the circle lies out of it.
  const inside = ([x, y]: Vec2) => Math.hypot(x - center[0], y - center[1]) < radius * (1 - 1e-9);
  if (piece.kind === 'point') return inside(piece.points[0]) ? [piece] : [];
  if (piece.kind === 'line') {
    const [a, b] = piece.points;
    const at = (t: number): Vec2 => [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
    return stretches([0, ...crossingsOfLine(a, b, center, radius), 1], at, inside).map(([s, e]) => ({ kind: 'line', points: [at(s), at(e)] })); // prettier-ignore
  }
  if (piece.kind === 'spline') return runsOf(piece.points, inside).map((points) => ({ kind: 'spline', points, parameters: centripetal(points) })); // prettier-ignore
  const oval = ovalOf(piece);
  const at = (t: number) => onOval(oval, t);
  if (piece.kind === 'circle' || piece.kind === 'arc') {
    const turns = crossingsOfCircle(oval.center, oval.long, center, radius).map((t) => oval.from + ((((t - oval.from) % TURN) + TURN) % TURN)); // prettier-ignore
    const all = [oval.from, ...turns.filter((t) => t < oval.to).sort((p, q) => p - q), oval.to];
    const found = stretches(all, at, inside);
    if (piece.kind === 'circle' && found.length === 1 && found[0]![1] - found[0]![0] > TURN - SHORT) return [piece];
    return found.map(([s, e]) => ({ kind: 'arc', points: [oval.center, at(s), at(e)] }));
  }
  const places = Array.from({ length: CLOSE + 1 }, (_, i) => at(oval.from + ((oval.to - oval.from) * i) / CLOSE));
  return places.every(inside) ? [piece] : runsOf(places, inside).map((points) => ({ kind: 'spline', points, parameters: centripetal(points) })); // prettier-ignore
}
const CLOSE = 180;

/** Between places that follow each other: those whose middle lies inside. */
function stretches(
  at: readonly number[],
  place: (t: number) => Vec2,
  inside: (p: Vec2) => boolean,
): [number, number][] {
  return at.slice(1).flatMap((to, i): [number, number][] => {
    const from = at[i]!;
    return to - from > SHORT && inside(place((from + to) / 2)) ? [[from, to]] : [];
  }); // prettier-ignore
}

function crossingsOfLine(a: Vec2, b: Vec2, center: Vec2, radius: number): number[] {
  const [dx, dy, fx, fy] = [b[0] - a[0], b[1] - a[1], a[0] - center[0], a[1] - center[1]];
  const [p, q, r] = [dx * dx + dy * dy, fx * dx + fy * dy, fx * fx + fy * fy - radius * radius];
  const d = q * q - p * r;
  if (d <= 0 || p === 0) return [];
  return [(-q - Math.sqrt(d)) / p, (-q + Math.sqrt(d)) / p].filter((t) => t > 0 && t < 1);
}

/** Angles on the first circle. */
function crossingsOfCircle(own: Vec2, r: number, center: Vec2, radius: number): number[] {
  const [dx, dy] = [center[0] - own[0], center[1] - own[1]];
  const apart = Math.hypot(dx, dy);
  const cos = (apart * apart + r * r - radius * radius) / (2 * apart * r);
  if (!(Math.abs(cos) < 1)) return [];
  const [to, by] = [Math.atan2(dy, dx), Math.acos(cos)];
  return [to - by, to + by];
}

function runsOf(points: readonly Vec2[], inside: (p: Vec2) => boolean): Vec2[][] {
  const runs: Vec2[][] = [[]];
  for (const p of points) {
    if (inside(p)) runs.at(-1)!.push(p);
    else if (runs.at(-1)!.length > 0) runs.push([]);
  }
  return runs.filter((run) => run.length > 1);
}
