/** Small files that are there whole or not at all, whatever interrupts their writing. */
import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs';

/** Write aside, reach the disk, then take the old one's place. Readable by the owner alone. */
export function writeWhole(file: string, text: string): void {
  const aside = `${file}.${process.pid}.new`;
  const handle = openSync(aside, 'w', 0o600);
  try {
    writeSync(handle, text);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
  renameSync(aside, file);
}

/** What the file holds as JSON; null when it is absent or broken. */
export function readJson(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as unknown;
  } catch {
    return null;
  }
}
