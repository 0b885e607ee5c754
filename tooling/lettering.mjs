/**
 * Makes the outlines of the lettering in sketches from the shipped typeface
 * (Archivo Medium, SIL Open Font License): per character its advance and its
 * contours as lines and cubic curves, in thousandths of the cap height.
 */
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import opentype from 'opentype.js';

const root = join(import.meta.dirname, '..');
const file = await readFile(join(root, 'node_modules/@fontsource/archivo/files/archivo-latin-500-normal.woff'));
const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength));

const capHeight = font.charToGlyph('H').getMetrics().yMax;
const scale = 1000 / capHeight;
const round = (n) => Math.round(n * scale * 10) / 10;
const characters = [];
for (let c = 32; c < 127; c++) characters.push(String.fromCharCode(c));
for (let c = 161; c < 256; c++) if (c !== 173) characters.push(String.fromCharCode(c));

/** Each contour: [x, y] to start, then per piece 2 numbers for a line, 6 for a cubic curve. */
function contoursOf(glyph) {
  const contours = [];
  let at = [0, 0];
  const to = (x, y) => (at = [x, y]);
  for (const c of glyph.path.commands) {
    if (c.type === 'M') {
      contours.push([[round(c.x), round(c.y)]]);
      to(c.x, c.y);
    } else if (c.type === 'L') {
      if (c.x !== at[0] || c.y !== at[1]) contours.at(-1).push([round(c.x), round(c.y)]);
      to(c.x, c.y);
    } else if (c.type === 'Q') {
      const third = (a, b) => a + (2 / 3) * (b - a);
      const control = [third(at[0], c.x1), third(at[1], c.y1), third(c.x, c.x1), third(c.y, c.y1)];
      contours.at(-1).push([...control, c.x, c.y].map(round));
      to(c.x, c.y);
    } else if (c.type === 'C') {
      contours.at(-1).push([c.x1, c.y1, c.x2, c.y2, c.x, c.y].map(round));
      to(c.x, c.y);
    }
  }
  return contours;
}

const glyphs = {};
for (const character of characters) {
  const glyph = font.charToGlyph(character);
  if (glyph.index === 0) continue;
  glyphs[character] = { advance: round(glyph.advanceWidth), contours: contoursOf(glyph) };
}
const rows = Object.entries(glyphs).map(([c, g]) => `  ${JSON.stringify(c)}: ${JSON.stringify(g)},`);
const text = `/** Made by tooling/lettering.mjs from Archivo Medium (SIL Open Font License 1.1). */
import type { Glyph } from './glyph.ts';

export const OUTLINES: Readonly<Record<string, Glyph>> = {
${rows.join('\n')}
};
`;
await writeFile(join(root, 'packages/core/src/sketch/lettering/outlines.ts'), text);
console.log(`${rows.length} characters`);
