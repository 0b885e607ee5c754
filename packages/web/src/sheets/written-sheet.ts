/** A sheet as a file, made in a worker of its own. */
import type { SheetDrawing } from '@helb/core';
import { oneOff } from '../shell/one-off.ts';
import type { SheetWriter } from './write-sheet.worker.ts';

export type SheetFormat = Parameters<SheetWriter['write']>[1];

/** @throws Error with a sentence */
export function writtenSheet(drawing: SheetDrawing, format: SheetFormat): Promise<Uint8Array> {
  const thread = new Worker(new URL('./write-sheet.worker.ts', import.meta.url), { type: 'module', name: 'sheet-writer' }); // prettier-ignore
  return oneOff<SheetWriter, Uint8Array>(thread, 'The sheet could not be written; try again.', (writer) => writer.write(drawing, format, new Date())); // prettier-ignore
}
