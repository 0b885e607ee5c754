/** A face's outline as DXF, in mm, with true arcs, outline, holes and engraving on layers of their own. */
import { DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import { basisOf, controlPoints, type Vec2 } from '../sketch/curves/spline.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { ovalOf, type FaceDrawing } from './face-drawing.ts';

/** Colours of the format's own list: red is cut last, blue first, by the custom of many cutters. */
const LAYERS = { outline: 1, holes: 5, engraving: 3 } as const;
const DEGREES = 180 / Math.PI;
const DIGITS = 9;

export function writeDxf({ outline, holes, engraved }: FaceDrawing): Uint8Array {
  const writer = new DxfWriter();
  writer.setUnits(Units.Millimeters);
  for (const [name, color] of Object.entries(LAYERS)) writer.addLayer(name, color, 'CONTINUOUS');
  for (const { piece } of outline) drawPiece(writer, piece, 'outline');
  for (const { piece } of holes.flat()) drawPiece(writer, piece, 'holes');
  for (const piece of engraved) drawPiece(writer, piece, 'engraving');
  return new TextEncoder().encode(writer.stringify());
}

const round = (x: number) => Number(x.toFixed(DIGITS));
const place = ([x, y]: Vec2) => point3d(round(x), round(y), 0);

/** A piece as the entity that is exactly that. */
export function drawPiece(writer: DxfWriter, piece: FlatPiece, layerName: string): void {
  const on = { layerName };
  if (piece.kind === 'line') writer.addLine(place(piece.points[0]), place(piece.points[1]), on);
  else if (piece.kind === 'spline') {
    const basis = basisOf({ fit: 'through', points: piece.points.map(String), parameters: [...piece.parameters] });
    const control = controlPoints(basis, piece.points);
    writer.addSpline({ controlPoints: control.map(place), degreeCurve: basis.degree, knots: [...basis.knots] }, on);
  } else if (piece.kind !== 'point') {
    const { center, major, long, short, from, to, whole } = ovalOf(piece);
    if (piece.kind === 'circle') writer.addCircle(place(center), round(long), on);
    else if (piece.kind === 'arc')
      writer.addArc(place(center), round(long), round(from * DEGREES), round(to * DEGREES), on);
    else writer.addEllipse(place(center), place(major), short / long, whole ? 0 : from, whole ? 2 * Math.PI : to, on);
  }
}
