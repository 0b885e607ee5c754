/** Two pieces that go well together, laid as one: triangles to rectangles, hooks into each other. */
import type { Area } from './polygon.ts';
import { boxOf, shifted } from './polygon.ts';
import type { Lying, NoFits } from './room.ts';

export interface Pair {
  /** Ways of lying: the first stands at the origin, the second at (x, y). */
  readonly ways: readonly [number, number];
  readonly x: number;
  readonly y: number;
  /** How much of the box round both they fill. */
  readonly fill: number;
}

/**
 * The place of the second beside the first at which both fill most of their box.
 * @param sizes of the two pieces, grid units squared
 */
export function closestPair(
  first: number,
  second: number,
  ways: readonly Lying[],
  noFits: NoFits,
  sizes: number,
  gap: number,
): Pair {
  const [a, b] = [ways[first]!, ways[second]!];
  let best: Pair = { ways: [first, second], x: 0, y: 0, fill: 0 };
  const consider = (x: number, y: number) => {
    const width = Math.max(a.width, x + b.width) - Math.min(0, x) + gap;
    const height = Math.max(a.height, y + b.height) - Math.min(0, y) + gap;
    if (sizes / (width * height) > best.fill) best = { ways: [first, second], x, y, fill: sizes / (width * height) };
  };
  for (const loop of noFits(first, second).loops)
    for (let i = 0; i < loop.length; i += 2) {
      const j = (i + 2) % loop.length;
      const [ax, ay, bx, by] = [loop[i]!, loop[i + 1]!, loop[j]!, loop[j + 1]!];
      consider(ax, ay);
      // Between corners the box is least where two of its sides meet those of the other.
      for (const x of [0, a.width - b.width])
        if ((ax - x) * (bx - x) < 0) consider(x, Math.round(ay + ((by - ay) * (x - ax)) / (bx - ax)));
      for (const y of [0, a.height - b.height])
        if ((ay - y) * (by - y) < 0) consider(Math.round(ax + ((bx - ax) * (y - ay)) / (by - ay)), y);
    }
  return best;
}

/** Both as one area, which may be in two pieces. */
export const areaOfPair = ({ ways: [a, b], x, y }: Pair, ways: readonly Lying[]): Area => [
  ...ways[a]!.area,
  ...shifted(ways[b]!.area, x, y),
];

export const fillOf = (size: number, area: Area, gap: number): number => {
  const [x0, y0, x1, y1] = boxOf(area);
  return size / ((x1 - x0 + gap) * (y1 - y0 + gap));
};
