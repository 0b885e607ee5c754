/** Writes boards as a file, beside the page. */
import { boardsFile, type BoardDrawing, type BoardFormat, type PdfDocument } from '@helb/core';
import * as Comlink from 'comlink';

const api = {
  async write(boards: readonly BoardDrawing[], name: string, format: BoardFormat, date: Date) {
    const { default: PDFDocument } = await import('pdfkit');
    return boardsFile(boards, name, format, (options) => new PDFDocument(options as never) as unknown as PdfDocument, date); // prettier-ignore
  },
};
export type BoardsWriter = typeof api;

Comlink.expose(api);
