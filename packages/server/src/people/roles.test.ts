/** All that can be asked, by all who can ask. */
import { renameDesign } from '@helb/core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { WebSocket } from 'ws';
import { hostList } from '../access/hosts.ts';
import { revisionsOf } from '../designs/log-rows.ts';
import { Live } from '../live/live.ts';
import { served } from '../served.ts';
import { newcomers } from './newcomers.ts';
import { MemberRow, ShareRow } from './rows.ts';

const s = served(true);
const people = newcomers(s);

type Browser = ReturnType<typeof s.browser>;
/** From nobody to all. */
const WHO = ['nobody', 'visitor', 'stranger', 'reader', 'editor', 'owner', 'keeper'] as const;
const browsers = {} as Record<(typeof WHO)[number], Browser>;
let project: string;
let design: string;

beforeAll(async () => {
  browsers.keeper = await people.keeper();
  browsers.owner = await people.account('owner@works.example');
  browsers.stranger = await people.account('stranger@works.example');
  project = (await browsers.owner.post('/api/projects').send({ name: 'Vents' }).expect(201)).body.id as string;
  design = (await browsers.owner.post(`/api/projects/${project}/designs`).send({ name: 'Vent' }).expect(201)).body.id as string; // prettier-ignore
  browsers.reader = await people.invited(browsers.owner, project, 'reader@works.example', 'reads');
  browsers.editor = await people.invited(browsers.owner, project, 'editor@works.example', 'edits');
  browsers.nobody = s.browser();
  browsers.visitor = s.browser();
  const { link } = (await browsers.owner.post(`/api/designs/${design}/shares`).send({ days: 1 }).expect(201)).body as { link: string }; // prettier-ignore
  await browsers.visitor
    .post('/api/shares/open')
    .send({ token: link.split('#')[1] })
    .expect(200, { design });
});

/** What each is told: in, 401 not signed in, 403 not so far, 404 as if it were not there. */
const EXPECTED: Record<string, readonly (number | 'in')[]> = {
  //                 nobody visitor stranger reader editor owner keeper
  anyone: /*      */ ['in', 'in', 'in', 'in', 'in', 'in', 'in'],
  'signed in': /* */ [401, 401, 'in', 'in', 'in', 'in', 'in'],
  keeper: /*      */ [401, 401, 403, 403, 403, 403, 'in'],
  'reads project': [401, 401, 404, 'in', 'in', 'in', 404],
  'edits project': [401, 401, 404, 403, 'in', 'in', 404],
  'owns project': [401, 401, 404, 403, 403, 'in', 404],
  'reads design': [401, 'in', 404, 'in', 'in', 'in', 404],
  'edits design': [401, 401, 404, 403, 'in', 'in', 404],
  'owns design': [401, 401, 404, 403, 403, 'in', 404],
};

/** What each route needs, written down a second time on purpose: a route made or changed is to be thought of here. */
const NEEDED: Record<string, string> = {
  'get /me': 'anyone',
  'post /sign-in': 'anyone',
  'post /sign-out': 'anyone',
  'post /forgot': 'anyone',
  'post /links/read': 'anyone',
  'post /links/use': 'anyone',
  'post /shares/open': 'anyone',
  'patch /me': 'signed in',
  'put /me/password': 'signed in',
  'post /me/sign-out-elsewhere': 'signed in',
  'post /me/leave': 'signed in',
  'get /projects': 'signed in',
  'post /projects': 'signed in',
  'get /people': 'keeper',
  'get /people/audit': 'keeper',
  'delete /people/:person': 'keeper',
  'patch /projects/:project': 'edits project',
  'delete /projects/:project': 'owns project',
  'get /projects/:project/dimensions': 'reads project',
  'put /projects/:project/dimensions': 'edits project',
  'get /projects/:project/designs': 'reads project',
  'post /projects/:project/designs': 'edits project',
  'get /projects/:project/people': 'reads project',
  'post /projects/:project/invitations': 'owns project',
  'delete /projects/:project/invitations/:invitation': 'owns project',
  'put /projects/:project/people/:person': 'owns project',
  'delete /projects/:project/people/:person': 'owns project',
  'post /projects/:project/leave': 'reads project',
  'get /designs/:design': 'reads design',
  'delete /designs/:design': 'edits design',
  'post /designs/:design/restore': 'edits design',
  'post /designs/:design/changes': 'edits design',
  'get /designs/:design/changes': 'reads design',
  'get /designs/:design/changes/:change': 'reads design',
  'get /designs/:design/states/:revision': 'reads design',
  'put /designs/:design/states/:revision/name': 'edits design',
  'get /designs/:design/pictures': 'reads design',
  'get /designs/:design/pictures/:part/:key': 'reads design',
  'put /designs/:design/pictures/:part/:key': 'edits design',
  'get /designs/:design/issued/:sheet/:letter/:revision': 'reads design',
  'put /designs/:design/issued/:sheet/:letter/:revision': 'edits design',
  'get /designs/:design/shares': 'owns design',
  'post /designs/:design/shares': 'owns design',
  'delete /designs/:design/shares/:share': 'owns design',
};

describe('who may ask what', () => {
  test('is written down for every route', () => {
    const declared = s.routes().map(({ method, path, needs }) => [`${method} ${path}`, needs]);
    expect(Object.fromEntries(declared)).toEqual(NEEDED);
    expect(declared).toHaveLength(Object.keys(NEEDED).length);
  });

  test.each(Object.entries(NEEDED))('%s: %s', async (route, needs) => {
    const [method, path] = route.split(' ') as ['get' | 'post' | 'put' | 'patch' | 'delete', string];
    // A body that is refused for what it is, so that nothing is done by those who are let in.
    const filled = path.replace(':project', project).replace(':design', design).replace(/:\w+/g, 'none');
    const told: (number | 'in')[] = [];
    for (const who of WHO) {
      // These do something with any body; they are tried elsewhere by those who may.
      const does = /sign-out|leave|^delete|^post .*restore/.test(route);
      const expected = EXPECTED[needs]![WHO.indexOf(who)]!;
      if (does && expected === 'in') {
        told.push('in');
        continue;
      }
      const request = browsers[who][method](`/api${filled}`);
      const { status, body } = await (method === 'get' ? request : request.send({ no: 'such thing' }));
      expect(typeof body).toBe('object');
      const isGate = [401, 403].includes(status) || (status === 404 && /no longer exists/.test(String(body.message)));
      told.push(isGate ? status : 'in');
      if (!isGate) expect(status).toBeLessThan(500);
    }
    expect(told).toEqual(EXPECTED[needs]);
  });

  test('holds for the live line too, and ends with the right to look', async () => {
    const server = createServer();
    const live = new Live();
    live.serve(server, s.parts.access, hostList([]), { revisionsOf, later: (since) => s.changes.later(since) }); // prettier-ignore
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const line = async (who: (typeof WHO)[number]) => {
      const cookie = people.cookies(browsers[who]);
      const socket = new WebSocket(`${origin.replace('http', 'ws')}/api/designs/${design}/live`, { headers: { cookie, origin } }); // prettier-ignore
      const status = await new Promise<number>((done) => {
        socket.on('open', () => done(101));
        socket.on('error', () => {});
        socket.on('unexpected-response', (_, answer) => done(answer.statusCode!));
      });
      return { socket, status };
    };
    const lines = await Promise.all(WHO.map(line));
    expect(lines.map((l) => l.status)).toEqual([401, 101, 404, 101, 101, 101, 404]);
    const ended = new Promise<number>((done) => lines[1]!.socket.on('close', done));
    await ShareRow.destroy({ where: {} });
    await live.recheck();
    expect(await ended).toBe(4403);
    expect(lines[3]!.socket.readyState).toBe(WebSocket.OPEN);
    // Who may do more or less from now on hears of it, and nobody else.
    const told: string[] = [];
    lines.forEach(({ socket }, i) =>
      socket.on('message', (data: Buffer) => {
        const { kind, role } = JSON.parse(data.toString()) as { kind: string; role?: string };
        if (kind === 'role') told.push(`${WHO[i]} ${role}`);
      }),
    );
    const { id } = (await browsers.editor.get('/api/me')).body.person as { id: string };
    for (const role of ['reads', 'edits'] as const) {
      await MemberRow.update({ role }, { where: { projectId: project, personId: id } });
      await live.recheck();
    }
    for (let i = 0; i < 200 && told.length < 2; i++) await new Promise((done) => setTimeout(done, 10));
    expect(told).toEqual(['editor reads', 'editor edits']);
    await live.stop();
    await new Promise((done) => server.close(done));
  });
});

test('changes bear names; of one who left only that, and the clash says whom', async () => {
  const [mine, theirs] = [s.changeOf(renameDesign('Mine')), s.changeOf(renameDesign('Theirs'))];
  await s.send(design, 0, mine, browsers.owner).expect(200);
  const clash = await s.send(design, 0, theirs, browsers.editor);
  expect([clash.status, clash.body.message]).toEqual([409, expect.stringMatching(/^Person owner made “/)]);
  await s.send(design, 1, theirs, browsers.editor).expect(200);
  const log = async () => (await browsers.reader.get(`/api/designs/${design}`)).body.log as { by: string }[];
  expect((await log()).map((c) => c.by)).toEqual(['Person owner', 'Person editor']);
  const { people: all } = (await browsers.owner.get(`/api/projects/${project}/people`).expect(200)).body as { people: { id: string; name: string }[] }; // prettier-ignore
  const editor = all.find((p) => p.name === 'Person editor')!;
  await browsers.keeper.delete(`/api/people/${editor.id}`).expect(204);
  expect((await log()).map((c) => c.by)).toEqual(['Person owner', 'Someone who left']);
  expect((await browsers.editor.get('/api/projects')).status).toBe(401);
});
