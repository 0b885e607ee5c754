/** Two points, or two curves point by point, mirror each other across a line. */
import { symmetric as mirrored } from '../equations/midpoint.ts';
import { pointsOf } from '../schema.ts';
import type { LineSlots } from '../solver/equation.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse, type Equating } from './operands.ts';

export const symmetric = declareConstraint('symmetric', {
  follows: ({ of }) => [of[1]!, of[0]!],

  equations(id, { of }, on) {
    const message = 'Symmetric needs two points, or two curves of a kind, and the line between them.';
    const axis = on.line(of[2]!, message);
    const { points } = on.slots;
    if (points.has(of[0]!) || points.has(of[1]!))
      return mirrored(id, on.point(of[0]!, message), on.point(of[1]!, message), axis);
    const [a, b] = [on.sketch.curves[of[0]!], on.sketch.curves[of[1]!]];
    if (!a || !b || a.kind !== b.kind) refuse(message);
    const [from, to] = [pointsOf(a), pointsOf(b)];
    if (from.length !== to.length) refuse(message);
    // Mirrored, an arc runs the other way round.
    const turned = a.kind === 'arc' || a.kind === 'elliptical_arc';
    const swapped = turned
      ? [...to.slice(0, -2), to.at(-1)!, to.at(-2)!]
      : (a.kind === 'line' || a.kind === 'spline') && liesOpposite(from, [...to].reverse(), to, axis, on)
        ? [...to].reverse()
        : to;
    return from.flatMap((p, i) => {
      const pair = [p, swapped[i]!];
      const key = `${pair.sort().join()} ${of[2]}`;
      if (on.mirrored.has(key) || pair[0] === pair[1]) return [];
      on.mirrored.add(key);
      return mirrored(id, points.get(p)!, points.get(swapped[i]!)!, axis);
    });
  },
});

/** As drawn, do these points lie opposite their partners rather than those do? A profile drawn round has its halves run contrary. */
function liesOpposite(
  from: readonly string[],
  these: readonly string[],
  those: readonly string[],
  axis: LineSlots,
  { v, slots }: Equating,
): boolean {
  const [ax, ay] = [v[axis.from.x]!, v[axis.from.y]!];
  const [dx, dy] = [v[axis.to.x]! - ax, v[axis.to.y]! - ay];
  const square = Math.max(dx * dx + dy * dy, 1e-300);
  const away = (partners: readonly string[]) =>
    from.reduce((sum, id, i) => {
      const [p, q] = [slots.points.get(id)!, slots.points.get(partners[i]!)!];
      const t = ((v[p.x]! - ax) * dx + (v[p.y]! - ay) * dy) / square;
      const [mx, my] = [2 * (ax + t * dx) - v[p.x]!, 2 * (ay + t * dy) - v[p.y]!];
      return sum + Math.hypot(v[q.x]! - mx, v[q.y]! - my);
    }, 0);
  return away(these) < away(those) * (1 - 1e-9);
}
