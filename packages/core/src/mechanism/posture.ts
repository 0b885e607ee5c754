/** Where a mechanism stands: its joint coordinates, and from them where its links are and how each coordinate moves them. */
import { HERE, NO_TURN, placedAt, poseBack, poseFrom, poseWithin, turned, turnedBack, turnedBy, turnOf, turnOfVector, vectorOfTurn, type Pose, type Quat } from '../space/pose.ts'; // prettier-ignore
import { cross, type Vec3 } from '../space/vector.ts';
import { drivable, PAIRINGS, widthOf, type Motion } from './kinds.ts';
import type { Coordinate, Mechanism, Pair } from './mechanism.ts';

export interface Posture {
  /** By column: mm or rad; of a ball nought, as its turn is kept apart. */
  readonly q: readonly number[];
  /** By pair: the turn of its ball. */
  readonly balls: readonly Quat[];
  /** By pair that rows hold: the angle about z when last looked at, rad, over whole turns. */
  readonly turns: readonly number[];
}

/** A posture with what follows from it. */
export interface Placed {
  readonly posture: Posture;
  /** By link. */
  readonly poses: readonly Pose[];
  /** By column, six each: how fast it turns all that hangs on it, and how fast it moves the origin of space (world axes). */
  readonly twists: Float64Array;
}

const Z: Vec3 = [0, 0, 1];
const AXES: Readonly<Record<'x' | 'y' | 'z', Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: Z };

/** One elementary motion by q. */
function moved(motion: Motion, q: number, ball: Quat, pitch: number): Pose {
  switch (motion) {
    case 'about_z':
      return { at: HERE.at, turn: turnOf(Z, q) };
    case 'screw':
      return { at: [0, 0, (pitch * q) / (2 * Math.PI)], turn: turnOf(Z, q) };
    case 'ball':
      return { at: HERE.at, turn: ball };
    default: {
      const [x, y, z] = AXES[motion];
      return { at: [x * q, y * q, z * q], turn: NO_TURN };
    }
  }
}

/** Links and twists of a posture. */
export function placed(mechanism: Mechanism, posture: Posture): Placed {
  const { pairs, tree, firstColumn, links, columns, backs } = mechanism;
  const poses: Pose[] = links.map((l) => l.home);
  const twists = new Float64Array(columns.length * 6);
  for (const { link, pair, forward } of tree) {
    const { kind, a, b, pitch = 0 } = pairs[pair]!;
    const motions = PAIRINGS[kind].motions!;
    const ball = posture.balls[pair]!;
    let column = firstColumn[pair]!;
    let across = HERE;
    const reached: Pose[] = [];
    for (const [i, motion] of motions.entries()) {
      reached.push(across);
      const own = moved(motion, posture.q[column + before(motions, i)] ?? 0, ball, pitch);
      across = i === 0 ? own : poseWithin(across, own);
    }
    const on = forward ? a : b;
    const home = on.link < 0 ? HERE : poses[on.link]!;
    const onOther = poseWithin(home, on.frame);
    const own = forward
      ? poseWithin(onOther, poseWithin(across, backs[pair]!.b))
      : poseWithin(onOther, poseWithin(poseBack(across), backs[pair]!.a));
    poses[link] = own;
    const start = forward ? onOther : poseWithin(own, a.frame);
    for (const [i, motion] of motions.entries()) {
      const { at, turn } = poseWithin(start, reached[i]!);
      for (let part = 0; part < widthOf(motion); part++, column++)
        twist(twists, column * 6, motion, part, at, turn, pitch, forward ? 1 : -1);
    }
  }
  return { posture, poses, twists };
}

const before = (motions: readonly Motion[], i: number) => motions.slice(0, i).reduce((sum, m) => sum + widthOf(m), 0);

function twist(
  into: Float64Array,
  at: number,
  motion: Motion,
  part: number,
  place: Vec3,
  turn: Quat,
  pitch: number,
  sign: number,
): void {
  let w: Vec3 = [0, 0, 0];
  let d: Vec3 = [0, 0, 0];
  if (motion === 'about_z' || motion === 'screw') w = turned(turn, Z);
  else if (motion === 'ball') w = turned(turn, [AXES.x, AXES.y, AXES.z][part]!);
  else d = turned(turn, AXES[motion]);
  if (motion === 'screw') d = [w[0], w[1], w[2]].map((n) => (n * pitch) / (2 * Math.PI)) as unknown as Vec3;
  const lever = cross(w, place);
  for (let i = 0; i < 3; i++) {
    into[at + i] = sign * w[i]!;
    into[at + 3 + i] = sign * (d[i]! - lever[i]!);
  }
}

/** The posture so far on. @param step by column, mm or rad */
export function stepped(mechanism: Mechanism, { q, balls, turns }: Posture, step: ArrayLike<number>): Posture {
  const { columns, pairs } = mechanism;
  const next = [...q];
  let spun: Quat[] | null = null;
  for (let c = 0; c < columns.length; c++) {
    const { pair, motion, part } = columns[c]!;
    if (PAIRINGS[pairs[pair]!.kind].motions![motion] !== 'ball') next[c] = q[c]! + step[c]!;
    else if (part === 0) {
      spun ??= [...balls];
      // Turned about axes of the frame before the ball: so do its columns turn it.
      spun[pair] = turnedBy(turnOfVector([step[c]!, step[c + 1]!, step[c + 2]!]), balls[pair]!);
    }
  }
  return { q: next, balls: spun ?? balls, turns };
}

/** The step from one posture to another, by column, in the mechanism’s units. */
export function stepBetween(mechanism: Mechanism, from: Posture, to: Posture): Float64Array {
  const { columns, pairs, units } = mechanism;
  return Float64Array.from(columns, ({ pair, motion, part }, k) => {
    if (PAIRINGS[pairs[pair]!.kind].motions![motion] !== 'ball') return (to.q[k]! - from.q[k]!) / units[k]!;
    return vectorOfTurn(turnedBy(to.balls[pair]!, turnedBack(from.balls[pair]!)))[part]!;
  });
}

/** The largest that any column of a step has. */
export const largestOf = (step: Float64Array): number => step.reduce((most, s) => Math.max(most, Math.abs(s)), 0);

/** The posture nearest to where the links stand, values that are told taken as told. */
export function postureFrom(mechanism: Mechanism, poses: readonly Pose[]): Posture {
  const { tree, pairs, firstColumn, columns } = mechanism;
  const q = columns.map(() => 0);
  const balls = pairs.map(() => NO_TURN);
  for (const { pair } of tree) {
    const own = pairs[pair]!;
    const across = acrossPair(own, poses);
    let column = firstColumn[pair]!;
    let told = 0;
    for (const motion of PAIRINGS[own.kind].motions!) {
      if (motion === 'ball') balls[pair] = across.turn;
      else {
        const rest = own.rest?.[told++] ?? null;
        q[column] = rest ?? (motion === 'about_z' || motion === 'screw' ? angleOf(across.turn) : turnedAxis(across, motion)); // prettier-ignore
      }
      column += widthOf(motion);
    }
  }
  return { q, balls, turns: pairs.map((own) => angleOf(acrossPair(own, poses).turn)) };
}

/** Frame b as seen from frame a. */
function acrossPair({ a, b }: Pair, poses: readonly Pose[]): Pose {
  return poseFrom(worldOf(a, poses), worldOf(b, poses));
}

const worldOf = ({ link, frame }: Pair['a'], poses: readonly Pose[]): Pose =>
  link < 0 ? frame : poseWithin(poses[link]!, frame);

const turnedAxis = ({ at }: Pose, motion: 'x' | 'y' | 'z') => at[motion === 'x' ? 0 : motion === 'y' ? 1 : 2];

/** The angle about z in a turn, rad, between -π and π. */
export function angleOf(turn: Quat): number {
  const x = turned(turn, [1, 0, 0]);
  const y = turned(turn, [0, 1, 0]);
  return Math.atan2(x[1] - y[0], x[0] + y[1]);
}

/** The value of a drivable motion, mm or rad over whole turns. */
export function valueAt(mechanism: Mechanism, { posture, poses }: Placed, coordinate: Coordinate): number {
  const column = mechanism.columnOf(coordinate);
  if (column >= 0) return posture.q[column]!;
  const across = acrossPair(mechanism.pairs[coordinate.pair]!, poses);
  const motion = mechanism.motionOf(coordinate);
  if (motion === 'about_z' || motion === 'screw')
    return nearestTurn(angleOf(across.turn), posture.turns[coordinate.pair]!);
  return turnedAxis(across, motion as 'x' | 'y' | 'z');
}

/** The same angle, whole turns added so that it is nearest to another. */
export const nearestTurn = (angle: number, to: number): number =>
  angle + 2 * Math.PI * Math.round((to - angle) / (2 * Math.PI));

/** The posture with the angles of pairs that rows hold taken over, so that turns are counted on. */
export function counted(mechanism: Mechanism, now: Placed): Placed {
  const turns = [...now.posture.turns];
  for (const pair of mechanism.cuts) {
    const own = mechanism.pairs[pair]!;
    if (drivable(own.kind).length > 0)
      turns[pair] = nearestTurn(angleOf(acrossPair(own, now.poses).turn), turns[pair]!);
  }
  return { ...now, posture: { ...now.posture, turns } };
}

/** Where a point of a link is. */
export const pointAt = ({ poses }: Placed, link: number, local: Vec3): Vec3 => placedAt(poses[link]!, local);
