/**
 * Pieces laid on boards without overlap, close together: each in turn at the lowest place that is free to it (bottom-left
 * with no-fit polygons, as Burke et al. 2007 lay them), over and over in other orders and as other pairs, the best kept.
 */
import type { LaidPlace, TURN_KEYS } from '../../document/outlines.ts';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { firstOrders, lotsOf, variedOrder, type Lot, type Lots, type Way } from './lots.ts';
import { boxOf, GRID, noFit, onGrid, simplified, summandOf, type Area, type Box } from './polygon.ts';
import { flatLoops, Room, type Lying, type NoFits } from './room.ts';

/** Degrees by which a piece may be turned. */
export const TURNS: Readonly<Record<(typeof TURN_KEYS)[number], readonly number[]>> = {
  none: [0],
  half: [0, 180],
  quarter: [0, 90, 180, 270],
  eighth: [0, 45, 90, 135, 180, 225, 270, 315],
};

export interface NestPiece {
  readonly id: string;
  /** mm: corners of its outline, then of holes in it, none of it beyond them. */
  readonly loops: readonly (readonly Vec2[])[];
  readonly count: number;
}

export interface NestAsk {
  readonly pieces: readonly NestPiece[];
  /** Width and height, mm. */
  readonly board: readonly [number, number];
  /** How many boards there are. */
  readonly boards: number;
  /** mm between pieces, and from the edges of a board. */
  readonly gap: number;
  readonly margin: number;
  readonly turns: keyof typeof TURNS;
}

export interface Nest {
  readonly laid: readonly LaidPlace[];
  /** How far along its longer side each board is used, mm. */
  readonly used: readonly number[];
  /** What found no room: how many, by piece. */
  readonly left: ReadonlyMap<string, number>;
}

/** Pieces keep so few corners that all no-fit areas take a second or so together. */
const MOST_EDGE_PAIRS = 4e6;
const [LEAST_CORNERS, MOST_CORNERS] = [16, 120];
/** What a place farther across counts of one farther along. */
const ACROSS = 1e-4;
/** Of its height, from its near end, where the place of a piece is measured. */
const MEASURED_AT = [0.5, 1, 0] as const;

interface Plan {
  readonly order: readonly Lot[];
  readonly at: number;
}

interface Outcome {
  readonly plan: Plan;
  readonly nest: Nest;
  /** Pieces left out, boards, how far the last is used: less is better, the first that differs counts. */
  readonly worth: readonly [number, number, number];
}

const isLess = (a: readonly number[], b: readonly number[]) => {
  const at = a.findIndex((x, i) => x !== b[i]);
  return at >= 0 && a[at]! < b[at]!;
};

export class Nesting {
  private readonly ways: Way[] = [];
  private readonly noFits: NoFits;
  private readonly lots: Lots;
  private readonly plans: Plan[];
  private readonly board: Box;
  private readonly along: 0 | 1;
  private readonly random = sequence(20_231);
  private tried = 0;
  private best: Outcome | null = null;

  constructor(private readonly ask: NestAsk) {
    const { pieces, board, margin, turns } = ask;
    const grid = (mm: number) => Math.round(mm * GRID);
    this.along = board[0] > board[1] ? 0 : 1;
    this.board = [grid(margin), grid(margin), grid(board[0] - margin), grid(board[1] - margin)];
    const affordable = Math.sqrt(MOST_EDGE_PAIRS / (pieces.length ** 2 * TURNS[turns].length));
    const corners = Math.max(LEAST_CORNERS, Math.min(MOST_CORNERS, affordable));
    const areas = withoutSmallHoles(pieces.map(({ loops }) => onGrid(loops))).map((area) => simplified(area, corners));
    const summand = remembered((way: number) => summandOf(this.ways[way]!.area));
    const noFitOf = remembered((key: number) => flatLoops(noFit(summand(Math.floor(key / KEYS)), summand(key % KEYS), grid(ask.gap)))); // prettier-ignore
    this.noFits = (fixed, moving) => noFitOf(fixed * KEYS + moving);
    this.lots = lotsOf(areas, TURNS[turns], this.ways, this.noFits, grid(ask.gap));
    this.plans = firstOrders(this.lots, pieces.map(({ count }) => count)).map((order) => ({ order, at: 0.5 })); // prettier-ignore
  }

  /** The best so far; null before the first is done. */
  get found(): Nest | null {
    return this.best?.nest ?? null;
  }

  /** Lay all of it once more, otherwise, pausing at every piece. @returns whether that is better than all before */
  *once(): Generator<undefined, boolean> {
    const outcome = yield* this.lay(this.plans[this.tried++] ?? this.varied());
    if (!outcome) return false;
    const better = this.best === null || isLess(outcome.worth, this.best.worth);
    // One as good is gone on from, so that the search does not stand still.
    if (better || !isLess(this.best!.worth, outcome.worth)) this.best = outcome;
    return better;
  }

  private varied(): Plan {
    const { order, at } = this.best!.plan;
    if (this.random() < 0.08) return { order, at: MEASURED_AT[Math.floor(this.random() * MEASURED_AT.length)]! };
    return { order: variedOrder(order, this.lots, this.random), at };
  }

  /** @returns null as soon as it is seen to be no better than the best */
  private *lay(plan: Plan): Generator<undefined, Outcome | null> {
    const { ask, ways, along } = this;
    const laid: LaidPlace[] = [];
    const used: number[] = [];
    const measured = (way: Lying, x: number, y: number) => along === 1 ? y + plan.at * way.height + ACROSS * x : x + plan.at * way.width + ACROSS * y; // prettier-ignore
    let waiting = plan.order;
    while (waiting.length > 0 && used.length < ask.boards) {
      const room = new Room(this.board, ways, this.noFits, measured);
      const full = new Set<Lot>();
      let reached = 0;
      const put = (lot: Lot): boolean => {
        if (full.has(lot)) return false;
        const places = lot.ways.flatMap((way) => ({ way, ...(room.best(way) ?? { x: 0, y: 0, worth: Infinity }) }));
        const { way, x, y, worth } = places.reduce((a, b) => (b.worth < a.worth ? b : a));
        if (worth === Infinity) full.add(lot);
        if (worth === Infinity) return false;
        room.lay(way, x, y);
        const own = ways[way]!;
        reached = Math.max(reached, (along === 1 ? y + own.height : x + own.width) / GRID);
        for (const p of own.parts) laid.push({ piece: ask.pieces[p.piece]!.id, board: used.length, turn: p.turn, x: (x + p.x) / GRID, y: (y + p.y) / GRID }); // prettier-ignore
        return true;
      };
      const late: Lot[] = [];
      for (const lot of waiting) {
        if (!put(lot)) late.push(lot);
        if (this.isWorse(used.length, reached)) return null;
        yield;
      }
      // What goes in no more as a pair may still do so singly.
      const rest: Lot[] = [];
      for (const lot of late) {
        const alone = lot.apart.filter((single) => !put(single));
        rest.push(...(alone.length < lot.apart.length ? alone : [lot]));
        yield;
      }
      if (reached === 0) break;
      used.push(reached);
      waiting = rest;
    }
    const left = new Map<string, number>();
    for (const piece of waiting.flatMap((lot) => lot.pieces)) {
      const { id } = ask.pieces[piece]!;
      left.set(id, (left.get(id) ?? 0) + 1);
    }
    const missing = [...left.values()].reduce((sum, n) => sum + n, 0);
    return { plan, nest: { laid, used, left }, worth: [missing, used.length, used.at(-1) ?? 0] };
  }

  /** With all pieces laid in the best, is this beyond it already? */
  private isWorse(board: number, reached: number): boolean {
    if (!this.best || this.best.worth[0] > 0) return false;
    const [, boards, last] = this.best.worth;
    return board >= boards || (board === boards - 1 && reached > last);
  }
}

const KEYS = 2 ** 20;

function remembered<K, V>(make: (key: K) => V): (key: K) => V {
  const known = new Map<K, V>();
  return (key) => {
    const value = known.get(key) ?? make(key);
    known.set(key, value);
    return value;
  };
}

/** A hole in which none of the pieces has room is as good as none. */
function withoutSmallHoles(areas: readonly Area[]): Area[] {
  const across = (box: Box) => Math.min(box[2] - box[0], box[3] - box[1]);
  const least = Math.min(...areas.map((area) => across(boxOf(area))));
  return areas.map(([outline, ...holes]) => [outline!, ...holes.filter((hole) => across(boxOf([hole])) > least)]);
}

/** Numbers from 0 to 1, the same ones each time (the quick generator of Numerical Recipes, 7.1). */
function sequence(seed: number): () => number {
  let now = seed;
  return () => (now = (now * 1_664_525 + 1_013_904_223) % 2 ** 32) / 2 ** 32;
}
