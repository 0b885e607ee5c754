/** A view as it stands on the paper: its lines, hatching, centre lines, and where it is broken off. */
import type { Vec2 } from '../sketch/curves/spline.ts';
import { acrossBreak, breakLines } from './break.ts';
import { boxWithBreak } from './broken-view.ts';
import type { DrawnView } from './drawn-view.ts';
import { hatch } from './hatch.ts';
import { enlarged, line, type OnPaper } from './paper.ts';
import type { Flat4 } from './piece-places.ts';
import { inRound, pieceWithin } from './piece-within.ts';
import { piecesOn, placeOn, type PlacedView } from './placed.ts';

/** How far a centre line stands out of what it is the centre of, mm on the paper. */
const OUT = 3;

/** @param at its middle, mm on the paper. @param by paper to model */
export function placedView(id: string, view: DrawnView, at: Vec2, by: number): PlacedView {
  const [x0, y0, x1, y1] = boxWithBreak(view);
  const move: Vec2 = [at[0] - ((x0 + x1) / 2) * by, at[1] - ((y0 + y1) / 2) * by];
  const [w, h] = [((x1 - x0) / 2) * by, ((y1 - y0) / 2) * by];
  const box: Flat4 = [at[0] - w, at[1] - h, at[0] + w, at[1] + h];
  const { round, broken } = view;
  const stands = { by, move, broken };
  const to = (p: Vec2) => placeOn(stands, p);
  /** A line, of a detail as far as it lies in it. */
  const within = (a: Vec2, b: Vec2, pen: 'center' | 'smooth'): OnPaper[] =>
    round ? pieceWithin({ kind: 'line', points: [a, b] }, inRound({ center: to(round.center), radius: round.radius * by })).map((piece) => ({ is: 'curve', pen, piece })) : [line(pen, a, b)]; // prettier-ignore
  /** Hatching is laid over what is cut as if nothing were left out. */
  const acrossGap = (...ends: [Vec2, Vec2]): OnPaper[] => {
    const [a, b] = ends.map(([x, y]): Vec2 => [(x - move[0]) / by, (y - move[1]) / by]) as [Vec2, Vec2];
    return piecesOn(stands, { kind: 'line', points: [a, b] }).map((piece) => ({ is: 'curve', pen: 'smooth', piece }));
  };
  const items: OnPaper[] = view.lines.flatMap(({ piece, style }) => piecesOn(stands, piece).map((p): OnPaper => ({ is: 'curve', pen: style, piece: p }))); // prettier-ignore
  for (const { of, outline } of view.cut)
    for (const [a, b] of hatch(outline.map((piece) => enlarged(piece, by, move)), of)) items.push(...(broken ? acrossGap(a, b) : within(a, b, 'smooth'))); // prettier-ignore
  if (round) items.push({ is: 'curve', pen: 'smooth', piece: { kind: 'circle', points: [to(round.center)], radius: round.radius * by } }); // prettier-ignore
  for (const { at: center, radius } of view.crosses) {
    if (broken && acrossBreak(broken).leavesOut(center)) continue;
    const [x, y] = to(center);
    const reach = radius * by + OUT;
    for (const [a, b] of [[[x - reach, y], [x + reach, y]], [[x, y - reach], [x, y + reach]]] as const) items.push(...within(a, b, 'center')); // prettier-ignore
  }
  for (const [a, b] of view.axes) {
    const [p, q] = [to(a), to(b)];
    const long = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const [u, v] = [((q[0] - p[0]) / long) * OUT, ((q[1] - p[1]) / long) * OUT];
    items.push(line('center', [p[0] - u, p[1] - v], [q[0] + u, q[1] + v]));
  }
  if (broken) for (const [a, b] of breakLines(broken, by, move, box)) items.push(line('size', a, b));
  return { id, at, by, move, box, broken, items };
}
