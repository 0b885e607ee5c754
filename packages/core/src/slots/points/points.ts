/** Several places; of a sketch also all there are. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { StepFailure } from '../../names/body.ts';
import { markedPlaces } from '../../sketch/lone-points.ts';
import type { Resolving } from '../resolving.ts';
import {
  digestOfPlace, placeOf, pointInSketch, pointOfPick, pointRewritten, PointRef, stepsOfPoint, wordsOfPoint, type PlaceFound,
} from '../point/point.ts'; // prettier-ignore
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_POINTS = 2000;

const PointsChoice = z.union([
  PointRef,
  z
    .strictObject({ all_of: Id })
    .describe('All points of a sketch that stand alone; where none does, the centres of its circles.'),
]);
export type PointsChoice = z.infer<typeof PointsChoice>;

export function points(): SlotKind<readonly PointsChoice[], readonly PlaceFound[]> {
  return slotKind<readonly PointsChoice[], readonly PlaceFound[]>({
    kind: 'points',
    schema: z.array(PointsChoice).min(1).max(MOST_POINTS),
    steps: (stored) => stored.flatMap((c) => ('all_of' in c ? [c.all_of] : stepsOfPoint(c))),
    rewritten: (stored, change) =>
      stored.map((c) => ('all_of' in c ? { all_of: change.step(c.all_of) } : pointRewritten(c, change))),
    resolve(stored, slot, context) {
      const value = stored.flatMap((choice, index) => {
        const instead = (ref: PointRef) => stored.map((c, i) => (i === index ? ref : c));
        return 'all_of' in choice
          ? allOf(choice.all_of, context)
          : [placeOf(choice, { slot, index, instead }, context)];
      });
      if (value.length > MOST_POINTS)
        throw new StepFailure(`These are ${value.length} places, and ${MOST_POINTS} is the most there can be.`);
      return { value, digest: value.map(digestOfPlace).join() };
    },
    label(stored, _, reading) {
      const [only] = stored;
      if (stored.length === 1 && only && 'all_of' in only)
        return { label: `all points of ${reading.stepName(only.all_of) ?? 'a deleted sketch'}` };
      if (stored.length === 1 && only && !('all_of' in only)) return { label: wordsOfPoint(only, reading.stepName) };
      return { label: stored.length === 0 ? 'no places yet' : `${stored.length} places` };
    },
    take(stored, pick) {
      const choice: PointsChoice | null =
        pick.kind === 'step' && pick.is === 'sketch' ? { all_of: pick.step } : pointOfPick(pick);
      if (!choice) return null;
      const key = JSON.stringify(choice);
      const before = stored ?? [];
      const rest = before.filter((c) => JSON.stringify(c) !== key);
      return rest.length < before.length && rest.length > 0 ? rest : [...rest, choice];
    },
  });
}

function allOf(sketch: string, context: Resolving): PlaceFound[] {
  const { name, outcome } = context.sketch(sketch);
  const ids = markedPlaces(outcome.solution.geometry);
  if (ids.length === 0)
    throw new StepFailure(`${name} has no point that stands alone and no circle; draw points where these go.`);
  return ids.map((id) => pointInSketch(sketch, id, context));
}
