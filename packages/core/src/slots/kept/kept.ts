/** What was borrowed of another part, cut loose from it: kept in the step as it was, where it stood. */
import { z } from 'zod';
import { StepFailure } from '../../names/body.ts';
import { hashText } from '../../ids/hash.ts';
import { SketchGeometry } from '../../sketch/schema.ts';
import type { Vec3 } from '../../space/vector.ts';
import { FileBytes, fileBytes } from '../file/file.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const Place = z.tuple([z.number(), z.number(), z.number()]) satisfies z.ZodType<Vec3>;
const NameText = z.string().min(1).max(2000);

export const Kept = z
  .strictObject({
    name: z.string().min(1).max(80).describe('The part it was of.'),
    bodies: z
      .strictObject({
        gzip: FileBytes,
        names: z
          .array(z.strictObject({ body: NameText, faces: z.array(z.array(NameText).max(200)).max(20_000) }))
          .min(1)
          .max(500)
          .describe(
            'Of each solid in the order of the file its durable name in the other part, and those of its faces.',
          ),
      })
      .describe('Its solids, in this part’s space, as a STEP file.')
      .optional(),
    sketch: z
      .strictObject({
        geometry: SketchGeometry.pick({ points: true, curves: true }),
        frame: z.strictObject({ origin: Place, x: Place, y: Place, normal: Place }),
      })
      .describe('One of its sketches, in this part’s space.')
      .optional(),
  })
  .describe('What was borrowed, kept as it was.');
export type Kept = z.infer<typeof Kept>;

export interface KeptSource {
  readonly stored: Kept;
  /** The STEP file. @throws StepFailure when it cannot be had */
  bytes(): Uint8Array;
}

/** By what is stored: a document's parts are never changed in place. */
const digests = new WeakMap<Kept, string>();

export function kept(): SlotKind<Kept, KeptSource> {
  return slotKind<Kept, KeptSource>({
    kind: 'kept',
    schema: Kept,
    resolve(stored) {
      let digest = digests.get(stored);
      if (digest === undefined) digests.set(stored, (digest = hashText(JSON.stringify(stored))));
      return { value: { stored, bytes: () => bytesOf(stored) }, digest };
    },
    label: ({ name }) => ({ label: `${name} as it was, cut loose` }),
  });
}

/** @throws StepFailure */
function bytesOf({ name, bodies }: Kept): Uint8Array {
  try {
    if (bodies) return fileBytes(name, bodies.gzip);
  } catch (error) {
    // There is no file to choose again.
    if (!(error instanceof StepFailure)) throw error;
  }
  throw damagedKept(name);
}

export const damagedKept = (name: string): StepFailure =>
  new StepFailure(`What was kept of ${name} is damaged; remove this step and borrow ${name} anew.`);
