/** A pattern's members follow their originals; their names say which they are. */
import { circularMember, linearMember } from '../constraints/spacing.ts';
import type { Pattern, SketchGeometry } from '../schema.ts';
import type { Equation } from '../solver/equation.ts';
import type { SketchSlots } from '../solver/slots.ts';

/** Id of a member: of the original, in the i-th place (from 1) of the j-th row (from 0). */
export function memberId(original: string, pattern: string, i: number, j = 0): string {
  return `${original}__${pattern}_${i}${j === 0 ? '' : `_${j}`}`;
}

/** What a member's id says; null for an ordinary id. */
export function memberOf(id: string): { original: string; pattern: string; i: number; j: number } | null {
  const match = /^(.+)__([A-Za-z][A-Za-z0-9]*)_(\d+)(?:_(\d+))?$/.exec(id);
  return match && { original: match[1]!, pattern: match[2]!, i: Number(match[3]), j: Number(match[4] ?? 0) };
}

/** Members of a pattern that a sketch now has, by original. */
function membersIn(sketch: SketchGeometry, kind: 'points' | 'curves') {
  return Object.keys(sketch[kind]).flatMap((id) => {
    const member = memberOf(id);
    return member && sketch.patterns?.[member.pattern] && member.original in sketch[kind] ? [{ id, ...member }] : [];
  });
}

/** Curves that follow another through a pattern. */
export function patternLinks(sketch: SketchGeometry): { curve: string; of: string }[] {
  if (!sketch.patterns) return [];
  return membersIn(sketch, 'curves').map(({ id, original }) => ({ curve: id, of: original }));
}

/** @param wholeStep step angle of a pattern that fills a whole turn, rad */
export function patternEquations(
  sketch: SketchGeometry,
  slots: SketchSlots,
  wholeStep: (pattern: string) => number,
): Equation[] {
  if (!sketch.patterns) return [];
  return membersIn(sketch, 'points').flatMap(({ id, original, pattern: patternId, i, j }) => {
    const pattern: Pattern = sketch.patterns![patternId]!;
    const [p, q] = [slots.points.get(original)!, slots.points.get(id)!];
    const [along, across] = slots.steps.get(patternId)!;
    if (pattern.kind === 'linear') {
      const line = slots.lines.get(pattern.along);
      return line ? linearMember(patternId, p, q, line, [i, along], [j, across]) : [];
    }
    const center = slots.points.get(pattern.around);
    const step = pattern.whole ? { angle: wholeStep(patternId) } : { slot: along };
    return center ? circularMember(patternId, p, q, center, i, step) : [];
  });
}
