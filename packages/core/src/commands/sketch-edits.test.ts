import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fillet } from '../sketch/change/corner.ts';
import { ChangeRefused } from '../sketch/change/ends.ts';
import { circularPattern, mirror, paste, clip, transform } from '../sketch/change/copy.ts';
import { offsetChain } from '../sketch/change/offset.ts';
import { extend, split, trim } from '../sketch/change/trim.ts';
import { SketchPen } from '../sketch/draw/pen.ts';
import { DRAW_TOOLS } from '../sketch/draw/tools.ts';
import { removeFromSketch } from '../sketch/edit/remove.ts';
import { repeatable } from '../sketch/sample-families.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import type { SketchStep } from '../steps/schema.ts';
import { applyEdit } from '../document/change.ts';
import { editOf } from '../document/command.ts';
import { inverted, type Touch, withTouches } from '../document/touches.ts';
import { retouched } from './revert.ts';
import { take } from './take.ts';
import { emptyDesign, emptyPart, type Design } from '../document/schema.ts';
import { editSketch } from './sketch.ts';

const start: Design = {
  ...emptyDesign('Edits'),
  parts: {
    p: {
      ...emptyPart('Part'),
      steps: {
        s: { kind: 'sketch', name: 'Sketch', plane: { datum: 'floor' }, points: {}, curves: {}, constraints: {} },
      },
      stepOrder: ['s'],
    },
  },
  partOrder: ['p'],
};

/** One random edit of a sketch, as a designer might make it. */
function anyEdit(sketch: SketchGeometry, random: () => number): void {
  const place = (): [number, number] => [Math.round(random() * 80 - 40), Math.round(random() * 80 - 40)];
  const one = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
  const curve = one(Object.keys(sketch.curves));
  const point = one(Object.keys(sketch.points));
  const way = Math.floor(random() * 14);
  if (way < 5 || !curve || !point) {
    const tool = one(DRAW_TOOLS.filter((t) => !t.picksCurves))!;
    const count = tool.clicks === 'open' ? 4 : tool.clicks;
    tool.draw({
      pen: new SketchPen(sketch, random),
      clicks: Array.from({ length: count }, () => ({ at: place() })),
      typed: {},
    });
    return;
  }
  const edits = [
    () => trim(sketch, curve, place()),
    () => extend(sketch, curve, place()),
    () => split(sketch, curve, place()),
    () => fillet(sketch, point, 2, '2'),
    () => mirror(sketch, [curve], 'y_axis'),
    () => offsetChain(sketch, [curve], 3, '3'),
    () => circularPattern(sketch, [curve], 'origin', { count: '3' }),
    () => transform(sketch, [curve], { about: [0, 0], turn: 0.3, scale: 1, shift: [4, 5] }),
    () => paste(sketch, clip(sketch, [curve]), { about: [0, 0], turn: 0, scale: 1, shift: [9, 9] }),
  ];
  (edits[way - 5] ?? (() => removeFromSketch(sketch, [curve])))();
}

/** JSON has no -0. */
const asStored = (design: Design): unknown => JSON.parse(JSON.stringify(design));

test('any run of sketch edits leaves a sound design, and taken back one by one leads exactly to the start', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      const random = repeatable(seed);
      const done: (readonly Touch[])[] = [];
      let design = start;
      for (let i = 0; i < 8; i++) {
        const outcome = applyEdit(
          design,
          editSketch('p', 's', 'Edit', (sketch) => anyEdit(sketch, random)),
        );
        if (!outcome.ok) continue;
        // As it is stored and sent, it does the same anywhere.
        const { command, args } = JSON.parse(JSON.stringify(outcome.edit)) as { command: string; args: unknown };
        const again = take(design, { kind: 'edit', command, args }, []);
        expect(again.ok ? asStored(again.design) : again.message).toEqual(asStored(outcome.design));
        expect(() => editOf(command, args)).not.toThrow();
        expect(withTouches(design, outcome.touches, true)).toEqual(outcome.design);
        done.push(outcome.touches);
        design = outcome.design;
      }
      for (const touches of done.reverse()) {
        const back = retouched(design, inverted(touches));
        if (!back.ok) throw new Error(back.at.path.join('/'));
        design = back.design;
      }
      expect(design).toEqual(start);
    }),
    // The first found a pattern of a pattern of a pattern once, the second an arc whose ends lie in one place.
    { numRuns: 60, examples: [[551304], [629717]] },
  );
});

test('an edit that cannot be made says so and leaves nothing behind', () => {
  const outcome = applyEdit(start, editSketch('p', 's', 'Edit', () => { throw new ChangeRefused('Not so.'); })); // prettier-ignore
  expect(outcome).toEqual({ ok: false, message: 'Not so.' });
});

test('a circle drawn to touch three lines is solved to a radius of its own in the same edit', () => {
  const triangle = applyEdit(start, editSketch('p', 's', 'Draw', (s) => {
    Object.assign(s.points, { a: [0, 0], b: [30, 0], c: [0, 40] });
    Object.assign(s.curves, { l: { kind: 'line', from: 'a', to: 'b' }, m: { kind: 'line', from: 'b', to: 'c' }, n: { kind: 'line', from: 'c', to: 'a' } }); // prettier-ignore
    for (const [i, p] of ['a', 'b', 'c'].entries()) s.constraints[`f${i}`] = { kind: 'fixed', of: [p] };
  })); // prettier-ignore
  if (!triangle.ok) throw new Error(triangle.message);
  const drawn = applyEdit(triangle.design, editSketch('p', 's', 'Draw', (s) => {
    s.points.q = [9, 11];
    s.curves.k = { kind: 'circle', center: 'q', radius: 7 };
    for (const l of ['l', 'm', 'n']) s.constraints[`t${l}`] = { kind: 'tangent', of: [l, 'k'] };
  })); // prettier-ignore
  const sketch = drawn.ok && (drawn.design.parts.p!.steps.s as SketchStep);
  // The circle inside a triangle of sides 30, 40, 50: its area over half its girth.
  expect(sketch && sketch.curves.k).toMatchObject({ radius: expect.closeTo(10, 6) as unknown });
});
