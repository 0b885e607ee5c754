import { findFace } from '../../part/face-names.ts';
import { DATUM_FRAMES, frameOfFace } from '../../part/planes.ts';
import { StepFailure } from '../../part/body.ts';
import type { Frame } from '../../solid/kernel.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import { matchPatterns } from '../../sketch/pattern/members.ts';
import { isDimension, type Constraint, type SketchGeometry } from '../../sketch/schema.ts';
import { solveSketch, type SketchSolution } from '../../sketch/solve.ts';
import { sketchDimensionNames } from '../../ledger/entries.ts';
import type { StepContext, StepResult } from '../context.ts';
import { withBorrowed } from './borrow.ts';
import type { SketchStep } from './schema.ts';

export function evaluateSketch(step: SketchStep, context: StepContext): StepResult {
  const { frame, note, lost } = supportOf(step, context);
  for (const [id, c] of Object.entries(step.constraints)) if (isDimension(c) && !c.driven) context.number(id);
  const number = (id: string) => context.number(id);
  const followed = withBorrowed(step, frame, context.bodies, context.kernel);
  const solution = solveSketch(withMembers(followed.sketch, number), number);
  const outcome = { frame, solution, regions: findRegions(solution.geometry) };
  if (lost) throw new SketchFailure(lost, outcome);
  if (!solution.solved) throw new SketchFailure(clashSentence(step, solution), outcome);
  const notes = [note, followed.note].filter(Boolean).join(' ');
  return { bodies: context.bodies, sketch: outcome, ...(notes ? { note: notes } : {}) };
}

/** The sketch with as many members of its patterns as their counts now ask for. */
function withMembers(step: SketchStep, number: (id: string) => number): SketchGeometry {
  if (!step.patterns) return step;
  const copy = JSON.parse(JSON.stringify(step)) as SketchStep;
  return matchPatterns(copy, number) ? copy : step;
}

/** A sketch that cannot be solved is still shown as it was last drawn. */
export class SketchFailure extends StepFailure {
  constructor(
    message: string,
    readonly outcome: NonNullable<StepResult['sketch']>,
  ) {
    super(message);
  }
}

/** Where the sketch lies; of a lost face, where that was when it was picked, so that the sketch can still be seen. */
function supportOf(step: SketchStep, context: StepContext): { frame: Frame; note?: string; lost?: string } {
  if ('datum' in step.plane) return { frame: DATUM_FRAMES[step.plane.datum] };
  const { face } = step.plane;
  const found = findFace(face, context.bodies);
  const normal = found ? found.body.facts.faces[found.face]!.normal : null;
  if (!found || !normal) {
    const lost = `The face this sketch lies on is no longer ${found ? 'flat' : 'there'}; pick another face or plane for it.`;
    if (!face.near || !face.normal) throw new StepFailure(lost);
    return { frame: frameOfFace(face.near, face.normal), lost };
  }
  const frame = frameOfFace(found.body.facts.faces[found.face]!.center, normal);
  if (found.how === 'name') return { frame };
  return { frame, note: `Its face was split or replaced; it now lies on the nearest one of ${found.body.name}.` };
}

/** “width = 40 mm and left = 10 mm cannot both hold; change or remove one.” */
export function clashSentence(sketch: SketchStep, solution: SketchSolution): string {
  if (solution.misfit) return solution.misfit.message;
  if (solution.clash.length === 0)
    return 'This sketch could not be solved from where it is drawn; undo, or drag it nearer to its dimensions.';
  const named = solution.clash.slice(0, MOST_NAMED).map((id) => describeConstraint(sketch, id));
  if (solution.clash.length > MOST_NAMED) named.push(`${solution.clash.length - MOST_NAMED} more`);
  const list = named.length > 1 ? `${named.slice(0, -1).join(', ')} and ${named.at(-1)}` : `${named[0]}`;
  return named.length > 1
    ? `${list} cannot ${named.length === 2 ? 'both' : 'all'} hold; change or remove one of them.`
    : `${list} cannot be met here; change or remove it.`;
}

/** More names than this make no sentence. */
const MOST_NAMED = 8;

const MARKS: Readonly<Record<string, string>> = {
  coincident: 'a coincidence',
  horizontal: 'a horizontal',
  vertical: 'a vertical',
  equal: 'an equality',
  concentric: 'a common centre',
  parallel: 'a parallel',
  perpendicular: 'a right angle',
  tangent: 'a tangency',
  midpoint: 'a midpoint',
  symmetric: 'a symmetry',
  fixed: 'a fixed place',
  collinear: 'a common line',
  smooth: 'a smooth joint',
  equal_spacing: 'an equal spacing',
};

/** Constraints in words when only they themselves are at hand: “width = 40 mm and a tangency”. */
export function describeConstraints(constraints: readonly Constraint[]): string {
  const named = constraints.map((c) =>
    isDimension(c) ? (c.name ?? `a ${c.kind.replaceAll('_', ' ')}`) : MARKS[c.kind]!,
  );
  const list = named.length > 1 ? `${named.slice(0, -1).join(', ')} and ${named.at(-1)}` : (named[0] ?? '');
  return list.charAt(0).toUpperCase() + list.slice(1);
}

/** A constraint in words: a dimension by its name, any other by its kind. */
export function describeConstraint(sketch: SketchStep, id: string): string {
  const c = sketch.constraints[id];
  if (!c) return 'a removed constraint';
  if (!isDimension(c)) return MARKS[c.kind]!;
  return sketchDimensionNames(sketch.constraints).get(id)!;
}
