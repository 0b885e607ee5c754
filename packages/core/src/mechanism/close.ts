/** Bringing a posture to where all rows hold, by least steps. */
import type { Mechanism } from './mechanism.ts';
import { independentRows, leastStep } from './least.ts';
import { counted, largestOf, placed, stepped, type Placed, type Posture } from './posture.ts';
import { closureRows, isClosed, Rows } from './rows.ts';

/** Rows off by no more than this hold: lengths in the mechanism’s size, angles in rad. */
export const CLOSED = 1e-9;

/** More rows that are to hold, besides those of the mechanism. */
export type Further = (now: Placed, rows: Rows) => void;

export interface Closing {
  readonly placed: Placed;
  /** How far the worst row is off. */
  readonly off: number;
  readonly closed: boolean;
}

/** Which rows say all, kept for a mechanism and chosen anew where they do not. */
const chosenRows = new WeakMap<Mechanism, ReadonlySet<number>>();

/** Which of its rows say all that all of them say, as far as was seen. */
export const rowsThatSayAll = (mechanism: Mechanism): ReadonlySet<number> | undefined => chosenRows.get(mechanism);

/**
 * @param most Newton steps
 * @param farthest no step larger than this, in the mechanism’s units
 */
export function close(
  mechanism: Mechanism,
  from: Posture,
  { further, most = 12, farthest = 0.5 }: { further?: Further | undefined; most?: number; farthest?: number } = {},
): Closing {
  let now = placed(mechanism, from);
  let anew = false;
  for (let round = 0; ; round++) {
    let kept: ReadonlySet<number> | undefined = anew ? undefined : chosenRows.get(mechanism);
    let own = closureRows(mechanism, now, kept);
    const count = own.off.length;
    const worst = own.worst;
    further?.(now, own);
    const off = own.worst;
    if (off <= CLOSED || round >= most || !Number.isFinite(off))
      return { placed: off <= CLOSED ? counted(mechanism, now) : now, off, closed: off <= CLOSED && isClosed(mechanism, now) }; // prettier-ignore
    // Where those chosen hold and others do not, they say all no more.
    const holds = (rows: ReadonlySet<number>) => [...rows].every((i) => Math.abs(own.off[i]!) <= CLOSED);
    if (!anew && (!kept || (worst > CLOSED && holds(kept)))) {
      anew = kept !== undefined;
      own = closureRows(mechanism, now);
      kept = new Set(independentRows(own.by).rows);
      chosenRows.set(mechanism, kept);
      further?.(now, own);
    }
    // Once they were chosen anew all are used, as a contradiction is shared out among all.
    const used = anew || !kept ? own : own.only(kept, count);
    const step = leastStep(
      used.by,
      used.off.map((r) => -r),
      mechanism.columns.length,
      0,
    );
    now = placed(mechanism, stepped(mechanism, now.posture, inUnits(mechanism, limited(step, farthest))));
  }
}

/** No part of a step larger than this. */
export function limited(step: Float64Array, farthest: number): Float64Array {
  const largest = largestOf(step);
  return largest > farthest ? step.map((s) => (s * farthest) / largest) : step;
}

/** A step in the mechanism’s units as mm and rad. */
export function inUnits(mechanism: Mechanism, step: Float64Array): Float64Array {
  const units = mechanism.units;
  return step.map((s, k) => s * units[k]!);
}
