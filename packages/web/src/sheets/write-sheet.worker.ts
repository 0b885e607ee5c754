/** Writes a sheet as a file: a document with its fonts takes a while to make. */
import { sheetDxf, sheetPdf, sheetSvg, type PdfDocument, type SheetDrawing } from '@helb/core';
import numbers from '@fontsource/spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff?url';
import words from '@fontsource/archivo/files/archivo-latin-400-normal.woff?url';
import strong from '@fontsource/archivo/files/archivo-latin-700-normal.woff?url';
import * as Comlink from 'comlink';

const fontAt = async (url: string): Promise<Uint8Array> => {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error('The fonts of the sheet could not be loaded; try again.');
  return new Uint8Array(await answer.arrayBuffer());
};

const api = {
  async write(drawing: SheetDrawing, format: 'pdf' | 'svg' | 'dxf', date: Date): Promise<Uint8Array> {
    if (format === 'svg') return sheetSvg(drawing);
    if (format === 'dxf') return sheetDxf(drawing);
    const [{ default: PDFDocument }, ...fonts] = await Promise.all([import('pdfkit'), fontAt(words), fontAt(strong), fontAt(numbers)]); // prettier-ignore
    const [w, s, n] = fonts as [Uint8Array, Uint8Array, Uint8Array];
    return sheetPdf(drawing, (options) => new PDFDocument(options as never) as unknown as PdfDocument, { words: w, strong: s, numbers: n }, date); // prettier-ignore
  },
};
export type SheetWriter = typeof api;

Comlink.expose(api);
