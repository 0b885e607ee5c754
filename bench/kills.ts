/**
 * Server and database killed at random moments while people work: every change that was acknowledged is in the log
 * once, where it was said to be; what was refused is not. People send again by the change's id, as pages do.
 */
import { addDimension, emptyDesign, setDimension, type Edit } from '@helb/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { HelbServer } from '../e2e/helb-server.ts';
import { report } from './measure.ts';

const KILLS = Number(process.env.HELB_KILLS ?? 200);
const PEOPLE = 12;
const DESIGNS = 3;
const PAUSE_MS = 40;
/** A moment of calm before the next kill, at most. */
const CALM_MS = 1200;
const GIVE_UP_MS = 60_000;

const helb = new HelbServer({ HELB_LOG: 'silent' });
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

interface Answer {
  readonly status: number;
  readonly body: { id?: string; revision?: number; message?: string };
  readonly cookie: string | null;
}

/** Null when nothing came back. */
async function ask(method: string, path: string, cookie = '', body?: object): Promise<Answer | null> {
  try {
    const answer = await fetch(`${helb.url}/api${path}`, {
      method,
      headers: { cookie, ...(body ? { 'content-type': 'application/json' } : {}) },
      ...(body ? { body: JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(10_000),
    });
    const own = answer.headers.get('set-cookie')?.split(';')[0] ?? null;
    return { status: answer.status, body: (await answer.json()) as Answer['body'], cookie: own };
  } catch {
    return null;
  }
}

/** Until there is an answer that is a verdict. @returns null when there was none for long */
async function verdict(method: string, path: string, cookie?: string, body?: object): Promise<Answer | null> {
  for (const end = Date.now() + GIVE_UP_MS; Date.now() < end; await wait(100)) {
    const answer = await ask(method, path, cookie, body);
    if (answer && answer.status < 500 && answer.status !== 429) return answer;
  }
  return null;
}

await helb.start();
const project = (await verdict('POST', '/projects', '', { name: 'Kills' }))!.body.id!;
const designs: string[] = [];
for (let i = 0; i < DESIGNS; i++)
  designs.push((await verdict('POST', `/projects/${project}/designs`, '', emptyDesign(`Design ${i}`)))!.body.id!);

/** By design and change: the revision it was said to be, or that it was refused. */
const said = new Map<string, Map<string, number | 'refused'>>(designs.map((d) => [d, new Map()]));
let going = true;
let unanswered = 0;
let [answeredAt, longest] = [Date.now(), 0];
function answered(): void {
  longest = Math.max(longest, Date.now() - answeredAt);
  answeredAt = Date.now();
}
const people = Array.from({ length: PEOPLE }, async (_, i) => {
  const design = designs[i % DESIGNS]!;
  const cookie = (await verdict('GET', `/designs/${design}/changes`))?.cookie ?? '';
  let base = 0;
  for (let n = 0; going; n++) {
    // Now and then one that must be refused, so that refusals are tried as well.
    const edit: Edit = n === 0 ? addDimension(`own${i}`, { name: `own_${i}`, value: '1 mm' }) : n % 7 === 6 ? setDimension('none', '1 mm') : setDimension(`own${i}`, `${n + 1} mm`); // prettier-ignore
    const id = `kill-${i}-${n}`;
    const { command, args } = edit;
    const answer = await verdict('POST', `/designs/${design}/changes`, cookie, { base, change: { id, kind: 'edit', command, args } }); // prettier-ignore
    if (answer) answered();
    if (!answer) unanswered++;
    else if (answer.status === 200) said.get(design)!.set(id, (base = answer.body.revision!));
    else said.get(design)!.set(id, 'refused');
    await wait(PAUSE_MS);
  }
});

let [ofServer, ofDatabase] = [0, 0];
try {
  while (ofServer + ofDatabase < KILLS) {
    await wait(Math.random() * CALM_MS);
    if (Math.random() < 0.5) {
      try {
        process.kill(Number(readFileSync(join(helb.data, 'database', 'helb.pid'), 'utf8')), 'SIGKILL');
        ofDatabase++;
      } catch {
        // It is down already, and being started again.
      }
    } else {
      await helb.kill();
      ofServer++;
      await wait(Math.random() * 200);
      await helb.start();
    }
  }
} finally {
  going = false;
  await Promise.all(people);
}

let [acknowledged, refused, lost, moved, doubled, keptThough, gaps] = [0, 0, 0, 0, 0, 0, 0];
for (const design of designs) {
  const { changes } = (await verdict('GET', `/designs/${design}/changes?since=0`))!.body as { changes: { id: string; revision: number }[] }; // prettier-ignore
  const at = new Map(changes.map((c) => [c.id, c.revision]));
  doubled += changes.length - at.size;
  gaps += changes.filter((c, i) => c.revision !== i + 1).length;
  for (const [id, revision] of said.get(design)!)
    if (revision === 'refused') {
      refused++;
      if (at.has(id)) keptThough++;
    } else {
      acknowledged++;
      if (!at.has(id)) lost++;
      else if (at.get(id) !== revision) moved++;
    }
}
await helb.stop();
for (const [what, value] of Object.entries({
  'kills of the server': ofServer,
  'kills of the database': ofDatabase,
  acknowledged,
  refused,
  lost,
  moved,
  doubled,
  'kept though refused': keptThough,
  gaps,
  unanswered,
}))
  // prettier-ignore
  report('kills', what, KILLS, value, 'count');
report('kills', 'longest without an answer', KILLS, longest / 1000, 's');
if (lost + moved + doubled + keptThough + gaps > 0) process.exitCode = 1;
