import 'fake-indexeddb/auto';
import {
  addDimension,
  addMeasured,
  addPart,
  deleteDimension,
  emptyDesign,
  keepReadings,
  renameDesign,
  setDimension,
  type Edit,
} from '@helb/core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useDesign } from './design-store.ts';
import { outbox } from './outbox.ts';
import { StandInServer, until } from './stand-in-server.ts';

let server: StandInServer;

const number = (id: string, value: string) => addDimension(id, { name: `${id}_name`, value });

const fromElsewhere = (edit: Edit) => server.fromElsewhere(edit);

/** The page opened anew: nothing is left but what server and browser keep. */
async function opened() {
  setActivePinia(createPinia());
  const design = useDesign();
  await design.open('one');
  return design;
}

beforeEach(async () => {
  for (const { change } of (await outbox.of('one')).waiting) await outbox.remove('one', change.id);
  server = new StandInServer(emptyDesign('Test'));
  globalThis.fetch = server.fetch as never;
});

// A page left open would go on asking for its server.
afterEach(() => useDesign().close());

describe('an edit', () => {
  test('is shown at once and saved soon, one after another in order', async () => {
    const design = await opened();
    expect(design.edit(number('a', '10 mm'))).toBeNull();
    expect(design.edit(setDimension('a', '12'))).toBeNull();
    expect(design.ledger!.number('a')).toBe(12);
    expect(design.saveState).toBe('saving');
    await until(() => design.saveState === 'saved');
    expect(server.log.map((c) => [c.command, c.author])).toEqual([
      ['add-dimension', 'me'],
      ['set-dimension', 'me'],
    ]);
    expect(server.document).toEqual(design.kept);
    expect(design.revision).toBe(2);
    expect((await outbox.of('one')).waiting).toEqual([]);
  });

  test('that is refused changes nothing and says why', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    expect(design.edit(setDimension('a', '10 +'))).toMatch(/\S/);
    expect(design.edit(number('a', '5 mm'))).toMatch(/\S/);
    expect(design.undoCount).toBe(1);
  });

  test('that changes nothing is none', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    expect(design.edit(setDimension('a', '10 mm'))).toBeNull();
    expect(design.undoCount).toBe(1);
  });
});

describe('while the server is away', () => {
  test('edits are kept in the browser and sent when it is back', async () => {
    const design = await opened();
    server.away = true;
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'offline');
    design.edit(setDimension('a', '11'));
    server.away = false;
    await until(() => design.saveState === 'saved');
    expect(server.document).toEqual(design.kept);
  });

  test('a closed page loses nothing: the next visit sends it', async () => {
    const design = await opened();
    server.away = true;
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'offline');
    expect((await outbox.of('one')).waiting).toHaveLength(1);
    design.close();
    server.away = false;
    const again = await opened();
    expect(again.ledger!.number('a')).toBe(10);
    await until(() => again.saveState === 'saved' && server.log.length === 1);
    expect((await outbox.of('one')).waiting).toEqual([]);
  });

  test('what arrived although its answer was lost is not made twice', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'saved');
    const { id, command, args, label } = server.log[0]!;
    await outbox.add('one', { change: { id, kind: 'edit', command, args }, base: 0, own: [], label });
    const again = await opened();
    await until(() => again.saveState === 'saved');
    expect(again.kept!.dimensionOrder).toEqual(['a']);
    expect(server.log).toHaveLength(1);
    await until(() => again.undoCount === 1);
  });
});

describe('never says saved over an edit that is not', () => {
  test.each([[[429]], [[408]], [[425]], [[503]], [[429, 429]]])('answers %j are no verdict', async (statuses) => {
    const design = await opened();
    server.answersNext.push(...statuses);
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'offline');
    expect((await outbox.of('one')).waiting).toHaveLength(1);
    await until(() => design.saveState === 'saved');
    expect(server.document.dimensions.a?.value).toBe('10 mm');
  });

  test('a refusal is believed only when the design could be loaded again', async () => {
    const design = await opened();
    // The change is refused, and the reload does not come through: it is tried again, and taken.
    server.answersNext.push(409, 429);
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'offline');
    expect(design.ledger!.number('a')).toBe(10);
    expect((await outbox.of('one')).waiting).toHaveLength(1);
    await until(() => design.saveState === 'saved');
    expect(server.document.dimensions.a?.value).toBe('10 mm');
  });

  test('a design that is gone keeps its edits in the browser and says so', async () => {
    const design = await opened();
    server.answersNext.push(404, 404);
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'refused');
    expect((await outbox.of('one')).waiting).toHaveLength(1);
    expect(design.ledger!.number('a')).toBe(10);
  });
});

describe('where people sign in', () => {
  test('who may only look changes nothing, and is told so', async () => {
    server.role = 'reads';
    server.shared = { revision: 1, shared: { dimensions: { s: { name: 'stock', value: '6 mm' } }, dimensionOrder: ['s'] } }; // prettier-ignore
    const design = await opened();
    const before = design.kept;
    for (const said of [
      design.edit(number('a', '10 mm')),
      design.tryOut(number('a', '10 mm')),
      await design.restore(0),
    ])
      expect(said).toBe('You may look at this design, not change it; ask an owner of its project.');
    expect(design.follow(renameDesign('Other'))).toBeNull();
    expect([design.kept === before, design.canUndo, design.saveState, server.log.length]).toEqual([true, false, 'saved', 0]); // prettier-ignore
  });

  test('what one left unsent is not sent by who signs in after them, and waits for them', async () => {
    const first = await opened();
    server.away = true;
    first.edit(number('a', '10 mm'));
    await until(() => first.saveState === 'offline');
    first.close();
    server.away = false;
    server.you = 'another';
    const second = await opened();
    second.edit(number('b', '5 mm'));
    await until(() => second.saveState === 'saved');
    expect(server.log.map((c) => [c.label, c.author])).toEqual([[expect.stringContaining('b_name'), 'another']]);
    second.close();
    server.you = 'me';
    const again = await opened();
    await until(() => again.saveState === 'saved');
    expect(server.log.map((c) => c.author)).toEqual(['another', 'me']);
  });

  test('a page of who signed out since sends nothing under another’s name, and loses nothing', async () => {
    const design = await opened();
    server.you = 'another';
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'refused');
    expect([server.log.length, (await outbox.of('one')).waiting.length, design.ledger!.number('a')]).toEqual([0, 1, 10]); // prettier-ignore
  });
});

describe('with others at work', () => {
  test('their edits go under one’s own, and undo takes back one’s own alone', async () => {
    const design = await opened();
    fromElsewhere(number('theirs', '3 mm'));
    design.edit(renameDesign('Mine'));
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'saved');
    expect(design.kept).toEqual(server.document);
    expect(design.kept!.dimensionOrder).toEqual(['theirs', 'a']);
    expect(design.undoCount).toBe(2);
    expect(await design.undo()).toBeNull();
    expect(await design.undo()).toBeNull();
    expect(design.kept!.name).toBe('Test');
    expect(design.kept!.dimensionOrder).toEqual(['theirs']);
    expect(design.canUndo).toBe(false);
    await until(() => design.saveState === 'saved');
    expect(design.kept).toEqual(server.document);
  });

  test('what is heard of at once goes under what waits, and is not taken in twice', async () => {
    const design = await opened();
    server.away = true;
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'offline');
    const theirs = [number('b', '3 mm'), setDimension('b', '4 mm')].map((edit) => fromElsewhere(edit));
    design.hear(theirs);
    design.hear(theirs.slice(1));
    expect(design.revision).toBe(2);
    expect([design.ledger!.number('b'), design.ledger!.number('a')]).toEqual([4, 10]);
    server.away = false;
    await until(() => design.saveState === 'saved');
    expect(design.kept).toEqual(server.document);
    fromElsewhere(renameDesign('Later'));
    await design.catchUp();
    expect(design.kept!.name).toBe('Later');
  });

  test('who had not yet heard of it when deciding otherwise is told all the same', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'saved');
    server.away = true;
    design.edit(setDimension('a', '30 mm'));
    design.edit(setDimension('a', '31 mm'));
    design.edit(number('b', '1 mm'));
    await until(() => design.saveState === 'offline');
    // The line brings it while what was decided still waits.
    design.hear([fromElsewhere(setDimension('a', '20 mm'))]);
    expect(design.ledger!.number('a')).toBe(31);
    server.away = false;
    await until(() => design.saveState === 'saved' && design.ledger!.number('a') === 20);
    expect(design.kept!.dimensionOrder).toEqual(['a', 'b']);
    expect(design.kept).toEqual(server.document);
  });

  test('a refusal of what was heard to be gone already takes nothing else with it', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'saved');
    // While the answer is under way the line brings what makes it void.
    let heard = false;
    globalThis.fetch = (async (path: string, init: { method: string; body?: string }) => {
      if (init.method === 'POST' && !heard) {
        heard = true;
        design.hear([fromElsewhere(deleteDimension('a'))]);
      }
      return server.fetch(path, init);
    }) as never;
    design.edit(setDimension('a', '30 mm'));
    design.edit(number('b', '1 mm'));
    await until(() => design.saveState === 'saved' && server.document.dimensions.b !== undefined);
    expect(design.kept!.dimensionOrder).toEqual(['b']);
    expect((await outbox.of('one')).waiting).toEqual([]);
  });

  test('who decides the same thing otherwise, and later, is told; the other’s stands', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'saved');
    fromElsewhere(setDimension('a', '20 mm'));
    design.edit(setDimension('a', '30 mm'));
    expect(design.ledger!.number('a')).toBe(30);
    await until(() => design.saveState === 'saved' && design.ledger!.number('a') === 20);
    expect(design.kept).toEqual(server.document);
  });

  test('a change the server will not have goes, with all the rest as the server has it', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    await until(() => design.saveState === 'saved');
    server.refusesNext = 'Meanwhile someone else changed this.';
    design.edit(setDimension('a', '20'));
    await until(() => design.ledger!.number('a') === 10);
    expect(design.kept).toEqual(server.document);
    expect((await outbox.of('one')).waiting).toEqual([]);
    design.edit(setDimension('a', '30'));
    await until(() => design.saveState === 'saved' && server.log.length === 2);
    expect(design.ledger!.number('a')).toBe(30);
  });
});

describe('undo and redo', () => {
  test('are exact, and go back beyond what this page has seen', async () => {
    const design = await opened();
    const states = [design.kept!];
    for (const edit of [number('a', '10 mm'), setDimension('a', '20'), renameDesign('Other')]) {
      design.edit(edit);
      states.push(design.kept!);
    }
    await until(() => design.saveState === 'saved');
    const again = await opened();
    for (let i = 2; i >= 0; i--) {
      expect(await again.undo()).toBeNull();
      expect(again.kept).toEqual(states[i]);
    }
    expect(again.canUndo).toBe(false);
    expect(await again.undo()).toBeNull();
    for (let i = 1; i <= 3; i++) {
      expect(await again.redo()).toBeNull();
      expect(again.kept).toEqual(states[i]);
    }
    expect(again.canRedo).toBe(false);
    await until(() => again.saveState === 'saved');
    expect(server.document).toEqual(again.kept);
  });

  test('an edit after an undo leaves nothing to redo', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    await design.undo();
    expect(design.redoLabel).not.toBe('');
    design.edit(number('b', '5 mm'));
    expect(design.canRedo).toBe(false);
  });

  test('pass by what only follows', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    design.edit(number('b', '5 mm'));
    design.edit(addPart('p', 'Part'));
    expect(design.edit(addMeasured('r', 'read', { part: 'p', what: 'volume' }, '3 * (1 mm)^3'))).toBeNull();
    expect(design.follow(keepReadings(new Map([['r', '5 * (1 mm)^3']])))).toBeNull();
    expect(design.undoCount).toBe(4);
    await design.undo();
    expect(design.kept!.dimensionOrder).toEqual(['a', 'b']);
    await design.undo();
    await design.undo();
    expect(design.kept!.dimensionOrder).toEqual(['a']);
  });

  test('say so when what they would take back is gone', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    design.edit(setDimension('a', '12'));
    await until(() => design.saveState === 'saved');
    fromElsewhere(deleteDimension('a'));
    design.edit(renameDesign('Next'));
    await until(() => design.saveState === 'saved');
    await design.undo();
    expect(await design.undo()).toMatch(/cannot be taken back any more/);
  });
});

describe('in place of the design', () => {
  test('another is shown, and edits wait until it is put away', async () => {
    const design = await opened();
    design.edit(number('a', '10 mm'));
    design.instead = {
      design: { ...design.kept!, name: 'Shown' },
      allows: ({ command }) => command === 'rename-design',
      refusal: 'Later.',
    };
    expect(design.design!.name).toBe('Shown');
    expect(design.kept!.name).toBe('Test');
    expect(design.edit(setDimension('a', '3'))).toBe('Later.');
    design.instead = null;
    expect(design.edit(setDimension('a', '3'))).toBeNull();
  });

  test('nothing is edited where no design is open', () => {
    setActivePinia(createPinia());
    expect(useDesign().edit(renameDesign('x'))).toBe('No design is open.');
  });
});
