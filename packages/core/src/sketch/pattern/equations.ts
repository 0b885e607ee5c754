/** A pattern's members follow their originals; their names say which they are. */
import { circularMember, linearMember } from '../equations/spacing.ts';
import type { Pattern, SketchGeometry } from '../schema.ts';
import type { Equation } from '../solver/equation.ts';
import type { SketchSlots } from '../solver/slots.ts';

/** Id of a member: of the original, in the i-th place (from 1) of the j-th row (from 0). */
export function memberId(original: string, pattern: string, i: number, j = 0): string {
  return `${original}__${pattern}_${i}${j === 0 ? '' : `_${j}`}`;
}

/** What a member's id says, given the patterns there are; null for an ordinary id. */
export function memberOf(
  id: string,
  patterns: Readonly<Record<string, unknown>> | undefined,
): { original: string; pattern: string; i: number; j: number } | null {
  // The last pattern's mark is the outermost; a pattern's own id may have _ in it.
  for (let at = id.lastIndexOf('__'); at > 0; at = id.lastIndexOf('__', at - 1)) {
    const match = /^([A-Za-z]\w*?)_(\d+)(?:_(\d+))?$/.exec(id.slice(at + 2));
    if (!match) continue;
    for (const [pattern, i, j] of [
      [match[1]!, match[2]!, match[3]],
      // A row may be part of the pattern's name: row_1, member 3.
      ...(match[3] === undefined ? [] : [[`${match[1]!}_${match[2]!}`, match[3], undefined] as const]),
    ] as const)
      if (patterns && Object.hasOwn(patterns, pattern))
        return { original: id.slice(0, at), pattern, i: Number(i), j: Number(j ?? 0) };
  }
  return null;
}

/** Members of a pattern that a sketch now has, by original. */
function membersIn(sketch: SketchGeometry, kind: 'points' | 'curves') {
  return Object.keys(sketch[kind]).flatMap((id) => {
    const member = memberOf(id, sketch.patterns);
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
