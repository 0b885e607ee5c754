import { describe, expect, test } from '@jest/globals';
import { placedAt, poseBack, turnedBy, turnOf } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { atHome } from './home.ts';
import { Mechanism } from './mechanism.ts';
import { valueAt, type Placed } from './posture.ts';
import { SKIN, type Contact, type Nearness } from './contact-step.ts';
import { dragPushing, drivePushing } from './push.ts';
import { along, at, link, pair } from './samples.ts';

const far = (p: Vec3, q: Vec3) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
const within = (contacts: Contact[], most: number) => contacts.filter((c) => c.gap < most);

/** Nearest places of two discs in a plane. */
function discs(id: string, a: number, p: Vec3, r: number, b: number, q: Vec3, s: number): Contact {
  const d = far(p, q);
  const n = [0, 1, 2].map((i) => (q[i]! - p[i]!) / d);
  const from = (c: Vec3, by: number) => [0, 1, 2].map((i) => c[i]! + n[i]! * by) as unknown as Vec3;
  return { id, a, b, onA: from(p, r), onB: from(q, -s), gap: Math.max(0, d - r - s) };
}

const R = 30;
const PIN = 3;
const PLAY = 0.1;
const APART = R * Math.SQRT2;

/** A crank with a pin at R, and a wheel of four slots so far off that the pin enters each straight along it. */
function intermittent(): { mechanism: Mechanism; nearness: Nearness } {
  const mechanism = new Mechanism(
    [link('frame', true), link('crank'), link('wheel')],
    [pair('crank', 'revolute', 0, 1, at(0, 0)), pair('wheel', 'revolute', 0, 2, at(APART, 0))],
    [],
    100,
  );
  const half = PIN + PLAY;
  const nearness: Nearness = (now, most) => {
    const pin = placedAt(now.poses[1]!, [R * Math.cos(Math.PI / 2), R * Math.sin(Math.PI / 2), 0]);
    const turned = { at: [APART, 0, 0] as Vec3, turn: now.poses[2]!.turn };
    let best: Contact | null = null;
    for (let slot = 0; slot < 4; slot++) {
      // Slots begin between the axes, at 45°, when the wheel stands at home.
      const own = turnOf([0, 0, 1], Math.PI / 4 + (slot * Math.PI) / 2);
      const wheel = { at: turned.at, turn: turnedBy(turned.turn, own) };
      const local = placedAt(poseBack(wheel), pin);
      for (const side of [-1, 1]) {
        const on: Vec3 = [Math.min(R, Math.max(8, local[0])), side * half, 0];
        const place = placedAt(wheel, on);
        const gap = far(place, pin) - PIN;
        if (best && gap >= best.gap) continue;
        const d = far(place, pin);
        const onA = [0, 1, 2].map((i) => pin[i]! + ((place[i]! - pin[i]!) / d) * PIN) as unknown as Vec3;
        best = { id: 'pin wheel', a: 1, b: 2, onA, onB: place, gap: Math.max(0, gap) };
      }
    }
    return within(best ? [best] : [], most);
  };
  return { mechanism, nearness };
}
const homeOf = (m: Mechanism): Placed => atHome(m).placed;
const of = (m: Mechanism, now: Placed, p: number) => valueAt(m, now, { pair: p, motion: 0 });

describe('parts that push each other', () => {
  test('a pin turns a slotted wheel a quarter at each turn, within the play of the closed form', () => {
    const { mechanism, nearness } = intermittent();
    let now = homeOf(mechanism);
    const quarter = (turns: number) => (turns * Math.PI) / 2;
    let worst = 0;
    for (let i = 1; i <= 240; i++) {
      const angle = (-i * 4 * Math.PI) / 240;
      const before = of(mechanism, now, 1);
      const out = drivePushing(
        mechanism,
        { posture: now.posture, last: null },
        [{ pair: 0, motion: 0, to: angle }],
        nearness,
      );
      expect(out.ok).toBe(true);
      now = out.placed;
      // The pin stands at a from the line of centres; in mesh within 45° of it.
      const a = Math.PI / 2 + angle;
      const near = Math.atan2(Math.sin(a), Math.cos(a));
      const turn = of(mechanism, now, 1);
      if (Math.abs(near) < Math.PI / 4 - 0.02) {
        const pinAt = Math.atan2(R * Math.sin(near), R * Math.cos(near) - APART);
        // Where the slot the pin is in has its middle: the wheel’s turn less whole quarters.
        const middle = pinAt - Math.PI / 4 - turn;
        const off = middle - quarter(Math.round(middle / quarter(1)));
        const lever = far([R * Math.cos(near), R * Math.sin(near), 0], [APART, 0, 0]);
        worst = Math.max(worst, Math.abs(off) * lever);
      } else if (Math.abs(near) > Math.PI / 4 + 0.15) expect(turn).toBe(before);
    }
    expect(worst).toBeLessThanOrEqual(PLAY + 2 * SKIN * mechanism.size);
    expect(worst).toBeGreaterThan(PLAY / 2);
    // Two turns of the crank: two quarters of the wheel, against it, but for the play.
    expect(Math.abs(of(mechanism, now, 1) - quarter(2))).toBeLessThan(0.02);
  });

  test('a follower lies on its cam up and down where it is sprung, and stays up where it is not', () => {
    const [cam, roller, out] = [20, 5, 8];
    const mechanism = new Mechanism(
      [link('frame', true), link('cam'), link('follower')],
      [pair('cam', 'revolute', 0, 1, at(0, 0)), pair('lift', 'prismatic', 0, 2, along([0, 40, 0], [0, 1, 0]))],
      [],
      100,
    );
    // A disc out of its middle; the roller’s centre is 17.05 below the follower’s home.
    const nearness: Nearness = (now, most) =>
      within([discs('cam follower', 1, placedAt(now.poses[1]!, [0, -out, 0]), cam, 2, placedAt(now.poses[2]!, [0, 17.05, 0]), roller)], most); // prettier-ignore
    const home = homeOf(mechanism);
    const lift = (angle: number) =>
      -out * Math.cos(angle) + Math.sqrt((cam + roller) ** 2 - (out * Math.sin(angle)) ** 2) - 17.05;
    let [sprung, loose] = [home, home];
    for (let i = 1; i <= 60; i++) {
      const drivers = [{ pair: 0, motion: 0, to: (i * 2 * Math.PI) / 60 }];
      sprung = drivePushing(mechanism, { posture: sprung.posture, last: null }, drivers, nearness, home.posture).placed;
      loose = drivePushing(mechanism, { posture: loose.posture, last: null }, drivers, nearness).placed;
      const angle = (i * 2 * Math.PI) / 60;
      expect(Math.abs(of(mechanism, sprung, 1) - Math.max(0, lift(angle)))).toBeLessThan(2 * SKIN * 100);
    }
    expect(of(mechanism, loose, 1)).toBeCloseTo(lift(Math.PI), 1);
  });

  test('a row of loose blocks is pushed to the wall, and there all stop', () => {
    const line = along([0, 0, 0], [1, 0, 0]);
    const blocks = [0, 1, 2];
    const mechanism = new Mechanism(
      [link('bed', true), ...blocks.map((i) => link(`b${i}`))],
      blocks.map((i) => pair(`s${i}`, 'prismatic', 0, i + 1, line)),
      [],
      100,
    );
    // Blocks 10 long at 0, 15 and 30; a wall at 60.
    const nearness: Nearness = (now, most) => {
      const left = (i: number) => 15 * i + now.poses[i + 1]!.at[0];
      const faces = [0, 1].map((i): Contact => ({ id: `${i}`, a: i + 1, b: i + 2, onA: [left(i) + 10, 0, 0], onB: [left(i + 1), 0, 0], gap: Math.max(0, left(i + 1) - left(i) - 10) })); // prettier-ignore
      faces.push({
        id: 'wall',
        a: 3,
        b: 0,
        onA: [left(2) + 10, 0, 0],
        onB: [60, 0, 0],
        gap: Math.max(0, 50 - left(2)),
      });
      return within(faces, most);
    };
    const out = drivePushing(
      mechanism,
      { posture: homeOf(mechanism).posture, last: null },
      [{ pair: 0, motion: 0, to: 100 }],
      nearness,
    );
    expect(out.ok).toBe(false);
    const skin = SKIN * mechanism.size;
    expect(30 - of(mechanism, out.placed, 0)).toBeLessThan(4 * skin);
    expect(20 - of(mechanism, out.placed, 2)).toBeLessThan(2 * skin);
    expect(out.touching.map((c) => c.id).sort()).toEqual(['0', '1', 'wall']);

    const pulled = dragPushing(mechanism, homeOf(mechanism).posture, { link: 1, at: [5, 0, 0], to: [17, 30, 0], along: [[1, 0, 0], [0, 1, 0]] }, nearness); // prettier-ignore
    expect(of(mechanism, pulled.placed, 0)).toBeCloseTo(12, 1);
    expect(of(mechanism, pulled.placed, 1)).toBeCloseTo(7, 1);
    expect(of(mechanism, pulled.placed, 2)).toBeCloseTo(2, 1);
  });

  test('what is pushed stops at the limit of its joint, and so does what pushes it', () => {
    const line = along([0, 0, 0], [1, 0, 0]);
    const mechanism = new Mechanism(
      [link('bed', true), link('ram'), link('block')],
      [pair('ram', 'prismatic', 0, 1, line), pair('block', 'prismatic', 0, 2, line, { limits: [{ min: 0, max: 7 }] })],
      [],
      100,
    );
    const nearness: Nearness = (now, most) => {
      const [p, q] = [now.poses[1]!.at[0] + 10, now.poses[2]!.at[0] + 15];
      return within([{ id: 'ram block', a: 1, b: 2, onA: [p, 0, 0], onB: [q, 0, 0], gap: Math.max(0, q - p) }], most);
    };
    const out = drivePushing(
      mechanism,
      { posture: homeOf(mechanism).posture, last: null },
      [{ pair: 0, motion: 0, to: 40 }],
      nearness,
    );
    expect(out.ok).toBe(false);
    expect(7 - of(mechanism, out.placed, 1)).toBeLessThan(2 * SKIN * mechanism.size);
    expect(of(mechanism, out.placed, 0)).toBeCloseTo(12, 1);
  });
});
