import type { Design } from './schema.ts';

/** Calm and distinct: what parts are told apart by, unless they have a colour of their own. */
const PALETTE = ['#9DBFB8', '#C9B27C', '#A9B4BC', '#C7A08F', '#9FB08A', '#B3A3C2', '#8FAFC7', '#C2B6A3'];

/** The colour of a part, #rrggbb. */
export function colorOf(design: Pick<Design, 'parts' | 'partOrder'>, part: string): string {
  return design.parts[part]?.color ?? PALETTE[Math.max(0, design.partOrder.indexOf(part)) % PALETTE.length]!;
}
