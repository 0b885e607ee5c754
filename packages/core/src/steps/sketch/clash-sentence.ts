/** What disagrees in a sketch, in words. */
import { dimensionNames } from '../../sketch/dimension-names.ts';
import { lineName } from '../../sketch/line-names.ts';
import { isDimension, type Constraint, type SketchGeometry } from '../../sketch/schema.ts';
import type { SketchSolution } from '../../sketch/solve.ts';

/** “width = 40 mm and left = 10 mm cannot both hold; change or remove one.” */
export function clashSentence(sketch: SketchGeometry, solution: SketchSolution): string {
  if (solution.misfit) return solution.misfit.message;
  if (solution.clash.length === 0)
    return 'This sketch could not be solved from where it is drawn; undo, or drag it nearer to its dimensions.';
  const named = solution.clash.slice(0, MOST_NAMED).map((id) => describeConstraint(sketch, id));
  if (solution.clash.length > MOST_NAMED) named.push(`${solution.clash.length - MOST_NAMED} more`);
  // A number is called as it is written; a relation begins the sentence.
  const first = sketch.constraints[solution.clash[0]!];
  if (first && !isDimension(first)) named[0] = named[0]!.charAt(0).toUpperCase() + named[0]!.slice(1);
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

/** A constraint in words: a dimension by its name, one of lines by them, “left side vertical”, any other by its kind. */
export function describeConstraint(sketch: SketchGeometry, id: string): string {
  const c = sketch.constraints[id];
  if (!c) return 'a removed constraint';
  if (!isDimension(c)) return ofLines(sketch, c) ?? MARKS[c.kind]!;
  return dimensionNames(sketch.constraints).get(id)!;
}

/** The word behind the names of its lines. */
const OF_LINES: Readonly<Record<string, string>> = {
  horizontal: 'horizontal',
  vertical: 'vertical',
  equal: 'equal',
  parallel: 'parallel',
  perpendicular: 'square',
  collinear: 'in one line',
  fixed: 'fixed',
};

function ofLines(sketch: SketchGeometry, { kind, of }: Constraint): string | null {
  const word = OF_LINES[kind];
  const names = of.map((id) => lineName(sketch, id)?.replace(/^the /, ''));
  return word && names.every((n) => n !== undefined) ? `${names.join(' and ')} ${word}` : null;
}
