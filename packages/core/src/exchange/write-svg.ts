/** A face's outline as SVG, one user unit a mm, with true arcs; y runs down there. */
import { basisOf, bezierSpans, controlPoints, type Vec2 } from '../sketch/curves/spline.ts';
import { onOval, ovalOf, type DrawnLoop, type FaceDrawing } from './face-drawing.ts';

const DIGITS = 6;
/** mm; a hairline for cutters that take any. */
const STROKE = 0.1;

export function writeSvg({ outline, holes, engraved, size: [width, height] }: FaceDrawing, title: string): Uint8Array {
  const number = (x: number) => String(Number(x.toFixed(DIGITS)));
  const at = ([x, y]: Vec2) => `${number(x)} ${number(height - y)}`;
  const path = (loop: DrawnLoop, close: string) => `    <path d="${pathOf(loop, at, number)}${close}"/>`;
  const group = (id: string, color: string, loops: readonly DrawnLoop[], close = ' Z') => [`  <g id="${id}" stroke="${color}">`, ...loops.map((loop) => path(loop, close)), '  </g>']; // prettier-ignore
  const lines = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(width)}mm" height="${number(height)}mm" viewBox="0 0 ${number(width)} ${number(height)}" fill="none" stroke-width="${STROKE}">`,
    `  <title>${escaped(title)}</title>`,
    ...group('outline', '#ff0000', [outline]),
    ...group('holes', '#0000ff', holes),
    ...group('engraving', '#00a000', engraved.map((piece) => [{ piece, forward: true }]), ''), // prettier-ignore
    '</svg>',
  ];
  return new TextEncoder().encode(`${lines.join('\n')}\n`);
}

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
export const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => ENTITIES[c]!);

/**
 * A run of pieces as path data, y running down.
 * @param at writes a place
 */
export function pathOf(loop: DrawnLoop, at: (p: Vec2) => string, number: (x: number) => string): string {
  const parts: string[] = [];
  const begin = (p: Vec2) => parts.length === 0 && parts.push(`M ${at(p)}`);
  for (const { piece, forward } of loop) {
    if (piece.kind === 'point') continue;
    if (piece.kind === 'line') {
      const [from, to] = forward ? piece.points : [piece.points[1], piece.points[0]];
      begin(from);
      parts.push(`L ${at(to)}`);
    } else if (piece.kind === 'spline') {
      const basis = basisOf({ fit: 'through', points: piece.points.map(String), parameters: [...piece.parameters] });
      const spans = bezierSpans(basis.degree, basis.knots, controlPoints(basis, piece.points)).map((s) => s.control);
      for (const span of forward ? spans : spans.reverse()) {
        const points = forward ? span : [...span].reverse();
        begin(points[0]!);
        parts.push(points.length === 2 ? `L ${at(points[1]!)}` : `C ${points.slice(1).map(at).join(', ')}`);
      }
    } else {
      const oval = ovalOf(piece);
      const { major, long, short, from, to, whole } = oval;
      const on = (t: number): Vec2 => onOval(oval, t);
      const turn = number(-Math.atan2(major[1], major[0]) * (180 / Math.PI));
      // A whole round is two halves; y runs down, so that counter-clockwise is sweep 0.
      const stops = whole ? [0, Math.PI, 2 * Math.PI] : forward ? [from, to] : [to, from];
      begin(on(stops[0]!));
      for (let i = 1; i < stops.length; i++) {
        const large = Math.abs(stops[i]! - stops[i - 1]!) > Math.PI + 1e-9 ? 1 : 0;
        parts.push(`A ${number(long)} ${number(short)} ${turn} ${large} ${stops[i]! > stops[i - 1]! ? 0 : 1} ${at(on(stops[i]!))}`); // prettier-ignore
      }
    }
  }
  return parts.join(' ');
}
