/** Long recipes edited at their end and at their beginning, patterns of many holes, and memory after many evaluations. */
import { applyEdit, Ledger, PartEvaluator, PartPainter, setDimension, type Design, type Step } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { designOf, extruded, outline, rectangle } from '../packages/kernel/src/sample-parts.ts';
import { growth, report, time } from './measure.ts';

const kernel = await loadKernel();

/** A plate, then by turns bosses and pockets in rows of ten, each a sketch and an extrusion. */
function recipe(steps: number): Design {
  const all: Record<string, Step> = { s: outline(rectangle(0, 0, 220, 120)), e: extruded('s', '12 mm') };
  for (let i = 0; i < (steps - 2) / 2; i++) {
    const [x, y] = [10 + 20 * (i % 10), 10 + 20 * Math.floor(i / 10)];
    all[`s${i}`] = outline(rectangle(x, y, 8, 8), { name: `Outline ${i}` });
    all[`e${i}`] = extruded(`s${i}`, `${i % 2 === 0 ? 20 : 6} mm`, { name: `Step ${i}`, result: i % 2 === 0 ? 'join' : 'cut' }); // prettier-ignore
  }
  return designOf(all);
}

function changed(design: Design, ref: string, value: string): Design {
  const made = applyEdit(design, setDimension(ref, value));
  if (!made.ok) throw new Error(made.message);
  return made.design;
}

for (const [name, steps, ref] of [['last of its steps edited', 30, 'e13.distance'], ['first dimension edited', 100, 'e.distance']] as const) {
  const [evaluator, painter] = [new PartEvaluator(kernel), new PartPainter(kernel)];
  const shown = async (design: Design) => painter.paint(await evaluator.evaluate(design, Ledger.of(design), 'p'));
  const design = recipe(steps);
  await shown(design);
  const made = evaluator.made;
  await shown(changed(design, ref, '7.5 mm'));
  report('part', `${name}: steps made`, steps, evaluator.made - made, 'count');
  await time('part', `${name}, to its picture`, steps, (i) => shown(changed(design, ref, `${5 + i / 10} mm`)), { warmUp: 2, runs: steps > 50 ? 5 : 15 }); // prettier-ignore
} // prettier-ignore

const grid = (across: number): Design =>
  designOf({
    s: outline(rectangle(0, 0, 300, 300)),
    e: extruded('s', '6 mm'),
    t: { ...outline([], { name: 'Hole' }), points: { c: [5, 5] }, curves: { o: { kind: 'circle', center: 'c', radius: 2.5 } } } as Step, // prettier-ignore
    h: extruded('t', '6 mm', { name: 'Drill', result: 'cut' }),
    r: { kind: 'pattern', name: 'Grid', what: 'steps', steps: ['h'], layout: 'grid', axis: { datum: 'x' }, count: `${across}`, pitch: `${300 / across} mm`, second_axis: { datum: 'y' }, second_count: `${across}`, second_pitch: `${300 / across} mm` } as Step, // prettier-ignore
  });
let before: { size: number; ms: number } | null = null;
for (const across of [10, 20, 30]) {
  const calls = { combine: 0 };
  const combine = kernel.combine.bind(kernel);
  kernel.combine = (...given) => {
    calls.combine++;
    return combine(...given);
  };
  const ms = await time('part', 'patterned holes', across ** 2, async () => {
    const evaluator = new PartEvaluator(kernel);
    calls.combine = 0;
    const design = grid(across);
    await evaluator.evaluate(design, Ledger.of(design), 'p');
  }, { warmUp: 1, runs: 3 }); // prettier-ignore
  kernel.combine = combine;
  report('part', 'patterned holes: booleans', across ** 2, calls.combine, 'count');
  if (before)
    report('part', 'patterned holes: growth', across ** 2, growth(before, { size: across ** 2, ms }), 'exponent');
  before = { size: across ** 2, ms };
}

/** Of one design, its thickness changed each time; the kernel's memory never shrinks, so that it tells the most it took. */
const design = recipe(12);
const evaluator = new PartEvaluator(kernel, 16 * 1024 * 1024);
const memory = () => (kernel as unknown as { oc: { wasmMemory: WebAssembly.Memory } }).oc.wasmMemory.buffer.byteLength / 2 ** 20; // prettier-ignore
for (let i = 0; i <= 1000; i++) {
  const now = changed(design, 'e.distance', `${8 + i / 100} mm`);
  await evaluator.evaluate(now, Ledger.of(now), 'p');
  evaluator.sweep();
  if (i === 100 || i === 1000) report('part', 'kernel memory after evaluations', i, memory(), 'MiB');
}
