/**
 * How much a mechanism can still move. Counting joints misleads, and so does the rank at one place (a linkage laid flat
 * has more to say): it is the least that rank leaves free over places which finite steps reach.
 */
import { close, inUnits } from './close.ts';
import { independentRows, leftFree } from './least.ts';
import type { Mechanism } from './mechanism.ts';
import { placed, stepBetween, stepped, type Placed, type Posture } from './posture.ts';
import { closureRows } from './rows.ts';

export interface Mobility {
  readonly freedoms: number;
  /** Motions left at the place where it is least hidden, by column, in the mechanism’s units, square to each other. */
  readonly motions: readonly Float64Array[];
  /** Columns of which no row says anything: each is free by itself, and is not among the motions. */
  readonly loose: readonly number[];
  /** Where that is. */
  readonly at: Placed;
  /** Rows beyond those needed: they hold, but say nothing new. */
  readonly spare: number;
}

/** How far one looks round: in the mechanism’s units. */
const STRIDE = 0.02;
const MOST_LOOKS = 6;

/** @param from where it is closed */
export function mobility(mechanism: Mechanism, from: Posture, random: () => number = steady()): Mobility {
  const start = placed(mechanism, from);
  let best = freeAt(mechanism, start);
  // What no row speaks of is free anywhere; one need not look round for that.
  if (best.motions.length === 0) return best;
  const first = best;
  let reachedAny = false;
  let at = start;
  for (let look = 0; look < MOST_LOOKS; look++) {
    const { motions } = look === 0 ? first : freeAt(mechanism, at);
    const step = new Float64Array(mechanism.columns.length);
    for (const motion of motions) {
      const f = random() * 2 - 1;
      for (let k = 0; k < step.length; k++) step[k]! += f * motion[k]!;
    }
    const size = Math.hypot(...step);
    if (size < 1e-9) continue;
    const after = reached(
      mechanism,
      at,
      step.map((s) => (s * STRIDE) / size),
    );
    if (!after) continue;
    reachedAny = true;
    at = after;
    const now = freeAt(mechanism, at);
    if (now.motions.length < best.motions.length) best = now;
    if (best.motions.length === 0) break;
  }
  // Free at first sight, but no step of any size closes again: it does not move.
  return reachedAny ? best : { ...best, freedoms: best.loose.length, motions: [] };
}

function freeAt(mechanism: Mechanism, at: Placed): Mobility {
  const rows = closureRows(mechanism, at);
  const width = mechanism.columns.length;
  const motions: Float64Array[] = [];
  let said = 0;
  const { groups, loose } = linkedColumns(rows.by, width);
  for (const { columns, rows: own } of groups) {
    const independent = independentRows(own.map((row) => Float64Array.from(columns, (k) => row[k]!)));
    said += independent.rows.length;
    for (const free of leftFree(independent, columns.length)) {
      const motion = new Float64Array(width);
      columns.forEach((k, i) => (motion[k] = free[i]!));
      motions.push(motion);
    }
  }
  return { freedoms: motions.length + loose.length, motions, loose, at, spare: rows.by.length - said };
}

/** Columns that rows speak of together, with those rows: what is apart is told apart, as the work grows with its cube. */
function linkedColumns(rows: readonly Float64Array[], width: number) {
  const group = Int32Array.from({ length: width }, (_, k) => k);
  const find = (k: number): number => {
    let at = k;
    while (group[at] !== at) at = group[at] = group[group[at]!]!;
    return at;
  };
  const first = rows.map((row) => row.findIndex((f) => f !== 0));
  rows.forEach((row, i) => {
    if (first[i]! >= 0) row.forEach((f, k) => f !== 0 && (group[find(k)] = find(first[i]!)));
  });
  const spoken = new Map<number, { columns: number[]; rows: Float64Array[] }>();
  rows.forEach((row, i) => {
    if (first[i]! < 0) return;
    const root = find(first[i]!);
    const known = spoken.get(root);
    if (known) known.rows.push(row);
    else spoken.set(root, { columns: [], rows: [row] });
  });
  const loose: number[] = [];
  for (let k = 0; k < width; k++) (spoken.get(find(k))?.columns ?? loose).push(k);
  return { groups: [...spoken.values()], loose };
}

/** Where a step closes again; null where it only leads back. */
function reached(mechanism: Mechanism, from: Placed, step: Float64Array): Placed | null {
  const { placed: after, closed } = close(mechanism, stepped(mechanism, from.posture, inUnits(mechanism, step)), {
    most: 40,
  });
  if (!closed) return null;
  return Math.hypot(...stepBetween(mechanism, from.posture, after.posture)) > STRIDE / 2 ? after : null;
}

/** The same numbers every time, so that the answer is (Park and Miller). */
function steady(): () => number {
  let seed = 20_260;
  return () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
}
