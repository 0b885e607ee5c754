import { renameDesign, renamePart } from '@helb/core';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { WebSocket } from 'ws';
import { OpenPageRow } from '../database/models.ts';
import { hostList } from '../access/hosts.ts';
import { ChangeLog } from '../designs/change-log.ts';
import { revisionsOf } from '../designs/log-rows.ts';
import { served } from '../served.ts';
import { Elsewhere } from './elsewhere.ts';
import { Live } from './live.ts';

const s = served();
let live: Live;
let port: number;
let away = false;
const started: { live: Live; server: Server }[] = [];

/** One more server on the database. @returns its port */
async function serve(own: Live): Promise<number> {
  const server = createServer();
  started.push({ live: own, server });
  own.serve(server, s.parts.access, hostList([]), {
    revisionsOf,
    later: async (since) => {
      if (away) throw new Error('the database is away');
      return s.changes.later(since);
    },
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return (server.address() as AddressInfo).port;
}

beforeAll(async () => {
  live = new Live();
  port = await serve(live);
});
afterAll(async () => {
  for (const own of started) {
    await own.live.stop();
    await new Promise((done) => own.server.close(done));
  }
});

interface Heard {
  kind: string;
  people?: unknown[];
  changes?: { id: string; revision: number }[];
}

/** A page of its own, with all it has heard. */
async function page(design: string, headers: Record<string, string> = {}, at = port) {
  const answer = await s.browser().get('/api/projects');
  const cookie = String(answer.headers['set-cookie']).split(';')[0]!;
  const socket = new WebSocket(`ws://127.0.0.1:${at}/api/designs/${design}/live`, {
    headers: { cookie, origin: `http://127.0.0.1:${at}`, ...headers },
  });
  const heard: Heard[] = [];
  socket.on('message', (data: Buffer) => heard.push(JSON.parse(data.toString()) as Heard));
  const status = await new Promise<number>((done) => {
    socket.once('open', () => done(101));
    socket.once('unexpected-response', (_, response) => done(response.statusCode!));
    socket.once('error', () => done(0));
  });
  return { socket, heard, status };
}

async function until(is: () => boolean): Promise<void> {
  for (let i = 0; i < 1000 && !is(); i++) await new Promise((done) => setTimeout(done, 10));
  expect(is()).toBe(true);
}

test('pages of a design hear what was changed, through whichever server, in order and once', async () => {
  const id = await s.newDesign();
  const [one, two] = [await page(id), await page(id)];
  // This server's own talk reaches its pages at once; what another one takes is found by looking.
  const near = new ChangeLog(s.sequelize, s.desks, live, s.table);
  const text = (base: number, name: string) => JSON.stringify({ base, change: s.changeOf(renamePart('part1', name)) });
  await near.append(id, 'ana', text(0, 'A'));
  await s.changes.append(id, 'ben', text(1, 'B'));
  await near.append(id, 'ana', text(2, 'C'));
  await near.append(id, 'ana', text(3, 'D'));
  for (const { heard } of [one, two]) {
    const revisions = () => heard.flatMap((h) => h.changes?.map((c) => c.revision) ?? []);
    await until(() => revisions().length >= 4);
    expect(revisions()).toEqual([1, 2, 3, 4]);
  }
  await near.stop();
  for (const { socket } of [one, two]) socket.close();
});

test('other servers’ changes are looked for again when the database was away', async () => {
  const id = await s.newDesign();
  const one = await page(id);
  away = true;
  await new Promise((done) => setTimeout(done, 500));
  away = false;
  await s.send(id, 0, s.changeOf(renamePart('part1', 'Late'))).expect(200);
  await until(() => one.heard.some((h) => h.changes?.[0]?.revision === 1));
  one.socket.close();
});

test('they see each other, and where the others are at work, until they leave', async () => {
  const id = await s.newDesign();
  const [one, two] = [await page(id), await page(id)];
  two.socket.send(JSON.stringify({ part: 'part1', step: 's1' }));
  two.socket.send('no message');
  two.socket.send(JSON.stringify({ part: 7 }));
  await until(() => JSON.stringify(one.heard.at(-1)?.people) === JSON.stringify([{ tab: two.heard.length && (two.heard[0] as { tab?: number }).tab, name: null, part: 'part1', step: 's1', mine: false }])); // prettier-ignore
  two.socket.close();
  await until(() => one.heard.at(-1)?.people?.length === 0);
  one.socket.close();
});

test('through several servers too; a server that ends without a word is soon forgotten', async () => {
  const id = await s.newDesign();
  const others = [new Elsewhere(), new Elsewhere()];
  const ports = await Promise.all(others.map((e) => serve(new Live(e))));
  const [one, two] = [await page(id, {}, ports[0]), await page(id, {}, ports[1])];
  two.socket.send(JSON.stringify({ part: 'part1', step: null }));
  const seenBy = (own: typeof one) => own.heard.findLast((h) => h.people)?.people as { part: string | null; tab: number }[]; // prettier-ignore
  await until(() => seenBy(one)?.[0]?.part === 'part1');
  await until(() => seenBy(two)?.length === 1);
  expect(seenBy(two)[0]!.tab).not.toBe(seenBy(one)[0]!.tab);
  two.socket.close();
  await until(() => seenBy(one).length === 0);
  await others[1]!.tell(id, { tab: 7, author: 'x', name: null, part: null, step: null });
  await until(() => seenBy(one).length === 1);
  await OpenPageRow.update({ seenAt: new Date(Date.now() - 60_000) }, { where: { tab: 7 } });
  await until(() => seenBy(one).length === 0);
  await others[0]!.beat([]);
  expect(await OpenPageRow.count({ where: { tab: 7 } })).toBe(0);
  one.socket.close();
});

test('what is told of a page last is what other servers know, and of one that went nothing', async () => {
  const id = await s.newDesign();
  const [here, there] = [new Elsewhere(), new Elsewhere()];
  const at = (tab: number, step: number) => here.tell(id, { tab, author: 'x', name: null, part: 'part1', step: `s${step}` }); // prettier-ignore
  await Promise.all([
    ...Array.from({ length: 40 }, (_, i) => at(11, i)),
    ...Array.from({ length: 40 }, (_, i) => at(12, i)),
    here.forget(12),
  ]);
  const pages = (await there.pages([id])).get(id)!;
  expect(pages.map(({ tab, step }) => [tab, step])).toEqual([[11, 's39']]);
  await here.stop();
});

test.each<[string, (id: string) => [string, Record<string, string>], number]>([
  ['a page from elsewhere', (id) => [id, { origin: 'http://evil.example' }], 403],
  ['a name that is not ours', (id) => [id, { host: 'evil.example', origin: 'http://evil.example' }], 403],
  ['nobody known', (id) => [id, { cookie: 'helb_author=none' }], 401],
  ['a design that is not there', () => ['00000000-0000-4000-8000-000000000000', {}], 404],
  ['what is no design', () => ['nothing', {}], 404],
])('%s is not let in', async (_, of, status) => {
  const [id, headers] = of(await s.newDesign());
  expect((await page(id, headers)).status).toBe(status);
});

test('a deleted design is heard of no more', async () => {
  const id = await s.newDesign();
  await s.api.delete(`/api/designs/${id}`).expect(204);
  expect((await page(id)).status).toBe(404);
  expect((await s.send(id, 0, s.changeOf(renameDesign('X')))).status).toBe(404);
});
