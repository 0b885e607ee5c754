/**
 * One step while parts touch: nothing runs into anything, and what is free is pushed aside by the least that clears it.
 *
 * For two links whose nearest places are pₐ and p_b, with n from pₐ to p_b, the gap g changes with coordinate k by
 *   n·vₖ(p_b) where k moves b, less n·vₖ(pₐ) where it moves a,
 * and must stay at a skin s or more: g + row·step ≥ s. Of all steps that hold closure, drivers and gaps, the least is
 * taken (rows that hold anyway are let go one by one), and gaps are asked anew where it leads, until they hold there.
 * As ways bend, a step ends nearer than its rows say, by about as much as the step before did: so much more is asked.
 */
import { placedAt, poseBack } from '../space/pose.ts';
import { dot, minus, type Vec3 } from '../space/vector.ts';
import { close, inUnits, limited } from './close.ts';
import { LEAST_DAMPING, leastStep } from './least.ts';
import { limitGaps } from './limits.ts';
import type { Coordinate, Mechanism } from './mechanism.ts';
import { largestOf, pointAt, stepBetween, stepped, type Placed } from './posture.ts';
import { closureRows, driveRow, speedAt, type Rows } from './rows.ts';

/** Where two links come nearest. */
export interface Contact {
  /** Tells these two apart from all others. */
  readonly id: string;
  readonly a: number;
  readonly b: number;
  /** In space, mm. */
  readonly onA: Vec3;
  readonly onB: Vec3;
  /** mm; 0 where they run into each other, and then their places say nothing. */
  readonly gap: number;
}

/** @returns pairs that are nearer than so many mm */
export type Nearness = (now: Placed, within: number) => readonly Contact[];

/** Parts that push each other are kept this far apart, of the mechanism’s size: pictures of round faces are no truer. */
export const SKIN = 2e-4;
/** Pairs nearer than this are looked at, of the size. */
const REACH = 0.03;
/** Nothing that follows moves farther in one step, rad and of the size. */
export const STEP_ANY = 0.08;
const MOST_ROUNDS = 6;
const MOST_TRIES = 3;
/** A gap may end up at this share of the skin; what began nearer may come no nearer by more than a little of it. */
const ENOUGH = 0.5;
const A_LITTLE = 0.02;
/** No more than so many skins are asked for because ways bend. */
const MOST_BENT = 12;
/** Against rows that must hold. */
const WANT_WEIGHT = 1e-3;

export interface Row {
  readonly by: Float64Array;
  /** What by·step is to be. */
  readonly want: number;
}
/** by·step is to be `want` or more. */
type Gap = Row;
export type Asked = (at: Placed) => readonly Row[];

export interface Asking {
  /** Motions, and where they are to come to. */
  readonly held: readonly { readonly coordinate: Coordinate; readonly to: number }[];
  /** What is wanted as far as all that holds lets. */
  readonly wants: Asked;
}

/** Steps from where it stands, one after another; what is near is carried on from each to the next. */
export class TouchingSteps {
  now: Placed;
  private near: readonly Contact[];
  /** By pair: how much nearer the last step ended than its row said, mm. */
  private readonly bent = new Map<string, number>();
  private readonly skin: number;

  constructor(
    private readonly mechanism: Mechanism,
    start: Placed,
    private readonly nearness: Nearness,
  ) {
    this.skin = SKIN * mechanism.size;
    this.now = start;
    this.near = this.nearAt(start);
  }

  private nearAt = (at: Placed) => this.nearness(at, REACH * this.mechanism.size);

  /** Pairs that touch. */
  get touching(): readonly Contact[] {
    return this.near.filter((c) => c.gap < 1.5 * this.skin);
  }

  /** Go on to where nothing touches, reached otherwise. @returns false, and stays, where something does */
  take(there: Placed): boolean {
    const near = this.nearAt(there);
    if (near.some((c) => c.gap < ENOUGH * this.skin)) return false;
    this.now = there;
    this.near = near;
    return true;
  }

  /** @returns false, and stays, where no step is found */
  step(asking: Asking): boolean {
    const before = [...this.bent];
    for (let tried = 0; tried < MOST_TRIES; tried++) {
      const outcome = this.rounds(asking);
      if (outcome === 'bent') continue;
      if (!outcome) break;
      this.now = outcome.placed;
      this.near = outcome.near;
      return true;
    }
    // What was asked for in vain is not asked for again.
    this.bent.clear();
    for (const [id, by] of before) this.bent.set(id, by);
    return false;
  }

  /** Null where none is found; `bent` where it may be, with more asked for. */
  private rounds({ held, wants }: Asking): { placed: Placed; near: readonly Contact[] } | 'bent' | null {
    const { mechanism, skin } = this;
    const further = (at: Placed, rows: Rows) => held.forEach(({ coordinate, to }) => rows.add(...driveRow(mechanism, at, coordinate, to), '')); // prettier-ignore
    // What stood nearer than the skin already need only come no nearer.
    const least = new Map(this.near.filter((c) => c.gap < ENOUGH * skin).map((c) => [c.id, c.gap]));
    const isNear = (c: Contact) => c.gap < (least.has(c.id) ? least.get(c.id)! - A_LITTLE * skin : ENOUGH * skin);
    const watched: Watched[] = [];
    let { now, near } = this;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      // Those of the rounds before stay watched: a face on a face is nearest now at one corner, now at another.
      const more = round === 0 ? (c: Contact) => this.bent.get(c.id) ?? 0 : () => 0;
      for (const c of near) if (c.gap > 0) watched.push(watchedAt(c, now, (least.get(c.id) ?? skin) + more(c)));
      const gaps = watched.map((w) => gapRow(mechanism, now, w));
      // What is wanted counts from where the step begins; what follows only clears what touches there.
      const step = leastHolding(firmRows(mechanism, now, further), [...gaps, ...limitGaps(mechanism, now)], round === 0 ? wants(now) : [], mechanism.columns.length); // prettier-ignore
      if (largestOf(step) > STEP_ANY && round > 0) return null;
      const guess = stepped(mechanism, now.posture, inUnits(mechanism, limited(step, STEP_ANY)));
      const { placed: after, closed } = close(mechanism, guess, { further, most: 8 });
      if (!closed) return null;
      if (largestOf(stepBetween(mechanism, guess, after.posture)) > 0.5 * largestOf(step) + 1e-6) return null;
      near = this.nearAt(after);
      if (round === 0) this.learn(watched, gaps, step, near);
      if (near.some((c) => c.gap <= 0 && least.get(c.id) !== 0)) return round === 0 ? 'bent' : null;
      now = after;
      if (!near.some(isNear) && !limitGaps(mechanism, now).some((g) => g.want > LIMIT_SLACK))
        return { placed: now, near };
    }
    return null;
  }

  /** How much nearer a step ended than the rows said, of those that decided it. */
  private learn(watched: readonly Watched[], gaps: readonly Gap[], step: Float64Array, near: readonly Contact[]): void {
    const { size } = this.mechanism;
    for (const [i, w] of watched.entries()) {
      const after = near.find((c) => c.id === w.id);
      const over = product(gaps[i]!.by, step) - gaps[i]!.want;
      if (!after || over > 1e-9) this.bent.delete(w.id);
      else {
        const was = this.bent.get(w.id) ?? 0;
        const by = after.gap > 0 ? w.needed + over * size - after.gap : Math.max(2 * was, 2 * this.skin);
        this.bent.set(w.id, Math.min(MOST_BENT * this.skin, Math.max(0, by)));
      }
    }
  }
}

/** Two places, each on its link, that are to stay so far apart along a direction. */
interface Watched {
  readonly id: string;
  readonly a: number;
  readonly b: number;
  readonly atA: Vec3;
  readonly atB: Vec3;
  readonly n: Vec3;
  /** mm */
  readonly needed: number;
}

function watchedAt({ id, a, b, onA, onB, gap }: Contact, { poses }: Placed, needed: number): Watched {
  const n = minus(onB, onA).map((x) => x / gap) as unknown as Vec3;
  return { id, a, b, n, needed, atA: placedAt(poseBack(poses[a]!), onA), atB: placedAt(poseBack(poses[b]!), onB) };
}

/** Limits are kept to this, in units. */
const LIMIT_SLACK = 1e-7;

export function firmRows(mechanism: Mechanism, now: Placed, further: (at: Placed, rows: Rows) => void): Row[] {
  const rows = closureRows(mechanism, now);
  further(now, rows);
  return rows.by.map((by, i) => ({ by, want: -rows.off[i]! }));
}

/** That two places are far enough apart after a step. */
function gapRow({ columns, paths, units, size }: Mechanism, now: Placed, { a, b, atA, atB, n, needed }: Watched): Gap {
  const by = new Float64Array(columns.length);
  const [onA, onB] = [pointAt(now, a, atA), pointAt(now, b, atB)];
  for (const k of paths[b]!) by[k]! += (units[k]! * dot(speedAt(now.twists, k, onB), n)) / size;
  for (const k of paths[a]!) by[k]! -= (units[k]! * dot(speedAt(now.twists, k, onA), n)) / size;
  return { by, want: (needed - dot(minus(onB, onA), n)) / size };
}

/** The least step that holds firm rows and gaps, as near to what is wanted as they let. */
export function leastHolding(
  firm: readonly Row[],
  gaps: readonly Gap[],
  wants: readonly Row[],
  width: number,
): Float64Array {
  const solve = (held: readonly Gap[]): Float64Array => {
    const hard = [...firm, ...held];
    const rows = wants.length === 0 ? hard : [...hard, ...wants.map(({ by, want }) => ({ by: by.map((f) => f * WANT_WEIGHT), want: want * WANT_WEIGHT }))]; // prettier-ignore
    return leastStep(rows.map((r) => r.by), rows.map((r) => r.want), width, LEAST_DAMPING); // prettier-ignore
  };
  const shortOf = ({ by, want }: Gap, step: Float64Array) => want - product(by, step);
  let held: Gap[] = [];
  let step = solve(held);
  for (let round = 0; round < 2 * gaps.length; round++) {
    const missing = gaps.filter((g) => !held.includes(g)).map((g) => ({ g, by: shortOf(g, step) })).filter(({ by }) => by > 1e-12).sort((p, q) => q.by - p.by)[0]; // prettier-ignore
    if (!missing) break;
    held = [...held, missing.g];
    step = solve(held);
    for (const g of held) {
      const rest = held.filter((other) => other !== g);
      const without = solve(rest);
      if (shortOf(g, without) <= 1e-12) [held, step] = [rest, without];
    }
  }
  return step;
}

const product = (a: Float64Array, b: Float64Array) => a.reduce((sum, f, k) => sum + f * b[k]!, 0);
