/** Does the model survive change? Every dial is moved through its range alone, then pairs of them at their corners. */
import type { Tried } from './attempt.ts';
import type { Attempt, Fault } from './standing.ts';
import { displayFactor, type DisplayUnits } from '../units/units.ts';
import { dialText, type DialRange } from './dials.ts';

/** A value of a dial and what came of it, less what does not stand in any case. */
export interface Sample extends Attempt {
  readonly at: number;
}

/** What tells faults apart: the same step may fail at other numbers in other words. */
const identity = ({ how, part, step, assembly, joint, about, requirement }: Fault) =>
  [how, part, step, assembly, joint?.key, about, requirement].join(' ');

/** Faults besides those that are there as the design stands. */
export function faultsBeside(faults: readonly Fault[], present: readonly Fault[]): readonly Fault[] {
  const known = new Set(present.map(identity));
  return faults.filter((fault) => !known.has(identity(fault)));
}

/** An end of the safe stretch that lies within the range. */
export interface Limit {
  /** The last value that was seen to stand, and the nearest that was seen not to. */
  readonly stands: number;
  readonly fails: number;
  readonly faults: readonly Fault[];
}

export interface DialFlex {
  readonly dial: DialRange;
  /** By value, rising. */
  readonly samples: readonly Sample[];
  /** The stretch round the present value in which every value looked at stands. */
  readonly safe: { readonly from: number; readonly to: number };
  /** Where it ends before the range does. */
  readonly below: Limit | null;
  readonly above: Limit | null;
}

/** Two dials at corners of their ranges, where each stands alone but not both. */
export interface PairFault {
  readonly dials: readonly [string, string];
  readonly at: readonly [number, number];
  readonly faults: readonly Fault[];
}

/** Tries numbers; whoever gives it decides where that is computed, and may throw to stop. */
export type Trying = (tried: Tried) => Promise<Attempt>;

/** Places looked at between the ends, both counted. */
const PLACES = 9;
/** The end of the safe stretch is found to this share of the range. */
const NEAR = 1 / 200;

/**
 * Move one dial through its range, and find the ends of the stretch that stands.
 * @param present faults of the design as it stands: what they are of is not looked at
 * @param look told of each sample as it comes
 */
export async function flexDial(
  dial: DialRange,
  trying: Trying,
  present: readonly Fault[],
  look: (flex: DialFlex) => void,
): Promise<DialFlex> {
  const samples: Sample[] = [];
  const sample = async (at: number): Promise<Sample> => {
    const known = samples.find((s) => s.at === at);
    if (known) return known;
    const { faults, numbers } = await trying([[dial.ref, dialText(dial, at)]]);
    const fresh = { at, faults: faultsBeside(faults, present), numbers };
    samples.push(fresh);
    samples.sort((a, b) => a.at - b.at);
    look(summed(dial, samples));
    return fresh;
  };
  for (const at of placesOf(dial)) await sample(at);
  for (;;) {
    const next = nextToTry(summed(dial, samples));
    if (next === null) return summed(dial, samples);
    await sample(next);
  }
}

/** The present value first, then the ends, then between: what matters is known soon. */
function placesOf(dial: DialRange): number[] {
  const { min, max, now } = dial;
  const even = Array.from({ length: PLACES }, (_, i) => allowed(dial, min + ((max - min) * i) / (PLACES - 1)));
  return [...new Set([now, min, max, ...even])].filter((at) => at === now || (at >= min && at <= max));
}

/** The nearest value the dial can take. */
function allowed({ min, max, step }: DialRange, at: number): number {
  if (step === null) return at;
  return Math.min(max, min + Math.round((at - min) / step) * step);
}

function summed(dial: DialRange, samples: readonly Sample[]): DialFlex {
  const stands = (s: Sample | undefined) => s?.faults.length === 0;
  const here = samples.findIndex((s) => s.at === dial.now);
  const all = { dial, samples: [...samples] };
  let [from, to] = [here, here];
  while (stands(samples[from - 1])) from--;
  while (stands(samples[to + 1])) to++;
  const limit = (last: number, beyond: number): Limit | null => {
    const other = samples[beyond];
    return other ? { stands: samples[last]!.at, fails: other.at, faults: other.faults } : null;
  };
  return {
    ...all,
    safe: { from: samples[from]!.at, to: samples[to]!.at },
    below: limit(from, from - 1),
    above: limit(to, to + 1),
  };
}

/** Halfway between the last value that stands and the first that does not, where that is still far. */
function nextToTry({ dial, samples, below, above }: DialFlex): number | null {
  for (const limit of [below, above]) {
    if (!limit) continue;
    const { stands, fails } = limit;
    if (Math.abs(fails - stands) <= (dial.max - dial.min) * NEAR) continue;
    const middle = allowed(dial, (stands + fails) / 2);
    if (!samples.some((s) => s.at === middle)) return middle;
  }
  return null;
}

/** Pairs of dials at the corners of their safe stretches, where each stands alone. */
export async function flexPairs(
  found: readonly DialFlex[],
  trying: Trying,
  present: readonly Fault[],
  look: (pair: PairFault | null) => void,
): Promise<readonly PairFault[]> {
  const faults: PairFault[] = [];
  for (const [one, other, corner] of cornersOf(found)) {
    const attempt = await trying([one, other].map(({ dial }, i) => [dial.ref, dialText(dial, corner[i]!)] as const));
    const beside = faultsBeside(attempt.faults, present);
    const fault =
      beside.length > 0 ? { dials: [one.dial.ref, other.dial.ref] as const, at: corner, faults: beside } : null;
    if (fault) faults.push(fault);
    look(fault);
  }
  return faults;
}

/** How many corners of pairs there are to try. */
export const countOfCorners = (found: readonly DialFlex[]): number => [...cornersOf(found)].length;

function* cornersOf(found: readonly DialFlex[]): Generator<[DialFlex, DialFlex, readonly [number, number]]> {
  for (const [i, one] of found.entries())
    for (const other of found.slice(i + 1))
      for (const a of endsOf(one)) for (const b of endsOf(other)) yield [one, other, [a, b]];
}

const endsOf = ({ safe, dial }: DialFlex) => [...new Set([safe.from, safe.to])].filter((at) => at !== dial.now);

/**
 * The safe stretch in numbers one would write: rounded inwards in the units shown, so that it stays within.
 * @returns mm, rad or plain
 */
export function rangeToKeep(
  { dial, safe }: DialFlex,
  units: DisplayUnits,
): { readonly min: number; readonly max: number } | null {
  if (safe.from === safe.to) return null;
  const factor = displayFactor(dial.kind, units);
  const unit = 10 ** (Math.floor(Math.log10((dial.max - dial.min) / factor)) - 2) * factor;
  const inwards = (at: number, end: number, round: (x: number) => number) =>
    at === end || dial.step !== null ? at : Number((round(at / unit) * unit).toPrecision(DIGITS));
  const [min, max] = [inwards(safe.from, dial.min, Math.ceil), inwards(safe.to, dial.max, Math.floor)];
  return { min: Math.min(min, dial.now), max: Math.max(max, dial.now) };
}

const DIGITS = 12;
