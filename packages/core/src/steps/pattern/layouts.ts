/** Where the members of a pattern go. */
import { StepFailure } from '../../names/body.ts';
import type { PlaceFound } from '../../slots/point/point.ts';
import type { PathFound } from '../../slots/path/path.ts';
import { followedBy, shiftBy, turnAbout, type Transform } from '../../space/transform.ts';
import { minus, type Axis, type Vec3 } from '../../space/vector.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import type { Member } from '../repeat/members.ts';
import { MOST_MEMBERS } from '../repeat/repeat.ts';
import { inMm } from '../rework/rework.ts';
import { carriedTo, walkAlong } from '../../slots/path/walk.ts';

/** @throws StepFailure when there would be too many */
export function refuseCrowd(places: number): void {
  if (places > MOST_MEMBERS)
    throw new StepFailure(`This asks for ${places} members, and ${MOST_MEMBERS} is the most there can be; give smaller counts.`); // prettier-ignore
}

export interface InRows {
  readonly round: boolean;
  readonly axis: Axis;
  readonly count: number;
  readonly both: boolean;
  readonly steps_by: 'every' | 'over' | undefined;
  readonly pitch: number | undefined;
  readonly turns_by: 'whole' | 'every' | 'over' | undefined;
  readonly angle: number | undefined;
  /** Rows beside the first. */
  readonly second: { readonly axis: Axis; readonly count: number; readonly pitch: number } | null;
}

/** In a row, in rows, or around an axis. @throws StepFailure */
export function inRows(laid: InRows): Member[] {
  const { count, both, second } = laid;
  const across = second?.count ?? 1;
  refuseCrowd((both ? 2 * count - 1 : count) * across);
  const along = stepsAlong(laid);
  const sideways = second && across > 1 ? rowAlong(second.axis, stepOf(second.pitch, laid.steps_by === 'over', across)) : null; // prettier-ignore
  const members: Member[] = [];
  for (let j = 0; j < across; j++)
    for (const { at, key } of placesOf(count, both)) {
      if (at === 0 && j === 0) continue;
      const to = sideways ? followedBy(along(at), sideways(j)) : along(at);
      // In a grid both numbers, also where there is one row: names stay when there are more.
      members.push(second ? { key: `${key}_${j + 1}`, called: `${key}.${j + 1}`, to } : { key, to });
    }
  return members;
}

/** The members along the first direction; on the far side of the original, their numbers go on. */
function placesOf(n: number, both: boolean): { at: number; key: string }[] {
  const forward = Array.from({ length: n }, (_, at) => ({ at, key: String(at + 1) }));
  return both ? [...forward, ...Array.from({ length: n - 1 }, (_, i) => ({ at: -i - 1, key: `b${i + 2}` }))] : forward;
}

function stepsAlong(laid: InRows): (at: number) => Transform {
  const { count: n, both } = laid;
  if (!laid.round) return rowAlong(laid.axis, stepOf(laid.pitch!, laid.steps_by === 'over', n));
  if (laid.turns_by === 'whole') {
    if (both) throw new StepFailure('All round there is no other way; give an angle, or turn one way.');
    return (at) => turnAbout(laid.axis, (TAU * at) / n);
  }
  const angle = stepOf(laid.angle!, laid.turns_by === 'over', n);
  if (Math.abs(angle) * (both ? 2 * n - 1 : n) > TAU + 1e-9)
    throw new StepFailure('The members run once round into themselves; give a smaller angle or fewer of them.');
  return (at) => turnAbout(laid.axis, angle * at);
}

/** From one to the next. @throws StepFailure when that is nothing */
function stepOf(given: number, over: boolean, n: number): number {
  const step = over ? given / Math.max(1, n - 1) : given;
  if (n > 1 && Math.abs(step) < 1e-9)
    throw new StepFailure('The members would all lie in one place; give a distance between them.');
  return step;
}

function rowAlong({ direction: [x, y, z] }: Axis, step: number): (at: number) => Transform {
  return (at) => shiftBy([x * step * at, y * step * at, z * step * at]);
}

export interface OnPath {
  readonly path: PathFound;
  readonly count: number;
  /** `whole`: evenly from end to end, or all round. */
  readonly spaced_by: 'whole' | 'every' | 'over';
  readonly pitch: number | undefined;
  readonly turning: boolean;
}

/** The original at the beginning of the path, the others along it. @throws StepFailure */
export function onPath({ path, count, spaced_by, pitch, turning }: OnPath, kernel: SolidKernel): Member[] {
  refuseCrowd(count);
  const walk = walkAlong(path.pieces, kernel);
  const gaps = walk.closed ? count : Math.max(1, count - 1);
  const step = spaced_by === 'whole' ? walk.length / gaps : stepOf(pitch!, spaced_by === 'over', count);
  if (step < 0) throw new StepFailure('Along a path there is one way only; give a distance of more than nothing.');
  const reach = step * (count - 1);
  if (reach > walk.length * (1 + 1e-9))
    throw new StepFailure(`${path.of} is ${inMm(walk.length)} long, and the members reach ${inMm(reach)}; give fewer, or a smaller distance.`); // prettier-ignore
  return Array.from({ length: count - 1 }, (_, i) => {
    const along = Math.min(step * (i + 1), walk.length);
    return { key: String(i + 2), to: carriedTo(walk, walk.on(along), turning) };
  });
}

const SAME_PLACE = 1e-6;

/** One at each place, the original being at `from`. @throws StepFailure */
export function atPlaces(places: readonly PlaceFound[], from: PlaceFound): Member[] {
  if (places.length === 0) throw new StepFailure('No place is chosen yet; pick points, or all points of a sketch.');
  const seen = new Map<string, number>();
  return places.flatMap(({ at, parents }, i) => {
    const by = minus(at, from.at);
    if (Math.hypot(...by) < SAME_PLACE) return [];
    // By the place's own name, so that members stay themselves when others come and go.
    const own = parents.map((p) => (typeof p === 'string' ? p : p.text)).join().replaceAll(/[^A-Za-z0-9]/g, ''); // prettier-ignore
    const times = (seen.get(own) ?? 0) + 1;
    seen.set(own, times);
    return [{ key: times === 1 ? own : `${own}x${times}`, called: String(i + 1), to: shiftBy(by) }];
  });
}

/** Rows of two or three numbers, mm. @throws StepFailure that names the row */
export function atOffsets(table: string): Member[] {
  const rows = table.split(/[;\n]+/).map((row) => row.trim()).filter(Boolean); // prettier-ignore
  refuseCrowd(rows.length + 1);
  return rows.flatMap((row, i) => {
    // Beside other separators a comma within a number is a decimal one, and not guessed at.
    const numbers = row.split(/\s/.test(row) ? /,?\s+/ : ',').map(Number);
    if (numbers.length < 2 || numbers.length > 3 || !numbers.every(Number.isFinite))
      throw new StepFailure(`Row ${i + 1} of the offsets, “${row.slice(0, 40)}”, is not two or three numbers in mm; write it like 12.5, 30.`); // prettier-ignore
    const by: Vec3 = [numbers[0]!, numbers[1]!, numbers[2] ?? 0];
    return Math.hypot(...by) < SAME_PLACE ? [] : [{ key: String(i + 2), to: shiftBy(by) }];
  });
}
