/**
 * Driving: motions brought to given values step by step, the rest following. Each step begins as the last one went on,
 * so that a linkage passes its dead points the way it came.
 */
import { close, inUnits } from './close.ts';
import { stopsAt, type Stop } from './limits.ts';
import type { Coordinate, Mechanism } from './mechanism.ts';
import { leastStep } from './least.ts';
import { largestOf, placed, stepBetween, stepped, valueAt, type Placed, type Posture } from './posture.ts';
import { closureRows, driveRow, type Rows } from './rows.ts';

export interface Driver extends Coordinate {
  /** mm or rad */
  readonly to: number;
}

/** What goes on from one drive to the next. */
export interface Going {
  readonly posture: Posture;
  /** The last step, by the share of a whole one that it was; null at rest. */
  readonly last: Float64Array | null;
}

export type Driven =
  | { readonly ok: true; readonly placed: Placed; readonly last: Float64Array | null }
  | {
      readonly ok: false;
      /** As far as it went. */
      readonly placed: Placed;
      /** At a limit, or where the parts cannot follow. */
      readonly why: { readonly kind: 'limit'; readonly stop: Stop } | { readonly kind: 'jam' };
      /** Values reached, mm or rad, by driver. */
      readonly reached: readonly number[];
    };

/** Largest change of a driver in one step: rad, and the mechanism’s size. */
const STEP_TURN = 0.05;
const STEP_MOVE = 0.02;
/** A step cut below this share cannot be made. */
const LEAST_SHARE = 1 / 256;

/** @returns where the drivers came to their values; or how far they came, and why no farther */
export function drive(mechanism: Mechanism, from: Going, drivers: readonly Driver[]): Driven {
  let now = placed(mechanism, from.posture);
  let last = from.last;
  const start = drivers.map((d) => valueAt(mechanism, now, d));
  const unitOf = (d: Driver) => {
    const motion = mechanism.motionOf(d);
    return motion === 'about_z' || motion === 'screw' ? STEP_TURN : STEP_MOVE * mechanism.size;
  };
  const steps = Math.max(1, ...drivers.map((d, i) => Math.ceil(Math.abs(d.to - start[i]!) / unitOf(d))));
  const whole = 1 / steps;
  let done = 0;
  let share = whole;
  while (done < 1 - 1e-12) {
    const next = Math.min(1, done + share);
    const goals = drivers.map((d, i) => start[i]! + (d.to - start[i]!) * next);
    const made = oneStep(mechanism, now, drivers, goals, last && last.map((s) => s * ((next - done) / whole)));
    if (!made) {
      share /= 2;
      last = null;
      if (share < whole * LEAST_SHARE) return failed(mechanism, now, drivers, { kind: 'jam' });
      continue;
    }
    const [stop] = newStops(mechanism, now, made.placed);
    if (stop) {
      if (share > whole * LEAST_SHARE) {
        share /= 2;
        continue;
      }
      return failed(mechanism, now, drivers, { kind: 'limit', stop });
    }
    last = made.step.map((s) => (s * whole) / (next - done));
    done = next;
    now = made.placed;
    share = Math.min(whole, share * 2);
  }
  return { ok: true, placed: now, last };
}

/** Limits overstepped by a step: what stood outside may come back in. */
function newStops(mechanism: Mechanism, before: Placed, after: Placed): Stop[] {
  return stopsAt(mechanism, after).filter((stop) => {
    const over = (now: Placed) => Math.abs(valueAt(mechanism, now, stop) - stop.value);
    const was = stopsAt(mechanism, before).some((s) => s.pair === stop.pair && s.motion === stop.motion);
    return !was || over(after) > over(before);
  });
}

function failed(
  mechanism: Mechanism,
  now: Placed,
  drivers: readonly Driver[],
  why: Extract<Driven, { ok: false }>['why'],
): Driven {
  return { ok: false, placed: now, why, reached: drivers.map((d) => valueAt(mechanism, now, d)) };
}

function oneStep(
  mechanism: Mechanism,
  now: Placed,
  drivers: readonly Driver[],
  goals: readonly number[],
  going: Float64Array | null,
): { placed: Placed; step: Float64Array } | null {
  const further = (at: Placed, rows: Rows) =>
    drivers.forEach((d, i) => rows.add(...driveRow(mechanism, at, d, goals[i]!), ''));
  const ahead = going ?? predicted(mechanism, now, further);
  const guess = stepped(mechanism, now.posture, inUnits(mechanism, ahead));
  const { placed: after, closed } = close(mechanism, guess, { further, most: 10 });
  if (!closed) return null;
  const step = stepBetween(mechanism, now.posture, after.posture);
  const bent = largestOf(stepBetween(mechanism, guess, after.posture));
  // Closing that bends a step by more than half has found another branch, or the step was too long.
  return bent <= 0.5 * largestOf(ahead) + 1e-6 ? { placed: after, step } : null;
}

function predicted(mechanism: Mechanism, now: Placed, further: (at: Placed, rows: Rows) => void): Float64Array {
  const rows = closureRows(mechanism, now);
  further(now, rows);
  return leastStep(
    rows.by,
    rows.off.map((r) => -r),
    mechanism.columns.length,
    0,
  );
}
