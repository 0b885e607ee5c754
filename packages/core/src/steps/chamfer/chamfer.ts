/** Edges cut off at a slant. */
import type { Body } from '../../names/body.ts';
import type { FoundEdge } from '../../names/find-edge.ts';
import { StepFailure } from '../../names/body.ts';
import type { BevelledEdge } from '../../solid/kernel.ts';
import { expressionOf } from '../../units/units.ts';
import { choice } from '../../slots/choice/choice.ts';
import { edges } from '../../slots/edges/edges.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { StepData } from '../../slots/slot.ts';
import { edgesPicked } from '../begin.ts';
import { byBody, inMm, isSoundlyMade, orWhatFits, refuseNone, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

const FIRST_DISTANCE_MM = 1;
const WAYS = { even: 'alike on both faces', two: 'and on the other face by', angled: 'at an angle of' } as const;

export const chamfer = declareStep({
  kind: 'chamfer',
  version: 1,
  worksOn: 'edges',
  label: 'Chamfer',
  key: 'c',
  says: 'Edges cut off at a slant; those that run on smoothly from them are cut with them.',
  slots: {
    edges: { of: edges('An edge this step bevels') },
    distance: { of: expression('length'), says: 'How far it is cut back on one face.' },
    way: {
      of: choice<keyof typeof WAYS>(WAYS),
      otherwise: () => 'even' as const,
      says: 'even: distance on both faces. two: other_distance on the other face. angled: at angle to the first face.',
    },
    other_distance: {
      of: expression('length'),
      when: (step: StepData) => step.way === 'two',
      otherwise: (step: StepData) => step.distance as string,
    },
    angle: { of: expression('angle'), when: (step: StepData) => step.way === 'angled', otherwise: () => '45 deg' },
    flipped: {
      of: flag('this way', 'the other way'),
      when: (step: StepData) => step.way === 'two' || step.way === 'angled',
      otherwise: () => false,
      says: 'true: the faces change places. The first face is the larger one.',
    },
  },
  first: 'distance',
  begin(from) {
    const picked = edgesPicked(from);
    return picked && { edges: picked, distance: expressionOf(FIRST_DISTANCE_MM, 'length', from.units), way: 'even' };
  },
  sentence: (step) => [
    'Chamfer',
    { slot: 'edges' },
    'by',
    { slot: 'distance' },
    { slot: 'way' },
    ...(step.way === 'two' ? [{ slot: 'other_distance' }, { slot: 'flipped' }] : []),
    ...(step.way === 'angled' ? [{ slot: 'angle' }, { slot: 'flipped' }] : []),
  ],
  make({ edges: picked, distance, other_distance, angle, flipped }, context) {
    const other = other_distance ?? (angle === undefined ? distance : distance * slope(angle));
    refuseNone(Math.min(distance, other), 'The distance');
    const { kernel } = context;
    const groups = byBody(picked);
    const bevel = (body: Body, own: typeof picked, factor = 1) =>
      kernel.chamfer(
        body.solid,
        own.map((f): BevelledEdge => ({ edge: f.edge, face: firstFace(f, flipped ?? false), onFace: distance * factor, onOther: other * factor })), // prettier-ignore
      );
    return orWhatFits(
      () => rework(groups, { edge: 'bevel', vertex: 'corner' }, context, bevel),
      {
        says: `A chamfer of ${inMm(distance)} does not fit ${picked.length === 1 ? 'this edge' : 'these edges'}`,
        number: 'distance',
        wanted: distance,
        works: (value) =>
          [...groups].every(([body, own]) => isSoundlyMade(kernel, () => bevel(body, own, value / distance))),
      },
      context,
    );
  },
});

/** How far it goes on the other face for each mm on the first. @throws StepFailure */
function slope(angle: number): number {
  if (angle < LEAST_ANGLE || angle > Math.PI / 2 - LEAST_ANGLE)
    throw new StepFailure('The angle of a chamfer lies between 0° and 90°; give one that does.');
  return Math.tan(angle);
}
const LEAST_ANGLE = 1e-6;

/** The larger of the two faces, as that stays the larger while numbers change a little; flipped, the smaller. */
function firstFace({ body, edge }: FoundEdge<Body>, flipped: boolean): number {
  const [a, b] = body.facts.edges[edge]!.faces as [number, number];
  const [areaA, areaB] = [body.facts.faces[a]!.area, body.facts.faces[b]!.area];
  return areaA >= areaB === flipped ? b : a;
}
