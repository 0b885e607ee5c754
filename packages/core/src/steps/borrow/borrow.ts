/** Another part brought into this one’s recipe: to draw to, to build up to, to cut with. It is not changed, and not part of what comes out. */
import { StepFailure } from '../../names/body.ts';
import { borrowedName } from '../../names/borrowed.ts';
import { source } from '../../slots/source/source.ts';
import { transformOf } from '../../space/pose.ts';
import { movedFrame } from '../../space/transform.ts';
import { declareStep, type MadeBody } from '../step.ts';

export const borrow = declareStep({
  kind: 'borrow',
  version: 1,
  label: 'Borrow',
  says: 'Bodies or a sketch of another part, linked: later steps draw to them, build up to them, cut with them. They stay the other part’s.',
  slots: { from: { of: source() } },
  // It begins from another part, not from picks.
  begin: () => null,
  sentence: () => ['Borrow', { slot: 'from' }],
  make({ from: { name, bodies, sketch, pose } }, context) {
    const to = transformOf(pose);
    if (sketch) return { made: [], used: [], sketch: { ...sketch, frame: movedFrame(to, sketch.frame) } };
    if (bodies.length === 0)
      throw new StepFailure(`${name} has no body yet; make one there, or borrow a sketch of it.`);
    const made = bodies.map((b): MadeBody => ({
      body: context.body(
        borrowedName(context.stepId, b.name),
        context.kernel.placed(b.solid, to).solid,
        b.faceNames.map((names) => names.map((n) => borrowedName(context.stepId, n))),
      ),
      from: null,
    }));
    return { made, used: [] };
  },
});
