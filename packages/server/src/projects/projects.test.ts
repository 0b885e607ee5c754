import { Ledger, pack, pictureKey, renameDesign } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { loadDemoOnce } from '../demo.ts';
import { purgeDeleted } from '../designs/purge.ts';
import { served } from '../served.ts';

const s = served();

describe('projects and files', () => {
  test('a design file is opened into a project; a broken one is refused in a sentence', async () => {
    const answer = await s.api.post('/api/projects').send({ name: 'Files' }).expect(201);
    expect(answer.headers['cache-control']).toBe('no-store');
    const project = answer.body.id as string;
    const { document } = await s.open(await s.newDesign());
    const made = await s.api.post(`/api/projects/${project}/designs`).send(document).expect(201);
    expect((await s.open(made.body.id)).document).toEqual(document);
    const broken = await s.api
      .post(`/api/projects/${project}/designs`)
      .send({ ...document, parts: { x: {} } })
      .expect(422);
    const packed = await s.api.post(`/api/projects/${project}/designs`).set('content-encoding', 'gzip').send('no gzip at all'); // prettier-ignore
    expect([packed.status, packed.body.message]).toEqual([415, 'The server takes requests as they are, not packed.']);
    expect(broken.body.message).toMatch(/does not follow the format: parts › x › name/);
    await s.api
      .post(`/api/projects/${project}/designs`)
      .set('content-type', 'application/json')
      .send('{"format": "helb')
      .expect(400);
  });

  test('a body over the limit is refused before it is read', async () => {
    const project = (await s.api.post('/api/projects').send({ name: 'Big' }).expect(201)).body.id as string;
    const answer = await s.api
      .post(`/api/projects/${project}/designs`)
      .send({ format: 'helb-design', name: 'x'.repeat(17 * 1024 * 1024) })
      .expect(413);
    expect(answer.body.message).toBe('This is larger than the 16 MB the server takes at once.');
  });

  test("the list shows each design's first part, once someone has seen it; no other picture is taken", async () => {
    const project = (await s.api.post('/api/projects').send({ name: 'Seen' }).expect(201)).body.id as string;
    const demo = readFileSync(join(import.meta.dirname, '../../../../demo/roof-vent-opener.helb.json'), 'utf8');
    const id = (
      await s.api
        .post(`/api/projects/${project}/designs`)
        .set('content-type', 'application/json')
        .send(demo)
        .expect(201)
    ).body.id as string;
    const { document } = await s.open(id);
    const listed = async () =>
      (await s.api.get(`/api/projects/${project}/designs`).expect(200)).body.designs[0].picture;
    const seen = (part: string, key: string, data = Buffer.from(pack({ solid: new Float32Array([1, 2, 3]) }))) =>
      s.api
        .put(`/api/designs/${id}/pictures/${part}/${key}`)
        .set('content-type', 'application/octet-stream')
        .send(data);
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
    const project = (await s.api.post('/api/projects').send({ name: 'Kept' }).expect(201)).body.id as string;
    const design = (await s.api.post(`/api/projects/${project}/designs`).send({ name: 'D' }).expect(201)).body
      .id as string;
    await s.api.delete(`/api/projects/${project}`).expect(409);
    await s.api.delete(`/api/designs/${design}`).expect(204);
    await s.api.delete(`/api/projects/${project}`).expect(204);
    await s.api.get(`/api/designs/${design}`).expect(404);
    await s.api.post(`/api/projects/${project}/designs`).send({ name: 'Late' }).expect(404);
  });

  test('a project is never deleted with a design made in it at the same moment', async () => {
    for (let i = 0; i < 6; i++) {
      const project = (await s.api.post('/api/projects').send({ name: 'Both' }).expect(201)).body.id as string;
      const [gone, made] = await Promise.all([s.api.delete(`/api/projects/${project}`), s.api.post(`/api/projects/${project}/designs`).send({ name: 'D' })]); // prettier-ignore
      expect([[204, 404], [409, 201]]).toContainEqual([gone.status, made.status]); // prettier-ignore
    }
  });

  test('what was deleted is brought back within thirty days, and gone after them', async () => {
    const project = (await s.api.post('/api/projects').send({ name: 'Bin' }).expect(201)).body.id as string;
    const id = (await s.api.post(`/api/projects/${project}/designs`).send({ name: 'D' }).expect(201)).body.id as string;
    const list = async () => (await s.api.get(`/api/projects/${project}/designs`).expect(200)).body;
    await s.api.delete(`/api/designs/${id}`).expect(204);
    expect(await list()).toMatchObject({ designs: [], deleted: [{ id, name: 'D' }] });
    expect((await s.send(id, 0, s.changeOf(renameDesign('X')))).status).toBe(404);
    await s.api.post(`/api/designs/${id}/restore`).expect(204);
    expect(await list()).toMatchObject({ designs: [{ id }], deleted: [] });
    await s.api.delete(`/api/designs/${id}`).expect(204);
    await purgeDeleted(Date.now() + 29 * 24 * 3600 * 1000);
    expect((await list()).deleted).toHaveLength(1);
    await purgeDeleted(Date.now() + 31 * 24 * 3600 * 1000);
    expect((await list()).deleted).toEqual([]);
    await s.api.post(`/api/designs/${id}/restore`).expect(404);
  });

  test('the demo is loaded only into an empty database', async () => {
    const before = (await s.api.get('/api/projects').expect(200)).body.length;
    await loadDemoOnce(s.sequelize, 'demo');
    expect((await s.api.get('/api/projects').expect(200)).body).toHaveLength(before);
  });
});

describe('the project’s dimensions', () => {
  const shared = (value: string) => ({
    dimensions: { d1: { name: 'stock_thk', value } },
    dimensionOrder: ['d1'],
  });

  test('begin empty, are kept, and count their changes', async () => {
    const { body } = await s.api.post('/api/projects').send({ name: 'Shared' }).expect(201);
    const path = `/api/projects/${body.id}/dimensions`;
    await s.api.get(path).expect(200, { revision: 0, shared: { dimensions: {}, dimensionOrder: [] } });
    await s.api
      .put(path)
      .send({ base: 0, shared: shared('6 mm') })
      .expect(200);
    await s.api.get(path).expect(200, { revision: 1, shared: shared('6 mm') });
  });

  test('of two who change them at once, the second is told', async () => {
    const { body } = await s.api.post('/api/projects').send({ name: 'Shared' }).expect(201);
    const path = `/api/projects/${body.id}/dimensions`;
    const answers = await Promise.all(
      ['8 mm', '9 mm'].map((value) => s.api.put(path).send({ base: 0, shared: shared(value) })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    expect(answers.find((a) => a.status === 409)!.body.message).toMatch(/changed by someone else meanwhile/);
  });

  test.each([
    ['a value that cannot be read', shared('6 mm +'), /stock_thk: /],
    ['a name that is a unit', { ...shared('6 mm'), dimensions: { d1: { name: 'mm', value: '6 mm' } } }, /is a unit/],
    ['an order that does not fit', { ...shared('6 mm'), dimensionOrder: [] }, /do not follow the format/],
  ])('refuses %s', async (_, bad, message) => {
    const { body } = await s.api.post('/api/projects').send({ name: 'Shared' }).expect(201);
    const answer = await s.api.put(`/api/projects/${body.id}/dimensions`).send({ base: 0, shared: bad });
    expect(answer.status).toBe(422);
    expect(answer.body.message).toMatch(message);
  });
});
