import { addDimension, addPart, renameDesign, renamePart, type Design } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import { ChangeRow, DesignRow } from '../database/models.ts';
import { Live } from '../live/live.ts';
import { oneDesk, served } from '../served.ts';
import { ChangeLog } from './change-log.ts';
import { Desk } from './desk.ts';
import { upgradeStored } from './upgrades.ts';

const s = served();

describe('the change log', () => {
  test('keeps a change, gives it a revision and an author, and lists it', async () => {
    const id = await s.newDesign();
    const change = s.changeOf(addPart('p2', 'Washer'));
    const { body } = await s.send(id, 0, change).expect(200);
    expect(body).toMatchObject({ revision: 1, missed: [], kept: { id: change.id, label: 'Add part Washer' } });
    const after = await s.open(id);
    expect(after.revision).toBe(1);
    expect(after.document.parts.p2!.name).toBe('Washer');
    expect(after.log).toEqual([
      expect.objectContaining({
        id: change.id,
        kind: 'edit',
        revision: 1,
        label: 'Add part Washer',
        author: after.you,
      }),
    ]);
    const kept = await s.api.get(`/api/designs/${id}/changes/${change.id}`).expect(200);
    expect(kept.body.touches).toContainEqual(expect.objectContaining({ path: ['parts', 'p2'] }));
  });

  test('a change sent twice is kept once; another under its id is refused', async () => {
    const id = await s.newDesign();
    const change = s.changeOf(addPart('p2', 'Washer'));
    for (let i = 0; i < 3; i++) expect((await s.send(id, 0, change).expect(200)).body.revision).toBe(1);
    expect((await s.open(id)).log).toHaveLength(1);
    const other = { ...s.changeOf(addPart('p3', 'Pin')), id: change.id };
    expect((await s.send(id, 1, other).expect(409)).body.message).toMatch(/^Another change has this id already/);
    // Ids are told apart letter by letter.
    await s.send(id, 1, { ...s.changeOf(addPart('p3', 'Pin')), id: change.id.toUpperCase() }).expect(200);
    await s.api.get(`/api/designs/${id.toUpperCase()}`).expect(404);
    await s.api.get(`/api/designs/${id}/changes/${change.id}%20`).expect(404);
  });

  test('a change on an older revision is run again on the newest, and told what it missed', async () => {
    const id = await s.newDesign();
    const [mine, other] = [s.changeOf(renamePart('part1', 'Bracket')), s.changeOf(renameDesign('Opener'))];
    await s.send(id, 0, other).expect(200);
    const answer = await s.send(id, 0, mine).expect(200);
    expect(answer.body).toMatchObject({ revision: 2, missed: [{ id: other.id, revision: 1 }] });
    expect((await s.open(id)).document).toMatchObject({ name: 'Opener', parts: { part1: { name: 'Bracket' } } });
    expect((await s.api.get(`/api/designs/${id}/changes?since=1`).expect(200)).body.changes).toMatchObject([
      { id: mine.id },
    ]);
  });

  test('two people who decide the same thing: the second is refused, and told whom and what', async () => {
    const id = await s.newDesign();
    await s.send(id, 0, s.changeOf(renamePart('part1', 'Bracket'))).expect(200);
    const ben = s.browser();
    await s.open(id, ben);
    const refused = await s.send(id, 0, s.changeOf(renamePart('part1', 'Wheel')), ben).expect(409);
    expect(refused.body.message).toMatch(
      /^Someone else made “Rename a part to Bracket” meanwhile, which decides the same/,
    );
    expect((await s.open(id)).document.parts.part1!.name).toBe('Bracket');
  });

  test('each takes back their own: not what others did, and not what others built on', async () => {
    const id = await s.newDesign();
    const ben = s.browser();
    await s.open(id, ben);
    const [mine, his] = [s.changeOf(addPart('p2', 'Washer')), s.changeOf(renamePart('p2', 'Disc'))];
    await s.send(id, 0, mine).expect(200);
    await s.send(id, 1, his, ben).expect(200);
    expect((await s.send(id, 2, s.turn('undo', mine.id), ben).expect(403)).body.message).toMatch(/made by someone else, and only they/); // prettier-ignore
    expect((await s.send(id, 2, s.turn('undo', mine.id)).expect(409)).body.message).toBe(
      '“Add part Washer” cannot be taken back any more: Someone else built on it with “Rename a part to Disc”.',
    );
    await s.send(id, 2, s.turn('undo', his.id), ben).expect(200);
    await s.send(id, 3, s.turn('undo', mine.id)).expect(200);
    expect(Object.keys((await s.open(id)).document.parts)).toEqual(['part1']);
    await s.send(id, 4, s.turn('redo', mine.id)).expect(200);
    expect((await s.open(id)).document.parts.p2!.name).toBe('Washer');
    await s.send(id, 5, s.turn('undo', 'no-such-change')).expect(404);
  });

  test('any state can be looked at, named, and gone back to as a new edit', async () => {
    const id = await s.newDesign();
    for (const [i, name] of ['Bracket', 'Wheel', 'Crank'].entries()) await s.send(id, i, s.changeOf(renamePart('part1', name))); // prettier-ignore
    const state = async (n: number) => (await s.api.get(`/api/designs/${id}/states/${n}`).expect(200)).body as Design;
    expect([(await state(0)).parts.part1!.name, (await state(2)).parts.part1!.name]).toEqual(['Part 1', 'Wheel']);
    await s.api.put(`/api/designs/${id}/states/2/name`).send({ name: 'As made' }).expect(204);
    const back = { id: 'back-to-1', kind: 'restore', to: 1 };
    expect((await s.send(id, 3, back).expect(200)).body.kept).toMatchObject({
      label: 'Go back to state 1',
      kind: 'restore',
    });
    const { document, log } = await s.open(id);
    expect(document).toEqual(await state(1));
    expect(log[1]).toMatchObject({ named: 'As made' });
    await s.send(id, 4, s.turn('undo', 'back-to-1')).expect(200);
    expect((await s.open(id)).document.parts.part1!.name).toBe('Crank');
    await s.api.get(`/api/designs/${id}/states/99`).expect(404);
    await s.api.put(`/api/designs/${id}/states/99/name`).send({ name: 'x' }).expect(404);
    await s.send(id, 5, { id: 'back-to-99', kind: 'restore', to: 99 }).expect(404);
  });

  test('what changes nothing is not kept', async () => {
    const id = await s.newDesign();
    const idle = await s.send(id, 0, s.changeOf(renamePart('part1', 'Part 1'))).expect(200);
    expect(idle.body).toEqual({ revision: 0, missed: [], kept: null });
  });

  test.each<[string, (id: string) => object, number, RegExp]>([
    ['a revision the server does not have', () => ({ base: 7, change: s.changeOf(renamePart('part1', 'X')) }), 409, /revision 7, which the server does not have/],
    ['patches', () => ({ base: 0, change: { ...s.changeOf(renamePart('part1', 'X')), patches: [{ op: 'replace', path: ['units'], value: 'furlong' }] } }), 422, /cannot be read/],
    ['a command that is none', () => ({ base: 0, change: { id: 'bad-change-1', kind: 'edit', command: 'drop-all', args: {} } }), 409, /There is no command called/],
    ['arguments of another command', () => ({ base: 0, change: { id: 'bad-change-2', kind: 'edit', command: 'rename-part', args: { id: 7 } } }), 409, /cannot be read/],
    ['what a browser’s own keys could reach', () => ({ base: 0, change: { id: 'bad-change-3', kind: 'edit', command: 'rename-part', args: { id: 'constructor', name: 'X' } } }), 409, /cannot be read/],
    ['a part that is not there', () => ({ base: 0, change: s.changeOf(renamePart('zz', 'X')) }), 409, /no longer exists/],
    ['somebody’s edit as if it followed by itself', () => ({ base: 0, change: { ...s.changeOf(renamePart('part1', 'X')), kind: 'follow' } }), 422, /cannot be read/],
    ['no change at all', () => ({ base: 0 }), 422, /cannot be read/],
  ])('refuses %s, and nothing is kept', async (_, body, status, message) => {
    const id = await s.newDesign();
    const answer = await s.api.post(`/api/designs/${id}/changes`).send(body(id)).expect(status);
    expect(answer.body.message).toMatch(message);
    expect(await s.open(id)).toMatchObject({ revision: 0, log: [] });
  }); // prettier-ignore

  test('many who add a thing at once all succeed, through two servers on one database', async () => {
    const id = await s.newDesign();
    const second = new ChangeLog(s.sequelize, s.desks, new Live(), s.table);
    const text = (i: number) => JSON.stringify({ base: 0, change: s.changeOf(addDimension(`d${i}`, { name: `d_${i}`, value: '1 mm' })) }); // prettier-ignore
    await Promise.all(Array.from({ length: 12 }, (_, i) => [s.changes, second][i % 2]!.append(id, `author ${i % 3}`, text(i)))); // prettier-ignore
    const { document, revision, log } = await s.open(id);
    expect([revision, log.length, document.dimensionOrder.length]).toEqual([12, 12, 12]);
    await second.stop();
  });

  test('what one server remembers of a design misleads nobody: another may have changed, taken or deleted it', async () => {
    const id = await s.newDesign();
    const second = new ChangeLog(s.sequelize, oneDesk(new Desk()), new Live(), s.table);
    const text = (base: number, change: object) => JSON.stringify({ base, change });
    const named = (name: string) => s.changeOf(renameDesign(name));
    for (let i = 0; i < 6; i++)
      await [s.changes, second][i % 2]!.append(id, 'ana', text(i, s.changeOf(addDimension(`d${i}`, { name: `n_${i}`, value: '1 mm' })))); // prettier-ignore
    // The first still takes revision 5 for the newest.
    await second.append(id, 'ben', text(6, named('Bens')));
    await expect(s.changes.append(id, 'ana', text(6, named('Anas')))).rejects.toThrow(/made “Rename the design to Bens” meanwhile/); // prettier-ignore
    // One change, through both at once, is kept once.
    const once = text(7, s.changeOf(renamePart('part1', 'Once')));
    const both = await Promise.all([s.changes, second].map((c) => c.append(id, 'ana', once)));
    expect(both.map((b) => b.revision)).toEqual([8, 8]);
    const { revision, document, log } = await s.open(id);
    expect([revision, log.length, document.name, document.dimensionOrder.length]).toEqual([8, 8, 'Bens', 6]);
    await s.api.delete(`/api/designs/${id}`).expect(204);
    for (const log of [s.changes, second]) await expect(log.append(id, 'ana', text(8, named('Late')))).rejects.toThrow(/no longer exists/); // prettier-ignore
    await second.stop();
  });

  test('many at once, through two servers, on designs of their own and the same: each change is kept once, those sent twice too', async () => {
    const second = new ChangeLog(s.sequelize, oneDesk(new Desk()), new Live(), s.table);
    const designs = await Promise.all(Array.from({ length: 8 }, () => s.newDesign()));
    const sent = designs.flatMap(
      (id) =>
      [0, 1, 2].map((n) => ({ id, text: JSON.stringify({ base: 0, change: s.changeOf(addDimension(`d${n}`, { name: `n_${n}`, value: '1 mm' })) }) })), // prettier-ignore
    );
    const twice = await Promise.all(
      [s.changes, second, s.changes].flatMap((log) => sent.map(({ id, text }) => log.append(id, 'ana', text))),
    );
    expect(twice.every((t) => t.revision >= 1 && t.revision <= 3)).toBe(true);
    for (const id of designs) {
      const { revision, document, log } = await s.open(id);
      expect([revision, log.length, document.dimensionOrder.length]).toEqual([3, 3, 3]);
    }
    await second.stop();
  });

  test('who was away for longer than what is read at once hears of all of it', async () => {
    const id = await s.newDesign();
    for (let i = 0; i < 130; i++) await s.send(id, i, s.changeOf(renamePart('part1', `Name ${i}`))).expect(200);
    const other = new ChangeLog(s.sequelize, oneDesk(new Desk()), new Live(), s.table);
    const late = JSON.stringify({ base: 2, change: s.changeOf(addDimension('late', { name: 'late', value: '1 mm' })) });
    const { revision, missed } = await other.append(id, 'ana', late);
    expect([revision, missed.map((m) => m.revision)]).toEqual([131, Array.from({ length: 128 }, (_, i) => i + 3)]);
    await other.stop();
  });

  test('a design is what its log says, when no state of it was written for long', async () => {
    const id = await s.newDesign();
    for (let i = 0; i < 5; i++) await s.send(id, i, s.changeOf(addPart(`p${i}`, `Part of ${i}`))).expect(200);
    expect(await DesignRow.findByPk(id)).toMatchObject({ revision: 5, documentRevision: 0 });
    const other = new ChangeLog(s.sequelize, oneDesk(new Desk()), new Live(), s.table);
    expect(JSON.parse((await other.documentAt(id)).text)).toEqual((await s.open(id)).document);
    await s.changes.stop();
    expect(await DesignRow.findByPk(id)).toMatchObject({ documentRevision: 5 });
  });
});

describe('a design stored by an earlier version', () => {
  test('is opened as the present one has it, and what was done before can be taken back', async () => {
    const id = await s.newDesign();
    const line = (from: string, to: string) => ({ kind: 'line', from, to });
    const sketch = {
      kind: 'sketch', name: 'Outline', plane: { datum: 'floor' }, constraints: {},
      points: { a: [0, 0], b: [40, 0], c: [40, 20], d: [0, 20] },
      curves: { bottom: line('a', 'b'), right: line('b', 'c'), top: line('c', 'd'), left: line('d', 'a') },
    }; // prettier-ignore
    const extrude = (regions: unknown) => ({
      kind: 'extrude', name: 'Block', sketch: 's', regions, way: 'one_way', distance: '10 mm', result: 'new_body',
    }); // prettier-ignore
    const region = [{ outer: ['+bottom', '+right', '+top', '+left'], at: [5, 5] }];
    const old = (await s.open(id)).document as unknown as Record<string, unknown>;
    const part = (step: unknown) => ({
      ...(old.parts as Record<string, object>).part1,
      steps: { s: sketch, e: step },
      stepOrder: ['s', 'e'],
    });
    // As version 1 kept it: all regions first, then one picked.
    await DesignRow.update(
      {
        document: JSON.stringify({ ...old, version: 1, parts: { part1: part(extrude(region)) } }),
        revision: 1,
        documentRevision: 1,
        newest: 'old-change',
      },
      { where: { id } },
    );
    const path = ['parts', 'part1', 'steps', 'e', 'regions'];
    await ChangeRow.create({
      designId: id, revision: 1, changeId: 'old-change', kind: 'edit', target: null, command: 'change-step', args: null, label: 'Choose regions',
      inverse: JSON.stringify([{ op: 'replace', path, value: 'all' }]),
    }); // prettier-ignore
    await upgradeStored(s.sequelize, pino({ level: 'silent' }));
    const { document, revision } = await s.open(id);
    expect(document.version).toBe(2);
    expect(document.parts.part1!.steps.e).toMatchObject({ profile: { sketch: 's', regions: region } });
    expect(document.parts.part1!.steps.e).not.toHaveProperty('regions');
    await s.send(id, revision, s.turn('undo', 'old-change')).expect(200);
    expect((await s.open(id)).document.parts.part1!.steps.e).toMatchObject({
      profile: { sketch: 's', regions: 'all' },
    });
    await upgradeStored(s.sequelize, pino({ level: 'silent' }));
    expect((await s.open(id)).revision).toBe(2);
  });
});
