import 'fake-indexeddb/auto';
import {
  addDimension,
  addMeasured,
  addPart,
  addVariant,
  addVariantColumn,
  applyEdit,
  emptyDesign,
  setDimension,
  setVariantCell,
  type Design,
  type Edit,
} from '@helb/core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { outbox } from '../design/outbox.ts';
import { StandInServer, until } from '../design/stand-in-server.ts';
import { useProjectDimensions } from '../ledger/project-dimensions.ts';
import { useTrial } from './trial-store.ts';

const made = (edits: readonly Edit[]): Design =>
  edits.reduce<Design>((design, edit) => {
    const outcome = applyEdit(design, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, emptyDesign('Test'));

const START = made([
  addDimension('wide', { name: 'wide', value: '60 mm', dial: { min: '10 mm', max: '90 mm' } }),
  addDimension('thk', { name: 'thk', value: '8 mm', dial: {} }),
  addDimension('half', { name: 'half', value: '$wide / 2' }),
  addVariant('v', 'Broad'),
  addVariantColumn('dimension:wide'),
  setVariantCell('v', 'dimension:wide', '80 mm'),
]);

let server: StandInServer;

async function opened() {
  setActivePinia(createPinia());
  const design = useDesign();
  await design.open('one');
  return { design, trial: useTrial(), session: useSession() };
}

beforeEach(async () => {
  for (const { change } of (await outbox.of('one')).waiting) await outbox.remove('one', change.id);
  server = new StandInServer(START);
  globalThis.fetch = server.fetch as never;
});

// A page left open would go on asking for its server.
afterEach(() => useDesign().close());

test('a reading that drives what it is measured on is taken over some rounds, then left, and said to come to no rest', async () => {
  server = new StandInServer(made([addPart('p', 'Part'), addMeasured('m', 'deep', { what: 'size', part: 'p', along: 'z' }, '10 mm')])); // prettier-ignore
  globalThis.fetch = server.fetch as never;
  const { design, trial } = await opened();
  const read = (mm: number) => trial.read(design.design!, new Map([['m', `${mm} mm`]]));
  let last = 10;
  let told: ReturnType<typeof read> = null;
  while (told === null && last < 100) told = read(++last);
  expect(told!.get('m')).toMatch(/^deep reads otherwise each time/);
  expect(last).toBeGreaterThan(20);
  expect(last).toBeLessThan(40);
  // What was read last but one stands; an edit of one’s own begins anew.
  expect(design.ledger!.number('m')).toBe(last - 1);
  design.edit(addDimension('b', { name: 'b', value: '1 mm' }));
  expect(read(7)).toBeNull();
  expect(design.ledger!.number('m')).toBe(7);
});

test('a state of before is shown, and compared, with what the model of then reads', async () => {
  const then = made([addPart('p', 'Part'), addMeasured('m', 'deep', { what: 'size', part: 'p', along: 'z' }, '10 mm')]);
  const { design, trial } = await opened();
  trial.lookBack({ revision: 1, design: then });
  trial.read(design.design!, new Map([['m', '25 mm']]));
  expect(design.design!.dimensions.m!.value).toBe('25 mm');
  expect(trial.past).toMatchObject({ revision: 1, design: { dimensions: { m: { value: '25 mm' } } } });
  // What is read of another design than the one shown is not taken.
  trial.read(then, new Map([['m', '30 mm']]));
  expect(design.design!.dimensions.m!.value).toBe('25 mm');
  trial.lookBack(null);
  expect(design.design).toBe(design.kept);
  expect(design.kept!.dimensions.m).toBeUndefined();
});

describe('trying numbers', () => {
  test('shows what hangs on them and leaves the design as it is; dropped, nothing is left', async () => {
    const { design, trial } = await opened();
    expect(trial.hold('wide', '70')).toBeNull();
    expect(trial.hold('thk', '9')).toBeNull();
    expect(['wide', 'thk', 'half'].map((r) => design.ledger!.number(r))).toEqual([70, 9, 35]);
    expect(design.kept).toEqual(START);
    expect(design.edit(setDimension('thk', '1'))).toMatch(/keep or drop/);
    trial.drop();
    expect(design.design).toEqual(START);
    expect(trial.on).toBe(false);
    expect(design.undoCount).toBe(0);
  });

  test('kept, several are one edit and one undo', async () => {
    const { design, trial } = await opened();
    trial.hold('wide', '70');
    trial.hold('thk', '9');
    await trial.keep();
    expect(trial.holds).toBe(false);
    expect(design.instead).toBeNull();
    expect([design.ledger!.number('wide'), design.ledger!.number('thk')]).toEqual([70, 9]);
    expect(design.undoCount).toBe(1);
    await design.undo();
    expect(design.kept).toEqual(START);
  });

  test('what cannot be is refused, and what was tried before stays', async () => {
    const { design, trial } = await opened();
    trial.hold('wide', '70');
    expect(trial.hold('wide', '91')).toMatch(/above 90 mm, the most allowed for wide/);
    expect(trial.hold('thk', '$nothing')).toMatch(/\S/);
    expect(design.ledger!.number('wide')).toBe(70);
    expect([...trial.values]).toEqual([['wide', '70']]);
  });

  test('one can be let go, the other stays tried', async () => {
    const { design, trial } = await opened();
    trial.hold('wide', '70');
    trial.hold('thk', '9');
    trial.letGo('wide');
    expect([design.ledger!.number('wide'), design.ledger!.number('thk')]).toEqual([60, 9]);
    trial.letGo('thk');
    expect(design.instead).toBeNull();
  });

  test('what is typed is seen as long as it is typed; a half-written text shows nothing new', async () => {
    const { design, trial } = await opened();
    trial.type('wide', '7');
    expect(design.ledger!.number('wide')).toBe(60);
    trial.type('wide', '72');
    trial.type('wide', '72 +');
    expect(design.ledger!.number('half')).toBe(36);
    trial.dropTyping();
    expect(design.design).toEqual(START);
  });

  test('an edit from elsewhere goes under what is tried', async () => {
    const { design, trial } = await opened();
    trial.hold('wide', '70');
    expect(design.follow(setDimension('half', '$wide / 7'))).toBeNull();
    expect(design.ledger!.number('half')).toBe(10);
    expect(trial.holds).toBe(true);
  });

  test('and where it cannot stand any more, it is dropped and said', async () => {
    const { design, trial, session } = await opened();
    trial.hold('thk', '$half + 1 mm');
    design.follow(setDimension('half', '$thk'));
    expect(trial.holds).toBe(false);
    expect(session.notice).toMatch(/circle/);
    expect(design.instead).toBeNull();
  });

  test('another design opened begins without a trial', async () => {
    const { design, trial } = await opened();
    trial.hold('wide', '70');
    design.close();
    expect(trial.on).toBe(false);
  });
});

describe('looking at a variant', () => {
  test('shows it, lets only the table be edited, and goes back', async () => {
    const { design, trial } = await opened();
    expect(trial.look('v')).toBeNull();
    expect(design.ledger!.number('half')).toBe(40);
    expect(design.edit(setDimension('thk', '2'))).toMatch(/looking at the variant “Broad”/);
    expect(trial.hold('thk', '2')).toMatch(/Broad/);
    trial.type('thk', '2');
    expect(design.ledger!.number('thk')).toBe(8);
    expect(design.edit(setVariantCell('v', 'dimension:wide', '84 mm'))).toBeNull();
    expect(design.ledger!.number('half')).toBe(42);
    trial.look(null);
    expect(design.ledger!.number('half')).toBe(30);
  });

  test('one that is not there is refused, and the picture stays', async () => {
    const { design, trial } = await opened();
    expect(trial.look('gone')).toMatch(/\S/);
    expect(trial.variant).toBeNull();
    expect(design.design).toEqual(START);
  });
});

describe('a number shared by the project', () => {
  test('is tried here, and kept there for all designs', async () => {
    const { design, trial } = await opened();
    const project = useProjectDimensions();
    await project.load();
    expect(await project.change(addDimension('s', { name: 'sheet', value: '2 mm' }))).toBeNull();
    expect(design.ledger!.number('s')).toBe(2);
    trial.hold('s', '3');
    trial.hold('thk', '$s * 3');
    expect(design.ledger!.number('thk')).toBe(9);
    expect(server.shared.shared.dimensions.s!.value).toBe('2 mm');
    await trial.keep();
    expect(server.shared.shared.dimensions.s!.value).toBe('3 mm');
    expect([design.ledger!.number('s'), design.ledger!.number('thk')]).toEqual([3, 9]);
    await until(() => design.saveState === 'saved');
  });

  test('of two writers the second is told, and nothing is lost', async () => {
    const { design } = await opened();
    const project = useProjectDimensions();
    await project.load();
    await project.change(addDimension('s', { name: 'sheet', value: '2 mm' }));
    const { dimensions, dimensionOrder } = made([addDimension('s', { name: 'sheet', value: '5 mm' })]);
    server.shared = { revision: 9, shared: { dimensions, dimensionOrder } };
    expect(await project.change(setDimension('s', '4'))).toBe('Someone was quicker.');
    await until(() => design.ledger!.number('s') === 5);
  });

  test('one of the design’s own is given to the project; what used it still does', async () => {
    const { design } = await opened();
    const project = useProjectDimensions();
    await project.load();
    expect(await project.give('wide')).toBeNull();
    expect(design.kept!.dimensions.wide).toBeUndefined();
    expect(design.ledger!.number('half')).toBe(30);
    expect(server.shared.shared.dimensionOrder).toEqual(['wide']);
    server.away = true;
    expect(await project.give('thk')).toMatch(/cannot be reached/);
    expect(design.kept!.dimensions.thk).toBeDefined();
  });
});
