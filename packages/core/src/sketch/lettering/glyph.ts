/** Lengths in thousandths of the height of capitals. */
export interface Glyph {
  readonly advance: number;
  /** [x, y] to start; then 2 numbers for a line, 6 for a cubic curve. */
  readonly contours: readonly (readonly (readonly number[])[])[];
}
