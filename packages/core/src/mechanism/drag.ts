/**
 * Dragging: a point of a link goes as near to a place as the mechanism lets. Each step stacks closure rows (heavy) with
 * the pull (light), damped, and is then projected; it is cut where it would not close, be bent too far by closing, or
 * leave the pointer further off, so that no branch flips and no loop opens.
 */
import type { Vec3 } from '../space/vector.ts';
import { dot, minus } from '../space/vector.ts';
import { close, inUnits, limited, rowsThatSayAll } from './close.ts';
import { leastStep } from './least.ts';
import { stopRows, stopsAt, withStops, type Stop } from './limits.ts';
import type { Mechanism } from './mechanism.ts';
import { largestOf, placed, pointAt, stepBetween, stepped, type Placed, type Posture } from './posture.ts';
import { closureRows, speedAt, type Rows } from './rows.ts';

export interface Grip {
  readonly link: number;
  /** In the link, mm. */
  readonly at: Vec3;
  /** Where it is wanted, mm. */
  readonly to: Vec3;
  /** Directions that count, unit length; the two of the screen, or all three of space. */
  readonly along: readonly Vec3[];
}

/** Rows that must hold are so much heavier than the pull. */
const CLOSURE_WEIGHT = 1e3;
const DAMPING = 1e-5;
const FARTHEST_TURN = 0.2;
const FARTHEST_MOVE = 0.05;
const MOST_STEPS = 10;
const MOST_TRIES = 30;
const CUT_TO = 0.35;
/** A predicted gain smaller than this share of what is left is not worth a step. */
const LEAST_GAIN = 0.002;

export interface Dragged {
  readonly placed: Placed;
  /** How far the point still is from where it is wanted, mm. */
  readonly left: number;
  /** Limits that hold it. */
  readonly stops: readonly Stop[];
}

/** @returns the posture after; the one before where nothing can move */
export function drag(mechanism: Mechanism, from: Posture, grip: Grip): Dragged {
  let now = placed(mechanism, from);
  let left = distanceOf(now, grip);
  let stops: Stop[] = [];
  let accepted = 0;
  let share = 1;
  for (let tried = 0; tried < MOST_TRIES && accepted < MOST_STEPS && left > 1e-9 * mechanism.size; tried++) {
    const { step, gain } = pull(mechanism, now, grip, stops);
    if (gain < LEAST_GAIN * left) break;
    const whole = capped(mechanism, step);
    const part = share < 1 ? whole.map((s) => s * share) : whole;
    const outcome = tryStep(mechanism, now, part, stops);
    const over = outcome ? stopsAt(mechanism, outcome) : [];
    if (outcome && over.length > 0) {
      // Pulled anew with what stops it held at its limit, so that it slides along that.
      const more = withStops(stops, over);
      if (more.length === stops.length) break;
      stops = more;
      continue;
    }
    const away = outcome ? distanceOf(outcome, grip) : Infinity;
    if (!outcome || away >= left) {
      share *= CUT_TO;
      if (share < 1e-3) break;
      continue;
    }
    now = outcome;
    left = away;
    accepted++;
    share = Math.min(1, share / CUT_TO);
  }
  return { placed: now, left, stops };
}

/** Where a step leads once it is closed; null where that bends it too far. */
function tryStep(mechanism: Mechanism, now: Placed, part: Float64Array, stops: readonly Stop[]): Placed | null {
  const ahead = stepped(mechanism, now.posture, inUnits(mechanism, part));
  const keep = (at: Placed, rows: Rows) => stopRows(mechanism, at, stops).forEach(([off, by]) => rows.add(off, by, ''));
  const { placed: after, closed } = close(mechanism, ahead, { most: 6, further: stops.length > 0 ? keep : undefined });
  const bent = largestOf(stepBetween(mechanism, ahead, after.posture));
  return closed && bent <= 0.5 * largestOf(part) + 1e-12 ? after : null;
}

/** The step that the pull asks for, and how much nearer it promises to bring the point, mm. */
function pull(
  mechanism: Mechanism,
  now: Placed,
  grip: Grip,
  stops: readonly Stop[],
): { step: Float64Array; gain: number } {
  const { size } = mechanism;
  const width = mechanism.columns.length;
  const { units } = mechanism;
  const rows: Float64Array[] = [];
  const rhs: number[] = [];
  const said = rowsThatSayAll(mechanism);
  const all = closureRows(mechanism, now, said);
  const closure = said ? all.only(said, all.off.length) : all;
  const firm: [number, Float64Array][] = closure.by.map((by, i) => [closure.off[i]!, by]);
  firm.push(...stopRows(mechanism, now, stops));
  for (const [off, by] of firm) {
    rows.push(by.map((f) => f * CLOSURE_WEIGHT));
    rhs.push(-off * CLOSURE_WEIGHT);
  }
  const p = pointAt(now, grip.link, grip.at);
  const d = minus(grip.to, p);
  const pulls = grip.along.map((along) => {
    const by = new Float64Array(width);
    for (const k of mechanism.paths[grip.link]!) by[k] = (units[k]! * dot(speedAt(now.twists, k, p), along)) / size;
    return { by, want: dot(d, along) / size };
  });
  for (const { by, want } of pulls) {
    rows.push(by);
    rhs.push(want);
  }
  const step = leastStep(rows, rhs, width, DAMPING);
  const before = Math.hypot(...pulls.map((r) => r.want));
  const after = Math.hypot(...pulls.map(({ by, want }) => want - by.reduce((sum, f, k) => sum + f * step[k]!, 0)));
  return { step, gain: (before - after) * size };
}

function capped(mechanism: Mechanism, step: Float64Array): Float64Array {
  let factor = 1;
  for (const [k, { turns }] of mechanism.columns.entries()) {
    const most = turns ? FARTHEST_TURN : FARTHEST_MOVE;
    if (Math.abs(step[k]!) * factor > most) factor = most / Math.abs(step[k]!);
  }
  return factor < 1 ? limited(step, largestOf(step) * factor) : step;
}

function distanceOf(now: Placed, { link, at, to, along }: Grip): number {
  const d = minus(to, pointAt(now, link, at));
  return Math.hypot(...along.map((a) => dot(d, a)));
}
