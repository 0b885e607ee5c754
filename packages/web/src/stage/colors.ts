import type { Design } from '@helb/core';

/** Calm, distinct, and none of them the signal colour. */
const PALETTE = ['#9DBFB8', '#C9B27C', '#A9B4BC', '#C7A08F', '#9FB08A', '#B3A3C2', '#8FAFC7', '#C2B6A3'];

export function colorOfPart(design: Design | null, part: string | null): string {
  if (!design || !part) return PALETTE[0]!;
  const own = design.parts[part]?.color;
  return own ?? PALETTE[Math.max(0, design.partOrder.indexOf(part)) % PALETTE.length]!;
}
