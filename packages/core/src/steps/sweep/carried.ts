/**
 * A profile that is turned or grown on its way: by a twist, by a number, or by a guide. Every place of it is told, and
 * the kernel makes sides of them: its own ways of doing this keep to straight lines, or are wrong.
 */
import { StepFailure } from '../../names/body.ts';
import type { PathFound } from '../../slots/path/path.ts';
import { carriedTo, goneBack, walkAlong, type Walk } from '../../slots/path/walk.ts';
import type { Area } from '../../slots/regions/profile.ts';
import { knotsWithin, placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import type { Break, Woven, WovenSide } from '../../solid/woven.ts';
import { toSpace } from '../../space/planes.ts';
import { enlargeAbout, followedBy, movedPoint, STAY, turnAbout, type Transform } from '../../space/transform.ts';
import { dot, minus, type Frame, type Vec3 } from '../../space/vector.ts';
import { besideOf } from './beside.ts';

/** What happens to a profile on its way. */
export interface Carrying {
  /** Its size at the end, the beginning being 1. */
  readonly grown: number;
  /** rad by which it is turned, counter-clockwise about the way. */
  readonly twist: number;
  readonly guide: PathFound | null;
  /** It grows and shrinks as the guide goes away and comes near. */
  readonly met: boolean;
}

/** How near, mm, what is grown about its path lies to where that begins. */
const NEAR = 1e-4;

/** @throws StepFailure where there is no such body */
export function carried(
  path: PathFound,
  frame: Frame,
  { loops }: Area,
  { grown, twist, guide, met }: Carrying,
  kernel: SolidKernel,
): Woven {
  if (twist !== 0 && path.pieces.some((p) => p.kind === 'helix'))
    throw new StepFailure('Along a helix a profile is not twisted; take the twist away, or let a guide turn it.');
  const walk = walkFrom(frame, path, kernel);
  const start = walk.on(0);
  if (met && (Math.abs(height(frame, start.at)) > NEAR || Math.abs(dot(start.way, frame.normal)) < 1 - NEAR))
    throw new StepFailure('To grow and meet its guide, a profile lies where the path begins and square to it; draw it there.'); // prettier-ignore
  const beside = guide && besideOf(walk, walkAlong(guide.pieces, kernel));
  const motion = remembered((along): Transform => {
    const { angle, distance } = beside?.at(along) ?? { angle: 0, distance: 1 };
    const share = along / walk.length;
    const size = (1 + (grown - 1) * share) * (met ? distance : 1);
    const turn = turnAbout({ origin: start.at, direction: start.way }, twist * share + angle);
    return followedBy(followedBy(enlargeAbout(start.at, size), turn), carriedTo(walk, walk.on(along), true));
  });
  const pieces = loops.flatMap((loop) => loop.pieces);
  refuseInto(pieces, frame, walk, motion, path.of);
  const stops = [...walk.stops, ...(beside?.stops ?? [])];
  const ends = [0, ...stops.flatMap((s) => (s.how === 'knot' ? [] : [s.along])), walk.length].sort((a, b) => a - b);
  const spans = ends.slice(1).flatMap((to, i) => (to - ends[i]! > NEAR ? [[ends[i]!, to] as const] : []));
  const sides = spans.flatMap(([from, to]) => {
    const along = stops.flatMap((s): Break[] => (s.how === 'knot' && s.along > from + NEAR && s.along < to - NEAR ? [{ at: (s.along - from) / (to - from), smooth: 2 }] : [])); // prettier-ignore
    return pieces.map((piece, i): WovenSide => ({
      piece: i,
      across(way) {
        const place = motion(from + way * (to - from));
        return (share) => movedPoint(place, toSpace(frame, ...placeOnPiece(piece, share)));
      },
      breaks: { along, across: knotsWithin(piece).map((at) => ({ at, smooth: 2 })) },
    }));
  });
  return { sides, start: { frame, loops, to: STAY }, end: { frame, loops, to: motion(walk.length) } };
}

const height = ({ origin, normal }: Frame, p: Vec3) => dot(minus(p, origin), normal);

/** From the end that is nearer to the profile. @throws StepFailure where it has corners or no ends */
function walkFrom(frame: Frame, { pieces, of }: PathFound, kernel: SolidKernel): Walk {
  const walk = walkAlong(pieces, kernel);
  if (walk.closed)
    throw new StepFailure(`${of} comes back to where it begins, and a profile turned on its way would not close; leave a gap.`); // prettier-ignore
  if (walk.stops.some((s) => s.how === 'corner'))
    throw new StepFailure(`${of} has corners, where a profile cannot be turned or grown on its way; round them.`);
  const [a, b] = [0, walk.length].map((along) => Math.abs(height(frame, walk.on(along).at)));
  return b! < a! - NEAR ? goneBack(walk) : walk;
}

/** Places looked at along the way, and on each piece of the outline. */
const [ALONG, AROUND] = [96, 12];

/** @throws StepFailure where a place of the profile goes back while the path goes on: there it runs into itself */
function refuseInto(
  pieces: readonly LoopPiece[],
  frame: Frame,
  walk: Walk,
  motion: (along: number) => Transform,
  of: string,
): void {
  const places = pieces.flatMap((p) => Array.from({ length: AROUND }, (_, i) => toSpace(frame, ...placeOnPiece(p, i / AROUND)))); // prettier-ignore
  const step = (walk.length / ALONG) * 1e-3;
  for (let i = 0; i < ALONG; i++) {
    const along = ((i + 0.5) / ALONG) * walk.length;
    const { way } = walk.on(along);
    const [before, after] = [motion(along - step), motion(along + step)];
    if (places.some((p) => dot(minus(movedPoint(after, p), movedPoint(before, p)), way) <= 0))
      throw new StepFailure(`Carried along ${of}, the profile runs into itself; make it smaller, or the bends of the path wider.`); // prettier-ignore
  }
}

/** Each side asks for the same places of the way. */
function remembered(motion: (along: number) => Transform): (along: number) => Transform {
  const known = new Map<number, Transform>();
  return (along) => {
    let to = known.get(along);
    if (!to) known.set(along, (to = motion(along)));
    return to;
  };
}
