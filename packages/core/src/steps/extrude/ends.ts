/** How far an extrude goes: by numbers, through all, or up to the next face, a plane, a point’s level, a face or a body. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf } from '../../names/name.ts';
import type { FoundFace } from '../../names/find-face.ts';
import { frameOf, type PlaneFound } from '../../slots/plane/plane.ts';
import type { PlaceFound } from '../../slots/point/point.ts';
import { ontoFrame, raised, toSpace } from '../../space/planes.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import { shiftBy } from '../../space/transform.ts';
import { dot, minus, opposite, type Frame, type Vec3 } from '../../space/vector.ts';
import type { Cutter, MadeSolid, SolidHandle } from '../../solid/kernel.ts';
import { reachOf, type Reach } from '../result/sweep.ts';
import type { Fresh, Making } from '../step.ts';

export const WAYS = {
  one_way: 'one way', both_ways: 'both ways', symmetric: 'symmetric', through_all: 'through all', through_both: 'through all both ways', to_next: 'up to the next face', to_plane: 'up to', to_point: 'up to the level of', to_face: 'up to the face', to_body: 'up to the body',
} as const; // prettier-ignore
export type Way = keyof typeof WAYS;

/** Beyond what it goes through, mm, so that no skin is left. */
const BEYOND = 1;
/** Less material ahead than this, mm, is none. */
const LEAST_WAY = 1e-6;
/** Planes nearer to parallel than this cut an end square; sine. */
const SQUARE = 1e-9;

export interface Ends {
  readonly way: Way;
  readonly distance: number | undefined;
  readonly back_distance: number | undefined;
  readonly until: PlaneFound | undefined;
  readonly until_point: PlaceFound | undefined;
  readonly until_face: readonly FoundFace<Body>[] | undefined;
  readonly until_body: readonly Body[] | undefined;
  readonly gap: number | undefined;
  readonly start: number | undefined;
  readonly reversed: boolean;
}

/** A reach, and what its far end is then cut by. */
export interface Extent extends Reach {
  readonly cut:
    /** `within`: to where it comes out of them, having begun in them; else to where it meets them. */
    | { readonly by: 'bodies'; readonly bodies: readonly Body[]; readonly within?: boolean; readonly gap: number; /** The way it goes. */ readonly way: Vec3 } // prettier-ignore
    | { readonly by: 'cutter'; readonly cutter: Cutter; readonly what: string }
    | null;
}

/**
 * @param at a place of the profile
 * @param targets what it goes through, or up to
 * @param takesAway it begins in them and takes away: the next face is then where it comes out
 * @throws StepFailure when there is no such end
 */
export function extentOf(ends: Ends, frame: Frame, at: Vec2, targets: readonly Body[], takesAway: boolean): Extent {
  const { way, reversed } = ends;
  const start = ends.start ?? 0;
  if (way === 'one_way' || way === 'both_ways' || way === 'symmetric') {
    const reach = reachOf(way, ends.distance!, ends.back_distance, reversed);
    return { from: reach.from + start, to: reach.to + start, swapped: reach.swapped, cut: null };
  }
  if (way === 'to_plane') return extentToPlane(frameOf(ends.until!), ends.gap ?? 0, frame, at, start, targets);
  if (way === 'to_point')
    return extentToPlane({ ...frame, origin: ends.until_point!.at }, ends.gap ?? 0, frame, at, start, targets);
  if (way === 'to_face') return extentToFace(ends, frame, start);
  if (way === 'to_body') return extentToBody(ends, frame, start);
  const [low, high] = heights(frame, targets);
  if (targets.length === 0 || low > high)
    throw new StepFailure('There is no body to go through or up to yet; give a distance.');
  if (way === 'through_both') return { from: low - BEYOND, to: high + BEYOND, swapped: false, cut: null };
  const far = reversed ? low - BEYOND : high + BEYOND;
  if (reversed ? low > start - LEAST_WAY : high < start + LEAST_WAY)
    throw new StepFailure('There is no material that way; turn it the other way, or give a distance.');
  const cut = way === 'to_next' ? ({ by: 'bodies', bodies: targets, within: takesAway, ...gapOf(ends, frame) } as const) : null; // prettier-ignore
  return { from: Math.min(start, far), to: Math.max(start, far), swapped: reversed, cut };
}

/** How far the bodies reach below and above the plane. */
function heights(frame: Frame, bodies: readonly Body[]): [number, number] {
  const all = bodies.flatMap(({ facts: { box } }) =>
    [box.min[0], box.max[0]].flatMap((x) =>
      [box.min[1], box.max[1]].flatMap((y) => [box.min[2], box.max[2]].map((z) => ontoFrame(frame, [x, y, z])[2])),
    ),
  );
  return [Math.min(...all), Math.max(...all)];
}

/** @throws StepFailure */
function extentToFace({ until_face, gap = 0, reversed }: Ends, frame: Frame, start: number): Extent {
  const [found, ...more] = until_face!;
  if (!found) throw new StepFailure('No face is chosen yet to go up to; pick one.');
  if (more.length > 0) throw new StepFailure('It goes up to one face; pick one alone.');
  const [low, high] = heights(frame, [found.body]);
  const far = reversed ? low - BEYOND : high + BEYOND;
  if (reversed ? low > start : high < start)
    throw new StepFailure('The face does not lie that way; turn it the other way, or pick another.');
  const cutter: Cutter = { kind: 'face', solid: found.body.solid, face: found.face, outward: gap };
  return { from: Math.min(start, far), to: Math.max(start, far), swapped: reversed, cut: { by: 'cutter', cutter, what: 'The face' } }; // prettier-ignore
}

/** @throws StepFailure */
function extentToBody(ends: Ends, frame: Frame, start: number): Extent {
  const { reversed } = ends;
  const bodies = ends.until_body!;
  const [low, high] = heights(frame, bodies);
  const far = reversed ? low - BEYOND : high + BEYOND;
  if (reversed ? low > start - LEAST_WAY : high < start + LEAST_WAY)
    throw new StepFailure('The body does not lie that way; turn it the other way, or pick another.');
  return { from: Math.min(start, far), to: Math.max(start, far), swapped: reversed, cut: { by: 'bodies', bodies, ...gapOf(ends, frame) } }; // prettier-ignore
}

const gapOf = ({ gap = 0, reversed }: Ends, { normal }: Frame) => ({ gap, way: reversed ? opposite(normal) : normal });

function extentToPlane(
  plane: Frame,
  gap: number,
  frame: Frame,
  at: Vec2,
  start: number,
  targets: readonly Body[],
): Extent {
  const lean = dot(plane.normal, frame.normal);
  if (Math.abs(lean) < SQUARE)
    throw new StepFailure('That plane runs along the way it is pushed and is never reached; pick another.');
  // Where the way from that place meets the plane.
  const height = dot(minus(plane.origin, toSpace(frame, ...at)), plane.normal) / lean;
  if (1 - Math.abs(lean) < SQUARE) {
    const forward = height >= start;
    const far = height + (forward ? -1 : 1) * gap;
    if (forward !== far >= start)
      throw new StepFailure('The gap is more than the way up to the plane; make it smaller.');
    return { from: Math.min(start, far), to: Math.max(start, far), swapped: !forward, cut: null };
  }
  // Where the plane lies over the outline is not known here: it is pushed well past it, and cut.
  const [low, high] = targets.length > 0 ? heights(frame, targets) : [height, height];
  const room = FAR * (1 + Math.abs(height) + high - low);
  const ahead = height >= start;
  const moved = raised(plane, (lean > 0 === ahead ? -1 : 1) * gap);
  return {
    from: ahead ? start : start - room,
    to: ahead ? start + room : start,
    swapped: !ahead,
    cut: { by: 'cutter', cutter: { kind: 'plane', frame: moved }, what: 'The plane' },
  };
}

/** A slanting plane is met within so many times of what there is. */
const FAR = 20;

function notCutOff(cut: NonNullable<Extent['cut']>): string {
  if (cut.by === 'cutter')
    return `${cut.what} does not close it off all over, or cuts across where it starts; start elsewhere, or pick another.`;
  if (cut.gap !== 0)
    return 'With this gap nothing is left of it, or nothing stops it; give a smaller gap, turn it the other way, or give a distance.';
  return cut.within
    ? 'It does not start in a body all over, so no face is the next to come out of; turn it the other way, start it on a face, or give a distance.'
    : 'It starts inside a body, meets none that way, or gets past it; turn it the other way, or give a distance.';
}

/** The tool cut off where its extent says; what is given is let go of. @throws StepFailure where nothing stands in its way */
export function cutOff(fresh: Fresh, { cut }: Extent, context: Making): Fresh {
  if (!cut) return fresh;
  const { kernel } = context;
  const names = (own: MadeSolid) =>
    own.faces.map((parents) => {
      const mine = parents.flatMap((p) => (p.argument === 0 ? fresh.faceNames[p.index]! : []));
      // What it was cut by is its far end.
      return mine.length > 0 ? [...new Set(mine)] : [nameOf(context.stepId, 'end', fresh.name.parents)];
    });
  let pieces: MadeSolid[] = [];
  const others: SolidHandle[] = [];
  try {
    pieces =
      cut.by === 'cutter'
        ? kernel.split([fresh.solid], cut.cutter)
        : kernel.combine(cut.within ? 'common' : 'cut', [fresh.solid], cut.bodies.map((b) => b.solid)); // prettier-ignore
    let kept = nearest();
    if (cut.by === 'bodies' && cut.gap !== 0) {
      // What is left of it beyond there, moved along its way by the gap, is where it must not be.
      const beyond = kernel.combine('cut', [fresh.solid], [kept.solid]).map((made) => made.solid);
      others.push(...beyond, ...pieces.map((p) => p.solid));
      const to = shiftBy(cut.way.map((w) => -w * cut.gap) as unknown as Vec3);
      const moved = beyond.map((solid) => kernel.placed(solid, to).solid);
      others.push(...moved);
      pieces = kernel.combine('cut', [fresh.solid], moved);
      kept = nearest();
    }
    pieces = pieces.filter((p) => p !== kept);
    return { ...fresh, ...kept, faceNames: names(kept) };
  } finally {
    for (const solid of [...pieces.map((p) => p.solid), ...others, fresh.solid]) kernel.free(solid);
  }

  /** The piece that holds its start. @throws StepFailure */
  function nearest(): MadeSolid {
    const near = pieces.filter((p) => names(p).some((own) => own.some((n) => n.role === 'start')));
    if (near.length !== 1 || reachesEnd(near[0]!)) throw new StepFailure(notCutOff(cut!));
    return near[0]!;
  }

  /** Does it get past what should stop it, to where the tool itself ends? */
  function reachesEnd({ faces }: MadeSolid): boolean {
    const isEnd = (index: number) => fresh.faceNames[index]!.some((n) => n.role === 'end');
    return faces.some((parents) => parents.some((p) => p.argument === 0 && isEnd(p.index)));
  }
}

/** @returns the sides slanted by an angle about the start; what is given is let go of */
export function tapered(fresh: Fresh, angle: number, frame: Frame, swapped: boolean, context: Making): Fresh {
  if (angle === 0) return fresh;
  const { kernel } = context;
  const sides = fresh.faceNames.flatMap((names, i) => (names[0]!.role === 'side' ? [i] : []));
  try {
    const made = kernel.draft(fresh.solid, sides, frame, swapped ? -angle : angle);
    const faceNames = made.faces.map((parents) => parents.flatMap((p) => fresh.faceNames[p.index]!));
    return { ...fresh, ...made, faceNames };
  } finally {
    kernel.free(fresh.solid);
  }
}
