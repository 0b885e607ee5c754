import type { Body } from '../part/body.ts';
import type { Frame, SolidHandle, SolidKernel } from '../solid/kernel.ts';
import type { RegionMap } from '../sketch/regions/regions.ts';
import type { SketchSolution } from '../sketch/solve.ts';

/** What a sketch step yields for the steps after it. */
export interface SketchOutcome {
  readonly frame: Frame;
  readonly solution: SketchSolution;
  readonly regions: RegionMap;
}

/** What a step may ask while it is evaluated. */
export interface StepContext {
  readonly stepId: string;
  readonly kernel: SolidKernel;
  /** Bodies made so far. */
  readonly bodies: readonly Body[];
  /** Value of one of this step's own numbers, mm or rad. @throws StepFailure */
  number(key: string): number;
  /** @throws StepFailure when it is missing, comes later, or failed */
  sketch(stepId: string): { readonly name: string; readonly outcome: SketchOutcome };
  /** Make a body from a solid the step made; its facts and key are filled in. */
  body(id: string, name: string, solid: SolidHandle, faceNames: readonly string[]): Body;
  /**
   * The same kernel work with the same inputs is done once; `key` must hold all that matters.
   * Solids made by `work` are freed when the result is forgotten.
   */
  once(key: string, work: () => Body[]): Body[];
}

export interface StepResult {
  readonly bodies: readonly Body[];
  readonly sketch?: SketchOutcome;
  /** Something the user should know though the step was made. */
  readonly note?: string;
}
