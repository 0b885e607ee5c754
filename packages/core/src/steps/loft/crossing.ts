/** Sides of a loft that run through each other: the kernel makes such a body and finds it sound. */
import { StepFailure } from '../../names/body.ts';
import { cross, dot, minus, unit, type Vec3 } from '../../space/vector.ts';

/** Places looked at along the way, and on each piece of the outlines. */
const [ALONG, AROUND] = [32, 10];

/**
 * @param placeAt of a share of the way the place at a share of a piece
 * @throws StepFailure where what lies round at one share of the way crosses itself, or has come to nothing
 */
export function refuseCrossing(pieces: number, placeAt: (way: number) => (piece: number, share: number) => Vec3): void {
  let before: Vec3 | null = null;
  for (let k = 0; k <= ALONG; k++) {
    const at = placeAt(k / ALONG);
    const round = Array.from({ length: pieces * AROUND }, (_, i) => at(Math.floor(i / AROUND), (i % AROUND) / AROUND));
    const normal = normalOf(round);
    // Come to nothing on its way, it goes on turned about.
    const turned = !normal || (before !== null && dot(before, normal) <= 0);
    before = normal;
    if (turned || crossesItself(flattened(round, normal)))
      throw new StepFailure('The sides of this loft run through each other on their way; keep its guides apart, pull less, or begin a section elsewhere.'); // prettier-ignore
  }
}

type Flat = readonly [number, number];

/** Of the plane it lies in, or nearly (Newell); null where it is nothing. */
function normalOf(round: readonly Vec3[]): Vec3 | null {
  const [first] = round;
  const sum = round.reduce<Vec3>(
    (all, p, i) => {
      const c = cross(minus(p, first!), minus(round[(i + 1) % round.length]!, first!));
      return [all[0] + c[0], all[1] + c[1], all[2] + c[2]];
    },
    [0, 0, 0],
  );
  return unit(sum);
}

function flattened(round: readonly Vec3[], normal: Vec3): Flat[] {
  const x = unit(cross(normal, Math.abs(normal[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))!;
  const y = cross(normal, x);
  return round.map((p) => [dot(minus(p, round[0]!), x), dot(minus(p, round[0]!), y)]);
}

const turn = (a: Flat, b: Flat, c: Flat) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** Do two sides that are no neighbours cross? Touching is none of this. */
function crossesItself(round: readonly Flat[]): boolean {
  const n = round.length;
  const next = (i: number) => round[(i + 1) % n]!;
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const [a, b, c, d] = [round[i]!, next(i), round[j]!, next(j)];
      if (turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0) return true;
    }
  return false;
}
