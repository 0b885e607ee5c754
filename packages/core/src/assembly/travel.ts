/** A motion through its range: every other motion, and the places of points, at each of its values. */
import Papa from 'papaparse';
import { FORMULA } from '../standards/csv.ts';
import { drive, type Driven } from '../mechanism/drive.ts';
import { valueAt, type Placed } from '../mechanism/posture.ts';
import { placedAt, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Assembled, JointMotion } from './assembled.ts';

export interface Traced {
  readonly link: number;
  /** In the link, mm. */
  readonly at: Vec3;
}

export interface TravelSample {
  /** Of the driver, mm or rad. */
  readonly value: number;
  /** Of all motions, in the order of the joints and theirs. */
  readonly values: readonly number[];
  readonly points: readonly Vec3[];
  /** Of the links. */
  readonly poses: readonly Pose[];
}

export interface Travel {
  readonly motions: readonly { readonly joint: string; readonly motion: JointMotion }[];
  readonly samples: readonly TravelSample[];
  /** Why it did not come to its end; null where it did. */
  readonly stopped: Extract<Driven, { ok: false }>['why'] | null;
}

/**
 * @param from where it begins
 * @param range first and last value of the driver, mm or rad
 * @param breathe awaited between samples
 */
export async function travelOf(
  it: Assembled,
  from: Placed,
  driver: JointMotion,
  range: readonly [number, number],
  count: number,
  traced: readonly Traced[],
  breathe: () => Promise<void> = async () => {},
): Promise<Travel> {
  const motions = it.joints.flatMap(({ key, motions: own }) => own.map((motion) => ({ joint: key, motion })));
  const samples: TravelSample[] = [];
  let now = from;
  let last: Float64Array | null = null;
  for (let i = 0; i < count; i++) {
    const to = range[0] + ((range[1] - range[0]) * i) / (count - 1);
    const outcome = drive(it.mechanism, { posture: now.posture, last }, [
      { pair: driver.pair, motion: driver.motion, to },
    ]);
    if (!outcome.ok) return { motions, samples, stopped: outcome.why };
    now = outcome.placed;
    // The way to the first value says nothing of the way on.
    last = i === 0 ? null : outcome.last;
    samples.push({
      value: to,
      values: motions.map(({ motion }) => valueAt(it.mechanism, now, motion)),
      poses: now.poses,
      points: traced.map(({ link, at }) => placedAt(now.poses[link]!, at)),
    });
    await breathe();
  }
  return { motions, samples, stopped: null };
}

/** A table of numbers as comma-separated values. */
export const numbersCsv = (head: readonly string[], rows: readonly (readonly number[])[]): string =>
  Papa.unparse([[...head], ...rows.map((row) => row.map((n) => Number(n.toFixed(9))))], { escapeFormulae: FORMULA });
