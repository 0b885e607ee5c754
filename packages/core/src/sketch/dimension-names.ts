/** What a sketch's dimensions are called, and what kind of quantity each is. */
import type { QuantityKind } from '../units/units.ts';
import { isDimension, type Constraint, type DimensionConstraint } from './schema.ts';

export function quantityOf(constraint: DimensionConstraint): QuantityKind {
  if (constraint.kind === 'angle' || constraint.kind === 'step_angle') return 'angle';
  return constraint.kind === 'count' || constraint.kind === 'count_across' ? 'number' : 'length';
}

/** A line has a width and a height; a distance between two things lies across or rises. */
function defaultName({ kind, of }: DimensionConstraint): string {
  switch (kind) {
    case 'distance':
      return of.length === 1 ? 'length' : 'distance';
    case 'horizontal_distance':
      return of.length === 1 ? 'width' : 'across';
    case 'vertical_distance':
      return of.length === 1 ? 'height' : 'rise';
    default:
      return kind;
  }
}

/** Names of a sketch's dimensions by constraint id; those without one get `across`, `across_2`, … */
export function dimensionNames(constraints: Readonly<Record<string, Constraint>>): Map<string, string> {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  const dimensions = Object.entries(constraints).filter((entry): entry is [string, DimensionConstraint] =>
    isDimension(entry[1]),
  );
  for (const [id, c] of dimensions) {
    if (c.name) {
      names.set(id, c.name);
      taken.add(c.name);
    }
  }
  for (const [id, c] of dimensions) {
    if (c.name) continue;
    const base = defaultName(c);
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
    names.set(id, name);
    taken.add(name);
  }
  return names;
}
