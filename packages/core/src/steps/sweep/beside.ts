/** A guide beside a path: on which side of it, and how far away, it passes through the plane square to the path. */
import { StepFailure } from '../../names/body.ts';
import { goneBack, type OnWay, type Stop, type Walk } from '../../slots/path/walk.ts';
import { movedDirection } from '../../space/transform.ts';
import { apart, cross, dot, minus, unit, type Vec3 } from '../../space/vector.ts';

export interface Beside {
  /** Where it is against where it was at the beginning: turned about the way, rad, and so many times as far away. */
  at(along: number): { readonly angle: number; readonly distance: number };
  /** Where the guide is less smooth, by lengths along the path. */
  readonly stops: readonly Stop[];
}

/** How near, mm, a guide begins and ends to the planes of the path's ends. */
const LEVEL = 1e-4;
/** How near, mm, it may come to the path. */
const NEAREST = 1e-3;
/** Places at which it is looked up beforehand. */
const TABLE = 512;
/** Cosine of the widest angle between a guide and its path. */
const ACROSS = 0.05;

interface Known {
  /** mm along the guide */
  readonly on: number;
  readonly angle: number;
  readonly distance: number;
}

/** @throws StepFailure where it does not run from end to end beside the path */
export function besideOf(walk: Walk, told: Walk): Beside {
  const start = walk.on(0);
  const ahead = (g: Walk, on: number, { at, way }: OnWay) => dot(minus(g.on(on).at, at), way);
  const guide = isToldBackwards() ? goneBack(told) : told;
  const x = unit(cross(start.way, Math.abs(start.way[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))!;
  const y = cross(start.way, x);

  function found(along: number, near: Pick<Known, 'on' | 'angle'>): Known {
    const here = walk.on(along);
    let { on } = near;
    for (let i = 0; i < 30; i++) {
      const { way } = guide.on(on);
      const against = dot(way, here.way);
      if (against < ACROSS) throw new StepFailure('The guide of this sweep turns back or runs across its path; redraw it so that it always runs on.'); // prettier-ignore
      const by = ahead(guide, on, here) / against;
      on = Math.min(guide.length, Math.max(0, on - by));
      if (Math.abs(by) < 1e-12 * (1 + guide.length)) break;
    }
    const out = minus(guide.on(on).at, here.at);
    const distance = Math.hypot(...out);
    if (distance < NEAREST)
      throw new StepFailure('The guide of this sweep touches its path, where it tells no side; keep it aside all the way.'); // prettier-ignore
    const told = angleIn(out, movedDirection(here.turned, x), movedDirection(here.turned, y));
    return { on, angle: near.angle + nearestTurn(told - near.angle), distance };
  }

  /** It begins at the end that is level with the beginning of the path; where both are, at the nearer one. */
  function isToldBackwards(): boolean {
    const [near, far] = [told.on(0), told.on(told.length)];
    const [low, high] = [near, far].map((end) => Math.abs(dot(minus(end.at, start.at), start.way)));
    return Math.abs(low! - high!) > LEVEL ? high! < low! : apart(far.at, start.at) < apart(near.at, start.at);
  }

  const first = found(0, { on: 0, angle: angleIn(minus(guide.on(0).at, start.at), x, y) });
  const table: Known[] = [first];
  for (let i = 1; i <= TABLE; i++) table.push(found((i / TABLE) * walk.length, table[i - 1]!));
  const off = Math.max(Math.abs(ahead(guide, 0, start)), Math.abs(ahead(guide, guide.length, walk.on(walk.length))));
  if (off > LEVEL)
    throw new StepFailure(`The guide of this sweep does not begin and end level with its path (${off.toFixed(3)} mm off); let both run from end to end.`); // prettier-ignore
  return {
    at(along) {
      const near = table[Math.min(TABLE, Math.round((along / walk.length) * TABLE))]!;
      const { angle, distance } = found(along, near);
      return { angle: angle - first.angle, distance: distance / first.distance };
    },
    stops: guide.stops.map(({ along, how }) => ({
      along: whereReached(along, table) * walk.length,
      how: how === 'knot' ? how : 'joint',
    })),
  };

  /** At which share of the path so many mm of the guide are reached. */
  function whereReached(on: number, known: readonly Known[]): number {
    let [low, high] = [0, 1];
    const at = (share: number) => found(share * walk.length, known[Math.round(share * TABLE)]!).on;
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (at(middle) < on) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }
}

const angleIn = (out: Vec3, x: Vec3, y: Vec3) => Math.atan2(dot(out, y), dot(out, x));

/** The same turn within half a turn. */
function nearestTurn(angle: number): number {
  return angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
}
