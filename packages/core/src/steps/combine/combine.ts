/** Bodies joined, one taken away from others, or only what they share kept. */
import { StepFailure } from '../../names/body.ts';
import { STAY } from '../../space/transform.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import { flag } from '../../slots/flag/flag.ts';
import { bodiesPicked } from '../begin.ts';
import { finish } from '../result/result.ts';
import { declareStep } from '../step.ts';

const WAYS = { join: 'join to', cut: 'take away from', common: 'keep only what they share with' } as const;

export const combine = declareStep({
  kind: 'combine',
  version: 1,
  label: 'Combine',
  key: 'b',
  says: 'Bodies joined, one taken away from others, or only what they share kept.',
  slots: {
    tools: { of: bodies(), says: 'The bodies that are joined to, or taken away from, the others.' },
    way: { of: choice<keyof typeof WAYS>(WAYS) },
    bodies: { of: bodies(), says: 'The bodies that are changed.' },
    keep: {
      of: flag('using them up', 'keeping them too'),
      otherwise: () => false,
      says: 'true: the tools stay as bodies.',
    },
  },
  begin(from) {
    const picked = bodiesPicked(from);
    return picked && picked.length > 1 ? { tools: picked.slice(1), way: 'join', bodies: picked.slice(0, 1) } : null;
  },
  sentence: () => ['Combine', { slot: 'tools' }, { slot: 'way' }, { slot: 'bodies' }, { slot: 'keep' }],
  make({ tools, way, bodies: all, keep }, context) {
    const targets = all.filter((b) => !tools.includes(b));
    if (targets.length === 0)
      throw new StepFailure(
        'The same bodies stand on both sides of this; choose one to change and another to do it with.',
      );
    const fresh = tools.map((t) => ({ ...context.kernel.placed(t.solid, STAY), name: t.name, faceNames: t.faceNames }));
    const result = finish(way, targets, fresh, context);
    return keep ? result : { ...result, used: [...result.used, ...tools] };
  },
});
