/** A drawing on a plane, from which other steps take regions. */
import { drawing, type Drawing } from '../../slots/drawing/drawing.ts';
import { plane } from '../../slots/plane/plane.ts';
import { StepFailure } from '../../names/body.ts';
import { CountRefused, matchPatterns } from '../../sketch/pattern/members.ts';
import { lettersMissing } from '../../sketch/lettering/lettering.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import type { SketchGeometry } from '../../sketch/schema.ts';
import { solveSketch } from '../../sketch/solve.ts';
import { declareStep, SketchFailure } from '../step.ts';
import { clashSentence } from './clash-sentence.ts';
import { withBorrowed } from './borrow.ts';

export const sketch = declareStep({
  kind: 'sketch',
  version: 1,
  label: 'Sketch',
  verb: 'Sketch here',
  key: 'k',
  says: 'A drawing on a plane, from which other steps take regions.',
  slots: {
    plane: { of: plane() },
    geometry: { of: drawing() },
  },
  begin({ picks }) {
    const [pick] = picks;
    const support = pick && picks.length === 1 ? plane().take(undefined, pick) : null;
    return support && { plane: support, points: {}, curves: {}, constraints: {} };
  },
  sentence: () => ['Sketch on', { slot: 'plane' }, 'with', { slot: 'geometry' }],
  make({ plane: { frame, lost }, geometry }, context) {
    const followed = withBorrowed(geometry.sketch, frame, context);
    const solution = solveSketch(withMembers(followed.sketch, geometry), geometry.number);
    const outcome = { frame, solution, regions: findRegions(solution.geometry) };
    if (lost) throw new SketchFailure(lost, outcome);
    if (!solution.solved) throw new SketchFailure(clashSentence(geometry.sketch, solution), outcome);
    const note = [followed.note, missingLetters(geometry.sketch)].filter(Boolean).join(' ');
    return { made: [], used: [], sketch: outcome, ...(note ? { note } : {}) };
  },
});

/** A sentence about characters that cannot be lettered; empty when all can. */
function missingLetters(sketch: SketchGeometry): string {
  const texts = Object.values(sketch.curves).flatMap((c) => (c.kind === 'text' ? [c.text] : []));
  const missing = lettersMissing(texts.join(''));
  if (missing.length === 0) return '';
  return `The typeface has no ${missing.map((c) => `“${c}”`).join(', ')}; a stand-in is drawn, so write it another way.`;
}

/** The sketch with as many members of its patterns as their counts now ask for. */
function withMembers(followed: SketchGeometry, { number }: Drawing): SketchGeometry {
  if (!followed.patterns) return followed;
  const copy = structuredClone(followed);
  try {
    return matchPatterns(copy, number) ? copy : followed;
  } catch (error) {
    if (error instanceof CountRefused) throw new StepFailure(error.message);
    throw error;
  }
}
