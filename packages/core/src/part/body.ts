import type { SolidFacts, SolidHandle } from '../solid/kernel.ts';

/** A solid of a part on its way through the recipe. */
export interface Body {
  /** The id of the step that made it, with a number behind when it made several. */
  readonly id: string;
  /** The name of that step. */
  readonly name: string;
  readonly solid: SolidHandle;
  /** Durable names, in the kernel's order of faces. */
  readonly faceNames: readonly string[];
  /** Stands for its exact content: equal keys, equal solids. */
  readonly key: string;
  readonly facts: SolidFacts;
}

/** A step cannot be made; the message is a sentence for the user. */
export class StepFailure extends Error {}
