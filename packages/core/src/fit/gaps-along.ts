/** The clearance of two parts at every position of a way. */
import type { SolidKernel } from '../solid/kernel.ts';
import type { FitHooks } from './check-fit.ts';
import { gapAt, relative, type Station, type Traveller } from './through-motion.ts';

/** @returns mm at each position, 0 where they touch or stand in each other. Exact. @throws KernelError */
export async function gapsAlong(
  a: Traveller,
  b: Traveller,
  stations: readonly Station[],
  kernel: SolidKernel,
  hooks: FitHooks = {},
): Promise<number[]> {
  const gaps: number[] = [];
  for (const [done, { poses }] of stations.entries()) {
    hooks.progress?.(done, stations.length);
    await hooks.breathe?.();
    gaps.push(gapAt(a, b, relative(a, b, poses), kernel));
  }
  return gaps;
}
