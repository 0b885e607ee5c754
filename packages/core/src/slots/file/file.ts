/** A file that goes with the design: kept compressed in the document, so that the design is whole by itself. */
import { Gunzip } from 'fflate';
import { z } from 'zod';
import { hashText } from '../../ids/hash.ts';
import { StepFailure } from '../../names/body.ts';
import { slotKind, type SlotKind } from '../slot.ts';

/** Letters of base64: a design has room for a few such files. */
export const MOST_STORED = 4 * 1024 * 1024;
/** Bytes once decompressed; a small file can be made that would fill any memory. */
export const MOST_FILE_BYTES = 32 * 1024 * 1024;

export const FileBytes = z.string().min(1).max(MOST_STORED).describe('Its bytes, gzip, in base64.');
const StoredFile = z.strictObject({
  name: z.string().min(1).max(200).describe('What the file was called.'),
  gzip: FileBytes,
});
export type StoredFile = z.infer<typeof StoredFile>;

export interface FileContent {
  readonly name: string;
  /** @throws StepFailure when they cannot be had */
  bytes(): Uint8Array;
}

/** By what is stored: a document's parts are never changed in place. */
const digests = new WeakMap<StoredFile, string>();

export function file(): SlotKind<StoredFile, FileContent> {
  return slotKind<StoredFile, FileContent>({
    kind: 'file',
    schema: StoredFile,
    resolve(stored) {
      let digest = digests.get(stored);
      if (digest === undefined) digests.set(stored, (digest = hashText(stored.gzip)));
      return { value: { name: stored.name, bytes: () => fileBytes(stored.name, stored.gzip) }, digest };
    },
    label: ({ name }) => ({ label: name }),
  });
}

/** A file as a document holds it. @param gzip its bytes, compressed. @throws RangeError when it is too large */
export function storedFile(name: string, gzip: Uint8Array): StoredFile {
  if ((gzip.length / 3) * 4 > MOST_STORED) throw new RangeError(`${name} is too large to go with a design.`);
  let text = '';
  for (let i = 0; i < gzip.length; i += CHUNK) text += String.fromCharCode(...gzip.subarray(i, i + CHUNK));
  return { name: name.slice(-200), gzip: btoa(text) };
}
const CHUNK = 8192;

/** What a document holds of a file. @throws StepFailure when it is damaged or too large */
export function fileBytes(name: string, gzip: string): Uint8Array {
  const pieces: Uint8Array[] = [];
  let size = 0;
  let ended = false;
  try {
    const packed = Uint8Array.from(atob(gzip), (c) => c.charCodeAt(0));
    const unpacking = new Gunzip((piece, last) => {
      size += piece.length;
      if (size > MOST_FILE_BYTES) throw new StepFailure(`${name} is larger than 32 MB; save only the parts you need in it.`); // prettier-ignore
      pieces.push(piece);
      ended ||= last;
    });
    // Bit by bit, so that it is noticed in time when it would become too large.
    for (let i = 0; i < packed.length; i += CHUNK) unpacking.push(packed.subarray(i, i + CHUNK), i + CHUNK >= packed.length); // prettier-ignore
  } catch (error) {
    if (error instanceof StepFailure) throw error;
    ended = false;
  }
  if (!ended || size === 0) throw new StepFailure(`What is kept of ${name} is damaged; choose the file again.`);
  const all = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}
