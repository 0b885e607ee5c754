/**
 * Random valid edits on whole parts: nothing falls over, nothing hangs, and each result is sound or said to fail. The
 * volume the kernel tells is held against that of its mesh. How many: HELB_EDITS, else 300.
 */
import { applyEdit, Ledger, moveStep, PartEvaluator, readDesign, setDimension, setSlot, suppressStep, type Design, type Edit, type SolidMesh } from '@helb/core'; // prettier-ignore
import { loadKernel } from '@helb/kernel';
import { readdirSync, readFileSync } from 'node:fs';
import { designOf } from '../packages/kernel/src/sample-parts.ts';
import { twelveParts } from '../packages/kernel/src/twelve-parts.ts';
import { report } from './measure.ts';

const EDITS = Number(process.env.HELB_EDITS ?? 300);
/** After so many edits of a design it begins anew. */
const IN_A_ROW = 6;
const FINE = { linear: 0.01, angular: 0.1 };
/** A mesh so fine is off by less; a kernel that errs, by more. */
const MESH_SLACK = 0.02;
const SLOW_MS = 20_000;

/** Mulberry32 (public domain, Tommy Ettinger): the same edits each time. */
let state = Number(process.env.HELB_SEED ?? 20_261_126);
function random(): number {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
}
const one = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;

function demo(file: string): Design {
  const read = readDesign(readFileSync(file, 'utf8'));
  if (!read.ok) throw new Error(`${file}: ${read.message}`);
  return read.design;
}
const made = await Promise.all(twelveParts.map(async (part) => [part.name, await part()] as const));
const designs = [
  ...made.map(([name, { steps, numbers }]) => ({ ...designOf(steps, numbers), name })),
  ...readdirSync('demo').filter((f) => f.endsWith('.helb.json')).map((f) => demo(`demo/${f}`)),
]; // prettier-ignore

/** An edit a designer could make, and what it is. */
function anyEdit(design: Design, part: string): [Edit, string] {
  const home = design.parts[part]!;
  const step = one(home.stepOrder);
  const { name } = home.steps[step]!;
  const at = random();
  if (at < 0.65) {
    const ledger = Ledger.of(design);
    const entries = ledger.entries.filter((e) => !e.measured && (!('part' in e.owner) || e.owner.part === part));
    const entry = one(entries);
    const value = ledger.valueOfEntry(entry);
    const now = value.ok ? value.quantity.value : 1;
    const factor = one([0, 0.1, 0.4, 0.7, 0.9, 1.1, 1.5, 2.5, 6, -1]);
    const unit = entry.kind === 'length' ? ' mm' : entry.kind === 'angle' ? ' rad' : '';
    const to = entry.kind === 'number' ? Math.round(now * factor) : now * factor;
    return [setDimension(entry.ref, `${to}${unit}`), `${entry.path.join('.')} = ${to}${unit}`];
  }
  if (at < 0.78) {
    const suppressed = !home.steps[step]!.suppressed;
    return [suppressStep(part, step, suppressed), `${suppressed ? 'suppress' : 'bring back'} ${name}`];
  }
  if (at < 0.88) {
    const to = Math.floor(random() * home.stepOrder.length);
    const others = home.stepOrder.filter((id) => id !== step);
    return [moveStep(part, step, others[to - 1] ?? null), `move ${name} to ${to}`];
  }
  const [slot, value] = one([['reversed', true], ['reversed', false], ['flipped', true], ['way', 'symmetric'], ['way', 'through_all'], ['way', 'to_next'], ['result', 'join'], ['result', 'cut'], ['result', 'new_body']] as const); // prettier-ignore
  return [setSlot(part, step, slot, value), `${slot} of ${name} = ${value}`];
}

function meshVolume({ positions: p, triangles: t }: SolidMesh): number {
  let six = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    six += p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) - p[a + 1]! * (p[b]! * p[c + 2]! - p[b + 2]! * p[c]!) + p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!); // prettier-ignore
  }
  return six / 6;
}

const kernel = await loadKernel();
let restarts = 0;
const restart = kernel.restart.bind(kernel);
kernel.restart = async () => {
  restarts++;
  await restart();
};
const evaluator = new PartEvaluator(kernel);
const counts = { edits: 0, refused: 0, whole: 0, failing: 0 };
const faults: string[] = [];
const times: number[] = [];

while (counts.edits < EDITS) {
  let design = one(designs);
  const part = one(design.partOrder);
  const done: string[] = [];
  for (let i = 0; i < IN_A_ROW && counts.edits < EDITS; i++) {
    const [edit, what] = anyEdit(design, part);
    counts.edits++;
    done.push(what);
    const where = `${design.name}, ${design.parts[part]!.name}: ${done.join('; ')}`;
    const start = performance.now();
    try {
      const outcome = applyEdit(design, edit);
      if (!outcome.ok) {
        counts.refused++;
        done.pop();
        continue;
      }
      ({ design } = outcome);
      const { steps, bodies } = await evaluator.evaluate(design, Ledger.of(design), part);
      if (steps.some((s) => s.status === 'failed')) counts.failing++;
      else counts.whole++;
      for (const step of steps) if (step.status === 'failed' && !/[.!?]$/.test(step.message ?? '')) faults.push(`no sentence “${step.message}”: ${where}`); // prettier-ignore
      for (const { facts, solid } of bodies) {
        const meshed = meshVolume(kernel.mesh(solid, FINE));
        if (!facts.valid || Math.abs(meshed - facts.volume) > MESH_SLACK * facts.volume + 1e-3)
          faults.push(`volume ${facts.volume}, of its mesh ${meshed}, valid ${facts.valid}: ${where}`);
      }
      evaluator.sweep();
    } catch (error) {
      faults.push(`${(error as Error).stack?.split('\n').slice(0, 3).join(' | ')}: ${where}`);
    }
    const took = performance.now() - start;
    times.push(took);
    if (took > SLOW_MS) faults.push(`${Math.round(took)} ms: ${where}`);
  }
}
times.sort((a, b) => a - b);
for (const [name, count] of Object.entries({ ...counts, restarts, faults: faults.length })) report('edits', name, EDITS, count, 'count'); // prettier-ignore
report('edits', 'median', EDITS, times[times.length >> 1]!, 'ms');
report('edits', 'longest', EDITS, times.at(-1)!, 'ms');
for (const fault of faults) console.log(JSON.stringify({ bench: 'edits', fault }));
