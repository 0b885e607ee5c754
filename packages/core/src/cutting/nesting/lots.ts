/** What is laid as one: a piece by itself, or two that go well together; and in which orders to begin. */
import { areaOfPair, closestPair, fillOf } from './pairs.ts';
import { atOrigin, boxOf, sizeOf, turned, type Area } from './polygon.ts';
import type { Lying, NoFits } from './room.ts';

export interface Way extends Lying {
  /** Each piece in it: turned by so many degrees about its own origin, which then stands at (x, y), grid units. */
  readonly parts: readonly { readonly piece: number; readonly turn: number; readonly x: number; readonly y: number }[];
}

export interface Lot {
  readonly ways: readonly number[];
  /** By place in the list of pieces. */
  readonly pieces: readonly number[];
  /** Of a pair, its two by themselves. */
  readonly apart: readonly Lot[];
  /** Grid units squared, and how much of their box that is, at best. */
  readonly size: number;
  readonly fill: number;
}

const RADIANS = Math.PI / 180;
/** A pair fills its box by so much more than the better of its two alone, or it is none. */
const WORTHWHILE = 1.12;
/** More kinds than this are not tried with each other, only each with itself. */
const FEW_KINDS = 8;

/** Every way of lying of an area that holds these pieces; turned ones that look the same are one. */
export function waysOf(area: Area, parts: Way['parts'], turns: readonly number[]): Way[] {
  const seen = new Set<string>();
  const ways: Way[] = [];
  for (const turn of turns) {
    const own = turned(area, turn);
    const [x0, y0, x1, y1] = boxOf(own);
    const corners = own.flat().map(({ x, y }) => `${Math.round((x - x0) / 4)},${Math.round((y - y0) / 4)}`);
    const look = corners.sort().join(' ');
    if (seen.has(look)) continue;
    seen.add(look);
    const [c, s] = [Math.cos(turn * RADIANS), Math.sin(turn * RADIANS)];
    const moved = parts.map((p) => ({ piece: p.piece, turn: (p.turn + turn) % 360, x: c * p.x - s * p.y - x0, y: s * p.x + c * p.y - y0 })); // prettier-ignore
    ways.push({ area: atOrigin(own), width: x1 - x0, height: y1 - y0, parts: moved });
  }
  return ways;
}

export interface Lots {
  readonly singles: readonly Lot[];
  /** The best first. */
  readonly pairs: readonly Lot[];
}

/**
 * @param areas of the pieces, grid units
 * @param ways to which those of all lots are added
 */
export function lotsOf(
  areas: readonly Area[],
  turns: readonly number[],
  ways: Way[],
  noFits: NoFits,
  gap: number,
): Lots {
  const add = (area: Area, parts: Way['parts']) => waysOf(area, parts, turns).map((way) => ways.push(way) - 1);
  const singles = areas.map((area, piece): Lot => {
    const own = add(area, [{ piece, turn: 0, x: 0, y: 0 }]);
    const size = sizeOf(area);
    return { ways: own, pieces: [piece], apart: [], size, fill: fillOf(size, area, gap) };
  });
  const pairs: Lot[] = [];
  for (const [i, one] of singles.entries())
    for (const [j, other] of singles.entries()) {
      if (j < i || (j > i && singles.length > FEW_KINDS)) continue;
      const size = one.size + other.size;
      const found = other.ways.map((way) => closestPair(one.ways[0]!, way, ways, noFits, size, gap));
      const best = found.reduce((a, b) => (b.fill > a.fill ? b : a));
      if (best.fill < WORTHWHILE * Math.max(one.fill, other.fill)) continue;
      const parts = [...ways[best.ways[0]]!.parts, ...ways[best.ways[1]]!.parts.map((p) => ({ ...p, x: p.x + best.x, y: p.y + best.y }))]; // prettier-ignore
      pairs.push({ ways: add(areaOfPair(best, ways), parts), pieces: [i, j], apart: [one, other], size, fill: best.fill }); // prettier-ignore
    }
  return { singles, pairs: pairs.sort((a, b) => b.fill - a.fill) };
}

/** Orders to begin with. @param counts by piece */
export function firstOrders({ singles, pairs }: Lots, counts: readonly number[]): (readonly Lot[])[] {
  const alone = singles.flatMap((lot, i) => Array<Lot>(counts[i]!).fill(lot));
  const paired = singles.flatMap((lot, i) => {
    const twice = pairs.find(({ pieces: [a, b] }) => a === i && b === i);
    const half = twice ? Math.floor(counts[i]! / 2) : 0;
    return [...Array<Lot>(half).fill(twice ?? lot), ...Array<Lot>(counts[i]! - 2 * half).fill(lot)];
  });
  const by = (order: readonly Lot[], worth: (lot: Lot) => number) => [...order].sort((a, b) => worth(b) - worth(a));
  return [
    by(paired, (lot) => lot.size * lot.fill),
    by(paired, (lot) => lot.size),
    by(alone, (lot) => lot.size),
    by(paired, (lot) => lot.fill),
    by(alone, (lot) => lot.size / lot.fill),
  ];
}

/** Another order near this one: lots moved, kinds exchanged, two laid as a pair, a pair taken apart. */
export function variedOrder(order: readonly Lot[], { pairs }: Lots, random: () => number): readonly Lot[] {
  const at = (n: number) => Math.floor(random() * n);
  const next = [...order];
  const kind = random();
  if (kind < 0.4) {
    const run = next.splice(at(next.length), 1 + at(Math.max(1, next.length / 4)));
    next.splice(at(next.length + 1), 0, ...run);
    return next;
  }
  if (kind < 0.7) {
    const [a, b] = [next[at(next.length)]!, next[at(next.length)]!];
    const kinds = [...new Set(next)];
    const places = new Map(kinds.map((lot, i) => [lot, i]));
    const [pa, pb] = [places.get(a)!, places.get(b)!];
    [kinds[pa], kinds[pb]] = [kinds[pb]!, kinds[pa]!];
    return kinds.flatMap((lot) => next.filter((other) => other === lot));
  }
  if (kind < 0.85 && pairs.length > 0) {
    const pair = pairs[at(pairs.length)]!;
    for (let n = 1 + at(10); n > 0; n--) {
      const first = next.indexOf(pair.apart[0]!);
      const second = next.lastIndexOf(pair.apart[1]!);
      if (first < 0 || second < 0 || first === second) break;
      const [low, high] = [Math.min(first, second), Math.max(first, second)];
      next.splice(high, 1);
      next.splice(low, 1, pair);
    }
    return next;
  }
  const split = next[at(next.length)]!;
  if (split.apart.length === 0) return variedOrder(order, { singles: [], pairs: [] }, () => random() * 0.7);
  for (let n = 1 + at(10); n > 0; n--) {
    const place = next.lastIndexOf(split);
    if (place < 0) break;
    next.splice(place, 1);
    next.push(...split.apart);
  }
  return next;
}
