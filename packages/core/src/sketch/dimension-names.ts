/** What a sketch's dimensions are called, and what kind of quantity each is. */
import type { QuantityKind } from '../units/units.ts';
import { constraintKind } from './constraints/register.ts';
import { isDimension, type Constraint, type DimensionConstraint } from './schema.ts';

export function quantityOf({ kind }: DimensionConstraint): QuantityKind {
  return constraintKind(kind).quantity ?? 'length';
}

/** Names of a sketch's dimensions by constraint id; those without one get `across`, `across_2`, … */
export function dimensionNames(constraints: Readonly<Record<string, Constraint>>): Map<string, string> {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  /** Numbers below this one are taken. */
  const next = new Map<string, number>();
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
    const base = constraintKind(c.kind).calls?.(c) ?? c.kind;
    let name = base;
    if (taken.has(base)) {
      let n = next.get(base) ?? 2;
      while (taken.has(`${base}_${n}`)) n++;
      name = `${base}_${n}`;
      next.set(base, n + 1);
    }
    names.set(id, name);
    taken.add(name);
  }
  return names;
}
