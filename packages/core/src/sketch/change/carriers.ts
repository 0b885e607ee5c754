import { distance, onRound, turn, type Round, type Segment, type Vec2 } from '../regions/primitives.ts';

/** Where the full lines and circles under two curves cross. */
export function carrierCrossings(a: Segment | Round, b: Segment | Round): Vec2[] {
  if (a.kind === 'arc' && b.kind === 'line') return carrierCrossings(b, a);
  if (a.kind === 'line' && b.kind === 'line') {
    const [ux, uy, vx, vy] = [a.to[0] - a.from[0], a.to[1] - a.from[1], b.to[0] - b.from[0], b.to[1] - b.from[1]];
    const cross = ux * vy - uy * vx;
    if (Math.abs(cross) < 1e-12 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return [];
    const t = ((b.from[0] - a.from[0]) * vy - (b.from[1] - a.from[1]) * vx) / cross;
    return [[a.from[0] + t * ux, a.from[1] + t * uy]];
  }
  if (a.kind === 'line') {
    const round = b as Round;
    const size = distance(a.from, a.to);
    const u: Vec2 = [(a.to[0] - a.from[0]) / size, (a.to[1] - a.from[1]) / size];
    const along = (round.center[0] - a.from[0]) * u[0] + (round.center[1] - a.from[1]) * u[1];
    const foot: Vec2 = [a.from[0] + along * u[0], a.from[1] + along * u[1]];
    const half = Math.sqrt(round.radius ** 2 - distance(foot, round.center) ** 2);
    return Number.isNaN(half) ? [] : [1, -1].map((s): Vec2 => [foot[0] + s * half * u[0], foot[1] + s * half * u[1]]);
  }
  const other = b as Round;
  const d = distance(a.center, other.center);
  const along = (d * d + a.radius ** 2 - other.radius ** 2) / (2 * d);
  const half = Math.sqrt(a.radius ** 2 - along ** 2);
  if (!(d > 1e-12) || Number.isNaN(half)) return [];
  const angle = turn(Math.atan2(other.center[1] - a.center[1], other.center[0] - a.center[0]));
  return [1, -1].map((s) => onRound(a, angle + s * Math.atan2(half, along)));
}
