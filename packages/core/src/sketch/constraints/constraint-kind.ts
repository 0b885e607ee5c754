/**
 * A kind of constraint: what it asks of the sketch's unknowns, and, where it
 * carries a number, what that reads as drawn. Each kind is one declaration,
 * listed in `register.ts`; its form in the file stands in `schema.ts`.
 */
import type { QuantityKind } from '../../units/units.ts';
import type { Constraint, ConstraintKind as KindName, DimensionConstraint, SketchGeometry } from '../schema.ts';
import type { Equation } from '../solver/equation.ts';
import type { MergeOutcome } from '../solver/merge.ts';
import type { Equating, Merging } from './operands.ts';

export interface ConstraintKind<C extends Constraint = Constraint> {
  /**
   * Make unknowns one, or pin them, before any equation is solved; null where
   * this constraint needs equations. An empty list asks nothing of the solver.
   */
  merge?(id: string, c: C, on: Merging): readonly MergeOutcome[] | null;
  /** What is to be brought to nothing. */
  equations?(id: string, c: C, on: Equating): readonly Equation[];
  /** A curve and the one whose shape it takes on. */
  follows?(c: C): readonly [curve: string, original: string];
  /** Only of a dimension: what it reads on the geometry as it stands, mm, rad or a count. */
  reads?(c: C, sketch: SketchGeometry): number;
  /** Only of a dimension: what its number is; a length where nothing is said. */
  readonly quantity?: QuantityKind;
  /** Only of a dimension: what it is called until somebody names it; its kind where nothing is said. */
  calls?(c: C): string;
  /** Whether it speaks of this whole curve between its ends, and so is lost when the curve gets longer or shorter. */
  ofLength?(c: C, curve: string): boolean;
}

export type Of<K extends KindName> = Extract<Constraint, { kind: K }>;

/** A kind asks something of the solver; and one with a number says what it reads. */
type Declared<C extends Constraint> = ConstraintKind<C> &
  (Required<Pick<ConstraintKind<C>, 'merge'>> | Required<Pick<ConstraintKind<C>, 'equations'>>) &
  (C extends DimensionConstraint ? Required<Pick<ConstraintKind<C>, 'reads'>> : unknown);

/** Declares one kind, typed by its name in the file. */
export function declareConstraint<K extends KindName>(
  kind: K,
  declared: Declared<Of<K>>,
): readonly [K, ConstraintKind] {
  return [kind, declared as unknown as ConstraintKind];
}
