/** Mechanisms dragged at random: how long a drag step takes, whether a branch flips or a loop opens; motions in space; and a wheel that nothing but contact drives. */
import { assembled, drag, drivePushing, Ledger, lookOfOutcome, PartEvaluator, PartPainter, placed, readDesign, Touching, valueAt, type Mechanism, type PartOutcome, type Placed } from '@helb/core'; // prettier-ignore
import { loadKernel } from '@helb/kernel';
import { SLOTTED, slottedWheel } from '../e2e/tests/mechanisms.ts';
import { atHome } from '../packages/core/src/mechanism/home.ts';
import { mobility } from '../packages/core/src/mechanism/mobility.ts';
import { closureRows } from '../packages/core/src/mechanism/rows.ts';
import { chain, fourBar, walker } from '../packages/core/src/mechanism/samples.ts';
import { placedAt } from '../packages/core/src/space/pose.ts';
import { report } from './measure.ts';

const DRAGS = Number(process.env.HELB_DRAGS ?? 10_000);
let seed = 7;
const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;

/** On which side of the line from crank pin to rocker pivot the coupler’s pin lies. */
function branch(now: Placed): number {
  const [b, c] = [placedAt(now.poses[1]!, [0, 20, 0]), placedAt(now.poses[2]!, [60, 50, 0])];
  return Math.sign((c[0] - b[0]) * (0 - b[1]) - (c[1] - b[1]) * (70 - b[0]));
}

function dragged(name: string, mechanism: Mechanism, drags: number, side: ((now: Placed) => number) | null): void {
  let now = atHome(mechanism).placed;
  const times: number[] = [];
  let open = 0;
  let flips = 0;
  const links = mechanism.links.flatMap((l, i) => (l.held ? [] : [i]));
  for (let n = 0; n < drags; n++) {
    const link = links[Math.floor(random() * links.length)]!;
    const p = placedAt(now.poses[link]!, [3, 2, 0]);
    const reach = 0.15 * mechanism.size;
    const to = [p[0] + (random() - 0.5) * reach, p[1] + (random() - 0.5) * reach, 0] as const;
    const was = side?.(now);
    const began = performance.now();
    const outcome = drag(mechanism, now.posture, { link, at: [3, 2, 0], to, along: [[1, 0, 0], [0, 1, 0]] }); // prettier-ignore
    times.push(performance.now() - began);
    now = outcome.placed;
    if (closureRows(mechanism, now).worst > 1e-9) open++;
    if (side && side(now) !== was) flips++;
  }
  times.sort((a, b) => a - b);
  report('assembly', `${name}: drag, median`, mechanism.pairs.length, times[Math.floor(times.length / 2)]!, 'ms');
  report('assembly', `${name}: drag, 95 of 100 within`, mechanism.pairs.length, times[Math.floor(times.length * 0.95)]!, 'ms'); // prettier-ignore
  report('assembly', `${name}: loops left open`, drags, open, 'count');
  if (side) report('assembly', `${name}: branches flipped`, drags, flips, 'count');
}

dragged('four-bar', fourBar(), DRAGS, branch);
dragged('six legs', walker(6), Math.ceil(DRAGS / 10), null);
dragged('chain of 200', chain(200), Math.ceil(DRAGS / 10), null);

const six = walker(6);
const began = performance.now();
const { freedoms } = mobility(six, atHome(six).placed.posture);
report('assembly', 'six legs: freedoms', 55, freedoms, 'count');
report('assembly', 'six legs: mobility', 55, performance.now() - began, 'ms');
const long = chain(200);
const posture = atHome(long).placed.posture;
const start = performance.now();
for (let i = 0; i < 200; i++) placed(long, posture);
report('assembly', 'chain of 200: places from coordinates', 200, (performance.now() - start) / 200, 'ms');

/** Two turns of the crank, a degree a frame, on the triangles that the page draws. */
const read = readDesign(slottedWheel());
if (!read.ok) throw new Error(read.message);
const { design } = read;
const ledger = Ledger.of(design);
const kernel = await loadKernel();
const [evaluator, painter] = [new PartEvaluator(kernel), new PartPainter(kernel)];
const made = new Map<string, PartOutcome>();
for (const part of design.partOrder) made.set(part, await evaluator.evaluate(design, ledger, part));
const meshes = new Map([...made].map(([part, outcome]) => [part, painter.paint(outcome).bodies.map((b) => b.mesh)]));
const together = assembled(design, ledger, 'a', (part) => lookOfOutcome(made.get(part)!));
const watch = new Touching(together, (part) => meshes.get(part)!, 'all');
const [crank, wheel] = ['Crank', 'Wheel'].map((name) => {
  const { key } = together.joints.find((j) => j.joint.name === name)!;
  return { pair: together.mechanism.pairs.findIndex((p) => p.id === key), motion: 0 };
}) as [{ pair: number; motion: number }, { pair: number; motion: number }];
const FRAMES = 720;
const frames: number[] = [];
let [turned, apart] = [together.home, 0];
for (let i = 1; i <= FRAMES; i++) {
  const to = (-i * 4 * Math.PI) / FRAMES;
  const from = performance.now();
  turned = drivePushing(together.mechanism, { posture: turned.posture, last: null }, [{ ...crank, to }], watch.nearness).placed; // prettier-ignore
  frames.push(performance.now() - from);
  // From the line of centres; in mesh within an eighth of a turn of it.
  const angle = Math.PI / 2 + to;
  const near = Math.atan2(Math.sin(angle), Math.cos(angle));
  if (Math.abs(near) > Math.PI / 4 - 0.02) continue;
  const { way } = SLOTTED;
  const [x, y] = [way * Math.cos(near) - way * Math.SQRT2, way * Math.sin(near)];
  const off = Math.atan2(y, x) - Math.PI / 4 - valueAt(together.mechanism, turned, wheel);
  apart = Math.max(apart, Math.abs(off - (Math.PI / 2) * Math.round(off / (Math.PI / 2))) * Math.hypot(x, y));
}
frames.sort((a, b) => a - b);
report('assembly', 'slotted wheel: frame, median', FRAMES, frames[FRAMES / 2]!, 'ms');
report('assembly', 'slotted wheel: frame, 95 of 100 within', FRAMES, frames[Math.floor(FRAMES * 0.95)]!, 'ms');
report('assembly', `slotted wheel: off the closed form, play ${(SLOTTED.half - SLOTTED.pin).toFixed(2)} mm`, FRAMES, apart, 'mm'); // prettier-ignore
