/** Motions that may go only so far. */
import { drivable } from './kinds.ts';
import type { Coordinate, Mechanism } from './mechanism.ts';
import { valueAt, type Placed } from './posture.ts';
import { driveRow } from './rows.ts';

/** Limits are kept to this, in the mechanism’s size or rad. */
const SLACK = 1e-9;

export interface Stop extends Coordinate {
  readonly at: 'min' | 'max';
  /** mm or rad */
  readonly value: number;
}

const bounded = new WeakMap<Mechanism, readonly Coordinate[]>();

/** Motions that have a limit. */
function limitedMotions(mechanism: Mechanism): readonly Coordinate[] {
  const known = bounded.get(mechanism);
  if (known) return known;
  const found = mechanism.pairs.flatMap(({ kind, limits }, pair) =>
    drivable(kind).flatMap((_, motion) => {
      const own = limits?.[motion];
      return own && (own.min !== null || own.max !== null) ? [{ pair, motion }] : [];
    }),
  );
  bounded.set(mechanism, found);
  return found;
}

/** Limits that are overstepped, or as far as they go. */
export function stopsAt(mechanism: Mechanism, now: Placed): Stop[] {
  return limitedMotions(mechanism).flatMap((coordinate): Stop[] => {
    const { min, max } = mechanism.pairs[coordinate.pair]!.limits![coordinate.motion]!;
    const value = valueAt(mechanism, now, coordinate);
    if (min !== null && value < min - SLACK) return [{ ...coordinate, at: 'min', value: min }];
    return max !== null && value > max + SLACK ? [{ ...coordinate, at: 'max', value: max }] : [];
  });
}

/** Rows that bring stopped motions to where they stop. */
export const stopRows = (mechanism: Mechanism, now: Placed, stops: readonly Stop[]) =>
  stops.map((stop) => driveRow(mechanism, now, stop, stop.value));

/** Of every limit how far it may still be gone towards, as rows of which by·step is to be `want` or more (in units). */
export function limitGaps(mechanism: Mechanism, now: Placed): { by: Float64Array; want: number }[] {
  return limitedMotions(mechanism).flatMap((coordinate) => {
    const { min, max } = mechanism.pairs[coordinate.pair]!.limits![coordinate.motion]!;
    const gaps: { by: Float64Array; want: number }[] = [];
    if (min !== null) {
      const [over, by] = driveRow(mechanism, now, coordinate, min);
      gaps.push({ by, want: -over });
    }
    if (max !== null) {
      const [over, by] = driveRow(mechanism, now, coordinate, max);
      gaps.push({ by: by.map((f) => -f), want: over });
    }
    return gaps;
  });
}

const key = ({ pair, motion }: Coordinate) => `${pair}.${motion}`;
/** Those of the first, and of the second that are not of the same motion. */
export const withStops = (held: readonly Stop[], more: readonly Stop[]): Stop[] => {
  const known = new Set(held.map(key));
  return [...held, ...more.filter((s) => !known.has(key(s)))];
};
