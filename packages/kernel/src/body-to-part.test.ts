/** A body that becomes a part of its own, and how parts look. */
import { describe, expect, test } from '@jest/globals';
import {
  bodyToPart, colorOf, editOf, Ledger, PartEvaluator, refOfBody, setAppearance, setDimension, setMaterial, tellPartsApart, addPart,
  type Body, type Design,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { designOf, edited, evaluated, extruded, outline, rectangle } from './sample-parts.ts';

const evaluator = new PartEvaluator(await loadKernel());
const bodiesOf = async (design: Design, part: string) => {
  const { bodies, steps } = await evaluator.evaluate(design, Ledger.of(design), part);
  expect(steps.filter((s) => s.status !== 'ok' || s.doubts.length > 0)).toEqual([]);
  return bodies.map((b) => b.facts.volume);
};

describe('a body becomes a part', () => {
  const design = edited(
    designOf(
      { s: outline(rectangle(0, 0, 20, 10)), e: extruded('s', 'thick'), t: outline(rectangle(40, 0, 5, 5)), f: extruded('t', '2 * thick') },
      { thick: '3 mm' },
    ),
    setMaterial('p', 'steel'),
  ); // prettier-ignore
  const apart = async () => {
    const { bodies } = await evaluated(design);
    const ref = (b: Body) => refOfBody(b, bodies);
    return edited(
      design,
      bodyToPart({
        part: 'p', body: ref(bodies[1]!), others: [ref(bodies[0]!)], to: 'q', name: 'Pin', removes: ['x', 'y'],
        copies: design.parts.p!.stepOrder.map((id) => [id, `${id}2`]),
      }),
    ); // prettier-ignore
  };

  test('each body is in one of the two, and both follow the number they share', async () => {
    const after = await apart();
    expect(after.partOrder).toEqual(['p', 'q']);
    expect(after.parts.q).toMatchObject({ name: 'Pin', material: 'steel' });
    expect([await bodiesOf(after, 'p'), await bodiesOf(after, 'q')]).toEqual([[expect.closeTo(600, 6)], [expect.closeTo(150, 6)]]); // prettier-ignore
    const thicker = edited(after, setDimension('thick', '5 mm'));
    expect([await bodiesOf(thicker, 'p'), await bodiesOf(thicker, 'q')]).toEqual([[expect.closeTo(1000, 6)], [expect.closeTo(250, 6)]]); // prettier-ignore
  });

  test('is refused of a recipe that changed meanwhile', async () => {
    const { bodies } = await evaluated(design);
    const [one, other] = bodies.map((b) => refOfBody(b, bodies));
    const edit = bodyToPart({ part: 'p', body: one!, others: [other!], to: 'q', name: 'Pin', removes: ['x', 'y'], copies: [['s', 's2']] }); // prettier-ignore
    expect(() => edited(design, edit)).toThrow('Part was changed meanwhile; try again.');
  });
});

describe('how parts look', () => {
  const many = edited(designOf({}), ...Array.from({ length: 21 }, (_, i) => addPart(`q${i}`, `Part ${i}`)));

  test('one press gives each part a colour of its own', () => {
    const after = edited(many, tellPartsApart());
    const colors = after.partOrder.map((id) => colorOf(after, id));
    expect(new Set(colors).size).toBe(22);
    for (const color of colors) expect(color).toMatch(/^#[0-9A-F]{6}$/);
  });

  test('a colour and how much of it is seen are kept, and given back', () => {
    const dressed = edited(many, setAppearance('q3', { color: '#c04a1a', opacity: 0.3 }));
    expect([colorOf(dressed, 'q3'), dressed.parts.q3!.opacity]).toEqual(['#C04A1A', 0.3]);
    const bare = edited(dressed, setAppearance('q3', { color: null, opacity: 1 }));
    expect(bare.parts.q3).toEqual(many.parts.q3);
    expect(() => editOf('set-appearance', { part: 'q3', color: 'red' })).toThrow('cannot be read');
  });
});
