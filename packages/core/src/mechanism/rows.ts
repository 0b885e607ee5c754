/**
 * What must hold, as rows: each with how far it is off and how that changes with each coordinate. Lengths are counted
 * in the mechanism’s size and angles in rad, so that one tolerance fits all.
 *
 * A coordinate k of the tree turns what hangs on it at wₖ and moves its point p at vₖ(p). With d = p_b − pₐ:
 *   d·xₐ       changes by  vₖ(p_b)·xₐ where k moves b, and by −vₖ(pₐ)·xₐ + d·(wₖ × xₐ) where it moves a;
 *   xₐ·z_b     changes by  xₐ·(wₖ × z_b),              and by (wₖ × xₐ)·z_b;
 *   θ about zₐ changes by  wₖ·zₐ,                      and by −wₖ·zₐ, where the z axes are one.
 * Rows that make axes parallel have a false root at 180°, which `reversedPairs` tells.
 */
import { frameOfPose, poseWithin, type Pose } from '../space/pose.ts';
import { cross, dot, minus, type Frame, type Vec3 } from '../space/vector.ts';
import { PAIRINGS, type Row } from './kinds.ts';
import type { Coordinate, End, Mechanism, Pair } from './mechanism.ts';
import { valueAt, type Placed } from './posture.ts';

/** Rows stacked: `by` holds one row after another, each as long as there are columns. */
export class Rows {
  readonly off: number[] = [];
  readonly by: Float64Array[] = [];
  /** What each row belongs to, for telling. */
  readonly of: string[] = [];

  /** How rows change of which that was not asked. */
  readonly unsaid: Float64Array;

  constructor(readonly width: number) {
    this.unsaid = new Float64Array(width);
  }

  add(off: number, by: Float64Array, of: string): void {
    this.off.push(off);
    this.by.push(by);
    this.of.push(of);
  }

  /** The largest that any is off. */
  get worst(): number {
    return this.off.reduce((most, r) => Math.max(most, Math.abs(r)), 0);
  }

  /** Those before `count` that are kept, and all after. */
  only(kept: ReadonlySet<number>, count: number): Rows {
    const rows = new Rows(this.width);
    for (const [i, off] of this.off.entries()) if (i >= count || kept.has(i)) rows.add(off, this.by[i]!, this.of[i]!);
    return rows;
  }
}

const angular = (t: Float64Array, c: number): Vec3 => [t[c * 6]!, t[c * 6 + 1]!, t[c * 6 + 2]!];

/** How fast a column moves a place that hangs on it. */
export function speedAt(twists: Float64Array, column: number, p: Vec3): Vec3 {
  const at = column * 6;
  const [wx, wy, wz] = [twists[at]!, twists[at + 1]!, twists[at + 2]!];
  return [
    twists[at + 3]! + wy * p[2] - wz * p[1],
    twists[at + 4]! + wz * p[0] - wx * p[2],
    twists[at + 5]! + wx * p[1] - wy * p[0],
  ];
}

const worldFrame = ({ link, frame }: End, poses: readonly Pose[]): Frame =>
  frameOfPose(link < 0 ? frame : poseWithin(poses[link]!, frame));

/**
 * All rows that pairs and couplings put on a posture.
 * @param changing of those of pairs, which are to say how they change; all where it is not given
 */
export function closureRows(mechanism: Mechanism, now: Placed, changing?: ReadonlySet<number>): Rows {
  const rows = new Rows(mechanism.columns.length);
  for (const pair of mechanism.cuts) addPair(rows, mechanism, now, pair, changing);
  for (const { id, terms, sum } of mechanism.couplings) {
    const by = new Float64Array(rows.width);
    let off = -sum;
    // In the unit of its largest term.
    const scale = Math.max(...terms.map((t) => Math.abs(t.by) * (turns(mechanism, t) ? 1 : mechanism.size)));
    for (const term of terms) {
      off += term.by * valueAt(mechanism, now, term);
      addValue(by, mechanism, now, term, term.by / scale);
    }
    rows.add(off / scale, by, id);
  }
  return rows;
}

const turns = (mechanism: Mechanism, coordinate: Coordinate) => {
  const motion = mechanism.motionOf(coordinate);
  return motion === 'about_z' || motion === 'screw';
};

/** That a driven motion comes to a value, mm or rad. */
export function driveRow(
  mechanism: Mechanism,
  now: Placed,
  coordinate: Coordinate,
  to: number,
): [number, Float64Array] {
  const by = new Float64Array(mechanism.columns.length);
  const unit = turns(mechanism, coordinate) ? 1 : mechanism.size;
  addValue(by, mechanism, now, coordinate, 1 / unit);
  return [(valueAt(mechanism, now, coordinate) - to) / unit, by];
}

/** How a drivable motion’s value changes, times a factor, put upon a row. */
function addValue(by: Float64Array, mechanism: Mechanism, now: Placed, coordinate: Coordinate, factor: number): void {
  const { units } = mechanism;
  const column = mechanism.columnOf(coordinate);
  if (column >= 0) {
    by[column]! += factor * units[column]!;
    return;
  }
  const { a, b } = mechanism.pairs[coordinate.pair]!;
  const [A, B] = [worldFrame(a, now.poses), worldFrame(b, now.poses)];
  const [ofB, ofA] = mechanism.apart[coordinate.pair]!;
  const motion = mechanism.motionOf(coordinate);
  const isAngle = motion === 'about_z' || motion === 'screw';
  const along = isAngle || motion === 'z' ? A.normal : motion === 'x' ? A.x : A.y;
  const d = minus(B.origin, A.origin);
  for (const k of ofB)
    by[k]! += factor * units[k]! * (isAngle ? dot(angular(now.twists, k), along) : dot(speedAt(now.twists, k, B.origin), along)); // prettier-ignore
  for (const k of ofA) {
    const w = angular(now.twists, k);
    const change = isAngle ? -dot(w, along) : dot(d, cross(w, along)) - dot(speedAt(now.twists, k, A.origin), along);
    by[k]! += factor * units[k]! * change;
  }
}

/** A pair as it stands: its frames in space, and what moves them apart. */
interface Standing {
  readonly pair: Pair;
  readonly A: Frame;
  readonly B: Frame;
  /** From the origin of A to that of B. */
  readonly d: Vec3;
  readonly ofB: readonly number[];
  readonly ofA: readonly number[];
}

function addPair(
  rows: Rows,
  mechanism: Mechanism,
  now: Placed,
  at: number,
  changing: ReadonlySet<number> | undefined,
): void {
  const pair = mechanism.pairs[at]!;
  const [A, B] = [worldFrame(pair.a, now.poses), worldFrame(pair.b, now.poses)];
  const [ofB, ofA] = mechanism.apart[at]!;
  const standing = { pair, A, B, d: minus(B.origin, A.origin), ofB, ofA };
  for (const row of PAIRINGS[pair.kind].rows) {
    const wanted = !changing || changing.has(rows.off.length);
    const by = wanted ? new Float64Array(rows.width) : null;
    rows.add(addRow(by, row, mechanism, now, standing, at), by ?? rows.unsaid, pair.id);
  }
}

/** @returns how far the row is off; how it changes is put into `by` */
function addRow(
  by: Float64Array | null,
  row: Row,
  mechanism: Mechanism,
  now: Placed,
  standing: Standing,
  pair: number,
): number {
  const { A, B } = standing;
  switch (row) {
    case 'at_x':
      return alongRow(by, mechanism, now, standing, A.x);
    case 'at_y':
      return alongRow(by, mechanism, now, standing, A.y);
    case 'at_z':
      return alongRow(by, mechanism, now, standing, A.normal);
    case 'square_xz':
      return squareRow(by, mechanism, now, standing, A.x, B.normal);
    case 'square_yz':
      return squareRow(by, mechanism, now, standing, A.y, B.normal);
    case 'square_xy':
      return squareRow(by, mechanism, now, standing, A.x, B.y);
    case 'along':
      return squareRow(by, mechanism, now, standing, A.normal, B.normal) - Math.cos(standing.pair.angle ?? 0);
    case 'pitch': {
      const coordinate = { pair, motion: 0 };
      const per = (standing.pair.pitch ?? 0) / (2 * Math.PI) / mechanism.size;
      if (by) addValue(by, mechanism, now, coordinate, -per);
      return alongRow(by, mechanism, now, standing, A.normal) - per * valueAt(mechanism, now, coordinate);
    }
  }
}

/** d·along, in the mechanism’s size; `along` turns with A. */
function alongRow(
  by: Float64Array | null,
  { units, size }: Mechanism,
  { twists }: Placed,
  { A, B, d, ofA, ofB }: Standing,
  along: Vec3,
): number {
  // prettier-ignore
  if (!by) return dot(d, along) / size;
  for (const k of ofB) by[k]! += (units[k]! * dot(speedAt(twists, k, B.origin), along)) / size;
  for (const k of ofA)
    by[k]! += (units[k]! * (dot(d, cross(angular(twists, k), along)) - dot(speedAt(twists, k, A.origin), along))) / size; // prettier-ignore
  return dot(d, along) / size;
}

/** p·q, of which p turns with A and q with B. */
function squareRow(
  by: Float64Array | null,
  { units }: Mechanism,
  { twists }: Placed,
  { ofA, ofB }: Standing,
  p: Vec3,
  q: Vec3,
): number {
  // prettier-ignore
  if (!by) return dot(p, q);
  const turn = cross(q, p);
  for (const k of ofB) by[k]! += units[k]! * dot(angular(twists, k), turn);
  for (const k of ofA) by[k]! -= units[k]! * dot(angular(twists, k), turn);
  return dot(p, q);
}

/** Pairs that rows hold of which every row holds, but with frames right against each other that are to look the same way. */
export function reversedPairs(mechanism: Mechanism, { poses }: Placed): number[] {
  return mechanism.cuts.filter((pair) => {
    const { kind, a, b } = mechanism.pairs[pair]!;
    const { rows } = PAIRINGS[kind];
    if (kind === 'parallel') return false;
    const [A, B] = [worldFrame(a, poses), worldFrame(b, poses)];
    return (rows.includes('square_xz') && dot(A.normal, B.normal) < 0) || (rows.includes('square_xy') && dot(A.x, B.x) <= 0); // prettier-ignore
  });
}

export const isClosed = (mechanism: Mechanism, now: Placed): boolean => reversedPairs(mechanism, now).length === 0;
