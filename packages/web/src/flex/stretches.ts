import type { DialFlex } from '@helb/core';

export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly stands: boolean;
}

/**
 * The range in stretches that stand and stretches that do not, as far as it was looked at. Between a
 * value that stands and one that does not, the doubt goes to the latter.
 */
export function stretchesOf({ samples }: DialFlex): readonly Stretch[] {
  const stretches: Stretch[] = [];
  for (const [i, left] of samples.slice(0, -1).entries()) {
    const right = samples[i + 1]!;
    const stands = left.faults.length === 0 && right.faults.length === 0;
    const last = stretches.at(-1);
    if (last && last.stands === stands) stretches[stretches.length - 1] = { ...last, to: right.at };
    else stretches.push({ from: left.at, to: right.at, stands });
  }
  return stretches;
}
