import type { EllipseSlots, LineSlots, PointSlots, RoundSlots, SplineSlots } from './equation.ts';

/** The variables of everything in a sketch, by id. */
export interface SketchSlots {
  readonly points: ReadonlyMap<string, PointSlots>;
  readonly lines: ReadonlyMap<string, LineSlots>;
  readonly rounds: ReadonlyMap<string, RoundSlots>;
  readonly ellipses: ReadonlyMap<string, EllipseSlots>;
  readonly splines: ReadonlyMap<string, SplineSlots>;
  /** Spacing of each pattern, along and across. */
  readonly steps: ReadonlyMap<string, readonly [number, number]>;
}
