/** What the reader's thread does. */
import { readDesign } from '@helb/core';
import type { ReadFile } from './reader.ts';

export default function readFile(text: string): ReadFile {
  const read = readDesign(text);
  return read.ok ? { ok: true, name: read.design.name, document: JSON.stringify(read.design) } : read;
}
