/**
 * An assembly taken apart to be seen: each part drawn off along the axis of the joint by which it hangs on what is
 * nearer to the held ones, until its box is free of all that stands already.
 */
import { poseWithin, turned } from '../space/pose.ts';
import { dot, minus, type Vec3 } from '../space/vector.ts';
import type { Assembled } from './assembled.ts';

/** Around a link at home, in the assembly’s space, mm. */
export interface LinkBox {
  readonly min: Vec3;
  readonly max: Vec3;
}

/** Free room between boxes, of the size of the whole. */
const ROOM = 0.06;
/** Of the size of the whole: how far a part goes before it is looked at again. */
const STEP = 0.02;
/** No part goes farther, times the size of the whole. */
const FARTHEST = 4;

/** @param boxes of the links, by their place; null for what has no shape yet. @returns how far each link goes, mm */
export function exploded(it: Assembled, boxes: readonly (LinkBox | null)[]): Vec3[] {
  const whole = around(boxes.filter((b) => b !== null));
  const away: Vec3[] = it.links.map(() => [0, 0, 0]);
  if (!whole) return away;
  const size = Math.hypot(...minus(whole.max, whole.min));
  const placed: LinkBox[] = [];
  for (const { link, along } of order(it, boxes, whole)) {
    const box = boxes[link];
    if (!box) continue;
    let far = 0;
    const moved = () => shifted(box, along, far);
    // What nothing draws off stays; all else goes until it is free.
    while (along.some((n) => n !== 0) && far < FARTHEST * size && placed.some((other) => meet(moved(), other, ROOM * size))) far += STEP * size; // prettier-ignore
    away[link] = along.map((n) => n * far) as unknown as Vec3;
    placed.push(moved());
  }
  return away;
}

const middle = ({ min, max }: LinkBox): Vec3 => [0, 1, 2].map((k) => (min[k]! + max[k]!) / 2) as unknown as Vec3;

/** From what is held outward; each with the direction in which it is drawn off. */
function order(it: Assembled, boxes: readonly (LinkBox | null)[], whole: LinkBox): { link: number; along: Vec3 }[] {
  const held = it.links.flatMap(({ held }, link) => (held ? [link] : []));
  const first = held.length > 0 ? held : it.links.length > 0 ? [0] : [];
  const found = first.map((link) => ({ link, along: [0, 0, 0] as Vec3 }));
  const known = new Set(first);
  const center = (link: number): Vec3 => (boxes[link] ? middle(boxes[link]) : [0, 0, 0]);
  for (const { link } of found)
    for (const { a, b } of it.mechanism.pairs) {
      const next = a.link === link ? b.link : b.link === link ? a.link : -1;
      if (next < 0 || known.has(next)) continue;
      known.add(next);
      const side = a.link === link ? a : b;
      const axis = turned(poseWithin(it.home.poses[link]!, side.frame).turn, [0, 0, 1]);
      // To the side on which it lies already.
      const sense = dot(axis, minus(center(next), center(link))) < 0 ? -1 : 1;
      found.push({ link: next, along: [axis[0] * sense, axis[1] * sense, axis[2] * sense] });
    }
  // What no joint leads to goes along the axis on which it lies farthest from the middle.
  for (const link of it.links.keys())
    if (!known.has(link)) {
      const d = minus(center(link), middle(whole));
      const k = [0, 1, 2].sort((i, j) => Math.abs(d[j]!) - Math.abs(d[i]!))[0]!;
      found.push({ link, along: [0, 1, 2].map((i) => (i === k ? Math.sign(d[k]!) || 1 : 0)) as unknown as Vec3 });
    }
  return found;
}

const shifted = ({ min, max }: LinkBox, along: Vec3, far: number): LinkBox => {
  const by = (p: Vec3) => [0, 1, 2].map((k) => p[k]! + along[k]! * far) as unknown as Vec3;
  return { min: by(min), max: by(max) };
};

const meet = (a: LinkBox, b: LinkBox, room: number): boolean =>
  [0, 1, 2].every((k) => a.min[k]! < b.max[k]! + room && b.min[k]! < a.max[k]! + room);

/** Around all of them; null round none. */
export function around(boxes: readonly LinkBox[]): LinkBox | null {
  if (boxes.length === 0) return null;
  const of = (pick: (...n: number[]) => number, side: 'min' | 'max') => [0, 1, 2].map((k) => pick(...boxes.map((b) => b[side][k]!))) as unknown as Vec3; // prettier-ignore
  return { min: of(Math.min, 'min'), max: of(Math.max, 'max') };
}
