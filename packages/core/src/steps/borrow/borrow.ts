/** Another part brought into this one’s recipe: to draw to, to build up to, to cut with. It is not changed, and not part of what comes out. */
import { StepFailure } from '../../names/body.ts';
import { borrowedName } from '../../names/borrowed.ts';
import { source } from '../../slots/source/source.ts';
import type { SolidHandle } from '../../solid/kernel.ts';
import { transformOf } from '../../space/pose.ts';
import { movedFrame } from '../../space/transform.ts';
import { damagedKept, kept, type KeptSource } from '../../slots/kept/kept.ts';
import { readName } from '../../names/name.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import { solveSketch } from '../../sketch/solve.ts';
import { declareStep, type Making, type MadeBody, type StepResult } from '../step.ts';

export const borrow = declareStep({
  kind: 'borrow',
  version: 1,
  label: 'Borrow',
  says: 'Bodies or a sketch of another part, linked: later steps draw to them, build up to them, cut with them. They stay the other part’s.',
  slots: {
    from: { of: source(), when: (step) => step.kept === undefined },
    kept: {
      of: kept(),
      when: (step) => step.kept !== undefined,
      says: 'In place of what it is borrowed from: cut loose.',
    },
  },
  // It begins from another part, not from picks.
  begin: () => null,
  sentence: (step) => (step.kept === undefined ? ['Borrow', { slot: 'from' }] : ['Keep', { slot: 'kept' }]),
  make({ from, kept }, context) {
    if (kept) return madeOfKept(kept, context);
    const { name, bodies, sketch, pose } = from!;
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

/** @throws StepFailure, KernelError */
function madeOfKept({ stored: { name, bodies, sketch }, bytes }: KeptSource, context: Making): StepResult {
  if (sketch) {
    const solution = solveSketch({ ...sketch.geometry, constraints: {} }, () => 0);
    return { made: [], used: [], sketch: { frame: sketch.frame, solution, regions: findRegions(solution.geometry) } };
  }
  const { kernel, stepId } = context;
  const { solids } = kernel.readStep(bytes());
  const damaged = (): never => {
    for (const solid of solids) kernel.free(solid);
    throw damagedKept(name);
  };
  const read = bodies?.names.map(({ body, faces }) => ({
    body: readName(body),
    faces: faces.map((names) => names.flatMap((text) => readName(text) ?? [])),
  }));
  if (!read || solids.length !== read.length) return damaged();
  const isWhole = (solid: SolidHandle, i: number) =>
    read[i]!.body !== null && kernel.faces(solid).length === read[i]!.faces.length;
  if (!solids.every(isWhole)) return damaged();
  const made = solids.map((solid, i): MadeBody => ({
    body: context.body(
      borrowedName(stepId, read[i]!.body!),
      solid,
      read[i]!.faces.map((names) => names.map((n) => borrowedName(stepId, n))),
    ),
    from: null,
  }));
  return { made, used: [] };
}
