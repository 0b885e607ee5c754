/** Outlines of a design on their boards as a file: as they are kept, or laid for the first time. */
import { BOARD_FORMATS, boardDrawings, boardsFile, cutCounts, cutGeometry, ExportFailure, faultsOfLaid, KernelError, Known, nestAsk, Nesting, PartEvaluator, pieceDrawings, withReadings, type BoardFormat, type Design, type LaidPlace, type NestAsk, type PdfDocument } from '@helb/core'; // prettier-ignore
import PDFDocument from 'pdfkit';
import { CliError } from './cli-error.ts';
import { watchedKernel } from './watched.ts';

/** How often all is laid: the same file each time, whatever the machine. */
const TRIES = 12;

/** Several boards as DXF or SVG come packed as zip. @param name of the outlines, or their id. @throws CliError */
export async function exportOutlines(design: Design, format: string, name: string): Promise<Uint8Array> {
  const id = design.outlinesOrder?.find((key) => key === name || design.outlines?.[key]?.name === name);
  if (id === undefined) throw new CliError(`No outlines are called “${name}” in this design.`);
  if (!BOARD_FORMATS.some((f) => f === format)) throw new CliError(`Outlines are written as ${BOARD_FORMATS.join(', ')}; not as ${format}.`); // prettier-ignore
  const kernel = await watchedKernel();
  const evaluator = new PartEvaluator(kernel);
  try {
    const whole = await withReadings(design, evaluator, kernel);
    const own = whole.outlines![id]!;
    const geometry = await cutGeometry(whole, id, evaluator, kernel, new Known());
    const [fault] = geometry.faults;
    if (fault) throw new CliError(`${whole.parts[own.pieces[fault[0]]!.part]?.name ?? 'A part'}: ${fault[1]}`);
    for (const { name: piece, says } of geometry.pieces.values()) for (const one of says) console.error(`${piece} ${one}.`); // prettier-ignore
    const counts = cutCounts(whole, own);
    let laid: readonly LaidPlace[];
    if (own.laid) {
      const { bad, missing } = faultsOfLaid(own, geometry, counts, own.laid);
      if (bad.size + missing.size > 0) throw new CliError(`The kept layout of ${own.name} does not hold what is to be cut any more; lay it anew.`); // prettier-ignore
      laid = own.laid;
    } else {
      const ask = nestAsk(own, geometry, counts);
      if (ask === null || typeof ask === 'string') throw new CliError(ask ?? `Nothing is to be cut in ${own.name}.`);
      laid = laidOf(ask, own.name);
    }
    const make = (options: unknown) => new PDFDocument(options as never) as unknown as PdfDocument;
    const boards = boardDrawings(own, pieceDrawings(own, geometry), laid);
    return (await boardsFile(boards, own.name, format as BoardFormat, make, new Date())).bytes;
  } catch (error) {
    if (error instanceof ExportFailure || error instanceof KernelError) throw new CliError(error.message);
    throw error;
  }
}

function laidOf(ask: NestAsk, name: string): readonly LaidPlace[] {
  const nesting = new Nesting(ask);
  for (let i = 0; i < TRIES; i++) {
    const work = nesting.once();
    while (!work.next().done);
  }
  const { laid, left } = nesting.found!;
  const missing = [...left.values()].reduce((sum, n) => sum + n, 0);
  if (missing > 0) throw new CliError(`${missing} pieces of ${name} find no room on its boards.`);
  return laid;
}
