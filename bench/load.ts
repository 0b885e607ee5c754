/**
 * People at work on a server: each on a design with some others, a change a second. Once through one process, once
 * through three behind a stand-in for a balancer that sends each request to the next; what was acknowledged is then
 * counted in the logs.
 */
import { addDimension, setDimension, type Edit } from '@helb/core';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { Agent, createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { startPrivateDatabase } from '../packages/server/src/database/private-mariadb.ts';
import { report, within } from './measure.ts';

const PEOPLE = Number(process.env.HELB_LOAD_PEOPLE ?? 300);
const SECONDS = Number(process.env.HELB_LOAD_SECONDS ?? 60);
/** People come one after another in this time, each to a design few had opened; it is told apart from the minute after. */
const ARRIVE_SECONDS = Number(process.env.HELB_LOAD_ARRIVE ?? 20);
const A_DESIGN = 5;

const children: ChildProcess[] = [];
const directory = mkdtempSync(join(tmpdir(), 'helb-load-'));
const database = await startPrivateDatabase(directory, 0);
const agent = new Agent({ keepAlive: true, maxSockets: 1000 });

function startServer(): Promise<{ child: ChildProcess; port: number }> {
  const child = spawn(process.execPath, ['packages/server/dist/main.mjs'], {
    env: { ...process.env, HELB_DATABASE_URL: database.url, HELB_PORT: '0', HELB_LOG: 'error' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  children.push(child);
  return new Promise((done, fail) => {
    child.stdout!.on('data', (chunk: Buffer) => {
      const found = /127\.0\.0\.1:(\d+)/.exec(chunk.toString());
      if (found) done({ child, port: Number(found[1]) });
    });
    child.once('exit', () => fail(new Error('a server ended at its start')));
  });
}

/** Each request goes to the next server: nobody is kept to one. */
function balance(ports: readonly number[]): Promise<{ port: number; stop(): void }> {
  let turn = 0;
  const own = createServer({ keepAliveTimeout: 75_000 }, (asked, answer) => {
    const port = ports[turn++ % ports.length]!;
    const on = request(
      { host: '127.0.0.1', port, path: asked.url, method: asked.method, headers: asked.headers, agent },
      (reply) => {
        // prettier-ignore
        answer.writeHead(reply.statusCode!, reply.headers);
        reply.pipe(answer);
      },
    );
    on.on('error', () => answer.writeHead(502).end());
    asked.pipe(on);
  });
  return new Promise((done) =>
    own.listen(0, '127.0.0.1', () => done({ port: (own.address() as AddressInfo).port, stop: () => own.close() })),
  );
}

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly cookie: string | undefined;
}

function ask(port: number, method: string, path: string, cookie = '', body?: string): Promise<Answer> {
  return new Promise((done, fail) => {
    const on = request(
      {
        host: '127.0.0.1',
        port,
        path,
        method,
        agent,
        headers: {
          cookie,
          ...(body === undefined
            ? {}
            : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }),
        },
      },
      (reply) => {
        // prettier-ignore
        let text = '';
        reply.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
        reply.on('end', () => done({ status: reply.statusCode!, text, cookie: reply.headers['set-cookie']?.[0]?.split(';')[0] })); // prettier-ignore
      },
    );
    on.on('error', fail);
    on.end(body);
  });
}

interface Outcome {
  /** How long each change took, ms: while people were still coming, and when all were there. */
  readonly arriving: number[];
  readonly took: number[];
  readonly refused: number;
  /** Lost, kept twice or out of order. */
  readonly amiss: number;
  /** From when a change was acknowledged to when a page of its design at another server heard of it, ms. */
  readonly heard: number[];
}

/** So many designs have a page open on them that only listens, each at the next server; more would take from the servers what they measure. */
const LISTENERS = 15;

/** @param at when each change was acknowledged; how long after it was heard goes to `heard` */
async function listen(
  port: number,
  design: string,
  at: ReadonlyMap<string, number>,
  heard: number[],
): Promise<WebSocket> {
  const { cookie } = await ask(port, 'GET', `/api/designs/${design}/changes`);
  const socket = new WebSocket(`ws://127.0.0.1:${port}/api/designs/${design}/live`, {
    headers: { cookie: cookie!, origin: `http://127.0.0.1:${port}` },
  });
  socket.on('message', (data: Buffer) => {
    const { changes } = JSON.parse(data.toString()) as { changes?: { id: string }[] };
    const now = performance.now();
    for (const { id } of changes ?? []) {
      // What this server took itself it tells before it answers: that is not what is measured.
      const acknowledged = at.get(id);
      if (acknowledged !== undefined) heard.push(now - acknowledged);
    }
  });
  await new Promise((open, fail) => socket.once('open', open).once('error', fail));
  return socket;
}

async function work(port: number, people: number, servers: readonly number[]): Promise<Outcome> {
  const demo = readFileSync('demo/roof-vent-opener.helb.json', 'utf8');
  const project = JSON.parse((await ask(port, 'POST', '/api/projects', '', '{"name":"Load"}')).text) as { id: string };
  const designs: string[] = [];
  for (let i = 0; i * A_DESIGN < people; i++)
    designs.push((JSON.parse((await ask(port, 'POST', `/api/projects/${project.id}/designs`, '', demo)).text) as { id: string }).id); // prettier-ignore
  const arriving: number[] = [];
  const took: number[] = [];
  const acknowledged = new Map<string, string[]>(designs.map((id) => [id, []]));
  let refused = 0;
  const at = new Map<string, number>();
  const heard: number[] = [];
  const sockets = await Promise.all(designs.slice(0, LISTENERS).map((id, i) => listen(servers[i % servers.length]!, id, at, heard))); // prettier-ignore
  const allHere = Date.now() + ARRIVE_SECONDS * 1000;
  const end = allHere + SECONDS * 1000;
  await Promise.all(
    Array.from({ length: people }, async (_, i) => {
      const design = designs[i % designs.length]!;
      await new Promise((wait) => setTimeout(wait, Math.random() * ARRIVE_SECONDS * 1000));
      const opened = await ask(port, 'GET', `/api/designs/${design}/changes`);
      const cookie = opened.cookie;
      let revision = (JSON.parse(opened.text) as { log: { revision: number }[] }).log.at(-1)?.revision ?? 0;
      for (let n = 0; Date.now() < end; n++) {
        const began = performance.now();
        const { command, args }: Edit = n === 0 ? addDimension(`own${i}`, { name: `own_${i}`, value: '1 mm' }) : setDimension(`own${i}`, `${n + 1} mm`); // prettier-ignore
        const id = `load-${i}-${n}`;
        const answer = await ask(port, 'POST', `/api/designs/${design}/changes`, cookie, JSON.stringify({ base: revision, change: { id, kind: 'edit', command, args } })); // prettier-ignore
        const ms = performance.now() - began;
        (Date.now() < allHere ? arriving : took).push(ms);
        if (answer.status === 200) {
          revision = (JSON.parse(answer.text) as { revision: number }).revision;
          acknowledged.get(design)!.push(id);
          at.set(id, performance.now());
        } else if (refused++ === 0) console.error(`refused: ${answer.status} ${answer.text}`);
        await new Promise((wait) => setTimeout(wait, Math.max(0, 1000 - ms)));
      }
    }),
  );
  await new Promise((rest) => setTimeout(rest, 1000));
  for (const socket of sockets) socket.close();
  let amiss = 0;
  for (const [design, ids] of acknowledged) {
    const { changes } = JSON.parse((await ask(port, 'GET', `/api/designs/${design}/changes?since=0`)).text) as { changes: { id: string; revision: number }[] }; // prettier-ignore
    const kept = new Set(changes.map((c) => c.id));
    amiss += ids.filter((id) => !kept.has(id)).length + (changes.length - kept.size);
    amiss += changes.filter((c, i) => c.revision !== i + 1).length;
  }
  return { arriving, took, refused, amiss, heard };
}

try {
  for (const [servers, people] of [
    [1, Math.min(200, PEOPLE)],
    [3, PEOPLE],
  ] as const) {
    const all = await Promise.all(Array.from({ length: servers }, startServer));
    const front = await balance(all.map((s) => s.port));
    const { arriving, took, refused, amiss, heard } = await work(front.port, people, all.map((s) => s.port)); // prettier-ignore
    const name = `${servers} process${servers === 1 ? '' : 'es'}, ${people} people`;
    report('load', `${name}: changes`, people, took.length, 'count');
    report('load', `${name}: median`, people, within(took, 0.5), 'ms');
    report('load', `${name}: 95 of 100 within`, people, within(took, 0.95), 'ms');
    report('load', `${name}: 95 of 100 within, while people come`, people, within(arriving, 0.95), 'ms');
    if (servers > 1) report('load', `${name}: heard elsewhere, 95 of 100 within`, people, within(heard, 0.95), 'ms');
    report('load', `${name}: refused`, people, refused, 'count');
    report('load', `${name}: lost, doubled or out of order`, people, amiss, 'count');
    front.stop();
    for (const { child } of all) child.kill('SIGTERM');
    await Promise.all(all.map(({ child }) => new Promise((gone) => child.once('exit', gone))));
  }
} finally {
  for (const child of children) child.kill('SIGTERM');
  agent.destroy();
  await database.stop();
  rmSync(directory, { recursive: true, force: true });
}
