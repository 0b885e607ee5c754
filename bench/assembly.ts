/** Mechanisms dragged at random: how long a drag step takes, whether a branch flips or a loop opens; and motions in space. */
import { drag, placed, type Mechanism, type Placed } from '@helb/core';
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
