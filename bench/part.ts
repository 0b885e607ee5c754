/** Plates with more and more holes: evaluate, mesh, export, and evaluate again after one edit. */
import {
  emptyDesign,
  emptyPart,
  Ledger,
  PartEvaluator,
  PartPainter,
  writeStl,
  type Design,
  type SketchGeometry,
} from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { report, time } from './measure.ts';

function plate(holes: number, width: number, thickness: number): Design {
  const columns = Math.ceil(Math.sqrt(holes));
  const outline: SketchGeometry = {
    points: { a: [0, 0], b: [width, 0], c: [width, width], d: [0, width] },
    curves: {
      l: { kind: 'line', from: 'a', to: 'b' },
      m: { kind: 'line', from: 'b', to: 'c' },
      n: { kind: 'line', from: 'c', to: 'd' },
      o: { kind: 'line', from: 'd', to: 'a' },
    },
    constraints: {},
  };
  const pattern: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  for (let i = 0; i < holes; i++) {
    pattern.points[`p${i}`] = [
      ((i % columns) + 0.5) * (width / columns),
      (Math.floor(i / columns) + 0.5) * (width / columns),
    ];
    pattern.curves[`c${i}`] = { kind: 'circle', center: `p${i}`, radius: width / columns / 4 };
  }
  return {
    ...emptyDesign('Plate'),
    parts: {
      p: {
        ...emptyPart('Plate'),
        steps: {
          s: { kind: 'sketch', name: 'Outline', plane: { datum: 'floor' }, ...outline },
          e: {
            kind: 'extrude',
            name: 'Plate',
            profile: { sketch: 's', regions: 'all' },
            way: 'one_way',
            distance: `${thickness} mm`,
            result: 'new_body',
          },
          h: { kind: 'sketch', name: 'Holes', plane: { datum: 'floor' }, ...pattern },
          d: {
            kind: 'extrude',
            name: 'Drill',
            profile: { sketch: 'h', regions: 'all' },
            way: 'one_way',
            distance: `${thickness + 1} mm`,
            result: 'cut',
          },
        },
        stepOrder: ['s', 'e', 'h', 'd'],
      },
    },
    partOrder: ['p'],
  };
}

const start = performance.now();
const kernel = await loadKernel();
report('part', 'kernel start', 1, performance.now() - start, 'ms');

for (const holes of [4, 25, 100]) {
  const runs = { warmUp: 3, runs: holes > 50 ? 5 : 10 };
  const evaluate = async (design: Design, evaluator = new PartEvaluator(kernel)) =>
    evaluator.evaluate(design, Ledger.of(design), 'p');
  await time('part', 'evaluate plate with holes', holes, (i) => evaluate(plate(holes, 100 + i, 6)), runs);
  const evaluator = new PartEvaluator(kernel);
  const design = plate(holes, 100, 6);
  await evaluate(design, evaluator);
  await time('part', 'evaluate again unchanged', holes, () => evaluate(design, evaluator), { warmUp: 3, runs: 20 });
  const outcome = await evaluate(design, evaluator);
  await time('part', 'mesh for the screen', holes, () => new PartPainter(kernel).paint(outcome), runs);
  const { solid } = outcome.bodies[0]!;
  await time(
    'part',
    'write STEP',
    holes,
    () => kernel.exportStep([{ name: 'Plate', color: '#9DBFB8', opacity: 1, solids: [solid] }]),
    runs,
  );
  const mesh = kernel.mesh(solid, { linear: 0.05, angular: 0.2 });
  await time('part', 'write STL', holes, () => writeStl([mesh], 'Plate'), runs);
}
