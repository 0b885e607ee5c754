import { renamePart } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import request from 'supertest';
import { served } from '../served.ts';

const s = served();

test('a database that is killed alone is started again; until then it is said to be away, and nothing is lost', async () => {
  const id = await s.newDesign();
  const pid = Number(readFileSync(join(s.directory, 'database', 'helb.pid'), 'utf8'));
  process.kill(pid, 'SIGKILL');
  const change = s.changeOf(renamePart('part1', 'Kept'));
  const statuses: number[] = [];
  const healths: number[] = [];
  for (let i = 0; i < 200 && statuses.at(-1) !== 200; i++) {
    const answer = await s.send(id, 0, change);
    statuses.push(answer.status);
    if (answer.status !== 200) {
      expect(answer.status).toBe(503);
      expect(answer.body.message).toMatch(/may have been kept/);
      healths.push((await s.api.get('/api/health')).status);
      await new Promise((done) => setTimeout(done, 100));
    }
  }
  expect(statuses.at(-1)).toBe(200);
  // It may be back by the time the second of two questions is asked.
  expect(healths).toContain(503);
  await s.api.get('/api/health').expect(200, { ok: true });
  expect((await s.open(id)).document.parts.part1!.name).toBe('Kept');
}, 60_000);

describe('who may ask', () => {
  test.each([
    ['a name that is not ours', { host: 'evil.example' }, 'get'],
    ['a page from elsewhere', { origin: 'http://evil.example' }, 'post'],
    ['a page at another port', { host: '127.0.0.1:4680', origin: 'http://127.0.0.1:9999' }, 'post'],
    ['no origin, across sites', { 'sec-fetch-site': 'cross-site' }, 'post'],
  ] as const)('is refused under %s', async (_, headers, method) => {
    const answer = await request(s.app)[method]('/api/projects').set(headers).send(method === 'post' ? { name: 'X' } : undefined); // prettier-ignore
    expect(answer.status).toBe(403);
    expect(answer.body.message).toMatch(/does not answer under this name|Only pages of Helb/);
  });

  test('our own pages may, under any of our names', async () => {
    for (const host of ['127.0.0.1:80', 'localhost:4680', '[::1]:4680'])
      await request(s.app)
        .post('/api/projects')
        .set({ host, origin: `http://${host}` })
        .send({ name: 'Own' })
        .expect(201);
  });

  test('is limited by person, whatever the spelling of the address, and told how long to wait', async () => {
    const [busy, other] = [s.browser(), s.browser()];
    await busy.get('/api/projects');
    await other.get('/api/projects');
    const statuses: number[] = [];
    for (let i = 0; i < 61; i++) statuses.push(...(await Promise.all(Array.from({ length: 10 }, () => busy.get(i % 2 ? '/api/health' : '/API/health')))).map((a) => a.status)); // prettier-ignore
    expect(statuses.at(-1)).toBe(429);
    const refused = await busy.get('/API/projects');
    expect([refused.status, Number(refused.headers['retry-after']) > 0]).toEqual([429, true]);
    await other.get('/api/projects').expect(200);
    // A cookie of one's own making is none.
    const forged = await request(s.app)
      .get('/api/projects')
      .set('cookie', 'helb_author=0f0e0d0c-0000-4000-8000-000000000000.x');
    expect(forged.headers['set-cookie']).toBeDefined();
  });
});
