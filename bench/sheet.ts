/** Sheets: five views of a part of 300 faces, the same after one edit of a size, an assembly, and putting 300 sizes on paper. */
import { addAssembly, addPart, addSheet, addSheetView, addStep, applyEdit, composeSheet, emptyDesign, Known, Ledger, Nesting, newSheet, PartEvaluator, placeInstances, putSize, readDesign, sheetGeometry, type Design, type DrawnView, type Edit, type SheetSize, type Step } from '@helb/core'; // prettier-ignore
import { loadKernel } from '@helb/kernel';
import { readFileSync } from 'node:fs';
import { report } from './measure.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

function edited(design: Design, ...edits: readonly Edit[]): Design {
  return edits.reduce((now, edit) => {
    const outcome = applyEdit(now, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, design);
}

/** A bar with teeth on both sides: four faces each. */
function comb(teeth: number): Step {
  const points: [number, number][] = [];
  for (let i = 0; i < teeth; i++) points.push([i * 4, 0], [i * 4 + 2, 0], [i * 4 + 2, 2], [i * 4 + 4, 2]);
  for (let i = teeth - 1; i >= 0; i--) points.push([i * 4 + 4, 20], [i * 4 + 2, 20], [i * 4 + 2, 18], [i * 4, 18]);
  return {
    kind: 'sketch',
    name: 'Outline',
    plane: { datum: 'floor' },
    points: Object.fromEntries(points.map((p, i) => [`p${i}`, p])),
    curves: Object.fromEntries(points.map((_, i) => [`l${i}`, { kind: 'line', from: `p${i}`, to: `p${(i + 1) % points.length}` }])), // prettier-ignore
    constraints: {},
  } as Step;
}

const extrude = { kind: 'extrude', name: 'Bar', profile: { sketch: 's', regions: 'all' }, way: 'one_way', distance: '6 mm', result: 'new_body' } as Step; // prettier-ignore
let design = edited(emptyDesign('Bench'), addPart('p', 'Comb'), addStep('p', 's', comb(37)), addStep('p', 'e', extrude), addSheet('h', newSheet('Sheet', { part: 'p' }, null)), addSheetView('h', 'left', { look: 'left' })); // prettier-ignore
const known = new Known<DrawnView>();

async function drawn(of: Design, sheet = 'h') {
  const began = performance.now();
  const geometry = await sheetGeometry(of, sheet, evaluator, kernel, known);
  return { geometry, took: performance.now() - began };
}

// Once without counting: the part is made, the engine warmed.
await sheetGeometry(design, 'h', evaluator, kernel, new Known());
const first = await drawn(design);
const { bodies } = await evaluator.evaluate(design, Ledger.of(design), 'p');
report('sheet', 'five views with hidden lines, and the audit', bodies[0]!.facts.faces.length, first.took, 'ms');

const front = [...first.geometry.views].find(([, v]) => v.look === 'top')!;
const lines = front[1].spots.filter((s) => s.what === 'line');
const sizes = Array.from({ length: 300 }, (_, i): readonly [string, SheetSize] => [`z${i}`, { kind: 'straight', view: front[0], of: [lines[i % lines.length]!.spot] }]); // prettier-ignore
design = edited(design, putSize('h', sizes));
const sized = await drawn(design);
report('sheet', 'renewed after 300 sizes were put on it', sizes.length, sized.took, 'ms');
const times = Array.from({ length: 20 }, () => {
  const began = performance.now();
  composeSheet(design.sheets!.h!, { name: 'Comb' }, sized.geometry, design.units);
  return performance.now() - began;
}).sort((a, b) => a - b);
report('sheet', 'put together on paper with 300 sizes, median', sizes.length, times[10]!, 'ms');

const opened = readDesign(readFileSync('demo/vent-drive.helb.json', 'utf8'));
if (!opened.ok) throw new Error(opened.message);
const read = opened.design;
const [assembly] = Object.entries(read.assemblies!).find(([, a]) => a.name === 'Vent drive')!;
const drive = edited(read, addSheet('h', newSheet('Sheet', { assembly }, null)));
await sheetGeometry(drive, 'h', evaluator, kernel, new Known());
report('sheet', 'four views of an assembly, by its parts', read.assemblies![assembly]!.instanceOrder.length, (await drawn(drive)).took, 'ms'); // prettier-ignore

// Fifty combs of 50 faces each, side by side and over each other.
const home = (i: number) => ({ at: [(i % 10) * 60, Math.floor(i / 10) * 30, (i % 3) * 12] as [number, number, number], turn: [0, 0, 0, 1] as [number, number, number, number] }); // prettier-ignore
const rows = edited(
  emptyDesign('Rows'),
  addPart('p', 'Comb'),
  addStep('p', 's', comb(6)),
  addStep('p', 'e', { kind: 'extrude', name: 'Comb', profile: { sketch: 's', regions: 'all' }, way: 'one_way', distance: '10 mm', result: 'new_body' } as Step), // prettier-ignore
  addAssembly('a', 'Rows'),
  placeInstances('a', Array.from({ length: 50 }, (_, i) => [`i${i}`, { of: { part: 'p' }, home: home(i) }])), // prettier-ignore
  addSheet('h', newSheet('Sheet', { assembly: 'a' }, null)),
);
await evaluator.evaluate(rows, Ledger.of(rows), 'p');
report('sheet', 'four views of an assembly, by its parts', 50, (await drawn(rows)).took, 'ms');

// The set of shapes by which laying is measured: 50 of each, 2 mm apart, quarter turns, on a strip 1,500 wide.
const hexagon = Array.from({ length: 6 }, (_, i): [number, number] => [40 * Math.cos((i * Math.PI) / 3), 40 * Math.sin((i * Math.PI) / 3)]); // prettier-ignore
const shapes: [number, number][][] = [
  [[0, 0], [120, 0], [120, 40], [40, 40], [40, 120], [0, 120]],
  [[0, 0], [100, 0], [0, 80]],
  [[0, 0], [110, 0], [110, 90], [80, 90], [80, 30], [30, 30], [30, 90], [0, 90]],
  hexagon,
]; // prettier-ignore
const areas = 50 * (8000 + 4000 + 6900 + 1.5 * Math.sqrt(3) * 40 ** 2);
const nestBegan = performance.now();
const nesting = new Nesting({ pieces: shapes.map((loop, i) => ({ id: `s${i}`, loops: [loop], count: 50 })), board: [1500, 9000], boards: 1, gap: 2, margin: 0, turns: 'quarter' }); // prettier-ignore
const filled = () => (100 * areas) / (1500 * nesting.found!.used[0]!);
for (const seconds of [3, 20]) {
  let first = nesting.found === null;
  while (performance.now() - nestBegan < seconds * 1000) {
    const work = nesting.once();
    while (!work.next().done && performance.now() - nestBegan < seconds * 1000);
    if (first) report('sheet', 'outlines laid for the first time', 200, performance.now() - nestBegan, 'ms');
    first = false;
  }
  report('sheet', `of the strip filled within ${seconds} s`, 200, filled(), '%');
}
