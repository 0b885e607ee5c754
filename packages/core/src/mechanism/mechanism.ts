/**
 * A mechanism: links, and pairs of frames on them. It is solved in joint coordinates along a tree that spans the links
 * from the ground; pairs that close a loop, and mates, are held by rows (see `rows.ts`). The tree takes the pairs that
 * leave least free, so that coordinates and rows are few.
 */
import { HERE, poseBack, poseFrom, type Pose } from '../space/pose.ts';
import { drivable, freedomsOf, isTurn, PAIRINGS, widthOf, type Motion, type PairKind } from './kinds.ts';

export interface Link {
  readonly id: string;
  /** Where it stands, or begins to be looked for. */
  readonly home: Pose;
  /** It does not move. */
  readonly held: boolean;
}

export interface End {
  /** Place among the links; -1 is the ground. */
  readonly link: number;
  /** In the link. */
  readonly frame: Pose;
}

export interface Range {
  readonly min: number | null;
  readonly max: number | null;
}

export interface Pair {
  readonly id: string;
  readonly kind: PairKind;
  readonly a: End;
  readonly b: End;
  /** Screws: mm a turn. */
  readonly pitch?: number;
  /** `angled`, `square`, `tangent`: between the z axes, rad. */
  readonly angle?: number;
  /** At home, mm or rad, of each motion that can be driven; null where it stands as it does. */
  readonly rest?: readonly (number | null)[];
  readonly limits?: readonly Range[];
}

/** A motion of a pair that can be driven: the pair’s place, and which of its drivable motions. */
export interface Coordinate {
  readonly pair: number;
  readonly motion: number;
}

/** Σ by · value stays what it is at home. */
export interface Coupling {
  readonly id: string;
  readonly sum: number;
  readonly terms: readonly (Coordinate & { readonly by: number })[];
}

/** A joint coordinate of the tree. */
export interface Column {
  readonly pair: number;
  /** Which motion of its pair’s chain, and which of that motion’s coordinates. */
  readonly motion: number;
  readonly part: number;
  readonly turns: boolean;
}

/** One link hung on another, or on the ground. */
export interface Branch {
  readonly link: number;
  readonly pair: number;
  /** The link is b of its pair, and hangs on a. */
  readonly forward: boolean;
}

export class Mechanism {
  readonly pairs: readonly Pair[];
  /** Every link after the one it hangs on. */
  readonly tree: readonly Branch[];
  /** Pairs that rows hold. */
  readonly cuts: readonly number[];
  readonly columns: readonly Column[];
  /** Of each pair its first column; -1 of those that rows hold. */
  readonly firstColumn: readonly number[];
  /** Of each link the columns that move it, from the ground on. */
  readonly paths: readonly (readonly number[])[];
  /** Of each pair the columns that move its b and not its a, and those that move a and not b. */
  readonly apart: readonly (readonly [readonly number[], readonly number[]])[];
  /** Of each pair its frames turned back: from the link to the frame. */
  readonly backs: readonly { readonly a: Pose; readonly b: Pose }[];
  /** Of each column what counts as one: the mechanism’s size, or a rad. */
  readonly units: readonly number[];
  /** A length typical of it, mm: what is small is told by it. */
  readonly size: number;

  constructor(
    readonly links: readonly Link[],
    /** Pairs as they were told; `pairs` has those besides that hold links to the ground. */
    readonly given: readonly Pair[],
    readonly couplings: readonly Coupling[] = [],
    size?: number,
  ) {
    this.size = size ?? sizeOf(links, given);
    const { pairs, tree } = spanned(links, given);
    this.pairs = pairs;
    this.tree = tree;
    const inTree = new Set(tree.map((b) => b.pair));
    this.cuts = pairs.flatMap((_, i) => (inTree.has(i) ? [] : [i]));
    const columns: Column[] = [];
    const first = pairs.map(() => -1);
    const paths: number[][] = links.map(() => []);
    for (const { link, pair, forward } of tree) {
      const { kind, a, b } = pairs[pair]!;
      first[pair] = columns.length;
      const own: number[] = [];
      PAIRINGS[kind].motions!.forEach((m, motion) => {
        for (let part = 0; part < widthOf(m); part++)
          own.push(columns.push({ pair, motion, part, turns: isTurn(m) }) - 1);
      });
      const on = forward ? a.link : b.link;
      paths[link] = [...(on < 0 ? [] : paths[on]!), ...own];
    }
    this.columns = columns;
    this.firstColumn = first;
    this.paths = paths;
    this.apart = pairs.map(({ a, b }) =>
      columnsApart(a.link < 0 ? [] : paths[a.link]!, b.link < 0 ? [] : paths[b.link]!),
    );
    this.backs = pairs.map(({ a, b }) => ({ a: poseBack(a.frame), b: poseBack(b.frame) }));
    this.units = columns.map((c) => (c.turns ? 1 : this.size));
  }

  /** The column that a drivable motion of a pair of the tree is; -1 of one that rows hold. */
  columnOf({ pair, motion }: Coordinate): number {
    const first = this.firstColumn[pair]!;
    if (first < 0) return -1;
    const chain = PAIRINGS[this.pairs[pair]!.kind].motions!;
    const wanted = this.motionOf({ pair, motion });
    return first + chain.slice(0, chain.indexOf(wanted)).reduce((sum, m) => sum + widthOf(m), 0);
  }

  motionOf({ pair, motion }: Coordinate): Motion {
    return drivable(this.pairs[pair]!.kind)[motion]!;
  }
}

/** Those of the other path, then those of the one, after they part. */
function columnsApart(
  one: readonly number[],
  other: readonly number[],
): readonly [readonly number[], readonly number[]] {
  let same = 0;
  while (same < one.length && same < other.length && one[same] === other[same]) same++;
  return [other.slice(same), one.slice(same)];
}

function sizeOf(links: readonly Link[], pairs: readonly Pair[]): number {
  let most = 0;
  for (const { a, b } of pairs) most = Math.max(most, Math.hypot(...a.frame.at), Math.hypot(...b.frame.at));
  for (const a of links) most = Math.max(most, Math.hypot(...poseFrom(links[0]!.home, a.home).at));
  return most > 1e-6 ? most : 1;
}

/** Kruskal’s tree from the ground over all links; links that nothing holds hang freely on the ground. */
function spanned(links: readonly Link[], given: readonly Pair[]): { pairs: Pair[]; tree: Branch[] } {
  const pairs = [...given];
  const ground: End = { link: -1, frame: HERE };
  const group = links.map((_, i) => i);
  const GROUND = links.length;
  group.push(GROUND);
  const find = (i: number): number => {
    let at = i;
    while (group[at] !== at) at = group[at] = group[group[at]!]!;
    return at;
  };
  const chosen: number[] = [];
  const take = (i: number) => {
    const ends = [pairs[i]!.a.link, pairs[i]!.b.link].map((l) => find(l < 0 ? GROUND : l));
    if (ends[0] === ends[1]) return;
    group[ends[0]!] = ends[1]!;
    chosen.push(i);
  };
  for (const [i, { held, home }] of links.entries())
    if (held)
      take(pairs.push({ id: '', kind: 'rigid', a: { ...ground, frame: home }, b: { link: i, frame: HERE } }) - 1);
  const byFreedom = given.map((_, i) => i).filter((i) => PAIRINGS[given[i]!.kind].motions !== null);
  byFreedom.sort((p, q) => freedomsOf(given[p]!.kind) - freedomsOf(given[q]!.kind) || p - q);
  byFreedom.forEach(take);
  for (const [i, { home }] of links.entries())
    if (find(i) !== find(GROUND))
      take(pairs.push({ id: '', kind: 'free', a: { ...ground, frame: home }, b: { link: i, frame: HERE } }) - 1);
  return { pairs, tree: hung(links.length, pairs, chosen) };
}

/** The chosen pairs walked from the ground, link by link. */
function hung(links: number, pairs: readonly Pair[], chosen: readonly number[]): Branch[] {
  const at: number[][] = Array.from({ length: links + 1 }, () => []);
  for (const i of chosen) for (const { link } of [pairs[i]!.a, pairs[i]!.b]) at[link < 0 ? links : link]!.push(i);
  const tree: Branch[] = [];
  const seen = new Set<number>([-1]);
  const queue = [-1];
  for (let from = queue.shift(); from !== undefined; from = queue.shift()) {
    for (const pair of at[from < 0 ? links : from]!) {
      const { a, b } = pairs[pair]!;
      const forward = a.link === from;
      const link = forward ? b.link : a.link;
      if (seen.has(link)) continue;
      seen.add(link);
      tree.push({ link, pair, forward });
      queue.push(link);
    }
  }
  return tree;
}
