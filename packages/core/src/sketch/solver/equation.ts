import type { SplineBasis } from '../curves/spline.ts';

/**
 * One scalar equation r(x) = 0 over a few of the sketch's variables.
 * Residuals are in mm, or in mm-like units for directions (see DIRECTION_ARM).
 */
export interface Equation {
  /** The constraint it belongs to, or the id of the arc whose shape it keeps. */
  readonly owner: string;
  /** Slots it reads, into the system's value array. */
  readonly slots: readonly number[];
  /**
   * Residual at `values`; writes the derivative by each slot into `gradient`,
   * in the order of `slots`.
   */
  evaluate(values: Float64Array, gradient: Float64Array): number;
}

/** Two slots that hold a point's x and y. */
export interface PointSlots {
  readonly x: number;
  readonly y: number;
}

export interface LineSlots {
  readonly from: PointSlots;
  readonly to: PointSlots;
}

export interface RoundSlots {
  readonly center: PointSlots;
  readonly radius: number;
  /** Ends of an arc; none for a full circle. */
  readonly ends: readonly PointSlots[];
}

/**
 * Directions are compared by angle; times this arm in mm, an error of a
 * direction weighs like the offset it makes at that distance.
 */
export const DIRECTION_ARM = 10;

/** Below this length in mm a line has no direction to speak of. */
export const NO_LENGTH = 1e-9;

export interface EllipseSlots {
  readonly center: PointSlots;
  /** End of the first half axis. */
  readonly major: PointSlots;
  /** Length of the second half axis. */
  readonly minor: number;
  readonly ends: readonly PointSlots[];
}

export interface SplineSlots {
  readonly points: readonly PointSlots[];
  readonly basis: SplineBasis;
}
