/** Edges rounded. */
import { StepFailure, type Body } from '../../names/body.ts';
import { expressionOf } from '../../units/units.ts';
import { choice } from '../../slots/choice/choice.ts';
import { edges } from '../../slots/edges/edges.ts';
import { expression } from '../../slots/expression/expression.ts';
import type { StepData } from '../../slots/slot.ts';
import { edgesPicked } from '../begin.ts';
import { byBody, inMm, isSoundlyMade, orWhatFits, refuseNone, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

const FIRST_RADIUS_MM = 2;
const WAYS = { even: 'all along', running: 'running to', through: 'running through' } as const;
const isThrough = (step: StepData) => step.way === 'through';

export const fillet = declareStep({
  kind: 'fillet',
  version: 1,
  worksOn: 'edges',
  label: 'Fillet',
  key: 'r',
  says: 'Edges rounded; those that run on smoothly from them are rounded with them.',
  slots: {
    edges: { of: edges('An edge this step rounds') },
    radius: { of: expression('length') },
    way: {
      of: choice<keyof typeof WAYS>(WAYS),
      otherwise: () => 'even' as const,
      says: 'even: one radius. running: from radius at the start of each edge to end_radius at its end. through: on its way it has via_radius at via_at of its length.',
    },
    via_radius: { of: expression('length'), when: isThrough, otherwise: (step: StepData) => step.radius as string },
    via_at: { of: expression('number'), when: isThrough, otherwise: () => '0.5' },
    end_radius: {
      of: expression('length'),
      when: (step: StepData) => step.way === 'running' || isThrough(step),
      otherwise: (step: StepData) => step.radius as string,
    },
  },
  first: 'radius',
  begin(from) {
    const picked = edgesPicked(from);
    return picked && { edges: picked, radius: expressionOf(FIRST_RADIUS_MM, 'length', from.units), way: 'even' };
  },
  sentence: (step) => [
    'Fillet',
    { slot: 'edges' },
    'with radius',
    { slot: 'radius' },
    { slot: 'way' },
    ...(isThrough(step) ? [{ slot: 'via_radius' }, 'at', { slot: 'via_at' }, 'of its length to'] : []),
    ...(step.way === 'running' || isThrough(step) ? [{ slot: 'end_radius' }] : []),
  ],
  make({ edges: picked, radius, via_radius = radius, via_at, end_radius: end = radius }, context) {
    refuseNone(Math.min(radius, via_radius, end), 'The radius');
    if (via_at !== undefined && !(via_at > 0 && via_at < 1))
      throw new StepFailure(
        'The place on the way is a share of the edge’s length between 0 and 1; give such a number.',
      );
    const { kernel } = context;
    const groups = byBody(picked);
    const round = (body: Body, own: typeof picked, factor = 1) =>
      kernel.fillet(
        body.solid,
        own.map(({ edge }) => ({
          edge,
          from: radius * factor,
          to: end * factor,
          ...(via_at === undefined ? {} : { via: { at: via_at, radius: via_radius * factor } }),
        })),
      );
    return orWhatFits(
      () => rework(groups, { edge: 'round', vertex: 'corner' }, context, round),
      {
        says: `A radius of ${inMm(radius)} does not fit ${picked.length === 1 ? 'this edge' : 'these edges'}`,
        number: 'radius',
        wanted: radius,
        works: (value) =>
          [...groups].every(([body, own]) => isSoundlyMade(kernel, () => round(body, own, value / radius))),
      },
      context,
    );
  },
});
