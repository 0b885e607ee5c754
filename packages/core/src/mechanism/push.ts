/**
 * Moving while parts touch, by small steps (see `contact-step.ts`). Motion is so slow that nothing flies on: what is not
 * pushed stays, or goes back home as far as it can if it is sprung.
 */
import { dot, minus } from '../space/vector.ts';
import { firmRows, leastHolding, STEP_ANY, TouchingSteps, type Asked, type Contact, type Nearness, type Row } from './contact-step.ts'; // prettier-ignore
import type { Grip } from './drag.ts';
import { drive, type Driven, type Driver, type Going } from './drive.ts';
import type { Mechanism } from './mechanism.ts';
import { largestOf, placed, pointAt, stepBetween, valueAt, type Placed, type Posture } from './posture.ts';
import { speedAt } from './rows.ts';

/** Largest change of a driver in one step: rad, and of the size. */
const STEP_TURN = 0.02;
const STEP_MOVE = 0.008;
const LEAST_SHARE = 1 / 1024;
const MOST_PULLS = 200;

export interface Pushed {
  readonly placed: Placed;
  /** It came where it was driven, or as near as the pull lets. */
  readonly ok: boolean;
  /** Why the parts cannot follow, where that is not for what touches. */
  readonly why: Extract<Driven, { ok: false }>['why'] | null;
  /** Pairs that touch at the end. */
  readonly touching: readonly Contact[];
  /** How it goes on, as of driving. */
  readonly last: Float64Array | null;
}

/** @param sprung what is not driven goes back to this posture as far as nothing is in its way */
export function drivePushing(
  mechanism: Mechanism,
  from: Going,
  drivers: readonly Driver[],
  nearness: Nearness,
  sprung: Posture | null = null,
): Pushed {
  const steps = new TouchingSteps(mechanism, placed(mechanism, from.posture), nearness);
  const start = drivers.map((d) => valueAt(mechanism, steps.now, d));
  const unitOf = (d: Driver) => {
    const motion = mechanism.motionOf(d);
    return motion === 'about_z' || motion === 'screw' ? STEP_TURN : STEP_MOVE * mechanism.size;
  };
  const whole = 1 / Math.max(1, ...drivers.map((d, i) => Math.ceil(Math.abs(d.to - start[i]!) / unitOf(d))));
  let [done, share] = [0, whole];
  let last: Float64Array | null = from.last;
  while (done < 1 - 1e-12) {
    const next = Math.min(1, done + share);
    const goals = drivers.map((d, i) => ({ ...d, to: start[i]! + (d.to - start[i]!) * next }));
    // Where nothing is touched it goes on as a linkage does, through dead points too.
    const plain = sprung || steps.touching.length > 0 ? null : drive(mechanism, { posture: steps.now.posture, last: share === whole ? last : null }, goals); // prettier-ignore
    const isFree = plain?.ok === true && steps.take(plain.placed);
    last = isFree && share === whole ? plain.last : null;
    const held = goals.map((d) => ({ coordinate: d, to: d.to }));
    const wants: Asked = sprung ? (at) => backRows(mechanism, at, sprung) : () => [];
    if (isFree || steps.step({ held, wants })) {
      done = next;
      share = Math.min(whole, share * 2);
    } else {
      share /= 2;
      if (share >= whole * LEAST_SHARE) continue;
      return { placed: steps.now, ok: false, why: plain && !plain.ok ? plain.why : null, touching: steps.touching, last: null }; // prettier-ignore
    }
  }
  return { placed: steps.now, ok: true, why: null, touching: steps.touching, last };
}

/** A point of a link is pulled towards a place; what is in its way is pushed. */
export function dragPushing(mechanism: Mechanism, from: Posture, grip: Grip, nearness: Nearness): Pushed {
  const steps = new TouchingSteps(mechanism, placed(mechanism, from), nearness);
  const leftOf = (at: Placed) => Math.hypot(...grip.along.map((a) => dot(a, minus(grip.to, pointAt(at, grip.link, grip.at))))); // prettier-ignore
  const near = 1e-6 * mechanism.size;
  let share = 1;
  for (let tried = 0; tried < MOST_PULLS && leftOf(steps.now) > near && share > LEAST_SHARE; tried++) {
    const { now } = steps;
    // How far it would go with nothing in its way.
    const whole = leastHolding(firmRows(mechanism, now, () => {}), [], pullRows(mechanism, now, grip, 1), mechanism.columns.length); // prettier-ignore
    const far = largestOf(whole);
    if (far < 1e-9) break;
    const left = leftOf(now);
    const wants: Asked = (at) => pullRows(mechanism, at, grip, Math.min(1, (STEP_MOVE * share) / far));
    if (steps.step({ held: [], wants }) && leftOf(steps.now) < left - 1e-9 * mechanism.size)
      share = Math.min(1, share * 2);
    else {
      steps.now = now;
      share /= 2;
    }
  }
  return { placed: steps.now, ok: leftOf(steps.now) <= near, why: null, touching: steps.touching, last: null };
}

/** Towards home by every coordinate. */
const backRows = (mechanism: Mechanism, at: Placed, home: Posture): Row[] =>
  [...stepBetween(mechanism, at.posture, home)].map((want, k) => {
    const by = new Float64Array(mechanism.columns.length);
    by[k] = 1;
    return { by, want: Math.max(-STEP_ANY / 2, Math.min(STEP_ANY / 2, want)) };
  });

function pullRows({ columns, paths, units, size }: Mechanism, at: Placed, grip: Grip, share: number): Row[] {
  const p = pointAt(at, grip.link, grip.at);
  return grip.along.map((along) => {
    const by = new Float64Array(columns.length);
    for (const k of paths[grip.link]!) by[k] = (units[k]! * dot(speedAt(at.twists, k, p), along)) / size;
    return { by, want: (share * dot(minus(grip.to, p), along)) / size };
  });
}
