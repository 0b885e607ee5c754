/** A PDF begun: pages measured in mm, the document made by pdfkit, which the core is handed. */

/** What is used of a PDF document of pdfkit, so that the core stands without it. */
export interface PdfDocument {
  on(event: 'data', listener: (chunk: Uint8Array) => void): unknown;
  on(event: 'end', listener: () => void): unknown;
  addPage(options: { size: [number, number]; margin: number }): unknown;
  registerFont(name: string, source: Uint8Array): unknown;
  font(name: string): PdfDocument;
  fontSize(size: number): PdfDocument;
  widthOfString(text: string): number;
  text(text: string, x: number, y: number, options: { lineBreak: boolean; baseline: 'alphabetic' }): PdfDocument;
  save(): PdfDocument;
  restore(): PdfDocument;
  scale(x: number): PdfDocument;
  translate(x: number, y: number): PdfDocument;
  rotate(degrees: number): PdfDocument;
  path(data: string): PdfDocument;
  lineWidth(width: number): PdfDocument;
  lineCap(cap: 'round'): PdfDocument;
  dash(lengths: number[]): PdfDocument;
  undash(): PdfDocument;
  stroke(color?: string): PdfDocument;
  fill(): PdfDocument;
  end(): void;
}

export interface PdfOptions {
  size: [number, number];
  margin: number;
  /** None but those registered. */
  font: null;
  info: { Title: string; Creator: string; CreationDate: Date };
}
export type PdfMaker = (options: PdfOptions) => PdfDocument;

const POINTS_A_MM = 72 / 25.4;

/** @param size of the first page, mm. @param date told in the file; the same drawing at the same date is the same file */
export function startPdf([width, height]: readonly [number, number], title: string, make: PdfMaker, date: Date) {
  const sized = (w: number, h: number) => ({ size: [w * POINTS_A_MM, h * POINTS_A_MM] as [number, number], margin: 0 });
  const doc = make({ ...sized(width, height), font: null, info: { Title: title, Creator: 'Helb', CreationDate: date } }); // prettier-ignore
  const chunks: Uint8Array[] = [];
  doc.on('data', (chunk) => chunks.push(chunk));
  const done = new Promise<Uint8Array>((resolve) => doc.on('end', () => resolve(joined(chunks))));
  const begin = () => doc.scale(POINTS_A_MM).lineCap('round');
  begin();
  /** Another page; measured in mm as well. */
  const page = ([w, h]: readonly [number, number]) => {
    doc.addPage(sized(w, h));
    begin();
  };
  return { doc, page, done };
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(chunks.reduce((total, c) => total + c.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    all.set(chunk, at);
    at += chunk.length;
  }
  return all;
}
