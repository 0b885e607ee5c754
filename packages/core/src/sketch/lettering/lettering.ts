/** Lettering in outline: characters set along a baseline in the shipped typeface. */
import type { Vec2 } from '../curves/spline.ts';
import type { Glyph } from './glyph.ts';
import { OUTLINES } from './outlines.ts';

export type OutlinePiece =
  | { readonly kind: 'line'; readonly points: readonly [Vec2, Vec2] }
  | { readonly kind: 'cubic'; readonly points: readonly [Vec2, Vec2, Vec2, Vec2] };

const glyphOf = (character: string): Glyph => OUTLINES[character] ?? OUTLINES['?']!;

/** Characters the typeface does not have, each once; they are drawn as a stand-in. */
export function lettersMissing(text: string): string[] {
  return [...new Set(text)].filter((c) => c.trim() !== '' && !OUTLINES[c]);
}

/** Length of a lettering over the height of its capitals. */
export function letteringProportion(text: string): number {
  const advance = [...text].reduce((sum, c) => sum + glyphOf(c).advance, 0);
  return Math.max(advance, 1) / 1000;
}

/** Closed contours of a lettering set from `from` to `to` (mm), in the order of its characters. */
export function letteringContours(text: string, from: Vec2, to: Vec2): OutlinePiece[][] {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const scale = length / letteringProportion(text) / 1000;
  if (!(scale > 0)) return [];
  const u = [(to[0] - from[0]) / length, (to[1] - from[1]) / length] as const;
  let pen = 0;
  const place = (x: number, y: number): Vec2 => {
    const [a, b] = [(pen + x) * scale, y * scale];
    return [from[0] + a * u[0] - b * u[1], from[1] + a * u[1] + b * u[0]];
  };
  return [...text].flatMap((character) => {
    const glyph = glyphOf(character);
    const contours = glyph.contours.map((contour) => closed(contour, place));
    pen += glyph.advance;
    return contours;
  });
}

function closed(contour: readonly (readonly number[])[], place: (x: number, y: number) => Vec2): OutlinePiece[] {
  const pieces: OutlinePiece[] = [];
  const start = place(contour[0]![0]!, contour[0]![1]!);
  let at = start;
  for (const piece of contour.slice(1)) {
    const points = Array.from({ length: piece.length / 2 }, (_, i) => place(piece[2 * i]!, piece[2 * i + 1]!));
    const end = points.at(-1)!;
    if (points.length === 1) pieces.push({ kind: 'line', points: [at, end] });
    else pieces.push({ kind: 'cubic', points: [at, points[0]!, points[1]!, end] });
    at = end;
  }
  if (Math.hypot(at[0] - start[0], at[1] - start[1]) > 1e-9) pieces.push({ kind: 'line', points: [at, start] });
  return pieces;
}
