/**
 * A kind of step declares itself: its slots, how it begins from picks, its sentence, and what it
 * makes of its resolved slots. Ledger, users, copy, delete, preview, names and cache keys follow from that.
 */
import type { Body } from '../names/body.ts';
import { StepFailure } from '../names/body.ts';
import type { Name } from '../names/name.ts';
import type { AnySlot, Picked, Rewriting, Slot, StepData } from '../slots/slot.ts';
import type { Datum, Resolving, SketchOutcome } from '../slots/resolving.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import type { DisplayUnits } from '../units/units.ts';
import type { Transform } from '../space/transform.ts';
import type { Vec3 } from '../space/vector.ts';
import type { MadeSolid, SolidFacts, SolidHandle } from '../solid/kernel.ts';

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- read back from the slots themselves
type ResolvedOf<S> = S extends Slot<any, infer R> ? R : never;

/** What a step works with: the value of each slot that is there. */
export type Inputs<S extends Readonly<Record<string, AnySlot>>> = {
  readonly [K in keyof S]: S[K] extends { readonly when: unknown } ? ResolvedOf<S[K]> | undefined : ResolvedOf<S[K]>;
};

/** A body a step made. */
export interface MadeBody {
  readonly body: Body;
  /** The body it takes the place of; null for one begun here. */
  readonly from: Body | null;
}

/** What a step yields. */
export interface StepResult {
  readonly made: readonly MadeBody[];
  /** Bodies used up or replaced. */
  readonly used: readonly Body[];
  readonly sketch?: SketchOutcome;
  readonly datum?: Datum;
  /** Something the user should know though the step was made. */
  readonly note?: string;
  /** What came of it in numbers, as a sentence: nothing to look after. */
  readonly tells?: string;
}

/** A solid fresh from the kernel, with the names of its faces and of the body it would begin. */
export interface Fresh extends MadeSolid {
  readonly name: Name;
  readonly faceNames: readonly (readonly Name[])[];
}

/** A place on the stage by which one of the things in a slot is turned: it goes round a centre, on a plane. */
export interface Handle {
  readonly slot: string;
  readonly index: number;
  readonly at: Vec3;
  readonly center: Vec3;
  /** Directions from which, and towards which, angles are counted. */
  readonly x: Vec3;
  readonly y: Vec3;
}

/** One more of what is repeated. */
export interface Placed {
  /** Tells it from the others, and stays its own while others come and go: 2, or 2_3 in two directions. */
  readonly key: string;
  /** What people call it, where that is not its key: 3, 2.3, 3 of 2. */
  readonly called?: string;
  /** Where the original goes to become it. */
  readonly to: Transform;
}

/** Steps that a step repeats. */
export interface Repeated {
  readonly steps: readonly string[];
  readonly members: readonly Placed[];
  /** Each is made anew where it goes. */
  readonly adapting: boolean;
}

/** An earlier step about to be done again. */
export interface Again {
  readonly kind: StepKind;
  /** The bodies there were when it was made. */
  readonly then: readonly Body[];
  /**
   * Its slots, resolved anew.
   * @param bodies those there are now
   * @param change what its references mean this time
   * @throws StepFailure when one of them is not found for sure
   */
  resolved(bodies: readonly Body[], change?: Rewriting): Readonly<Record<string, unknown>>;
}

/** What a step may ask while it makes. */
export interface Making extends Resolving {
  /**
   * A body of a solid the step made; from here on it is freed with the step's result.
   * @param facts what is known of the solid already
   * @throws StepFailure when it is not sound
   */
  body(name: Name, solid: SolidHandle, faceNames: readonly (readonly Name[])[], facts?: SolidFacts): Body;
  /** Something the user should know though the step is made, as a sentence. */
  note(sentence: string): void;
  /** Offers a handle while the step is worked on, whatever comes of it. */
  handle(handle: Handle): void;
  /** What brought the kernel down when this step tried it before: kept while the kernel is started again. */
  readonly perils: Set<string>;
  /** An earlier step. @throws StepFailure when it is not there, comes later, failed or is suppressed */
  again(stepId: string): Again;
}

/** Where a step may begin: what a designer has picked, and the part so far. */
export interface Beginning {
  readonly picks: readonly Picked[];
  readonly bodies: number;
  readonly units: DisplayUnits;
  /** Sketches that no step has used yet, the newest last. */
  readonly unused: readonly string[];
  /** A sketch as it is solved, and whether it lies on a face; null when there is none. */
  sketch(id: string): { readonly geometry: SketchGeometry; readonly onFace: boolean } | null;
}

/** Words, and names of slots in place of which their labels stand. */
export type SentencePiece = string | { readonly slot: string };

export interface StepKind<S extends Readonly<Record<string, AnySlot>> = Readonly<Record<string, AnySlot>>> {
  readonly kind: string;
  /** Raised when the same slots come to mean another result: cached ones are then made anew. */
  readonly version: number;
  /** The verb, and the first word of new steps' names. */
  readonly label: string;
  /** What beginning one is called among the verbs, where that says more than the label. */
  readonly verb?: string;
  /** Its key among the verbs. */
  readonly key?: string;
  readonly slots: S;
  /** The slots of a step begun from these picks; null when nothing here begins one. */
  begin(from: Beginning): Record<string, unknown> | null;
  /** The slot that is typed in first. */
  readonly first?: string;
  sentence(step: StepData): readonly SentencePiece[];
  /** Slots that are not in the sentence until they are wanted: what each is called, and what it is first filled with. */
  extras?(step: StepData): readonly { readonly label: string; readonly slot: string; readonly stored: unknown }[];
  /** Of kinds that join, cut or begin bodies with tools: the tools alone. Others can repeat them elsewhere. */
  tools?(inputs: Inputs<S>, context: Making): readonly Fresh[];
  /** Of kinds that work on picked edges or faces: the slot that holds them. Others can repeat them on alike ones. */
  readonly worksOn?: string;
  /** Of kinds that repeat steps: which, and where to; null when they repeat something else. Others can repeat them in turn. */
  places?(inputs: Inputs<S>, context: Making): Repeated | null;
  /** @throws StepFailure with a sentence */
  make(inputs: Inputs<S>, context: Making): StepResult;
  /** For the published schema. */
  readonly says: string;
}

export function declareStep<S extends Readonly<Record<string, AnySlot>>>(kind: StepKind<S>): StepKind<S> {
  return kind;
}

/** A step that failed, but whose sketch can still be shown as it was last drawn. */
export class SketchFailure extends StepFailure {
  constructor(
    message: string,
    readonly outcome: SketchOutcome,
  ) {
    super(message);
  }
}
