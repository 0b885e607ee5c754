import 'fake-indexeddb/auto';
import { editSketch, emptyDesign, emptyPart, Ledger, renameDesign, setDimension, solveSketch, type Design, type SketchGeometry, type SketchStep } from '@helb/core'; // prettier-ignore
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useDesign } from './design-store.ts';
import { outbox } from './outbox.ts';
import { SOON_SOLVED } from './solving.ts';
import { StandInServer, until } from './stand-in-server.ts';

/** Bars of 10 mm, joined to one chain of triangles from p0, which is fixed; the first of them may still turn. */
function bars(triangles: number): Design {
  const points: Record<string, [number, number]> = {};
  const curves: SketchGeometry['curves'] = {};
  const constraints: SketchGeometry['constraints'] = { f: { kind: 'fixed', of: ['p0'] } };
  const bar = (i: number, j: number): void => {
    curves[`b${i}_${j}`] = { kind: 'line', from: `p${i}`, to: `p${j}` };
    constraints[`d${i}_${j}`] = { kind: 'distance', of: [`b${i}_${j}`], value: '10' };
  };
  for (let i = 0; i < triangles + 2; i++) points[`p${i}`] = [i * 5, i % 2 === 0 ? 0 : 5 * Math.sqrt(3)];
  bar(0, 1);
  for (let i = 2; i < triangles + 2; i++) {
    bar(i - 2, i);
    bar(i - 1, i);
  }
  const sketch = { kind: 'sketch', name: 'Bars', plane: { datum: 'floor' }, points, curves, constraints } as SketchStep;
  const part = { ...emptyPart('Bars'), steps: { s: sketch }, stepOrder: ['s'] };
  return { ...emptyDesign('Bars'), parts: { p: part }, partOrder: ['p'] };
}

const sketchOf = (design: Design | null) => design!.parts.p!.steps.s as SketchStep;
/** Farthest of the ends of a bar from the length that its dimension gives it, mm. */
function misfit(design: Design | null): number {
  const [{ points, curves }, ledger] = [sketchOf(design), Ledger.of(design!)];
  return Math.max(
    ...Object.entries(curves).map(([id, c]) => {
      const [[x, y], [u, v]] = [points[(c as { from: string }).from]!, points[(c as { to: string }).to]!];
      return Math.abs(Math.hypot(u - x, v - y) - ledger.number(`s.d${id.slice(1)}`));
    }),
  );
}
const drag = (id: string, by: number) => editSketch('p', 's', 'Drag', (sketch) => {
  const [x, y] = sketch.points[id]!;
  sketch.points[id] = [x, y + by];
}); // prettier-ignore

let server: StandInServer;
async function opened(design: Design) {
  for (const { change } of (await outbox.of('one')).waiting) await outbox.remove('one', change.id);
  server = new StandInServer(design);
  globalThis.fetch = server.fetch as never;
  setActivePinia(createPinia());
  const store = useDesign();
  await store.open('one');
  return store;
}
const large = bars(SOON_SOLVED);

beforeEach(() => expect(Object.keys(sketchOf(large).constraints).length).toBeGreaterThan(SOON_SOLVED));
afterEach(() => useDesign().close());

describe('an edit of a sketch too large to be solved at once', () => {
  test('is shown at once as drawn, told as not saved, and kept solved', async () => {
    const design = await opened(large);
    expect(design.edit(drag('p40', 3))).toBeNull();
    expect(sketchOf(design.design).points.p40).toEqual([200, 3]);
    expect(misfit(design.design)).toBeGreaterThan(1);
    expect([design.saveState, design.kept === large, server.log.length]).toEqual(['saving', false, 0]);
    await until(() => design.saveState === 'saved');
    expect(misfit(design.design)).toBeLessThan(1e-6);
    expect(server.document).toEqual(design.kept);
    expect(design.undoCount).toBe(1);
  });

  test('goes before what is made after it, which waits for it', async () => {
    const design = await opened(large);
    design.edit(setDimension('s.d0_1', '11 mm'));
    design.edit(renameDesign('Renamed'));
    design.edit(setDimension('s.d0_1', '12 mm'));
    expect([design.design!.name, design.ledger!.number('s.d0_1')]).toEqual(['Renamed', 12]);
    await until(() => design.saveState === 'saved');
    expect(server.log.map((c) => c.command)).toEqual(['set-dimension', 'rename-design', 'set-dimension']);
    expect(Math.abs(Ledger.of(server.document).number('s.d0_1') - 12)).toBe(0);
    expect(misfit(design.kept)).toBeLessThan(1e-6);
  });

  test('that cannot be is taken off again, and says why; what follows is kept all the same', async () => {
    const design = await opened(large);
    const refusals: string[] = [];
    design.edit(setDimension('s.d0_1', '900 mm'), (sentence, label) => refusals.push(`${label}: ${sentence}`));
    design.edit(renameDesign('Renamed'));
    await until(() => design.saveState === 'saved' && server.log.length === 1);
    expect(refusals).toEqual([expect.stringMatching(/900/)]);
    expect([design.design!.name, design.ledger!.number('s.d0_1')]).toEqual(['Renamed', 10]);
    expect(server.document).toEqual(design.design);
  });

  test('alone and refused leaves all as it was, and saved', async () => {
    const design = await opened(large);
    const before = design.design;
    design.edit(setDimension('s.d0_1', '900 mm'), () => undefined);
    expect(design.saveState).toBe('saving');
    await until(() => design.saveState === 'saved');
    expect([design.design === before, server.log.length]).toEqual([true, 0]);
  });

  test('is kept where the design is left at once', async () => {
    const design = await opened(large);
    design.edit(drag('p40', 3));
    design.edit(drag('p30', 1));
    design.close();
    expect(design.kept).toBeNull();
    while ((await outbox.of('one')).waiting.length < 2) await new Promise((done) => setTimeout(done, 5));
    await design.open('one');
    await until(() => design.saveState === 'saved');
    expect(server.log.length).toBe(2);
    expect(misfit(server.document)).toBeLessThan(1e-6);
  });

  test('is undone once it is solved', async () => {
    const design = await opened(large);
    design.edit(drag('p40', 3));
    expect(await design.undo()).toBeNull();
    await until(() => design.saveState === 'saved');
    expect(server.log.map((c) => c.kind)).toEqual(['edit', 'undo']);
    expect(sketchOf(design.design).points).toEqual(sketchOf(large).points);
  });

  test('goes upon what somebody else made meanwhile', async () => {
    const design = await opened(large);
    design.edit(drag('p40', 3));
    server.fromElsewhere(setDimension('s.d0_1', '10.5 mm'));
    await design.catchUp();
    await until(() => design.saveState === 'saved' && design.revision === 2);
    expect(design.ledger!.number('s.d0_1')).toBe(10.5);
    expect(misfit(design.kept)).toBeLessThan(1e-6);
    expect(server.document).toEqual(design.kept);
  });
});

test('a sketch that is solved in a moment is solved at once', async () => {
  const design = await opened(bars(20));
  design.edit(drag('p10', 3));
  expect(misfit(design.kept)).toBeLessThan(1e-6);
  expect(solveSketch(sketchOf(design.kept), (id) => design.ledger!.number(`s.${id}`)).solved).toBe(true);
});
