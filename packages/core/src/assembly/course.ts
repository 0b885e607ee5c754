/**
 * Where each driven motion of a run is at a time. Between points p at s and q at t, with u = (time − s) / (t − s):
 *   at one speed  p + (q − p) u,
 *   eased         p + (q − p) u² (3 − 2u), which stands still at both.
 */
import { MOST_POINTS, pointKeys, type Run, type RunDrive } from '../document/run.ts';
import type { Ledger } from '../ledger/ledger.ts';
import type { Driver } from '../mechanism/drive.ts';
import type { Assembled } from './assembled.ts';

interface Point {
  /** Which of its drive’s points it is. */
  readonly n: number;
  /** Seconds. */
  readonly at: number;
  /** mm or rad */
  readonly to: number;
}

export interface DriveState {
  readonly id: string;
  readonly drive: RunDrive;
  /** By time; those without a value are left out. */
  readonly points: readonly Point[];
  /** Which points there are, those without a value last. */
  readonly listed: readonly number[];
  /** Why it cannot be driven, as a sentence. */
  readonly fault: string | null;
}

export interface Course {
  readonly drives: readonly DriveState[];
  /** To the last point of all. */
  readonly seconds: number;
  /** Null while any drive has a fault, or there is none. @param time seconds */
  readonly at: ((time: number) => readonly Driver[]) | null;
}

export function courseOf(run: Run, it: Assembled, ledger: Ledger): Course {
  const motions: ({ pair: number; motion: number } | null)[] = [];
  const drives = Object.entries(run.drives).map(([id, drive]): DriveState => {
    const motion = it.joints.find((j) => j.key === drive.joint)?.motions.find((m) => m.key === drive.motion);
    motions.push(motion ? { pair: motion.pair, motion: motion.motion } : null);
    const points: Point[] = [];
    const without: number[] = [];
    let fault = motion ? null : `${drive.name} does not move any more; drive another joint, or take this out.`;
    for (let n = 1; n <= MOST_POINTS; n++) {
      const [at, to] = pointKeys(n).map((key) => (drive.numbers[key] === undefined ? null : ledger.valueOf(`${id}.${key}`))); // prettier-ignore
      if (!at && !to) continue;
      const bad = [at, to].find((v) => v && !v.ok);
      if (at?.ok && to?.ok) points.push({ n, at: at.quantity.value, to: to.quantity.value });
      else {
        without.push(n);
        fault ??= `A point of ${drive.name} has no value${bad && !bad.ok ? `: ${bad.message}` : '; give it its time and its place.'}`;
      }
    }
    points.sort((p, q) => p.at - q.at);
    if (points.length === 0) fault ??= `${drive.name} goes nowhere yet; give it points.`;
    if (points.some((p) => p.at < 0 || p.at > MOST_SECONDS)) fault ??= `Times of ${drive.name} lie between 0 and ${MOST_SECONDS} seconds; change them.`; // prettier-ignore
    const twice = points.find((p, i) => i > 0 && p.at - points[i - 1]!.at < LEAST_SECONDS);
    if (twice) fault ??= `${drive.name} is to be in two places at ${twice.at} s; change one of the times.`;
    return { id, drive, points, listed: [...points.map((p) => p.n), ...without], fault };
  });
  const seconds = Math.max(0, ...drives.flatMap((d) => d.points.map((p) => p.at)));
  const sound = drives.length > 0 && drives.every((d) => d.fault === null);
  const at = (time: number) => drives.map((d, i): Driver => ({ ...motions[i]!, to: valueIn(d, time) }));
  return { drives, seconds, at: sound ? at : null };
}

const MOST_SECONDS = 3600;
const LEAST_SECONDS = 1e-3;

function valueIn({ points, drive }: DriveState, time: number): number {
  const next = points.findIndex((p) => p.at > time);
  if (next === 0) return points[0]!.to;
  if (next < 0) return points.at(-1)!.to;
  const [p, q] = [points[next - 1]!, points[next]!];
  const u = (time - p.at) / (q.at - p.at);
  return p.to + (q.to - p.to) * (drive.between === 'eased' ? u * u * (3 - 2 * u) : u);
}
