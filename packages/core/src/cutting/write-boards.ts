/** Boards as DXF, SVG or PDF at 1:1, layer by layer. */
import { DxfWriter, Units } from '@tarikjabiri/dxf';
import { zipSync } from 'fflate';
import { drawPiece } from '../exchange/write-dxf.ts';
import { escaped, pathOf } from '../exchange/write-svg.ts';
import { startPdf, type PdfMaker } from '../exchange/write-pdf.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { CUT_LAYERS, type BoardDrawing, type CutLayer, type CutRun } from './board-drawing.ts';

/** Colours of the DXF format's own list, and the same as written elsewhere. */
const COLORS: Readonly<Record<CutLayer, readonly [number, string]>> = {
  engraving: [3, '#00a000'],
  mark: [6, '#c000c0'],
  holes: [5, '#0000ff'],
  outline: [1, '#ff0000'],
  board: [8, '#808080'],
};
const DIGITS = 6;
/** mm; a hairline for cutters that take any. */
const STROKE = 0.1;

const number = (x: number) => String(Number(x.toFixed(DIGITS)));
const pathData = ({ run, closed }: CutRun, height: number) =>
  pathOf(run, ([x, y]: Vec2) => `${number(x)} ${number(height - y)}`, number) + (closed ? ' Z' : '');

export function boardDxf({ runs }: BoardDrawing): Uint8Array {
  const writer = new DxfWriter();
  writer.setUnits(Units.Millimeters);
  for (const layer of CUT_LAYERS) writer.addLayer(layer, COLORS[layer][0], 'CONTINUOUS');
  for (const { layer, run } of runs) for (const { piece } of run) drawPiece(writer, piece, layer);
  return new TextEncoder().encode(writer.stringify());
}

export function boardSvg({ runs, size: [width, height], title }: BoardDrawing): Uint8Array {
  const layers = CUT_LAYERS.flatMap((layer) => {
    const own = runs.filter((r) => r.layer === layer).map((r) => `    <path d="${pathData(r, height)}"/>`);
    return own.length > 0 ? [`  <g id="${layer}" stroke="${COLORS[layer][1]}">`, ...own, '  </g>'] : [];
  });
  const lines = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(width)}mm" height="${number(height)}mm" viewBox="0 0 ${number(width)} ${number(height)}" fill="none" stroke-width="${STROKE}">`,
    `  <title>${escaped(title)}</title>`,
    ...layers,
    '</svg>',
  ];
  return new TextEncoder().encode(`${lines.join('\n')}\n`);
}

/** One page a board. @param date told in the file */
export function boardsPdf(
  boards: readonly BoardDrawing[],
  title: string,
  make: PdfMaker,
  date: Date,
): Promise<Uint8Array> {
  // prettier-ignore
  const { doc, page, done } = startPdf(boards[0]!.size, title, make, date);
  for (const [i, { runs, size }] of boards.entries()) {
    if (i > 0) page(size);
    for (const run of runs) doc.path(pathData(run, size[1])).lineWidth(STROKE).stroke(COLORS[run.layer][1]);
  }
  doc.end();
  return done;
}

export const BOARD_FORMATS = ['dxf', 'svg', 'pdf'] as const;
export type BoardFormat = (typeof BOARD_FORMATS)[number];

/** All boards as one file: a PDF of a page a board; of the other formats one board by itself, several packed as zip. */
export async function boardsFile(
  boards: readonly BoardDrawing[],
  name: string,
  format: BoardFormat,
  make: PdfMaker,
  date: Date,
): Promise<{ readonly bytes: Uint8Array; readonly ending: BoardFormat | 'zip' }> {
  if (format === 'pdf') return { bytes: await boardsPdf(boards, name, make, date), ending: 'pdf' };
  const files = boards.map(format === 'dxf' ? boardDxf : boardSvg);
  if (files.length === 1) return { bytes: files[0]!, ending: format };
  return { bytes: zipSync(Object.fromEntries(files.map((bytes, i) => [`board-${i + 1}.${format}`, bytes]))), ending: 'zip' }; // prettier-ignore
}
