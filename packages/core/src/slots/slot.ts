/**
 * What a step is made of: slots. A slot kind says what is stored in the document, which numbers
 * and other steps are in it, how it is resolved against the part as it is before the step, and how it reads.
 */
import type { z } from 'zod';
import type { BodyRef, EdgeRef, FaceRef, RegionRef, VertexRef } from '../references/references.ts';
import type { CurveKind } from '../solid/kernel.ts';
import type { DatumPlane } from '../space/planes.ts';
import type { Vec3 } from '../space/vector.ts';
import type { QuantityKind } from '../units/units.ts';
import type { Resolving } from './resolving.ts';

/** A step as the document holds it: its kind, what every step has, and its slots by name. */
export interface StepData {
  kind: string;
  name: string;
  suppressed?: boolean | undefined;
  /** Shown under this name together with those beside it that name the same. */
  group?: string | undefined;
  /** Names of its numbers in the ledger, where they are not the slot’s own. */
  names?: Record<string, string> | undefined;
  [slot: string]: unknown;
}

/** A number inside a slot, as the ledger lists it. */
export interface NumberInSlot {
  /** With the step's id before it, the reference that expressions store. */
  readonly key: string;
  readonly name: string;
  readonly kind: QuantityKind;
  readonly expression: string;
  readonly level: 'slot' | 'sketch';
  /** What it reads, where it only measures; null when it drives. */
  readonly measured: number | null;
}

/** Something picked on the page that a slot could take, or a step begin from. */
export type Picked =
  | {
      readonly kind: 'face';
      readonly ref: FaceRef;
      readonly flat: boolean;
      readonly round: boolean;
      readonly cone: boolean;
      readonly of?: BodyRef;
    }
  | {
      readonly kind: 'edge';
      readonly ref: EdgeRef;
      readonly curve: CurveKind;
      readonly of?: BodyRef;
      /** The later of the steps that made its faces: a rim is of its hole, not of the plate. */
      readonly by?: string;
    }
  | { readonly kind: 'region'; readonly sketch: string; readonly ref: RegionRef }
  | { readonly kind: 'line'; readonly sketch: string; readonly curve: string }
  | { readonly kind: 'vertex'; readonly ref: VertexRef }
  | { readonly kind: 'sketch_point'; readonly sketch: string; readonly point: string }
  | { readonly kind: 'datum'; readonly datum: DatumPlane }
  /** A datum that a step sets up, or a sketch as a whole. */
  | { readonly kind: 'step'; readonly step: string; readonly is: 'plane' | 'axis' | 'point' | 'curve' | 'sketch' };

/** What a slot's label is written from. */
export interface Reading {
  /** Name of a step; null when it is not there any more. */
  stepName(id: string): string | null;
  /** A number of this step as people read it, and its value where that differs. */
  number(key: string): { readonly label: string; readonly value?: string };
  /** Names of what lies outside the part; null where it is not there any more. */
  readonly outside: {
    partName(id: string): string | null;
    stepName(part: string, id: string): string | null;
    assemblyName(id: string): string | null;
  };
}

/** Another part that a slot rests on, and the assembly that says where it stands, if one does. */
export interface Outside {
  readonly part: string;
  readonly assembly: string | null;
  /** One of its sketches; null for its bodies. */
  readonly sketch: string | null;
}

/** How a slot stands in its step's sentence. */
export interface SlotLabel {
  readonly label: string;
  /** A number's value, when its expression is more than the number. */
  readonly value?: string;
  readonly choices?: readonly { readonly value: string; readonly label: string }[];
}

/** A resolved slot: what the step works with, and a text that stands for all of it in the cache key. */
export interface Resolved<R> {
  readonly value: R;
  readonly digest: string;
}

/** What takes the place of what a slot refers to. */
export interface Rewriting {
  /** Of steps it rests on. */
  step(id: string): string;
  /** Of durable names in its references. */
  name(text: string): string;
  /** Of places and directions remembered beside names. */
  place(at: Vec3): Vec3;
  direction(along: Vec3): Vec3;
  expression(text: string): string;
}

export interface SlotKind<Stored = unknown, R = unknown> {
  /** Its name in the registers, here and on the page. */
  readonly kind: string;
  /** The fields it takes up in the step, by key. */
  fields(slot: string): Record<string, z.ZodType>;
  /** What is stored; undefined when the step has none. */
  read(step: StepData, slot: string): Stored | undefined;
  write(step: StepData, slot: string, stored: Stored): void;
  /** The numbers in it. @param naming the names given to them in the document, by key */
  numbers(stored: Stored, slot: string, naming: Readonly<Record<string, string>>): readonly NumberInSlot[];
  /** Is the number of this key in it? */
  holds(stored: Stored, slot: string, key: string): boolean;
  setNumber(step: StepData, slot: string, key: string, expression: string): void;
  /** Give a number another name in the ledger. */
  setName(step: StepData, slot: string, key: string, name: string): void;
  /** Take a number away by itself; false where it goes only with the step. */
  removeNumber(step: StepData, slot: string, key: string): boolean;
  /** Ids of the steps it rests on. */
  steps(stored: Stored): readonly string[];
  /** What it rests on of other parts. */
  outside(stored: Stored): readonly Outside[];
  /** Ways to instances, outermost first, each within an assembly; those of a draft are changed in place. */
  ways(stored: Stored): readonly { readonly assembly: string; readonly way: string[] }[];
  /** The same meaning other things, as a copy does, or a member of a pattern. */
  rewritten(stored: Stored, change: Rewriting): Stored;
  /** What is wrong with it in itself, as sentences that begin with `where`. */
  faults(stored: Stored, where: string): readonly string[];
  /** @throws StepFailure when it cannot be had; what is uncertain is told to `context.doubt` */
  resolve(stored: Stored, slot: string, context: Resolving): Resolved<R>;
  label(stored: Stored, slot: string, reading: Reading): SlotLabel;
  /** What would be stored after this pick; null when the pick is nothing for it. */
  take(stored: Stored | undefined, pick: Picked): Stored | null;
}

/** What most kinds have in common: one field of the slot's own name, no numbers, no steps. */
export function slotKind<Stored, R>(
  own: Pick<SlotKind<Stored, R>, 'kind' | 'resolve' | 'label'> &
    Partial<SlotKind<Stored, R>> & { readonly schema?: z.ZodType<Stored> },
): SlotKind<Stored, R> {
  return {
    fields: (slot) => ({ [slot]: own.schema! }),
    read: (step, slot) => step[slot] as Stored | undefined,
    write: (step, slot, stored) => void (step[slot] = stored),
    numbers: () => [],
    holds: () => false,
    setNumber: () => {},
    setName: (step, _, key, name) => void (step.names = { ...step.names, [key]: name }),
    removeNumber: () => false,
    steps: () => [],
    outside: () => [],
    ways: () => [],
    rewritten: (stored) => stored,
    faults: () => [],
    take: () => null,
    ...own,
  };
}

/** A slot of a step kind: of which kind, and when it is there. */
export interface Slot<Stored = unknown, R = unknown> {
  readonly of: SlotKind<Stored, R>;
  /** Left out unless this holds; such a slot may be absent from the document. */
  readonly when?: (step: StepData) => boolean;
  /** What stands for it where the document leaves it out, when the slot is there. */
  readonly otherwise?: (step: StepData) => Stored | undefined;
  /** For the published schema. */
  readonly says?: string;
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- slots of every kind stand in one record
export type AnySlot = Slot<any, any>;
