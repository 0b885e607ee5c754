/** Positions of an assembly that were kept, as near as they can be had now. */
import { close } from '../mechanism/close.ts';
import { postureFrom, type Placed } from '../mechanism/posture.ts';
import { poseBack, poseWithin, type Pose } from '../space/pose.ts';
import { minus, type Vec3 } from '../space/vector.ts';
import type { Assembled } from './assembled.ts';

/** Where instances stood, by their keys. */
interface Kept {
  readonly at: Readonly<Record<string, Pose>>;
}

/** Newton steps: a kept position may be far from what the numbers are now. */
const MOST = 40;

/** Where all stands then; null where the joints let it no more. */
export function atPose(it: Assembled, { at }: Kept): Placed | null {
  if (!it.closed) return null;
  const stood = it.links.map(({ key }, i) => {
    const member = it.members.find((m) => m.link === i);
    const pose =
      at[key] ?? (member && at[member.key] ? poseWithin(at[member.key]!, poseBack(member.within)) : undefined);
    return pose ?? it.home.poses[i]!;
  });
  const there = close(it.mechanism, postureFrom(it.mechanism, stood), { most: MOST });
  return there.closed ? there.placed : null;
}

/** How far each link is drawn off its home, mm, in a position that was kept taken apart. */
export function drawnOff(it: Assembled, { at }: Kept): Vec3[] {
  return it.links.map((_, i) => {
    const member = it.members.find((m) => m.link === i);
    const stood = member && at[member.key];
    return stood ? minus(stood.at, poseWithin(it.home.poses[i]!, member.within).at) : [0, 0, 0];
  });
}
