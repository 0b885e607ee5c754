/** Faces slanted, so that a part leaves its mould. */
import { StepFailure } from '../../names/body.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import { facesPicked } from '../begin.ts';
import { byBody, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

/** Less than this, rad, is no slant. */
const LEAST = 1e-9;
const MOST = (80 * Math.PI) / 180;

export const draft = declareStep({
  kind: 'draft',
  version: 1,
  worksOn: 'faces',
  label: 'Draft',
  says: 'Faces slanted about where a neutral plane cuts them, so that a part leaves its mould.',
  slots: {
    faces: { of: faces('A face this step slants') },
    angle: { of: expression('angle') },
    neutral: { of: plane(), says: 'Where it cuts the faces they stay; the part is pulled along its normal.' },
    outward: {
      of: flag('narrowing', 'widening'),
      otherwise: () => false,
      says: 'true: the part widens along the normal of the neutral plane.',
    },
  },
  first: 'angle',
  begin(from) {
    const picked = facesPicked(from);
    return picked && { faces: picked, angle: '3 deg', neutral: { datum: 'floor' }, outward: false };
  },
  sentence: () => [
    'Draft',
    { slot: 'faces' },
    'by',
    { slot: 'angle' },
    'from',
    { slot: 'neutral' },
    { slot: 'outward' },
  ],
  make({ faces: picked, angle, neutral, outward }, context) {
    if (Math.abs(angle) < LEAST) throw new StepFailure('A draft of nothing changes nothing; give it an angle.');
    if (Math.abs(angle) > MOST) throw new StepFailure('A draft leans by less than 80°; give a smaller angle.');
    return rework(byBody(picked), {}, context, (body, own) =>
      context.kernel.draft(
        body.solid,
        own.map((f) => f.face),
        frameOf(neutral),
        outward ? -angle : angle,
      ),
    );
  },
});
