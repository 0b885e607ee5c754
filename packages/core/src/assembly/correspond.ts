/** Where a joint’s frame sits on another part that takes the place of its own: on the nearest alike face or edge. */
import type { Spot } from '../document/assembly.ts';
import { refOfEdge } from '../names/find-edge.ts';
import { refOfFace } from '../names/find-face.ts';
import { apart, dot } from '../space/vector.ts';
import { turned, type Pose } from '../space/pose.ts';
import type { PartLook } from './look.ts';
import { frameOn, frameOrNull, poseOfEdge, poseOfFace } from './spot.ts';

/** Cosine of the angle by which a frame may lean from the one it stands for. */
const ALIKE = Math.cos(Math.PI / 180);

/** @returns null where the part has nothing alike, or the spot is of a kind that only its own part has */
export function correspondingSpot(spot: Spot, on: PartLook, other: PartLook): Spot | null {
  if ('origin' in spot || 'stands' in spot) return spot;
  if (!('face' in spot) && !('edge' in spot)) return null;
  const was = frameOrNull(() => frameOn(spot, on));
  if (!was) return null;
  const isRound = was.radius !== null;
  let best: { away: number; spot: Spot } | null = null;
  for (const body of other.bodies) {
    const many = 'face' in spot ? body.facts.faces : body.facts.edges;
    for (const [i, facts] of many.entries()) {
      if ((facts.radius !== null) !== isRound) continue;
      const end = 'edge' in spot ? spot.end : undefined;
      const frame = frameOrNull(() => ('face' in spot ? poseOfFace(body, i) : poseOfEdge(body, i, end)));
      if (!frame || !looksAlike(frame, was.frame)) continue;
      const away = apart(frame.at, was.frame.at);
      if (best && away >= best.away) continue;
      best = {
        away,
        spot: 'face' in spot ? { face: refOfFace(body, i, other.bodies) } : { edge: refOfEdge(body, i, other.bodies), ...(end ? { end } : {}) }, // prettier-ignore
      };
    }
  }
  return best?.spot ?? null;
}

const looksAlike = (a: Pose, b: Pose): boolean => dot(turned(a.turn, [0, 0, 1]), turned(b.turn, [0, 0, 1])) > ALIKE;
