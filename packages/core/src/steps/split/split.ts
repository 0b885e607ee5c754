/** Bodies cut apart along a plane. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf } from '../../names/name.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import { ontoFrame } from '../../space/planes.ts';
import { bodiesPicked } from '../begin.ts';
import { declareStep, type MadeBody } from '../step.ts';

const KEPT = {
  both: 'keeping both sides',
  front: 'keeping what lies before it',
  back: 'keeping what lies behind it',
} as const;

export const split = declareStep({
  kind: 'split',
  version: 1,
  label: 'Split',
  says: 'Bodies cut apart along a plane.',
  slots: {
    bodies: { of: bodies() },
    plane: { of: plane() },
    kept: {
      of: choice<keyof typeof KEPT>(KEPT),
      otherwise: () => 'both' as const,
      says: 'front: the side its normal looks to.',
    },
  },
  begin(from) {
    const picked = bodiesPicked(from);
    return picked && { bodies: picked, plane: { datum: 'side' }, kept: 'both' };
  },
  sentence: () => ['Split', { slot: 'bodies' }, 'along', { slot: 'plane' }, { slot: 'kept' }],
  make({ bodies: all, plane: along, kept }, context) {
    const frame = frameOf(along);
    const pieces = context.kernel.split(
      all.map((b) => b.solid),
      frame,
    );
    const waiting = new Set(pieces.map((p) => p.solid));
    try {
      const made: MadeBody[] = [];
      const whole = new Set<Body>();
      for (const { solid, faces } of pieces) {
        const from = all[Math.min(...faces.flatMap((parents) => parents.map((p) => p.argument)))]!;
        if (pieces.filter((p) => p.faces.some((f) => f.some((q) => all[q.argument] === from))).length === 1)
          whole.add(from);
        const front = ontoFrame(frame, context.kernel.bulk(solid).center)[2] > 0;
        if (kept !== 'both' && front !== (kept === 'front')) continue;
        waiting.delete(solid);
        const names = faces.map((parents) => {
          const own = parents.flatMap((p) => (p.argument < all.length ? all[p.argument]!.faceNames[p.index]! : []));
          return own.length > 0 ? [...new Set(own)] : [nameOf(context.stepId, 'cut', [from.name])];
        });
        made.push({ body: context.body(from.name, solid, names), from });
      }
      if (whole.size === all.length && made.length > 0)
        throw new StepFailure('The plane passes by these bodies and cuts nothing apart; choose another plane.');
      if (made.length === 0) throw new StepFailure('Nothing lies on the side that is kept; keep the other, or both.');
      return { made, used: all };
    } finally {
      for (const solid of waiting) context.kernel.free(solid);
    }
  },
});
