/** What a slot, and then its step, may ask while they are evaluated. */
import type { Body } from '../names/body.ts';
import type { RegionMap } from '../sketch/regions/regions.ts';
import type { SketchSolution } from '../sketch/solve.ts';
import type { HelixPath, SolidKernel } from '../solid/kernel.ts';
import type { Pose } from '../space/pose.ts';
import type { Axis, Frame, Vec3 } from '../space/vector.ts';
import type { Source } from '../references/source.ts';

/** What a sketch step yields for the steps after it. */
export interface SketchOutcome {
  readonly frame: Frame;
  readonly solution: SketchSolution;
  readonly regions: RegionMap;
}

/** A reference that was not found for sure, for the user to look at. */
export interface Doubt {
  readonly slot: string;
  /** Which of several in the slot. */
  readonly index: number;
  readonly how: 'probably' | 'lost';
  /** A whole sentence. */
  readonly says: string;
  /** What would be stored if what was found is what was meant; undefined when nothing was found. */
  readonly proposed?: unknown;
}

/** A plane, axis or point that a step sets up for others. */
export type Datum =
  | { readonly kind: 'plane'; readonly frame: Frame }
  | { readonly kind: 'axis'; readonly axis: Axis }
  /** Straight into the material, where it lies on a face. */
  | { readonly kind: 'point'; readonly at: Vec3; readonly into: Vec3 | null }
  | { readonly kind: 'curve'; readonly helix: HelixPath };

/** Another part, or a sketch of it, and where it stands in this one’s space. */
export interface BorrowedPart {
  readonly name: string;
  /** In the other part’s own space. */
  readonly bodies: readonly Body[];
  readonly sketch: SketchOutcome | null;
  readonly pose: Pose;
  /** Stands for all of it. */
  readonly digest: string;
}

export interface Resolving {
  readonly stepId: string;
  readonly kernel: SolidKernel;
  /** Bodies as they are before the step. */
  readonly bodies: readonly Body[];
  /** Value of one of this step's own numbers, mm, rad or plain. @throws StepFailure */
  number(key: string): number;
  /** @throws StepFailure when it is missing, comes later, or failed */
  sketch(stepId: string): { readonly name: string; readonly outcome: SketchOutcome };
  /** A datum set up by a step before this one. @throws StepFailure when there is none of this kind */
  datum<K extends Datum['kind']>(stepId: string, kind: K): Extract<Datum, { kind: K }>;
  /** A step before this one: what stands for all it was made from, and where it stands in the recipe. @throws StepFailure */
  made(stepId: string): { readonly digest: string; readonly place: number };
  /** The name people know a step by. */
  stepName(stepId: string): string;
  doubt(doubt: Doubt): void;
  /** Another part of the design. @throws StepFailure when it is not to be had, or rests on this one itself */
  borrowed(source: Source): BorrowedPart;
}
