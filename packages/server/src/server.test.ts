import { addPart, applyEdit, renamePart, type Design, type Edit } from '@helb/core';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import request from 'supertest';
import { createApp } from './app.ts';
import { connectDatabase } from './database/connect.ts';
import { startPrivateDatabase, type PrivateDatabase } from './database/private-mariadb.ts';
import { lockDirectory } from './database/data-lock.ts';
import { readJson, writeWhole } from './database/whole-file.ts';
import { loadDemoOnce } from './demo.ts';
import readFile from './designs/reading.ts';
import { upgradeStored } from './designs/upgrades.ts';
import { ChangeRow, DesignRow } from './database/models.ts';

const directory = mkdtempSync(join(tmpdir(), 'helb-test-'));
let database: PrivateDatabase;
let sequelize: Sequelize;
let api: ReturnType<typeof request>;

beforeAll(async () => {
  database = await startPrivateDatabase(directory, 0);
  sequelize = await connectDatabase(database.url);
  api = request(createApp(sequelize, pino({ level: 'silent' }), null, async (text) => readFile(text)).callback());
});
afterAll(async () => {
  await sequelize.close();
  await database.stop();
  rmSync(directory, { recursive: true, force: true });
});

async function newDesign(): Promise<string> {
  const project = await api.post('/api/projects').send({ name: 'Test' }).expect(201);
  const design = await api.post(`/api/projects/${project.body.id}/designs`).send({ name: 'Plate' }).expect(201);
  return design.body.id as string;
}

let next = 0;
function changeOf(design: Design, edit: Edit) {
  const outcome = applyEdit(design, edit);
  if (!outcome.ok) throw new Error(outcome.message);
  return { id: `change-${next++}`, kind: 'edit', command: edit.command, label: edit.label, patches: outcome.patches };
}
const open = async (id: string) =>
  (await api.get(`/api/designs/${id}`).expect(200)).body as {
    document: Design;
    revision: number;
    log: { id: string }[];
  };

describe('the change log', () => {
  test('keeps a change, gives it a revision, and lists it', async () => {
    const id = await newDesign();
    const { document } = await open(id);
    const change = changeOf(document, addPart('p2', 'Washer'));
    await api.post(`/api/designs/${id}/changes`).send({ base: 0, change }).expect(200, { revision: 1, missed: [] });
    const after = await open(id);
    expect(after.revision).toBe(1);
    expect(after.document.parts.p2!.name).toBe('Washer');
    expect(after.log).toEqual([
      expect.objectContaining({ id: change.id, kind: 'edit', revision: 1, label: 'Add part Washer' }),
    ]);
    const kept = await api.get(`/api/designs/${id}/changes/${change.id}`).expect(200);
    expect(kept.body.inverse.length).toBeGreaterThan(0);
  });

  test('a change sent twice is kept once', async () => {
    const id = await newDesign();
    const { document } = await open(id);
    const change = changeOf(document, addPart('p2', 'Washer'));
    for (let i = 0; i < 3; i++)
      await api.post(`/api/designs/${id}/changes`).send({ base: 0, change }).expect(200, { revision: 1, missed: [] });
    expect((await open(id)).log).toHaveLength(1);
  });

  test('a change on an older revision is rebased when it touches something else, and told what it missed', async () => {
    const id = await newDesign();
    const { document } = await open(id);
    const [mine, other] = [
      changeOf(document, renamePart('part1', 'Bracket')),
      changeOf(document, { command: 'x', label: 'Rename the design', run: (d) => void (d.name = 'Opener') }),
    ];
    await api.post(`/api/designs/${id}/changes`).send({ base: 0, change: other }).expect(200);
    const answer = await api.post(`/api/designs/${id}/changes`).send({ base: 0, change: mine }).expect(200);
    expect(answer.body).toMatchObject({ revision: 2, missed: [{ id: other.id, revision: 1 }] });
    expect((await open(id)).document).toMatchObject({ name: 'Opener', parts: { part1: { name: 'Bracket' } } });
  });

  test('two changes to the same thing: the second is refused in words', async () => {
    const id = await newDesign();
    const { document } = await open(id);
    await api
      .post(`/api/designs/${id}/changes`)
      .send({ base: 0, change: changeOf(document, renamePart('part1', 'Bracket')) })
      .expect(200);
    const refused = await api
      .post(`/api/designs/${id}/changes`)
      .send({ base: 0, change: changeOf(document, renamePart('part1', 'Wheel')) })
      .expect(409);
    expect(refused.body.message).toBe(
      'Meanwhile someone else made a change to the same thing (“Rename a part to Bracket”); yours was not made.',
    );
    expect((await open(id)).document.parts.part1!.name).toBe('Bracket');
  });

  test.each([
    [
      'a revision the server does not have',
      (d: Design) => ({ base: 7, change: changeOf(d, renamePart('part1', 'X')) }),
      409,
      /revision 7, which the server does not have/,
    ],
    [
      'patches that break the schema',
      () => ({
        base: 0,
        change: {
          id: 'bad-change-1',
          kind: 'edit',
          command: 'x',
          label: 'x',
          patches: [{ op: 'replace', path: ['units'], value: 'furlong' }],
        },
      }),
      422,
      /unsound: units/,
    ],
    [
      'patches to nowhere',
      () => ({
        base: 0,
        change: {
          id: 'bad-change-2',
          kind: 'edit',
          command: 'x',
          label: 'x',
          patches: [{ op: 'replace', path: ['parts', 'zz', 'name'], value: 'x' }],
        },
      }),
      422,
      /no longer there/,
    ],
    ['no change at all', () => ({ base: 0 }), 422, /cannot be read/],
  ])('refuses %s, and nothing is kept', async (_, body, status, message) => {
    const id = await newDesign();
    const { document } = await open(id);
    const answer = await api.post(`/api/designs/${id}/changes`).send(body(document)).expect(status);
    expect(answer.body.message).toMatch(message);
    expect((await open(id)).revision).toBe(0);
  });

  test('many changes at once from one base each land, in one order', async () => {
    const id = await newDesign();
    const { document } = await open(id);
    const changes = Array.from({ length: 8 }, (_, i) => ({
      id: `parallel-${i}`,
      kind: 'edit',
      command: 'add-dimension',
      label: `d${i}`,
      patches: [
        { op: 'add', path: ['dimensions', `d${i}`], value: { name: `d${i}`, value: '1 mm' } },
        { op: 'add', path: ['dimensionOrder', '-'], value: `d${i}` },
      ],
    }));
    // Only one of them can append at this place of the order; the rest must be refused, not lost in silence.
    const answers = await Promise.all(
      changes.map((change) => api.post(`/api/designs/${id}/changes`).send({ base: 0, change })),
    );
    const kept = answers.filter((a) => a.status === 200).length;
    const after = await open(id);
    expect(after.revision).toBe(kept);
    expect(after.log).toHaveLength(kept);
    expect(answers.every((a) => a.status === 200 || a.body.message)).toBe(true);
    expect(document.dimensionOrder).toHaveLength(0);
  });
});

describe('projects and files', () => {
  test('a design file is opened into a project; a broken one is refused in a sentence', async () => {
    const project = (await api.post('/api/projects').send({ name: 'Files' }).expect(201)).body.id as string;
    const { document } = await open(await newDesign());
    const made = await api.post(`/api/projects/${project}/designs`).send(document).expect(201);
    expect((await open(made.body.id)).document).toEqual(document);
    const broken = await api
      .post(`/api/projects/${project}/designs`)
      .send({ ...document, parts: { x: {} } })
      .expect(422);
    expect(broken.body.message).toMatch(/does not follow the format: parts › x › name/);
    await api
      .post(`/api/projects/${project}/designs`)
      .set('content-type', 'application/json')
      .send('{"format": "helb')
      .expect(400);
  });

  test('a body over the limit is refused before it is read', async () => {
    const project = (await api.post('/api/projects').send({ name: 'Big' }).expect(201)).body.id as string;
    const answer = await api
      .post(`/api/projects/${project}/designs`)
      .send({ format: 'helb-design', name: 'x'.repeat(17 * 1024 * 1024) })
      .expect(413);
    expect(answer.body.message).toBe('This is larger than the 16 MB the server takes at once.');
  });

  test("the list shows each design's first part, once someone has seen it", async () => {
    const project = (await api.post('/api/projects').send({ name: 'Seen' }).expect(201)).body.id as string;
    const demo = readFileSync(join(import.meta.dirname, '../../../demo/roof-vent-opener.helb.json'), 'utf8');
    const id = (
      await api.post(`/api/projects/${project}/designs`).set('content-type', 'application/json').send(demo).expect(201)
    ).body.id as string;
    const listed = async () => (await api.get(`/api/projects/${project}/designs`).expect(200)).body.designs[0].picture;
    const seen = (part: string, key: string) =>
      api
        .put(`/api/designs/${id}/pictures/${part}/${key}`)
        .set('content-type', 'application/octet-stream')
        .send(Buffer.from([1, 2, 3]))
        .expect(204);
    expect(await listed()).toBeNull();
    await seen('pin', 'abcdefgh2');
    expect(await listed()).toBeNull();
    await seen('wall_bracket', 'abcdefgh1');
    expect(await listed()).toEqual({ part: 'wall_bracket', key: 'abcdefgh1' });
  });

  test('a project with designs is not deleted', async () => {
    const project = (await api.post('/api/projects').send({ name: 'Kept' }).expect(201)).body.id as string;
    const design = (await api.post(`/api/projects/${project}/designs`).send({ name: 'D' }).expect(201)).body
      .id as string;
    await api.delete(`/api/projects/${project}`).expect(409);
    await api.delete(`/api/designs/${design}`).expect(204);
    await api.delete(`/api/projects/${project}`).expect(204);
    await api.get(`/api/designs/${design}`).expect(404);
  });

  test('the demo is loaded only into an empty database', async () => {
    const before = (await api.get('/api/projects').expect(200)).body.length;
    await loadDemoOnce('demo');
    expect((await api.get('/api/projects').expect(200)).body).toHaveLength(before);
  });
});

describe('a start', () => {
  const fresh = () => mkdtempSync(join(tmpdir(), 'helb-start-'));

  test('ends a database that a killed server left running, and finds all that was in it', async () => {
    const data = fresh();
    const left = await startPrivateDatabase(data, 0);
    const before = await connectDatabase(left.url);
    await before.query('CREATE TABLE kept (n INT)');
    await before.close();
    const again = await startPrivateDatabase(data, 0);
    const after = await connectDatabase(again.url);
    expect(await after.getQueryInterface().tableExists('kept')).toBe(true);
    await after.close();
    await again.stop();
    rmSync(data, { recursive: true, force: true });
    // The other tests' models belong to their own database again.
    await connectDatabase(database.url).then((again) => (sequelize = again));
  });

  test('that was cut off while the database was installed is made good by the next', async () => {
    const data = fresh();
    mkdirSync(join(data, 'database', 'mysql'), { recursive: true });
    mkdirSync(join(data, 'database.installing', 'mysql'), { recursive: true });
    writeFileSync(join(data, 'database-access.json'), '{"password": "abc');
    const own = await startPrivateDatabase(data, 0);
    expect(own.url).toMatch(/^mysql:/);
    await own.stop();
    rmSync(data, { recursive: true, force: true });
  });

  test('on a directory in use is refused in words, and the lock goes with its holder', async () => {
    const data = fresh();
    const held = await lockDirectory(data);
    await expect(lockDirectory(join(data, '.'))).rejects.toThrow(/Another Helb is running on .*; use that one/);
    held.release();
    await new Promise((done) => setTimeout(done, 20));
    (await lockDirectory(data)).release();
    rmSync(data, { recursive: true, force: true });
  });

  test('reads a broken small file as none, and writes one whole', () => {
    const data = fresh();
    const file = join(data, 'x.json');
    expect(readJson(file)).toBeNull();
    writeFileSync(file, '{"a": ');
    expect(readJson(file)).toBeNull();
    writeWhole(file, '{"a": 1}');
    expect(readJson(file)).toEqual({ a: 1 });
    expect(readdirSync(data)).toEqual(['x.json']);
  });
});

describe('the project’s dimensions', () => {
  const shared = (value: string) => ({
    dimensions: { d1: { name: 'stock_thk', value } },
    dimensionOrder: ['d1'],
  });

  test('begin empty, are kept, and count their changes', async () => {
    const { body } = await api.post('/api/projects').send({ name: 'Shared' }).expect(201);
    const path = `/api/projects/${body.id}/dimensions`;
    await api.get(path).expect(200, { revision: 0, shared: { dimensions: {}, dimensionOrder: [] } });
    await api
      .put(path)
      .send({ base: 0, shared: shared('6 mm') })
      .expect(200);
    await api.get(path).expect(200, { revision: 1, shared: shared('6 mm') });
  });

  test('of two who change them at once, the second is told', async () => {
    const { body } = await api.post('/api/projects').send({ name: 'Shared' }).expect(201);
    const path = `/api/projects/${body.id}/dimensions`;
    const answers = await Promise.all(
      ['8 mm', '9 mm'].map((value) => api.put(path).send({ base: 0, shared: shared(value) })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    expect(answers.find((a) => a.status === 409)!.body.message).toMatch(/changed by someone else meanwhile/);
  });

  test.each([
    ['a value that cannot be read', shared('6 mm +'), /stock_thk: /],
    ['a name that is a unit', { ...shared('6 mm'), dimensions: { d1: { name: 'mm', value: '6 mm' } } }, /is a unit/],
    ['an order that does not fit', { ...shared('6 mm'), dimensionOrder: [] }, /do not follow the format/],
  ])('refuses %s', async (_, bad, message) => {
    const { body } = await api.post('/api/projects').send({ name: 'Shared' }).expect(201);
    const answer = await api.put(`/api/projects/${body.id}/dimensions`).send({ base: 0, shared: bad });
    expect(answer.status).toBe(422);
    expect(answer.body.message).toMatch(message);
  });
});

describe('a design stored by an earlier version', () => {
  test('is opened as the present one has it, and what was done before can be taken back', async () => {
    const id = await newDesign();
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
    const old = (await open(id)).document as unknown as Record<string, unknown>;
    const part = (step: unknown) => ({
      ...(old.parts as Record<string, object>).part1,
      steps: { s: sketch, e: step },
      stepOrder: ['s', 'e'],
    });
    // As version 1 kept it: all regions first, then one picked.
    await DesignRow.update(
      { document: JSON.stringify({ ...old, version: 1, parts: { part1: part(extrude(region)) } }), revision: 1 },
      { where: { id } },
    );
    const path = ['parts', 'part1', 'steps', 'e', 'regions'];
    await ChangeRow.create({
      designId: id, revision: 1, changeId: 'old-change', kind: 'edit', target: null, command: 'change-step', args: null, label: 'Choose regions',
      patches: JSON.stringify([{ op: 'replace', path, value: region }]),
      inverse: JSON.stringify([{ op: 'replace', path, value: 'all' }]),
    }); // prettier-ignore
    await upgradeStored(sequelize, pino({ level: 'silent' }));
    const { document, revision } = await open(id);
    expect(document.version).toBe(2);
    expect(document.parts.part1!.steps.e).toMatchObject({ profile: { sketch: 's', regions: region } });
    expect(document.parts.part1!.steps.e).not.toHaveProperty('regions');
    const kept = await api.get(`/api/designs/${id}/changes/old-change`).expect(200);
    const undo = { id: 'undo-of-old', kind: 'undo', of: 'old-change', command: 'undo', label: 'Choose regions', patches: kept.body.inverse }; // prettier-ignore
    await api.post(`/api/designs/${id}/changes`).send({ base: revision, change: undo }).expect(200);
    expect((await open(id)).document.parts.part1!.steps.e).toMatchObject({ profile: { sketch: 's', regions: 'all' } });
    await upgradeStored(sequelize, pino({ level: 'silent' }));
    expect((await open(id)).revision).toBe(2);
  });
});
