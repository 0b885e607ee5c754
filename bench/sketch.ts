/** Families of sketches in growing sizes: solve, drag a frame, change a dimension, find regions; and how surely. */
import {
  findRegions,
  isDimension,
  SketchDrag,
  sketchSize,
  solvePositions,
  solveSketch,
  type SketchGeometry,
} from '@helb/core';
import { numbersIn, perturbed, repeatable, SAMPLE_FAMILIES } from '../packages/core/src/sketch/sample-families.ts';
import { Senses } from '../packages/core/src/sketch/senses.ts';
import { buildSystem } from '../packages/core/src/sketch/system.ts';
import { growth, report, time } from './measure.ts';

const constraintsOf = (s: SketchGeometry) => Object.keys(s.constraints).length;
const SIZES = [10, 30, 100, 300, 1000, 2000];

for (const [name, { make, each }] of Object.entries(SAMPLE_FAMILIES)) {
  const points: { size: number; ms: number }[] = [];
  for (const wanted of SIZES) {
    const s = make(Math.max(1, Math.round(wanted / each)));
    const size = constraintsOf(s);
    const value = numbersIn(s);
    const runs = { warmUp: 2, runs: wanted > 300 ? 8 : 20 };
    const solved = solveSketch(s, value).geometry;
    points.push({ size, ms: await time('sketch', `${name} solve`, size, () => solveSketch(solved, value), runs) });
    const changed = Object.keys(s.constraints).find((id) => isDimension(s.constraints[id]!));
    await time(
      'sketch',
      `${name} change 5 %`,
      size,
      (i) => solveSketch(solved, (id) => value(id) * (id === changed ? 1 + 0.05 * ((i % 2) * 2 - 1) : 1)),
      runs,
    );
    // A settled sketch has nothing to drag: one dimension is let go.
    const { [changed!]: _, ...rest } = solved.constraints;
    const loose = { ...solved, constraints: rest };
    const { loose: movable } = solveSketch(loose, value);
    const grabbed = [...movable].find((id) => id in loose.points) ?? Object.keys(loose.points)[2]!;
    const at = loose.points[grabbed]!;
    const drag = new SketchDrag(loose, value, grabbed, at);
    await time(
      'sketch',
      `${name} drag frame`,
      size,
      (i) => drag.moveTo([at[0] + Math.sin(i / 5), at[1] + Math.cos(i / 5)]),
      { warmUp: 10, runs: 100 },
    );
    await time('sketch', `${name} regions`, size, () => findRegions({ ...solved }), runs);
  }
  report(
    'sketch',
    `${name} solve growth exponent`,
    points.at(-1)!.size,
    growth(points[2]!, points.at(-1)!),
    'exponent',
  );
  surety(name, make(Math.max(1, Math.round(40 / each))));
}

/** Share of starts, each point off by up to a fifth of the whole sketch's size, that are solved; and of changes that flip nothing. */
function surety(name: string, s: SketchGeometry): void {
  const STARTS = 1000;
  const value = numbersIn(s);
  const base = solveSketch(s, value).geometry;
  const size = sketchSize(base);
  const random = repeatable(5);
  let reached = 0;
  for (let i = 0; i < STARTS; i++) {
    const solved = solvePositions(perturbed(base, 0.2 * size, random), value);
    if (solved && residualOf(solved, value) < 1e-9 * size) reached++;
  }
  report('sketch', `${name} perturbed starts solved`, constraintsOf(s), (100 * reached) / STARTS, '%');
  const dimensions = Object.keys(s.constraints).filter((id) => isDimension(s.constraints[id]!));
  let [possible, kept] = [0, 0];
  for (let i = 0; i < STARTS; i++) {
    const id = dimensions[Math.floor(random() * dimensions.length)]!;
    const factor = 0.5 * 4 ** random();
    const solved = solvePositions(base, (k) => value(k) * (k === id ? factor : 1));
    if (!solved) continue;
    possible++;
    const senses = new Senses(base, buildSystem(base, value));
    const read = (g: SketchGeometry) => senses.read(buildSystem(g, (k) => value(k) * (k === id ? factor : 1)).values);
    if (!senses.flipped(read(base), read(solved))) kept++;
  }
  report('sketch', `${name} changes possible`, constraintsOf(s), (100 * possible) / STARTS, '%');
  report('sketch', `${name} changes that flip nothing`, constraintsOf(s), (100 * kept) / Math.max(possible, 1), '%');
}

/** Largest residual of all equations at the positions given, mm. */
function residualOf(s: SketchGeometry, value: (id: string) => number): number {
  const { equations, values } = buildSystem(s, value);
  return Math.max(0, ...equations.map((e) => Math.abs(e.evaluate(values, new Float64Array(e.slots.length)))));
}
