import type { EdgeCurve, SolidFacts, SolidHandle, SolidKernel } from '../solid/kernel.ts';
import type { QuantityKind } from '../units/units.ts';
import type { Name } from './name.ts';

/** A solid of a part on its way through the recipe. */
export interface Body {
  /** What began it: a step, and the region it began from. Pieces of one body share it. */
  readonly name: Name;
  readonly solid: SolidHandle;
  /** Of each face, in the kernel's order, every name that led to it. */
  readonly faceNames: readonly (readonly Name[])[];
  /** Stands for its exact content: equal keys, equal solids. */
  readonly key: string;
  readonly facts: SolidFacts;
}

/** @param index in the body's edges */
export function curveOfEdge({ solid }: Pick<Body, 'solid'>, index: number, kernel: SolidKernel): EdgeCurve {
  const all = kernel.curves(solid);
  return all[index]!;
}

/** A value of one of the step's own numbers with which it could be made. */
export interface NumberCure {
  /** The number's key. */
  readonly number: string;
  readonly kind: QuantityKind;
  /** mm, rad or plain. */
  readonly value: number;
}

/** Another filling of one of the step's slots with which it could be made. */
export interface SlotCure {
  readonly slot: string;
  readonly stored: unknown;
  /** What taking it is called: “Turn it round”. */
  readonly says: string;
}

export type Cure = NumberCure | SlotCure;

/** A step cannot be made; the message is a sentence for the user. */
export class StepFailure extends Error {
  constructor(
    message: string,
    readonly cure: Cure | null = null,
  ) {
    super(message);
  }
}
