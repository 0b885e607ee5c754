/** A file from the reader's own disk, as a design keeps it. */
import { MOST_FILE_BYTES, storedFile, type StoredFile } from '@helb/core';
import { gzip } from 'fflate';

export const SOLID_FILES = '.step,.stp';

/** A file that cannot go with a design; the message is a sentence. */
export class FileRefused extends Error {}

/** @throws FileRefused */
export async function fileToStore(file: File): Promise<StoredFile> {
  const tooLarge = `${file.name} is too large to go with a design; save only the parts you need in it.`;
  if (file.size > MOST_FILE_BYTES) throw new FileRefused(tooLarge);
  let bytes: Uint8Array<ArrayBuffer>;
  try {
    bytes = new Uint8Array(await file.arrayBuffer());
  } catch {
    throw new FileRefused(`${file.name} cannot be read; look whether it is still there.`);
  }
  // In a worker of the library's own, so that the page stays free.
  const packed = await new Promise<Uint8Array>((done, fail) =>
    gzip(bytes, { consume: true }, (error, data) => (error ? fail(error) : done(data))),
  );
  try {
    return storedFile(file.name, packed);
  } catch (error) {
    if (error instanceof RangeError) throw new FileRefused(tooLarge);
    throw error;
  }
}
