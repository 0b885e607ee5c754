/** Labels moved off each other, each as little as it takes. */

export interface Label {
  /** Where its middle belongs, px. */
  readonly at: readonly [number, number];
  /** px */
  readonly width: number;
}

/** Rows and columns a label may be moved by, px. */
const [ROW, COLUMN] = [26, 40];
/** As many rows up or down, and columns to either side. */
const REACH = 14;

const STEPS = Array.from({ length: 2 * REACH + 1 }, (_, i) => i - REACH);
const SHIFTS = STEPS.flatMap((row) => [-2, -1, 0, 1, 2].map((column) => [column * COLUMN, row * ROW] as const)).sort(
  (a, b) => Math.hypot(...a) - Math.hypot(...b),
);

/**
 * Where the middles of the labels stand so that none covers another; those listed first stay nearest.
 * A label that finds no room is null.
 */
export function spreadLabels(labels: readonly Label[]): (readonly [number, number] | null)[] {
  // By rows, so that only near labels are looked at.
  const taken = new Map<number, { left: number; right: number; y: number }[]>();
  return labels.map(({ at, width }) => {
    for (const [dx, dy] of SHIFTS) {
      const [x, y] = [at[0] + dx, at[1] + dy];
      const row = Math.floor(y / ROW);
      const near = [row - 1, row, row + 1].flatMap((r) => taken.get(r) ?? []);
      const [left, right] = [x - width / 2, x + width / 2];
      if (near.some((t) => left < t.right && t.left < right && Math.abs(t.y - y) < ROW)) continue;
      const list = taken.get(row);
      if (list) list.push({ left, right, y });
      else taken.set(row, [{ left, right, y }]);
      return [x, y];
    }
    return null;
  });
}
