import { Ledger, PartEvaluator, readDesign, addSheet, applyEdit, newSheet, sheetGeometry, composeSheet, drawingOf, sheetSvg, sheetDxf, sheetPdf, putSize } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { readFileSync, writeFileSync } from 'node:fs';
import PDFDocument from 'pdfkit';
const kernel = await loadKernel(); const evaluator = new PartEvaluator(kernel);
let design = readDesign(readFileSync('demo/roof-vent-opener.helb.json', 'utf8')) as any; design = design.design ?? design;
for (const part of Object.keys(design.parts)) {
  const out = await evaluator.evaluate(design, Ledger.of(design), part);
  const b = out.bodies[0].facts.box;
  let d2 = applyEdit(design, addSheet('s1', newSheet('Sheet', { part }, b))) as any; d2 = d2.design;
  const t = performance.now();
  let g = await sheetGeometry(d2, 's1', evaluator, kernel);
  console.log(part, performance.now() - t, [...g.views.values()].map(v => [v.look, v.lines.length, v.lines.filter(l => !l.edge).length, v.spots.length].join(' ')).join(' | '));
  // a few sizes
  const sheet0 = d2.sheets.s1; const sizes: any[] = []; let n = 0;
  for (const id of sheet0.viewOrder.slice(0, 2)) { const v = g.views.get(id)!; for (const s of v.spots.slice(0, 14)) { if (s.what === 'line') { const [a, b] = s.piece.points as any; sizes.push(['z' + n++, { kind: Math.abs(a[0]-b[0]) < 1e-6 ? 'up' : Math.abs(a[1]-b[1]) < 1e-6 ? 'across' : 'straight', view: id, of: [s.spot] }]); } else if (s.what === 'round') sizes.push(['z' + n++, { kind: s.piece.kind === 'circle' ? 'diameter' : 'radius', view: id, of: [s.spot] }]); } }
  d2 = (applyEdit(d2, putSize('s1', sizes)) as any).design;
  g = await sheetGeometry(d2, 's1', evaluator, kernel);
  console.log([...g.sizes.values()].filter((s) => s.lost).map((s) => s.lost).slice(0, 3));
  const c = composeSheet(d2.sheets.s1, design.parts[part], g, design.units);
  const drawing = drawingOf(d2.sheets.s1, c);
  writeFileSync(`/tmp/sheet-${part}.svg`, sheetSvg(drawing)); writeFileSync(`/tmp/sheet-${part}.dxf`, sheetDxf(drawing));
  const f = (p: string) => readFileSync('node_modules/' + p);
  const fonts = { words: f('@fontsource/archivo/files/archivo-latin-400-normal.woff'), strong: f('@fontsource/archivo/files/archivo-latin-700-normal.woff'), numbers: f('@fontsource/spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff') };
  writeFileSync(`/tmp/sheet-${part}.pdf`, await sheetPdf(drawing, (o) => new PDFDocument(o) as any, fonts, new Date(0)));
}
