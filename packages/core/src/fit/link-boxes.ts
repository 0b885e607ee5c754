/** Boxes round the links of an assembly. */
import type { Assembled } from '../assembly/assembled.ts';
import { around, type LinkBox } from '../assembly/exploded.ts';
import { poseWithin } from '../space/pose.ts';
import { standingBox } from './standing.ts';

type Bodies = Parameters<typeof standingBox>[0]['bodies'];

/** At home, in the assembly’s space, mm; null of a link without a body. */
export const linkBoxes = (it: Assembled, bodiesOf: (part: string) => Bodies): (LinkBox | null)[] =>
  it.links.map((_, link) =>
    around(
      it.members.flatMap((m) => {
        const bodies = m.link === link ? bodiesOf(m.part) : [];
        return bodies.length > 0 ? [standingBox({ bodies, pose: poseWithin(it.home.poses[link]!, m.within) })] : [];
      }),
    ),
  );
