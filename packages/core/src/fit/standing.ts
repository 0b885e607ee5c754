/** A member of an assembly as it stands in space. */
import type { Member } from '../assembly/members.ts';
import type { AllowedFace } from '../evaluation/as-made.ts';
import type { Body } from '../names/body.ts';
import type { Box } from '../solid/kernel.ts';
import { transformOf, type Pose } from '../space/pose.ts';
import { movedPoint } from '../space/transform.ts';
import type { Vec3 } from '../space/vector.ts';

export interface Standing {
  readonly member: Pick<Member, 'key' | 'link'>;
  readonly bodies: readonly Body[];
  readonly pose: Pose;
  /** Faces that have given way for a fit. */
  readonly allowed?: readonly AllowedFace[];
}

/** Around all that a member is, where it stands. */
export function standingBox({
  bodies,
  pose,
}: {
  readonly bodies: readonly { readonly facts: { readonly box: Box } }[];
  readonly pose: Pose;
}): Box {
  const to = transformOf(pose);
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const { facts } of bodies)
    for (let corner = 0; corner < 8; corner++) {
      const p = [0, 1, 2].map((k) => (corner & (1 << k) ? facts.box.max : facts.box.min)[k]!) as unknown as Vec3;
      movedPoint(to, p).forEach((n, k) => {
        min[k] = Math.min(min[k]!, n);
        max[k] = Math.max(max[k]!, n);
      });
    }
  return { min, max };
}
