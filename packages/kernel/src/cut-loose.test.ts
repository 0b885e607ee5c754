/** What was borrowed of another part and is cut loose stays as it was, with its names, whatever becomes of that part. */
import { describe, expect, test } from '@jest/globals';
import {
  addDimension, addPart, addStep, applyEdit, cutBorrowLoose, deletePart, writeDesign, emptyDesign, keptOf, Ledger, lentBy, PartEvaluator, readDesign, refOfFace, setDimension, type Design, type Source, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const evaluate = (design: Design, part: string) => evaluator.evaluate(design, Ledger.of(design), part);
const at = (z: number): Source['at'] => ({ stands: { at: [0, 0, z], turn: [0, 0, 0, 1] } });
const borrow = (from: Source): Step => ({ kind: 'borrow', name: 'Borrow 1', from });

/** Two blocks of one part, one with a rounded edge, and an ellipse bored through the other. */
const lender = edited(
  emptyDesign('Cutting loose'),
  addDimension('high', { name: 'high', value: '8 mm' }),
  addPart('blocks', 'Blocks'),
  addStep('blocks', 's', outline(rectangle(0, 0, 60, 40))),
  addStep('blocks', 'e', extruded('s', 'high')),
  addStep('blocks', 's2', outline(rectangle(100, 0, 30, 30), { name: 'Second outline' })),
  addStep('blocks', 'e2', extruded('s2', '2 * high')),
  addStep('blocks', 's3', { ...outline(rectangle(0, 0, 1, 1)), name: 'Oval', points: { c: [115, 15], m: [124, 15] }, curves: { o: { kind: 'ellipse', center: 'c', major: 'm', minor: 5 } } } as Step), // prettier-ignore
  addStep('blocks', 'e3', extruded('s3', '50 mm', { result: 'cut' })),
  addPart('peg', 'Peg'),
  addStep('peg', 'b', borrow({ part: 'blocks', at: at(5) })),
);

/** A peg stands on the top of the first block. */
async function pegged(design: Design): Promise<Design> {
  const { bodies } = (await evaluate(design, 'peg')).steps.at(-1)!;
  const [first] = bodies;
  const top = first!.facts.faces.findIndex((f) => f.normal && f.normal[2] > 0.9);
  return edited(
    design,
    addStep('peg', 'ps', { ...round(5), plane: { face: refOfFace(first!, top, bodies) } } as Step),
    addStep('peg', 'pe', extruded('ps', '20 mm')),
  );
}
const made = async (design: Design) => {
  const { steps, bodies } = await evaluate(design, 'peg');
  return {
    failed: steps.flatMap((s) => (s.status === 'failed' ? [s.message] : [])),
    doubts: steps.flatMap((s) => s.doubts),
    heights: bodies.map((b) => [b.facts.box.min[2], b.facts.box.max[2]].map((z) => Number(z.toFixed(6)))),
    borrowed: steps[0]!.bodies.map((b) => b.facts.volume),
    names: steps[0]!.bodies.map((b) => [b.name.text, ...b.faceNames.map((names) => names.map((n) => n.text).join())]),
  };
};

test('bodies keep their shape, place and names; what stands on them stays found, and the other part may go', async () => {
  const linked = await pegged(lender);
  const before = await made(linked);
  expect(before.failed).toEqual([]);
  const loose = edited(linked, cutBorrowLoose('peg', 'b', await keptOf(linked, 'peg', 'b', evaluator, kernel)));
  const after = await made(loose);
  expect(after).toEqual({ ...before, borrowed: before.borrowed.map((v) => expect.closeTo(v, 6)) });
  // 60 × 40 × 8, and 30 × 30 × 16 less the oval.
  expect(after.borrowed).toEqual([expect.closeTo(19_200, 6), expect.closeTo(16 * (900 - Math.PI * 9 * 5), 4)]);
  expect(after.heights).toEqual([[13, 33]]);
  const changed = edited(loose, setDimension('high', '11 mm'));
  expect(await made(changed)).toEqual(after);
  expect((await made(edited(linked, setDimension('high', '11 mm')))).heights).toEqual([[16, 36]]);
  expect(lentBy(loose, 'blocks')).toEqual([]);
  const alone = edited(changed, deletePart('blocks'));
  expect(await made(alone)).toEqual(after);
  const again = readDesign(writeDesign(alone));
  expect(again.ok && (await made(again.design))).toEqual(after);
});

test('a sketch keeps its curves and regions', async () => {
  const linked = edited(lender, addStep('peg', 'l', borrow({ part: 'blocks', sketch: 's3', at: at(2) })), addStep('peg', 'le', extruded('l', '4 mm'))); // prettier-ignore
  const loose = edited(linked, cutBorrowLoose('peg', 'l', await keptOf(linked, 'peg', 'l', evaluator, kernel)));
  const alone = edited(loose, cutBorrowLoose('peg', 'b', await keptOf(loose, 'peg', 'b', evaluator, kernel)), deletePart('blocks')); // prettier-ignore
  const { failed, doubts, heights } = await made(alone);
  expect([failed, doubts, heights]).toEqual([[], [], [[2, 6]]]);
  expect((await evaluate(alone, 'peg')).bodies[0]!.facts.volume).toBeCloseTo(4 * Math.PI * 9 * 5, 4);
});

describe('is refused', () => {
  test('of a step that borrows nothing, fails, or is loose already', async () => {
    const kept = await keptOf(lender, 'peg', 'b', evaluator, kernel);
    await expect(keptOf(lender, 'blocks', 'e', evaluator, kernel)).rejects.toThrow(
      'This step borrows nothing any more.',
    );
    const gone = edited(lender, deletePart('blocks'));
    await expect(keptOf(gone, 'peg', 'b', evaluator, kernel)).rejects.toThrow('Borrow 1 is not made now; mend that before you cut it loose.'); // prettier-ignore
    const twice = applyEdit(edited(lender, cutBorrowLoose('peg', 'b', kept)), cutBorrowLoose('peg', 'b', kept));
    expect(twice.ok || twice.message).toBe('Borrow 1 is cut loose already.');
  });

  test('where what was kept does not say what it says it holds', async () => {
    const kept = await keptOf(lender, 'peg', 'b', evaluator, kernel);
    const { gzip, names } = kept.bodies!;
    const damaged = [
      { gzip, names: names.slice(1) },
      { gzip, names: names.map((n) => ({ ...n, faces: n.faces.slice(1) })) },
      { gzip, names: names.map((n) => ({ ...n, body: '(' })) },
    ];
    for (const bodies of damaged) {
      const held = kernel.held;
      const { failed } = await made(edited(lender, cutBorrowLoose('peg', 'b', { ...kept, bodies })));
      expect(failed).toEqual(['What was kept of Blocks is damaged; remove this step and borrow Blocks anew.']);
      expect(kernel.held).toBe(held);
    }
    const { failed } = await made(edited(lender, cutBorrowLoose('peg', 'b', { ...kept, bodies: { gzip: 'AAAA', names } }))); // prettier-ignore
    expect(failed).toEqual(['What was kept of Blocks is damaged; remove this step and borrow Blocks anew.']);
  });
});
