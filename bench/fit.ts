/** Fits of many parts: overlaps among a hundred, a clearance along a way, and one dial that runs through ten linked parts. */
import { addDimension, addPart, addStep, applyEdit, checkFit, checkThroughMotion, emptyDesign, gapsAlong, Ledger, PartEvaluator, PartPainter, setDimension, type Body, type Design, type Edit, type Pose, type Standing, type Station, type Step } from '@helb/core'; // prettier-ignore
import { loadKernel } from '@helb/kernel';
import { extruded, outline, rectangle } from '../packages/kernel/src/sample-parts.ts';
import { report, time } from './measure.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

function edited(design: Design, edits: readonly Edit[]): Design {
  return edits.reduce((now, edit) => {
    const made = applyEdit(now, edit);
    if (!made.ok) throw new Error(made.message);
    return made.design;
  }, design);
}

/** Plates of one width and thickness, each with a row of holes of its own pitch: all follow both numbers. */
const PARTS = 10;
const linked = edited(emptyDesign('Linked'), [
  addDimension('wide', { name: 'wide', value: '40 mm' }),
  addDimension('thick', { name: 'thick', value: '4 mm' }),
  ...Array.from({ length: PARTS }, (_, k): Edit[] => {
    const [part, holes] = [`p${k}`, 9 + k];
    const drilled = { ...outline(rectangle(0, 0, 40, 30)) } as Step & { points: Record<string, number[]>; curves: Record<string, object>; constraints: Record<string, object> }; // prettier-ignore
    for (let h = 0; h < holes; h++) {
      drilled.points[`m${h}`] = [3 + (34 * h) / (holes - 1), 15];
      drilled.curves[`o${h}`] = { kind: 'circle', center: `m${h}`, radius: 0.9 };
    }
    drilled.constraints.w = { kind: 'horizontal_distance', of: ['p0', 'p1'], value: '$wide' };
    return [
      addPart(part, `Plate ${k}`),
      addStep(part, `s${k}`, drilled),
      addStep(part, `e${k}`, extruded(`s${k}`, `$thick + ${k} mm`)),
    ];
  }).flat(),
]);
const bodiesIn = async (design: Design, part: string): Promise<readonly Body[]> =>
  (await evaluator.evaluate(design, Ledger.of(design), part)).bodies;

const at = (x: number, y: number, z: number, angle = 0): Pose => ({
  at: [x, y, z],
  turn: [0, 0, Math.sin(angle / 2), Math.cos(angle / 2)],
});
const MANY = 100;
/** In rows, every tenth 1.5 mm into the one before. */
const standing: Standing[] = [];
for (let i = 0; i < MANY; i++) {
  const bodies = await bodiesIn(linked, `p${i % PARTS}`);
  const [x, y] = [(i % 10) * 40.4 - (i % 10 === 5 ? 1.9 : 0), Math.floor(i / 10) * 31];
  standing.push({ member: { key: `i${i}`, link: i }, bodies, pose: at(x, y, 0) });
}
const overlaps = (await checkFit(standing, 0, kernel)).filter((f) => f.kind === 'overlap');
report('fit', 'overlaps found, of ten', MANY, overlaps.length, 'count');
await time('fit', 'fit check', MANY, () => checkFit(standing, 0, kernel), { warmUp: 1, runs: 5 });
await time('fit', 'fit check with gaps below 0.5 mm', MANY, () => checkFit(standing, 0.5, kernel), { warmUp: 1, runs: 5 }); // prettier-ignore

/** A plate that swings past another, 100 positions. */
const POSITIONS = 100;
const [still, swung] = [await bodiesIn(linked, 'p0'), await bodiesIn(linked, 'p9')];
const travellers = [still, swung].map((bodies, link) => ({ key: `t${link}`, link, within: at(0, 0, 0), bodies }));
const stations: Station[] = Array.from({ length: POSITIONS }, (_, i) => {
  const angle = (Math.PI * i) / (POSITIONS - 1);
  return { value: angle, poses: [at(0, 0, 0), at(72, 15, 2, angle)] };
});
await time('fit', 'clearance of two parts', POSITIONS, () => gapsAlong(travellers[0]!, travellers[1]!, stations, kernel), { warmUp: 1, runs: 3 }); // prettier-ignore
await time('fit', 'what runs into what on the way', POSITIONS, () => checkThroughMotion(travellers, stations[0]!.poses, stations, 0, kernel), { warmUp: 1, runs: 3 }); // prettier-ignore

const painter = new PartPainter(kernel);
let design = linked;
await time('fit', 'one dial through linked parts, to their pictures', PARTS, async (i) => {
  design = edited(design, [setDimension('thick', `${4.2 + i / 10} mm`)]);
  for (const part of design.partOrder) painter.paint(await evaluator.evaluate(design, Ledger.of(design), part));
}, { warmUp: 3, runs: 9 }); // prettier-ignore
