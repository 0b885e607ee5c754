/** A body hollowed out, leaving walls. */
import { StepFailure, type Body } from '../../names/body.ts';
import { expressionOf } from '../../units/units.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import { facesPicked } from '../begin.ts';
import { byBody, inMm, isSoundlyMade, orWhatFits, refuseNone, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

const FIRST_THICKNESS_MM = 2;

export const shell = declareStep({
  kind: 'shell',
  version: 2,
  worksOn: 'open',
  label: 'Shell',
  key: 's',
  says: 'A body hollowed out, leaving walls along its faces but for those left open.',
  slots: {
    open: { of: faces('A face this step opens'), says: 'Faces left open.' },
    thickness: { of: expression('length') },
    outward: {
      of: flag('inside the faces', 'outside the faces'),
      otherwise: () => false,
      says: 'true: the walls lie outside, and what was solid is the hollow.',
    },
  },
  first: 'thickness',
  begin(from) {
    const open = facesPicked(from);
    return open && { open, thickness: expressionOf(FIRST_THICKNESS_MM, 'length', from.units), outward: false };
  },
  sentence: () => ['Shell, open at', { slot: 'open' }, 'with walls', { slot: 'thickness' }, { slot: 'outward' }],
  make({ open, thickness, outward }, context) {
    refuseNone(thickness, 'The thickness');
    const { kernel } = context;
    const groups = byBody(open);
    for (const [body, own] of groups)
      if (own.length === body.faceNames.length)
        throw new StepFailure('With every face open no wall is left; open fewer.');
    const hollow = (body: Body, own: typeof open, wall = thickness) =>
      kernel.shell(
        body.solid,
        own.map((f) => f.face),
        wall,
        outward,
      );
    const made = () => {
      const result = rework(groups, { inner: 'inner', edge: 'round', vertex: 'corner' }, context, hollow);
      for (const { body, from } of result.made) refuseImpossible(body, from!, outward);
      return result;
    };
    return orWhatFits(
      made,
      {
        says: `Walls of ${inMm(thickness)} do not fit`,
        number: 'thickness',
        wanted: thickness,
        works: (value) => [...groups].every(([body, own]) => isSoundlyMade(kernel, () => hollow(body, own, value))),
      },
      context,
    );
  },
});

/** A hollow inside takes material away, walls outside take the place of what they are round. */
function refuseImpossible(after: Body, before: Body, outward: boolean): void {
  const { box } = after.facts;
  const grown = [0, 1, 2].some((i) => box.max[i]! - box.min[i]! > before.facts.box.max[i]! - before.facts.box.min[i]! + 1e-6); // prettier-ignore
  if (outward ? !grown : after.facts.volume >= before.facts.volume || grown)
    throw new StepFailure('The kernel’s outcome cannot be right; give another thickness.');
}
