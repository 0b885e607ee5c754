/** Sheets against closed form, and read back by readers that are not ours. */
import { describe, expect, test } from '@jest/globals';
import {
  addSheet, changeSheetView, composeSheet, drawingOf, Known, newSheet, PartEvaluator, putSize, setDimension, sheetDxf, sheetGeometry, sheetPdf, sheetSvg,
  type Design, type DrawnView, type PdfDocument, type SheetGeometry, type Step,
} from '@helb/core'; // prettier-ignore
import DxfParser from 'dxf-parser';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import PDFDocument from 'pdfkit';
import { loadKernel } from './load.ts';
import { block, designOf, edited, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

const drawn = (steps: Record<string, Step>): Design =>
  edited(designOf(steps), addSheet('h', newSheet('Sheet', { part: 'p' }, null)));
const geometryOf = (design: Design): Promise<SheetGeometry> =>
  sheetGeometry(design, 'h', evaluator, kernel, new Known());
/** Solids held when all is drawn once more: pieces of sections are let go of. */
async function heldBy(design: Design): Promise<number> {
  await geometryOf(design);
  return kernel.held;
}
function viewOf(geometry: SheetGeometry, look: DrawnView['look']): DrawnView {
  return [...geometry.views.values()].find((v) => v.look === look)!;
}
const BORED = {
  ...block(60, 40, 10),
  b: round(5, {}, [17, 12]),
  c: extruded('b', '100 mm', { name: 'Bore', result: 'cut' }),
};

describe('what a view shows', () => {
  test('a circle seen obliquely is the ellipse of 1/√3 of its height', async () => {
    const { lines } = viewOf(await geometryOf(drawn({ s: round(20), e: extruded('s', '6 mm') })), 'oblique');
    const ovals = lines.flatMap(({ piece }) =>
      piece.kind === 'ellipse' || piece.kind === 'elliptical_arc' ? [piece] : [],
    );
    expect(ovals.length).toBeGreaterThanOrEqual(2);
    for (const {
      points: [center, major],
      minor,
    } of ovals) {
      expect(Math.hypot(major[0] - center[0], major[1] - center[1])).toBeCloseTo(20, 6);
      expect(minor).toBeCloseTo(20 / Math.sqrt(3), 6);
    }
  });

  test('two equal cylinders that cross meet in straight lines at 45°, seen square to both', async () => {
    const { lines } = viewOf(await geometryOf(drawn({
      s: round(10), e: extruded('s', '30 mm'),
      t: round(10, { plane: { datum: 'side' } }), f: extruded('t', '30 mm', { name: 'Across', result: 'join' }),
    })), 'front'); // prettier-ignore
    const slanted = lines.flatMap(({ piece }) => (piece.kind === 'line' && Math.abs(Math.abs(piece.points[1][0] - piece.points[0][0]) - Math.abs(piece.points[1][1] - piece.points[0][1])) < 1e-6 ? [piece] : [])); // prettier-ignore
    expect(slanted.length).toBeGreaterThan(0);
    for (const { points } of slanted) for (const [x, y] of points) expect(Math.abs(x)).toBeCloseTo(Math.abs(y), 6);
  });

  test('what lies behind is hidden, and left out where one does not want it', async () => {
    const steps = {
      ...block(60, 40, 10),
      b: outline(rectangle(10, 8, 25, 20)),
      c: extruded('b', '4 mm', { name: 'Pocket', result: 'cut' }),
    };
    const hidden = viewOf(await geometryOf(drawn(steps)), 'top').lines.filter((l) => l.style === 'hidden');
    expect(hidden.map((l) => l.piece.kind)).toEqual(['line', 'line', 'line', 'line']);
    const design = drawn(steps);
    const sheet = design.sheets!.h!;
    const top = sheet.viewOrder.find((id) => sheet.views[id]!.look === 'top')!;
    const without = { ...design, sheets: { h: { ...sheet, views: { ...sheet.views, [top]: { look: 'top' as const, hidden: false } } } } }; // prettier-ignore
    expect(viewOf(await geometryOf(without), 'top').lines.filter((l) => l.style === 'hidden')).toEqual([]);
  });

  test('a section through a bore shows what is cut, hatched as densely as its area wants, and marks where it is cut', async () => {
    const design = drawn(BORED);
    const sheet = design.sheets!.h!;
    const front = sheet.viewOrder.find((id) => sheet.views[id]!.look === 'front')!;
    const round = viewOf(await geometryOf(design), 'top').spots.find((s) => s.what === 'round')!;
    const own = edited(design, changeSheetView('h', front, { cut: { at: round.spot } }));
    const geometry = await geometryOf(own);
    expect(geometry.cuts.get(front)!.strips).toEqual([{ to: Infinity, depth: expect.closeTo(-12, 9) }]);
    // Two rectangles, 12 and 38 wide and 10 high, left and right of the bore.
    expect(viewOf(geometry, 'front').cut.flatMap((f) => f.outline).length).toBe(8);
    const composed = composeSheet(own.sheets!.h!, { name: 'Plate' }, geometry, own.units);
    const view = composed.views.find((v) => v.id === front)!;
    const long = view.items.flatMap((i) => (i.is === 'curve' && i.pen === 'smooth' && i.piece.kind === 'line' ? [Math.hypot(i.piece.points[1][0] - i.piece.points[0][0], i.piece.points[1][1] - i.piece.points[0][1])] : [])); // prettier-ignore
    const area = (long.reduce((sum, l) => sum + l, 0) * 2.5) / view.by ** 2;
    expect(Math.abs(area - 500) / 500).toBeLessThan(0.06);
    const letters = (look: string) => composed.views.find((v) => own.sheets!.h!.views[v.id]!.look === look)!.items.flatMap((i) => (i.is === 'text' ? [i.text] : [])); // prettier-ignore
    expect([letters('front'), letters('top'), letters('right')]).toEqual([['A–A'], ['A', 'A'], []]);
    expect(kernel.held).toBe(await heldBy(own));
  });

  test('a half section shows a ring whole on the left and cut on the right, with the middle between them', async () => {
    const design = drawn({ s: round(20), e: extruded('s', '30 mm'), b: round(8), c: extruded('b', '30 mm', { name: 'Bore', result: 'cut' } as Partial<Step>) }); // prettier-ignore
    const sheet = design.sheets!.h!;
    const front = sheet.viewOrder.find((id) => sheet.views[id]!.look === 'front')!;
    const half = edited(design, changeSheetView('h', front, { cut: { half: true } }));
    const view = viewOf(await geometryOf(half), 'front');
    // One rectangle of the wall, 12 by 30, right of the middle.
    const corners = view.cut.flatMap((f) => f.outline).flatMap((p) => p.points);
    expect(view.cut).toHaveLength(1);
    expect([Math.min(...corners.map(([x]) => x)), Math.max(...corners.map(([x]) => x))]).toEqual([expect.closeTo(8, 6), expect.closeTo(20, 6)]); // prettier-ignore
    const upright = view.lines.flatMap(({ piece }) => (piece.kind === 'line' && Math.abs(piece.points[0][0] - piece.points[1][0]) < 1e-6 ? [Math.round(piece.points[0][0] * 1e3) / 1e3] : [])); // prettier-ignore
    expect([...new Set(upright)].sort((a, b) => a - b)).toEqual([-20, 8, 20]);
    expect(view.axes.some((ends) => ends.every(([x]) => Math.abs(x) < 1e-9))).toBe(true);
    expect(kernel.held).toBe(await heldBy(half));
  });

  test('a section that has lost what it goes through says so and goes through the middle', async () => {
    const design = drawn(BORED);
    const sheet = design.sheets!.h!;
    const front = sheet.viewOrder.find((id) => sheet.views[id]!.look === 'front')!;
    const cut = { at: { edge: { faces: ['nothing:side:k', 'nothing:end:k'], near: [0, 0, 0] as [number, number, number] } } }; // prettier-ignore
    const geometry = await geometryOf(edited(design, changeSheetView('h', front, { cut })));
    expect(geometry.says).toEqual(['The front section has lost what it goes through, and goes through the middle; pick it anew.']); // prettier-ignore
    expect(geometry.cuts.get(front)!.strips).toEqual([{ to: Infinity, depth: expect.closeTo(-20, 9) }]);
  });

  test('lines know the edges they are, and sizes follow the model', async () => {
    const design = drawn(BORED);
    const geometry = await geometryOf(design);
    expect(viewOf(geometry, 'top').lines.every((l) => l.edge !== null)).toBe(true);
    // Its contours are no edges.
    expect(
      viewOf(geometry, 'front')
        .lines.filter((l) => l.edge === null)
        .map((l) => l.style),
    ).toEqual(['hidden', 'hidden']);
    const sized = edited(
      design,
      putSize(
        'h',
        geometry.audit!.findings.flatMap((f, i) => (f.cure ? [[`z${i}`, f.cure] as const] : [])),
      ),
    );
    const values = async (d: Design) => [...(await geometryOf(d)).sizes.values()].map((s) => (s.measured && 'value' in s.measured ? Number(s.measured.value.toFixed(6)) : s.lost)).sort(); // prettier-ignore
    expect(await values(sized)).toEqual([10, 10, 12, 17, 40, 60]);
    expect(await values(edited(sized, setDimension('e.distance', '14 mm')))).toEqual([10, 12, 14, 17, 40, 60]);
  });
});

/** With all its sizes, put together. */
async function wholeSheet() {
  const design = drawn(BORED);
  const { audit } = await geometryOf(design);
  const sized = edited(design, putSize('h', audit!.findings.flatMap((f, i) => (f.cure ? [[`z${i}`, f.cure] as const] : [])))); // prettier-ignore
  const sheet = sized.sheets!.h!;
  const composed = composeSheet(sheet, { name: 'Plate' }, await geometryOf(sized), sized.units);
  return { sheet, composed, drawing: drawingOf(sheet, composed) };
}

const at = createRequire(import.meta.url);
const font = (name: string) => readFileSync(at.resolve(`@fontsource/${name}`));
const FONTS = { words: font('archivo/files/archivo-latin-400-normal.woff'), strong: font('archivo/files/archivo-latin-700-normal.woff'), numbers: font('spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff') }; // prettier-ignore

describe('what is written', () => {
  test('a PDF at its exact size, with all numbers to be read, the same twice', async () => {
    const { drawing } = await wholeSheet();
    const write = () =>
      sheetPdf(drawing, (o) => new PDFDocument(o as never) as unknown as PdfDocument, FONTS, new Date(0));
    const bytes = await write();
    expect(Buffer.from(await write()).equals(Buffer.from(bytes))).toBe(true);
    const page = await (await getDocument({ data: bytes.slice(), verbosity: 0 }).promise).getPage(1);
    expect(page.view.map((x) => Number(((x * 25.4) / 72).toFixed(3)))).toEqual([0, 0, 420, 297]);
    const words = (await page.getTextContent()).items.map((i) => ('str' in i ? i.str : ''));
    expect(words).toEqual(expect.arrayContaining(['60', '40', '17', '12', '10', 'Ø10', 'Plate']));
  });

  test('a DXF in which the bore is a circle of its size on paper, on the layer of what is visible', async () => {
    const { drawing, composed } = await wholeSheet();
    const read = new DxfParser().parseSync(new TextDecoder().decode(sheetDxf(drawing)))!;
    const [on, truth] = composed.laidOut.scale;
    const circles = read.entities.filter((e) => e.type === 'CIRCLE' && e.layer === 'visible') as unknown as {
      radius: number;
    }[];
    expect(circles.map((c) => c.radius)).toEqual([(5 * on) / truth]);
    const texts = read.entities.filter((e) => e.type === 'TEXT') as unknown as { text: string }[];
    expect(texts.map((t) => t.text)).toEqual(expect.arrayContaining(['60', 'Ø10']));
    expect(read.entities.some((e) => e.layer === 'hidden')).toBe(true);
  });

  test('an SVG in millimetres, its words escaped', async () => {
    const { drawing } = await wholeSheet();
    const text = new TextDecoder().decode(sheetSvg({ ...drawing, title: 'A < B' }));
    expect(text).toContain('width="420mm" height="297mm" viewBox="0 0 420 297"');
    expect(text).toContain('<title>A &lt; B</title>');
    expect(text).toContain('>Ø10</text>');
  });
});
