/** The narrow face between two sides made round from one to the other. */
import type { Body } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf } from '../../names/name.ts';
import { faces } from '../../slots/faces/faces.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import { facesPicked } from '../begin.ts';
import { finish } from '../result/result.ts';
import { byBody } from '../rework/rework.ts';
import { declareStep, type Fresh, type Making, type StepResult } from '../step.ts';
import { cornersOff, ridgeOf } from './ridge.ts';

export const fullRound = declareStep({
  kind: 'full_round',
  version: 1,
  worksOn: 'faces',
  label: 'Full round',
  says: 'Narrow flat faces between two parallel sides, or between two round ones about one axis, made half round.',
  slots: { faces: { of: faces('A face this step rounds') } },
  begin(from) {
    const picked = facesPicked(from);
    if (!picked || !from.picks.every((p) => p.kind === 'face' && p.flat)) return null;
    return { faces: picked };
  },
  sentence: () => ['Round fully', { slot: 'faces' }],
  make({ faces: picked }, context) {
    const results = [...byBody(picked)].map(
      ([body, own]) =>
      finish('cut', [body], own.flatMap(({ face }) => toolsFor(body, face, context)), context), // prettier-ignore
    );
    return results.reduce((all, next): StepResult => ({
      made: [...all.made, ...next.made],
      used: [...all.used, ...next.used],
    }));
  },
});

/** What stands over the round on both sides of its crest. */
function toolsFor(body: Body, face: number, { kernel, stepId }: Making): Fresh[] {
  const ridge = ridgeOf(body, face, kernel);
  const [own] = body.faceNames[face]!;
  return cornersOff(ridge.half).map((loop, i) => {
    const made = solidOf(ridge, loop, kernel);
    const round = nameOf(stepId, 'round', [own!]);
    const faceNames = made.faces.map((parents) =>
      parents.some((p) => p.kind === 'edge' && loop.pieces[p.index]!.kind === 'arc')
        ? [round]
        : [nameOf(stepId, 'tool')],
    );
    return { ...made, faceNames, name: nameOf(stepId, BODY_ROLE, [own!, String(i)]) };
  });
}

function solidOf(ridge: ReturnType<typeof ridgeOf>, loop: ReturnType<typeof cornersOff>[number], kernel: SolidKernel) {
  return ridge.axis
    ? kernel.revolve(ridge.frame, [loop], ridge.axis, 0, 2 * Math.PI)
    : kernel.extrude(ridge.frame, [loop], 0, ridge.length);
}
