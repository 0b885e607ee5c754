/**
 * A change in a design of 6 MB, while others work on small ones through the same server: how long it takes, and how
 * long they wait.
 */
import { addDimension, setDimension, type Edit } from '@helb/core';
import { readFileSync } from 'node:fs';
import { HelbServer } from '../e2e/helb-server.ts';
import { report, within } from './measure.ts';

const BYTES = 6 * 1024 * 1024;
const PARTS = 450;
const NUMBERS = 10;
const OTHERS = 10;
const SECONDS = Number(process.env.HELB_LARGE_SECONDS ?? 30);
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

interface Stored {
  parts: Record<string, object>;
  partOrder: string[];
}

/** The demo with many more parts: each of ten numbers that hang on each other, and a comb that brings it to its size. */
function large(): string {
  const design = JSON.parse(readFileSync('demo/roof-vent-opener.helb.json', 'utf8')) as Stored;
  const each = (BYTES - JSON.stringify(design).length) / PARTS;
  for (let i = 0; i < PARTS; i++) {
    const dimensionOrder = Array.from({ length: NUMBERS }, (_, n) => `part${i}_n${n}`);
    const value = (n: number) => (n === 0 ? `${20 + i} mm` : `width_${n - 1} + 1 mm`);
    const dimensions = Object.fromEntries(dimensionOrder.map((id, n) => [id, { name: `width_${n}`, value: value(n) }]));
    const part = { name: `Comb ${i + 1}`, dimensions, dimensionOrder, stepOrder: [`comb${i}`] };
    design.parts[`part${i}`] = { ...part, steps: { [`comb${i}`]: comb(each - JSON.stringify(part).length) } };
    design.partOrder.push(`part${i}`);
  }
  return JSON.stringify(design);
}

/** A sketch of about so many bytes. */
function comb(bytes: number): object {
  const points: Record<string, number[]> = {};
  const curves: Record<string, object> = {};
  for (let i = 0, size = 0; size < bytes; i++) {
    points[`p${i}`] = [Math.floor(i / 2) * 3, (i % 4 < 2 ? 0 : 8) + 0.5];
    if (i > 0) curves[`c${i}`] = { kind: 'line', from: `p${i - 1}`, to: `p${i}` };
    size += JSON.stringify([points[`p${i}`], curves[`c${i}`] ?? 0]).length + 12;
  }
  return { kind: 'sketch', name: 'Comb', plane: { datum: 'floor' }, points, curves, constraints: {} };
}

const helb = new HelbServer({ HELB_LOG: 'silent' });

interface Answer {
  readonly status: number;
  readonly body: { id: string; revision: number; message?: string };
  readonly cookie: string;
}

async function ask(method: string, path: string, cookie = '', body?: string): Promise<Answer> {
  const answer = await fetch(`${helb.url}/api${path}`, {
    method,
    headers: { cookie, ...(body ? { 'content-type': 'application/json' } : {}) },
    ...(body ? { body } : {}),
  });
  const own = answer.headers.get('set-cookie')?.split(';')[0];
  return { status: answer.status, body: (await answer.json()) as Answer['body'], cookie: own ?? cookie };
}

/** Somebody at work, a change after another with a pause, until the end. @returns how long each took, ms */
async function work(design: string, who: string, pause: number, until: () => boolean): Promise<number[]> {
  const took: number[] = [];
  let { cookie } = await ask('GET', `/designs/${design}/changes`);
  let revision = 0;
  for (let n = 0; !until(); n++) {
    const { command, args }: Edit = n === 0 ? addDimension(who, { name: who, value: '1 mm' }) : setDimension(who, `${n} mm`); // prettier-ignore
    const change = { id: `large-${who}-${n}`, kind: 'edit', command, args };
    const began = performance.now();
    const answer = await ask('POST', `/designs/${design}/changes`, cookie, JSON.stringify({ base: revision, change }));
    if (answer.status !== 200) throw new Error(`${answer.status} ${answer.body.message}`);
    took.push(performance.now() - began);
    ({ cookie } = answer);
    ({ revision } = answer.body);
    await wait(pause);
  }
  return took;
}

try {
  await helb.start();
  const project = (await ask('POST', '/projects', '', '{"name":"Large"}')).body.id;
  const text = large();
  const made = await ask('POST', `/projects/${project}/designs`, '', text);
  if (made.status !== 201) throw new Error(`${made.status} ${made.body.message}`);
  const small: string[] = [];
  for (let i = 0; i < OTHERS; i++)
    small.push((await ask('POST', `/projects/${project}/designs`, '', readFileSync('demo/post-foot.helb.json', 'utf8'))).body.id); // prettier-ignore
  const end = Date.now() + SECONDS * 1000;
  const over = () => Date.now() > end;
  const [own, ...others] = await Promise.all([
    work(made.body.id, 'large', 250, over),
    ...small.map((id, i) => work(id, `other${i}`, 250, over)),
  ]);
  const bytes = text.length;
  report('large', 'first change', bytes, own![0]!, 'ms');
  report('large', 'change, median', bytes, within(own!.slice(1), 0.5), 'ms');
  report('large', 'change, 95 of 100 within', bytes, within(own!.slice(1), 0.95), 'ms');
  const all = others.flatMap((took) => took.slice(5));
  report('large', 'others meanwhile, median', bytes, within(all, 0.5), 'ms');
  report('large', 'others meanwhile, 95 of 100 within', bytes, within(all, 0.95), 'ms');
  report('large', 'others meanwhile, 999 of 1000 within', bytes, within(all, 0.999), 'ms');
} finally {
  await helb.stop();
}
