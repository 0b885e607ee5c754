/** A sheet as SVG, PDF or DXF, at its exact size. */
import { DxfWriter, point3d, TextHorizontalAlignment, Units } from '@tarikjabiri/dxf';
import { escaped, pathOf } from '../exchange/write-svg.ts';
import { drawPiece } from '../exchange/write-dxf.ts';
import { startPdf, type PdfDocument, type PdfMaker } from '../exchange/write-pdf.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { CAPITALS, PENS, type OnPaper, type SheetDrawing } from './paper.ts';

const DIGITS = 4;
const number = (x: number) => String(Number(x.toFixed(DIGITS)));
const DEGREES = 180 / Math.PI;

/** Path data of a piece on paper of this height; y runs down there. */
export const sheetPath = (piece: FlatPiece, paperHeight: number): string =>
  pathOf([{ piece, forward: true }], ([x, y]) => `${number(x)} ${number(paperHeight - y)}`, number);

const FACES = { words: 'Archivo', strong: 'Archivo', numbers: 'Spline Sans Mono' } as const;

export function sheetSvg({ size: [width, height], title, items }: SheetDrawing): Uint8Array {
  const lines = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(width)}mm" height="${number(height)}mm" viewBox="0 0 ${number(width)} ${number(height)}" fill="none" stroke="#000" stroke-linecap="round">`,
    `  <title>${escaped(title)}</title>`,
    ...items.map((item) => `  ${svgOf(item, height)}`),
    '</svg>',
  ];
  return new TextEncoder().encode(`${lines.join('\n')}\n`);
}

function svgOf(item: OnPaper, height: number): string {
  const at = ([x, y]: Vec2) => `${number(x)} ${number(height - y)}`;
  if (item.is === 'filled') return `<path d="M ${item.points.map(at).join(' L ')} Z" fill="#000" stroke="none"/>`;
  if (item.is === 'text') {
    const { face, anchor, turn } = item;
    return `<text transform="translate(${at(item.at)}) rotate(${number(-turn * DEGREES)})" font-family="${FACES[face]}"${face === 'strong' ? ' font-weight="700"' : ''} font-size="${number(item.height / CAPITALS)}" text-anchor="${anchor}" fill="#000" stroke="none">${escaped(item.text)}</text>`;
  }
  const { width, dashes } = PENS[item.pen];
  return `<path d="${sheetPath(item.piece, height)}" stroke-width="${width}"${dashes.length > 0 ? ` stroke-dasharray="${dashes.join(' ')}"` : ''}/>`;
}

/** The fonts that ship with Helb, as files. */
export interface SheetFonts {
  readonly words: Uint8Array;
  readonly strong: Uint8Array;
  readonly numbers: Uint8Array;
}

/** @param make a document of these options. @param date told in the file; the same sheet at the same date is the same file */
export function sheetPdf(
  { size, title, items }: SheetDrawing,
  make: PdfMaker,
  fonts: SheetFonts,
  date: Date,
): Promise<Uint8Array> {
  const { doc, done } = startPdf(size, title, make, date);
  for (const face of ['words', 'strong', 'numbers'] as const) doc.registerFont(face, fonts[face]);
  for (const item of items) drawOnPdf(doc, item, size[1]);
  doc.end();
  return done;
}

function drawOnPdf(doc: PdfDocument, item: OnPaper, height: number): void {
  if (item.is === 'filled') {
    const data = item.points.map(([x, y]) => `${number(x)} ${number(height - y)}`).join(' L ');
    doc.path(`M ${data} Z`).fill();
  } else if (item.is === 'curve') {
    const { width, dashes } = PENS[item.pen];
    doc.path(sheetPath(item.piece, height)).lineWidth(width);
    if (dashes.length > 0) doc.dash([...dashes]);
    else doc.undash();
    doc.stroke();
  } else if (item.text) {
    doc.font(item.face).fontSize(item.height / CAPITALS);
    const wide = doc.widthOfString(item.text);
    const x = item.anchor === 'middle' ? -wide / 2 : item.anchor === 'end' ? -wide : 0;
    doc
      .save()
      .translate(item.at[0], height - item.at[1])
      .rotate(-item.turn * DEGREES);
    doc.text(item.text, x, 0, { lineBreak: false, baseline: 'alphabetic' }).restore();
  }
}

/** Line types of the format by pen; sizes come as lines and words. */
const LAYERS = { visible: 7, hidden: 8, smooth: 9, center: 4, size: 3, frame: 7, rule: 8, words: 7 } as const;

export function sheetDxf({ items }: SheetDrawing): Uint8Array {
  const writer = new DxfWriter();
  writer.setUnits(Units.Millimeters);
  writer.addLType('HIDDEN', 'hidden', [3, -1.2]);
  writer.addLType('CENTER', 'center', [8, -1.2, 0.6, -1.2]);
  for (const [name, color] of Object.entries(LAYERS))
    writer.addLayer(name, color, name === 'hidden' ? 'HIDDEN' : name === 'center' ? 'CENTER' : 'CONTINUOUS');
  const place = ([x, y]: Vec2) => point3d(Number(x.toFixed(9)), Number(y.toFixed(9)), 0);
  for (const item of items) {
    if (item.is === 'curve') drawPiece(writer, item.piece, item.pen);
    else if (item.is === 'filled')
      item.points.forEach((p, i, all) => writer.addLine(place(p), place(all[(i + 1) % all.length]!), { layerName: 'size' })); // prettier-ignore
    else if (item.text)
      writer.addText(place(item.at), item.height, item.text, {
        layerName: 'words',
        rotation: item.turn * DEGREES,
        ...(item.anchor === 'start'
          ? {}
          : { horizontalAlignment: item.anchor === 'middle' ? TextHorizontalAlignment.Center : TextHorizontalAlignment.Right, secondAlignmentPoint: place(item.at) }), // prettier-ignore
      });
  }
  return new TextEncoder().encode(writer.stringify());
}
