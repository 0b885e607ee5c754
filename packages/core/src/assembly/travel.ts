/** A motion through its range, or a run through its time: where everything is on the way. */
import Papa from 'papaparse';
import { FORMULA } from '../standards/csv.ts';
import { drive, type Driven, type Driver, type Going } from '../mechanism/drive.ts';
import type { Coordinate } from '../mechanism/mechanism.ts';
import { valueAt, type Placed } from '../mechanism/posture.ts';
import type { Assembled, JointMotion } from './assembled.ts';

export interface TravelSample {
  /** Of the driver, mm or rad; of a run seconds. */
  readonly value: number;
  /** Of all motions, in the order of the joints and theirs. */
  readonly values: readonly number[];
  readonly placed: Placed;
}

/** How a motion is brought on: as a linkage goes, or pushing what is in its way. */
export type Advance = (from: Going, drivers: readonly Driver[]) => Advanced;
export interface Advanced {
  readonly ok: boolean;
  readonly placed: Placed;
  readonly last: Float64Array | null;
  /** Why it goes no farther; null while it does. */
  readonly why: Stopped | null;
}
export type Stopped = Extract<Driven, { ok: false }>['why'] | { readonly kind: 'touch'; readonly says: string };

/** What is gone through: a motion’s values, mm or rad, or the seconds of a run. */
export interface Way {
  readonly values: readonly number[];
  readonly drivers: (value: number) => readonly Driver[];
}

export const wayOfMotion = (
  { pair, motion }: Coordinate,
  [first, last]: readonly [number, number],
  count: number,
): Way => ({ values: evenly(first, last, count), drivers: (to) => [{ pair, motion, to }] });

export const wayOfRun = (at: (time: number) => readonly Driver[], seconds: number, count: number): Way => ({
  values: evenly(0, seconds, count),
  drivers: at,
});

const evenly = (first: number, last: number, count: number) =>
  Array.from({ length: count }, (_, i) => first + ((last - first) * i) / (count - 1));

/** As a linkage goes, through parts that are in its way. */
export const asLinkage =
  ({ mechanism }: Assembled): Advance =>
  (from, drivers) => {
    const out = drive(mechanism, from, drivers);
    return out.ok ? { ...out, why: null } : { ...out, last: null };
  };

export interface Travel {
  readonly motions: readonly { readonly joint: string; readonly motion: JointMotion }[];
  readonly samples: readonly TravelSample[];
  /** Why it did not come to its end; null where it did. */
  readonly stopped: Stopped | null;
}

/**
 * @param from where it begins
 * @param breathe awaited between samples
 */
export async function travelOf(
  it: Assembled,
  from: Placed,
  way: Way,
  {
    advance = asLinkage(it),
    breathe = async () => {},
  }: { readonly advance?: Advance; readonly breathe?: () => Promise<void> } = {},
): Promise<Travel> {
  const motions = it.joints.flatMap(({ key, motions: own }) => own.map((motion) => ({ joint: key, motion })));
  const samples: TravelSample[] = [];
  let going: Going = { posture: from.posture, last: null };
  for (const [i, value] of way.values.entries()) {
    const outcome = advance(going, way.drivers(value));
    if (!outcome.ok) return { motions, samples, stopped: outcome.why };
    const now = outcome.placed;
    // The way to the first value says nothing of the way on.
    going = { posture: now.posture, last: i === 0 ? null : outcome.last };
    samples.push({
      value,
      values: motions.map(({ motion }) => valueAt(it.mechanism, now, motion)),
      placed: now,
    });
    await breathe();
  }
  return { motions, samples, stopped: null };
}

/** A table of numbers as comma-separated values. */
export const numbersCsv = (head: readonly string[], rows: readonly (readonly number[])[]): string =>
  Papa.unparse([[...head], ...rows.map((row) => row.map((n) => Number(n.toFixed(9))))], { escapeFormulae: FORMULA });
