/** Members of a pattern spread over an area. */
import { StepFailure } from '../../names/body.ts';
import type { Profile } from '../../slots/regions/profile.ts';
import { isInside } from '../../sketch/regions/loop.ts';
import { distanceToPiece } from '../../sketch/regions/piece-parts.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import { ontoFrame } from '../../space/planes.ts';
import { shiftBy } from '../../space/transform.ts';
import type { Vec3 } from '../../space/vector.ts';
import type { Member } from '../repeat/members.ts';
import { refuseCrowd } from './layouts.ts';

export type FillRows = 'square' | 'staggered';

export interface Filling {
  readonly area: Profile;
  /** Where the original is; the others are counted from it. */
  readonly from: Vec3;
  /** From each to its neighbours, mm. */
  readonly pitch: number;
  readonly rows: FillRows;
  /** How far places keep off the outline, mm. */
  readonly margin: number;
}

/** More places than this are not even looked at. */
const MOST_LOOKED_AT = 100_000;
/** Nearer than this, mm, to where it should keep off is off it. */
const SLACK = 1e-7;

/** Rows along the area's x, half a pitch aside in turn where they are staggered. @throws StepFailure */
export function overArea({ area, from, pitch, rows, margin }: Filling): Member[] {
  if (!(pitch > 0)) throw new StepFailure('Members lie some way apart; give a distance of more than nothing.');
  if (margin < 0) throw new StepFailure('Places keep off the outline by nothing or more; give such a distance.');
  const loops = area.areas.flatMap((a) => a.loops);
  const pieces = loops.flatMap((loop) => loop.pieces);
  if (pieces.length === 0) throw new StepFailure('No area is chosen yet to fill; pick a region or a flat face.');
  const [u, v] = ontoFrame(area.frame, from);
  const rise = rows === 'staggered' ? (pitch * Math.sqrt(3)) / 2 : pitch;
  const reach = reachOf(pieces.flatMap((p) => [p.from, ...outward(p)]));
  const [low, high] = [Math.floor((reach.y[0] - v) / rise), Math.ceil((reach.y[1] - v) / rise)];
  const [left, right] = [Math.floor((reach.x[0] - u) / pitch) - 1, Math.ceil((reach.x[1] - u) / pitch) + 1];
  if ((high - low + 1) * (right - left + 1) > MOST_LOOKED_AT) refuseCrowd(MOST_LOOKED_AT);
  const members: Member[] = [];
  for (let j = low; j <= high; j++)
    for (let i = left; i <= right; i++) {
      if (i === 0 && j === 0) continue;
      const aside = rows === 'staggered' && j % 2 !== 0 ? 0.5 : 0;
      const by: Vec2 = [(i + aside) * pitch, j * rise];
      const at: Vec2 = [u + by[0], v + by[1]];
      // Counted from the original, so that each stays itself while the area grows.
      if (isInside(loops, at) && pieces.every((p) => distanceToPiece(p, at) >= margin - SLACK))
        members.push({ key: `${signed(i)}_${signed(j)}`, called: `${i}.${j}`, to: shiftBy(inSpace(area, by)) });
    }
  refuseCrowd(members.length + 1);
  return members;
}

const signed = (n: number) => (n < 0 ? `m${-n}` : String(n));

const inSpace = ({ frame: { x, y } }: Profile, [a, b]: Vec2): Vec3 =>
  [0, 1, 2].map((k) => a * x[k]! + b * y[k]!) as unknown as Vec3;

/** Places no part of a piece lies beyond. */
function outward(p: Profile['areas'][number]['loops'][number]['pieces'][number]): readonly Vec2[] {
  if (p.kind === 'line') return [p.to];
  if (p.kind === 'spline') return p.control;
  const r = p.kind === 'arc' ? p.radius : Math.hypot(...p.major) + Math.hypot(...p.minor);
  return [
    [p.center[0] - r, p.center[1] - r],
    [p.center[0] + r, p.center[1] + r],
  ];
}

function reachOf(places: readonly Vec2[]) {
  const along = (k: 0 | 1): readonly [number, number] => [Math.min(...places.map((p) => p[k])), Math.max(...places.map((p) => p[k]))]; // prettier-ignore
  return { x: along(0), y: along(1) };
}
