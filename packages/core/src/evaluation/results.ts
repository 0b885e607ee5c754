/** What steps made, kept under their cache keys within a budget of the kernel's memory. */
import type { Body } from '../names/body.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import type { StepResult } from '../steps/step.ts';
import type { Told } from './context.ts';

export interface Kept {
  readonly result?: StepResult;
  /** Why it could not be made. */
  readonly failure?: Error;
  /** Bodies it made and must free. */
  readonly owned: readonly Body[];
  readonly told: Told;
  /** Names of steps that its messages hold: under others it is made anew. */
  readonly names: ReadonlyMap<string, string>;
}

/** What solids may take in the kernel, by its own estimate, once nobody is at work: enough that undo is instant. */
export const BUDGET_BYTES = 128 * 1024 * 1024;
/** Results that hold no solid count as much. */
const RESULT_BYTES = 20_000;

export class Results {
  private readonly kept = new Map<string, Kept>();

  constructor(
    private readonly kernel: SolidKernel,
    private readonly budget: number,
  ) {}

  /** @param nameOf the name of a step now */
  get(key: string, nameOf: (step: string) => string): Kept | undefined {
    const known = this.kept.get(key);
    if (!known) return undefined;
    this.kept.delete(key);
    if ([...known.names].some(([step, name]) => nameOf(step) !== name)) {
      this.free(known);
      return undefined;
    }
    // Used last, freed last.
    this.kept.set(key, known);
    return known;
  }

  private free({ owned }: Kept): void {
    for (const { solid } of owned) this.kernel.free(solid);
  }

  keep(key: string, kept: Kept): void {
    this.kept.set(key, kept);
  }

  /** The kernel has lost all it held. */
  forget(): void {
    this.kept.clear();
  }

  sweep(): void {
    const size = ({ owned }: Kept) => RESULT_BYTES + owned.reduce((sum, b) => sum + this.kernel.sizeOf(b.solid), 0);
    let total = 0;
    for (const [key, kept] of [...this.kept].reverse()) {
      total += size(kept);
      if (total <= this.budget) continue;
      this.kept.delete(key);
      this.free(kept);
    }
  }
}
