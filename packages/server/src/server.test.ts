import {
  addDimension,
  addPart,
  Ledger,
  pack,
  pictureKey,
  renameDesign,
  renamePart,
  type Design,
  type Edit,
} from '@helb/core';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { RequestListener } from 'node:http';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
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
import { hostList } from './access/hosts.ts';
import { ChangeLog } from './designs/change-log.ts';
import { Desk } from './designs/desk.ts';
import type { Desks } from './designs/desk-threads.ts';
import { purgeDeleted } from './designs/purge.ts';
import { Live } from './live/live.ts';
import { upgradeStored } from './designs/upgrades.ts';
import { ChangeRow, DesignRow } from './database/models.ts';

const directory = mkdtempSync(join(tmpdir(), 'helb-test-'));
let database: PrivateDatabase;
let sequelize: Sequelize;
let changes: ChangeLog;
let app: RequestListener;
let api: ReturnType<typeof request.agent>;
/** In this thread: what a desk works out does not depend on where it stands. */
const desk = new Desk();
const desks: Desks = { do: async (task) => desk.do(structuredClone(task)), stop: async () => {} };
const SECRET = 'a secret of the tests';

beforeAll(async () => {
  database = await startPrivateDatabase(directory, 0);
  sequelize = await connectDatabase(database.url);
  changes = new ChangeLog(sequelize, desks, new Live());
  app = createApp({ sequelize, log: pino({ level: 'silent' }), desks, changes, hosts: hostList([]), secret: SECRET, webRoot: null }).callback(); // prettier-ignore
  api = request.agent(app);
});
afterAll(async () => {
  await changes.stop();
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
/** An edit as a page sends it. */
const changeOf = ({ command, args }: Edit) => ({ id: `change-${next++}`, kind: 'edit', command, args });
const turn = (kind: 'undo' | 'redo', of: string) => ({ id: `change-${next++}`, kind, of });

interface Opened {
  document: Design;
  revision: number;
  you: string;
  log: { id: string; label: string; author: string }[];
}
const open = async (id: string, as = api) => (await as.get(`/api/designs/${id}`).expect(200)).body as Opened;
const send = (id: string, base: number, change: object, as = api) =>
  as.post(`/api/designs/${id}/changes`).send({ base, change });

describe('the change log', () => {
  test('keeps a change, gives it a revision and an author, and lists it', async () => {
    const id = await newDesign();
    const change = changeOf(addPart('p2', 'Washer'));
    const { body } = await send(id, 0, change).expect(200);
    expect(body).toMatchObject({ revision: 1, missed: [], kept: { id: change.id, label: 'Add part Washer' } });
    const after = await open(id);
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
    const kept = await api.get(`/api/designs/${id}/changes/${change.id}`).expect(200);
    expect(kept.body.touches).toContainEqual(expect.objectContaining({ path: ['parts', 'p2'] }));
  });

  test('a change sent twice is kept once; another under its id is refused', async () => {
    const id = await newDesign();
    const change = changeOf(addPart('p2', 'Washer'));
    for (let i = 0; i < 3; i++) expect((await send(id, 0, change).expect(200)).body.revision).toBe(1);
    expect((await open(id)).log).toHaveLength(1);
    const other = { ...changeOf(addPart('p3', 'Pin')), id: change.id };
    expect((await send(id, 1, other).expect(409)).body.message).toMatch(/^Another change has this id already/);
    // Ids are told apart letter by letter.
    await send(id, 1, { ...changeOf(addPart('p3', 'Pin')), id: change.id.toUpperCase() }).expect(200);
    await api.get(`/api/designs/${id.toUpperCase()}`).expect(404);
    await api.get(`/api/designs/${id}/changes/${change.id}%20`).expect(404);
  });

  test('a change on an older revision is run again on the newest, and told what it missed', async () => {
    const id = await newDesign();
    const [mine, other] = [changeOf(renamePart('part1', 'Bracket')), changeOf(renameDesign('Opener'))];
    await send(id, 0, other).expect(200);
    const answer = await send(id, 0, mine).expect(200);
    expect(answer.body).toMatchObject({ revision: 2, missed: [{ id: other.id, revision: 1 }] });
    expect((await open(id)).document).toMatchObject({ name: 'Opener', parts: { part1: { name: 'Bracket' } } });
    expect((await api.get(`/api/designs/${id}/changes?since=1`).expect(200)).body.changes).toMatchObject([
      { id: mine.id },
    ]);
  });

  test('two people who decide the same thing: the second is refused, and told whom and what', async () => {
    const id = await newDesign();
    await send(id, 0, changeOf(renamePart('part1', 'Bracket'))).expect(200);
    const ben = request.agent(app);
    await open(id, ben);
    const refused = await send(id, 0, changeOf(renamePart('part1', 'Wheel')), ben).expect(409);
    expect(refused.body.message).toMatch(
      /^Someone else made “Rename a part to Bracket” meanwhile, which decides the same/,
    );
    expect((await open(id)).document.parts.part1!.name).toBe('Bracket');
  });

  test('each takes back their own: not what others did, and not what others built on', async () => {
    const id = await newDesign();
    const ben = request.agent(app);
    await open(id, ben);
    const [mine, his] = [changeOf(addPart('p2', 'Washer')), changeOf(renamePart('p2', 'Disc'))];
    await send(id, 0, mine).expect(200);
    await send(id, 1, his, ben).expect(200);
    expect((await send(id, 2, turn('undo', mine.id), ben).expect(403)).body.message).toMatch(/made by someone else, and only they/); // prettier-ignore
    expect((await send(id, 2, turn('undo', mine.id)).expect(409)).body.message).toBe(
      '“Add part Washer” cannot be taken back any more: Someone else built on it with “Rename a part to Disc”.',
    );
    await send(id, 2, turn('undo', his.id), ben).expect(200);
    await send(id, 3, turn('undo', mine.id)).expect(200);
    expect(Object.keys((await open(id)).document.parts)).toEqual(['part1']);
    await send(id, 4, turn('redo', mine.id)).expect(200);
    expect((await open(id)).document.parts.p2!.name).toBe('Washer');
    await send(id, 5, turn('undo', 'no-such-change')).expect(404);
  });

  test('any state can be looked at, named, and gone back to as a new edit', async () => {
    const id = await newDesign();
    for (const [i, name] of ['Bracket', 'Wheel', 'Crank'].entries()) await send(id, i, changeOf(renamePart('part1', name))); // prettier-ignore
    const state = async (n: number) => (await api.get(`/api/designs/${id}/states/${n}`).expect(200)).body as Design;
    expect([(await state(0)).parts.part1!.name, (await state(2)).parts.part1!.name]).toEqual(['Part 1', 'Wheel']);
    await api.put(`/api/designs/${id}/states/2/name`).send({ name: 'As made' }).expect(204);
    const back = { id: 'back-to-1', kind: 'restore', to: 1 };
    expect((await send(id, 3, back).expect(200)).body.kept).toMatchObject({
      label: 'Go back to state 1',
      kind: 'restore',
    });
    const { document, log } = await open(id);
    expect(document).toEqual(await state(1));
    expect(log[1]).toMatchObject({ named: 'As made' });
    await send(id, 4, turn('undo', 'back-to-1')).expect(200);
    expect((await open(id)).document.parts.part1!.name).toBe('Crank');
    await api.get(`/api/designs/${id}/states/99`).expect(404);
    await api.put(`/api/designs/${id}/states/99/name`).send({ name: 'x' }).expect(404);
    await send(id, 5, { id: 'back-to-99', kind: 'restore', to: 99 }).expect(404);
  });

  test('what changes nothing is not kept', async () => {
    const id = await newDesign();
    const idle = await send(id, 0, changeOf(renamePart('part1', 'Part 1'))).expect(200);
    expect(idle.body).toEqual({ revision: 0, missed: [], kept: null });
  });

  test.each<[string, (id: string) => object, number, RegExp]>([
    ['a revision the server does not have', () => ({ base: 7, change: changeOf(renamePart('part1', 'X')) }), 409, /revision 7, which the server does not have/],
    ['patches', () => ({ base: 0, change: { ...changeOf(renamePart('part1', 'X')), patches: [{ op: 'replace', path: ['units'], value: 'furlong' }] } }), 422, /cannot be read/],
    ['a command that is none', () => ({ base: 0, change: { id: 'bad-change-1', kind: 'edit', command: 'drop-all', args: {} } }), 409, /There is no command called/],
    ['arguments of another command', () => ({ base: 0, change: { id: 'bad-change-2', kind: 'edit', command: 'rename-part', args: { id: 7 } } }), 409, /cannot be read/],
    ['what a browser’s own keys could reach', () => ({ base: 0, change: { id: 'bad-change-3', kind: 'edit', command: 'rename-part', args: { id: 'constructor', name: 'X' } } }), 409, /cannot be read/],
    ['a part that is not there', () => ({ base: 0, change: changeOf(renamePart('zz', 'X')) }), 409, /no longer exists/],
    ['somebody’s edit as if it followed by itself', () => ({ base: 0, change: { ...changeOf(renamePart('part1', 'X')), kind: 'follow' } }), 422, /cannot be read/],
    ['no change at all', () => ({ base: 0 }), 422, /cannot be read/],
  ])('refuses %s, and nothing is kept', async (_, body, status, message) => {
    const id = await newDesign();
    const answer = await api.post(`/api/designs/${id}/changes`).send(body(id)).expect(status);
    expect(answer.body.message).toMatch(message);
    expect(await open(id)).toMatchObject({ revision: 0, log: [] });
  }); // prettier-ignore

  test('many who add a thing at once all succeed, through two servers on one database', async () => {
    const id = await newDesign();
    const second = new ChangeLog(sequelize, desks, new Live());
    const text = (i: number) => JSON.stringify({ base: 0, change: changeOf(addDimension(`d${i}`, { name: `d_${i}`, value: '1 mm' })) }); // prettier-ignore
    await Promise.all(Array.from({ length: 12 }, (_, i) => [changes, second][i % 2]!.append(id, `author ${i % 3}`, text(i)))); // prettier-ignore
    const { document, revision, log } = await open(id);
    expect([revision, log.length, document.dimensionOrder.length]).toEqual([12, 12, 12]);
    await second.stop();
  });

  test('a design is what its log says, when no state of it was written for long', async () => {
    const id = await newDesign();
    for (let i = 0; i < 5; i++) await send(id, i, changeOf(addPart(`p${i}`, `Part of ${i}`))).expect(200);
    expect(await DesignRow.findByPk(id)).toMatchObject({ revision: 5, documentRevision: 0 });
    const fresh = new Desk();
    const other = new ChangeLog(sequelize, { do: async (task) => fresh.do(task), stop: async () => {} }, new Live());
    expect(JSON.parse((await other.documentAt(id)).text)).toEqual((await open(id)).document);
    await changes.stop();
    expect(await DesignRow.findByPk(id)).toMatchObject({ documentRevision: 5 });
  });
});

describe('who may ask', () => {
  test.each([
    ['a name that is not ours', { host: 'evil.example' }, 'get'],
    ['a page from elsewhere', { origin: 'http://evil.example' }, 'post'],
    ['a page at another port', { host: '127.0.0.1:4680', origin: 'http://127.0.0.1:9999' }, 'post'],
    ['no origin, across sites', { 'sec-fetch-site': 'cross-site' }, 'post'],
  ] as const)('is refused under %s', async (_, headers, method) => {
    const answer = await request(app)[method]('/api/projects').set(headers).send(method === 'post' ? { name: 'X' } : undefined); // prettier-ignore
    expect(answer.status).toBe(403);
    expect(answer.body.message).toMatch(/does not answer under this name|Only pages of Helb/);
  });

  test('our own pages may, under any of our names', async () => {
    for (const host of ['127.0.0.1:80', 'localhost:4680', '[::1]:4680'])
      await request(app)
        .post('/api/projects')
        .set({ host, origin: `http://${host}` })
        .send({ name: 'Own' })
        .expect(201);
  });

  test('is limited by person, whatever the spelling of the address, and told how long to wait', async () => {
    const [busy, other] = [request.agent(app), request.agent(app)];
    await busy.get('/api/projects');
    await other.get('/api/projects');
    const statuses: number[] = [];
    for (let i = 0; i < 61; i++) statuses.push(...(await Promise.all(Array.from({ length: 10 }, () => busy.get(i % 2 ? '/api/health' : '/API/health')))).map((a) => a.status)); // prettier-ignore
    expect(statuses.at(-1)).toBe(429);
    const refused = await busy.get('/API/projects');
    expect([refused.status, Number(refused.headers['retry-after']) > 0]).toEqual([429, true]);
    await other.get('/api/projects').expect(200);
    // A cookie of one's own making is none.
    const forged = await request(app)
      .get('/api/projects')
      .set('cookie', 'helb_author=0f0e0d0c-0000-4000-8000-000000000000.x');
    expect(forged.headers['set-cookie']).toBeDefined();
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
    const packed = await api.post(`/api/projects/${project}/designs`).set('content-encoding', 'gzip').send('no gzip at all'); // prettier-ignore
    expect([packed.status, packed.body.message]).toEqual([415, 'The server takes requests as they are, not packed.']);
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

  test("the list shows each design's first part, once someone has seen it; no other picture is taken", async () => {
    const project = (await api.post('/api/projects').send({ name: 'Seen' }).expect(201)).body.id as string;
    const demo = readFileSync(join(import.meta.dirname, '../../../demo/roof-vent-opener.helb.json'), 'utf8');
    const id = (
      await api.post(`/api/projects/${project}/designs`).set('content-type', 'application/json').send(demo).expect(201)
    ).body.id as string;
    const { document } = await open(id);
    const listed = async () => (await api.get(`/api/projects/${project}/designs`).expect(200)).body.designs[0].picture;
    const seen = (part: string, key: string, data = Buffer.from(pack({ solid: new Float32Array([1, 2, 3]) }))) =>
      api.put(`/api/designs/${id}/pictures/${part}/${key}`).set('content-type', 'application/octet-stream').send(data);
    const keyOf = (part: string) => pictureKey(document, Ledger.of(document), part);
    expect(await listed()).toBeNull();
    await seen('pin', keyOf('pin')).expect(204);
    expect(await listed()).toBeNull();
    await seen('wall_bracket', keyOf('pin')).expect(409);
    await seen('wall_bracket', keyOf('wall_bracket'), Buffer.from([1, 2, 3])).expect(422);
    await seen('constructor', keyOf('pin')).expect(409);
    await seen('wall_bracket', keyOf('wall_bracket')).expect(204);
    expect(await listed()).toEqual({ part: 'wall_bracket', key: keyOf('wall_bracket') });
  });

  test('a project with designs is not deleted', async () => {
    const project = (await api.post('/api/projects').send({ name: 'Kept' }).expect(201)).body.id as string;
    const design = (await api.post(`/api/projects/${project}/designs`).send({ name: 'D' }).expect(201)).body
      .id as string;
    await api.delete(`/api/projects/${project}`).expect(409);
    await api.delete(`/api/designs/${design}`).expect(204);
    await api.delete(`/api/projects/${project}`).expect(204);
    await api.get(`/api/designs/${design}`).expect(404);
    await api.post(`/api/projects/${project}/designs`).send({ name: 'Late' }).expect(404);
  });

  test('a project is never deleted with a design made in it at the same moment', async () => {
    for (let i = 0; i < 6; i++) {
      const project = (await api.post('/api/projects').send({ name: 'Both' }).expect(201)).body.id as string;
      const [gone, made] = await Promise.all([api.delete(`/api/projects/${project}`), api.post(`/api/projects/${project}/designs`).send({ name: 'D' })]); // prettier-ignore
      expect([[204, 404], [409, 201]]).toContainEqual([gone.status, made.status]); // prettier-ignore
    }
  });

  test('what was deleted is brought back within thirty days, and gone after them', async () => {
    const project = (await api.post('/api/projects').send({ name: 'Bin' }).expect(201)).body.id as string;
    const id = (await api.post(`/api/projects/${project}/designs`).send({ name: 'D' }).expect(201)).body.id as string;
    const list = async () => (await api.get(`/api/projects/${project}/designs`).expect(200)).body;
    await api.delete(`/api/designs/${id}`).expect(204);
    expect(await list()).toMatchObject({ designs: [], deleted: [{ id, name: 'D' }] });
    expect((await send(id, 0, changeOf(renameDesign('X')))).status).toBe(404);
    await api.post(`/api/designs/${id}/restore`).expect(204);
    expect(await list()).toMatchObject({ designs: [{ id }], deleted: [] });
    await api.delete(`/api/designs/${id}`).expect(204);
    await purgeDeleted(Date.now() + 29 * 24 * 3600 * 1000);
    expect((await list()).deleted).toHaveLength(1);
    await purgeDeleted(Date.now() + 31 * 24 * 3600 * 1000);
    expect((await list()).deleted).toEqual([]);
    await api.post(`/api/designs/${id}/restore`).expect(404);
  });

  test('the demo is loaded only into an empty database', async () => {
    const before = (await api.get('/api/projects').expect(200)).body.length;
    await loadDemoOnce(sequelize, 'demo');
    expect((await api.get('/api/projects').expect(200)).body).toHaveLength(before);
  });
});

describe('a start', () => {
  const fresh = () => mkdtempSync(join(tmpdir(), 'helb-start-'));

  test('a database that is killed alone is started again; until then it is said to be away, and nothing is lost', async () => {
    const id = await newDesign();
    const pid = Number(readFileSync(join(directory, 'database', 'helb.pid'), 'utf8'));
    process.kill(pid, 'SIGKILL');
    const change = changeOf(renamePart('part1', 'Kept'));
    const statuses: number[] = [];
    for (let i = 0; i < 200 && statuses.at(-1) !== 200; i++) {
      const answer = await send(id, 0, change);
      statuses.push(answer.status);
      if (answer.status !== 200) {
        expect(answer.status).toBe(503);
        expect(answer.body.message).toMatch(/may have been kept/);
        expect((await api.get('/api/health')).status).toBe(503);
        await new Promise((done) => setTimeout(done, 100));
      }
    }
    expect(statuses.at(-1)).toBe(200);
    await api.get('/api/health').expect(200, { ok: true });
    expect((await open(id)).document.parts.part1!.name).toBe('Kept');
  }, 60_000);

  test('ends a database that a killed server left running, and finds all that was in it', async () => {
    const data = fresh();
    const first = await startPrivateDatabase(data, 0);
    const before = await connectDatabase(first.url);
    await before.query('CREATE TABLE kept (n INT)');
    await before.close();
    await first.stop();
    const dir = join(data, 'database');
    const left = spawn('mariadbd', ['--no-defaults', `--datadir=${dir}`, `--pid-file=${join(dir, 'helb.pid')}`, `--socket=${join(data, 'left.sock')}`, '--skip-networking', '--user=root']); // prettier-ignore
    for (let i = 0; i < 100 && !existsSync(join(data, 'left.sock')); i++) await new Promise((done) => setTimeout(done, 100)); // prettier-ignore
    const again = await startPrivateDatabase(data, 0);
    const after = await connectDatabase(again.url);
    expect(await after.getQueryInterface().tableExists('kept')).toBe(true);
    expect(left.exitCode).toBe(0);
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
    await upgradeStored(sequelize, pino({ level: 'silent' }));
    const { document, revision } = await open(id);
    expect(document.version).toBe(2);
    expect(document.parts.part1!.steps.e).toMatchObject({ profile: { sketch: 's', regions: region } });
    expect(document.parts.part1!.steps.e).not.toHaveProperty('regions');
    await send(id, revision, turn('undo', 'old-change')).expect(200);
    expect((await open(id)).document.parts.part1!.steps.e).toMatchObject({ profile: { sketch: 's', regions: 'all' } });
    await upgradeStored(sequelize, pino({ level: 'silent' }));
    expect((await open(id)).revision).toBe(2);
  });
});
