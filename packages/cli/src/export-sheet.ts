/** One sheet of a design as a file. */
import { composeSheet, drawingOf, KernelError, Known, PartEvaluator, sheetDxf, SheetFailure, sheetGeometry, sheetPdf, sheetSvg, withReadings, type Design, type PdfDocument, type Sheet } from '@helb/core'; // prettier-ignore
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { CliError } from './cli-error.ts';
import { watchedKernel } from './watched.ts';

export const SHEET_FORMATS = ['pdf', 'svg', 'dxf'] as const;

/** @param name of the sheet, or its id. @throws CliError */
export async function exportSheet(design: Design, format: string, name: string): Promise<Uint8Array> {
  const id = design.sheetOrder?.find((key) => key === name || design.sheets?.[key]?.name === name);
  if (id === undefined) throw new CliError(`No sheet is called “${name}” in this design.`);
  if (!SHEET_FORMATS.some((f) => f === format)) throw new CliError(`A sheet is written as ${SHEET_FORMATS.join(', ')}; not as ${format}.`); // prettier-ignore
  const kernel = await watchedKernel();
  const evaluator = new PartEvaluator(kernel);
  const own = await withReadings(design, evaluator, kernel);
  const sheet = own.sheets![id]!;
  try {
    const geometry = await sheetGeometry(own, id, evaluator, kernel, new Known());
    for (const says of geometry.says) console.error(says);
    for (const { kind, says } of geometry.audit?.findings ?? geometry.faults)
      if (kind !== 'missing') console.error(says);
    const drawing = drawingOf(
      sheet,
      composeSheet(sheet, { name: subjectOf(own, sheet), titleBlock: own.shared?.titleBlock }, geometry, own.units),
    );
    if (format === 'svg') return sheetSvg(drawing);
    if (format === 'dxf') return sheetDxf(drawing);
    return await sheetPdf(drawing, (options) => new PDFDocument(options as never) as unknown as PdfDocument, fonts(), new Date()); // prettier-ignore
  } catch (error) {
    if (error instanceof SheetFailure || error instanceof KernelError) throw new CliError(error.message);
    throw error;
  }
}

const subjectOf = ({ parts, assemblies }: Design, { of }: Sheet): string =>
  ('part' in of ? parts[of.part]?.name : assemblies?.[of.assembly]?.name) ?? '';

function fonts() {
  const { resolve } = createRequire(import.meta.url);
  const file = (name: string) => readFileSync(resolve(`@fontsource/${name}`));
  return {
    words: file('archivo/files/archivo-latin-400-normal.woff'),
    strong: file('archivo/files/archivo-latin-700-normal.woff'),
    numbers: file('spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff'),
  };
}
