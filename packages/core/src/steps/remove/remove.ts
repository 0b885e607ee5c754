/** Bodies that are not wanted any more. */
import { bodies } from '../../slots/bodies/bodies.ts';
import { bodiesPicked } from '../begin.ts';
import { declareStep } from '../step.ts';

export const remove = declareStep({
  kind: 'remove',
  version: 1,
  label: 'Remove',
  verb: 'Remove body',
  says: 'Bodies taken away whole, such as the tools of earlier steps or one side of a split.',
  slots: { bodies: { of: bodies() } },
  begin(from) {
    const picked = from.bodies > 1 ? bodiesPicked(from) : null;
    return picked && { bodies: picked };
  },
  sentence: () => ['Remove', { slot: 'bodies' }],
  make: ({ bodies: all }) => ({ made: [], used: all }),
});
