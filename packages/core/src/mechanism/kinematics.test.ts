import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { placedAt, posesApart, turned, turnOf, HERE } from '../space/pose.ts';
import { contradictionAt } from './contradiction.ts';
import { drag } from './drag.ts';
import { drive } from './drive.ts';
import { atHome } from './home.ts';
import { Mechanism } from './mechanism.ts';
import { mobility } from './mobility.ts';
import { valueAt, type Placed } from './posture.ts';
import { closureRows } from './rows.ts';
import { along, at, bennett, chain, doubleParallelogram, fourBar, gears, link, pair, pinned, sliderCrank, trammel } from './samples.ts'; // prettier-ignore

const home = (mechanism: Mechanism): Placed => {
  const { placed, closed } = atHome(mechanism);
  expect(closed).toBe(true);
  return placed;
};

function driven(mechanism: Mechanism, id: string, to: number, from = home(mechanism)): Placed {
  const outcome = drive(mechanism, { posture: from.posture, last: null }, [
    { pair: placeOf(mechanism, id), motion: 0, to },
  ]);
  expect(outcome.ok).toBe(true);
  return outcome.placed;
}
const placeOf = ({ pairs }: Mechanism, id: string) => pairs.findIndex((p) => p.id === id);
const value = (m: Mechanism, now: Placed, id: string, motion = 0) => valueAt(m, now, { pair: placeOf(m, id), motion });
const freedoms = (m: Mechanism) => mobility(m, home(m).posture).freedoms;

describe('closed forms', () => {
  test('a slider stands where crank and rod put it, through whole turns and dead points', () => {
    const m = sliderCrank();
    let now = home(m);
    for (let angle = 0.1; angle < 4 * Math.PI; angle += 0.37) {
      now = driven(m, 'turn', angle, now);
      const x = 20 * Math.cos(angle) + Math.sqrt(70 ** 2 - (20 * Math.sin(angle)) ** 2);
      expect(now.poses[3]!.at[0] + 90).toBeCloseTo(x, 7);
      expect(value(m, now, 'turn')).toBeCloseTo(angle, 9);
    }
  });

  test('a coupler’s point lies on both circles all the way round', () => {
    const m = fourBar();
    const [coupler, rocker] = [Math.hypot(60, 30), Math.hypot(10, 50)];
    let now = home(m);
    for (let angle = 0; angle < 2 * Math.PI; angle += 0.21) {
      now = driven(m, 'a0', angle, now);
      const b = placedAt(now.poses[1]!, [0, 20, 0]);
      const c = placedAt(now.poses[2]!, [60, 50, 0]);
      expect(b[0]).toBeCloseTo(-20 * Math.sin(angle), 8);
      expect(Math.hypot(c[0] - b[0], c[1] - b[1])).toBeCloseTo(coupler, 7);
      expect(Math.hypot(c[0] - 70, c[1])).toBeCloseTo(rocker, 7);
      // The open branch stays the open one.
      expect((c[0] - b[0]) * (0 - b[1]) - (c[1] - b[1]) * (70 - b[0])).toBeLessThan(0);
    }
  });

  test('a point of a trammel’s rod goes round an ellipse', () => {
    const m = trammel();
    let now = home(m);
    for (const x of [60, 90, 99, 30, 0, -50]) {
      now = driven(m, 'level', x - 60, now);
      const p = placedAt(now.poses[3]!, [60 + 0.25 * -60, 0.25 * 80, 0]);
      expect((p[0] / 75) ** 2 + (p[1] / 25) ** 2).toBeCloseTo(1, 8);
    }
  });

  test('coupled wheels turn by their teeth, over whole turns', () => {
    const m = gears(20, 35);
    const now = driven(m, 'a', 5 * 2 * Math.PI);
    expect(value(m, now, 'b')).toBeCloseTo((-5 * 2 * Math.PI * 20) / 35, 7);
  });

  test('a screw goes on by its pitch, in the tree and where it closes a loop', () => {
    const screw = { pitch: 1.5 };
    const open = new Mechanism([link('nut', true), link('bolt')], [pair('s', 'screw', 0, 1, at(5, 0), screw)]);
    expect(driven(open, 's', 6 * Math.PI).poses[1]!.at[2]).toBeCloseTo(4.5, 9);
    const way = pair('way', 'prismatic', 0, 2, at(0, 0));
    const loop = new Mechanism(
      [link('frame', true), link('spindle'), link('jaw')],
      [pair('turn', 'revolute', 0, 1, at(5, 0)), way, pair('s', 'screw', 1, 2, at(5, 0), screw)],
    );
    expect(freedoms(loop)).toBe(1);
    const turnedOn = driven(loop, 'turn', 6 * Math.PI);
    expect(Math.abs(turnedOn.poses[2]!.at[2])).toBeCloseTo(4.5, 8);
  });

  test('a rod with a ball at each end follows a crank into another plane, all the way round', () => {
    // A crank of 20 about z at the origin, a rocker of 60 about y at (80, 0, 0), a rod between balls on both.
    const m = new Mechanism(
      [link('ground', true), link('crank'), link('rod'), link('rocker')],
      [
        pair('turn', 'revolute', 0, 1, at(0, 0)),
        pair('swing', 'revolute', 0, 3, along([80, 0, 0], [0, 1, 0])),
        pair('one', 'spherical', 1, 2, at(20, 0)),
        pair('other', 'spherical', 2, 3, at(80, 0, 60)),
      ],
    );
    let now = home(m);
    for (let angle = 0.2; angle < 2 * Math.PI; angle += 0.3) {
      now = driven(m, 'turn', angle, now);
      const swing = value(m, now, 'swing');
      const [p, q] = [placedAt(now.poses[1]!, [20, 0, 0]), placedAt(now.poses[3]!, [80, 0, 60])];
      expect(p[0]).toBeCloseTo(20 * Math.cos(angle), 7);
      expect(q).toEqual([expect.closeTo(80 + 60 * Math.sin(swing), 6), expect.closeTo(0, 6), expect.closeTo(60 * Math.cos(swing), 6)]); // prettier-ignore
      expect(Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])).toBeCloseTo(Math.hypot(60, 60), 6);
    }
    // The rod may turn about itself besides.
    expect(freedoms(m)).toBe(2);
  });

  test('a pin runs in a slot, and a ball stays at its place', () => {
    // A crank pin in a slotted arm that swings about a place 50 away: tan = 20 sin / (50 + 20 cos).
    const m = new Mechanism(
      [link('ground', true), link('crank'), link('arm')],
      [
        pair('turn', 'revolute', 0, 1, at(50, 0)),
        pair('swing', 'revolute', 0, 2, at(0, 0)),
        pair('pin', 'pin_in_slot', 2, 1, at(70, 0)),
      ],
    );
    const now = driven(m, 'turn', 2);
    expect(value(m, now, 'swing')).toBeCloseTo(Math.atan2(20 * Math.sin(2), 50 + 20 * Math.cos(2)), 8);
    const ball = new Mechanism([link('ground', true), link('arm')], [pair('b', 'spherical', 0, 1, at(3, 4))]);
    const grip = { link: 1, at: [13, 4, 0] as const, to: [3, 4, 10] as const, along: [[1, 0, 0], [0, 1, 0], [0, 0, 1]] as const }; // prettier-ignore
    let pulled = home(ball);
    for (let i = 0; i < 5; i++) pulled = drag(ball, pulled.posture, grip).placed;
    expect(placedAt(pulled.poses[1]!, [3, 4, 0])).toEqual([expect.closeTo(3, 9), expect.closeTo(4, 9), expect.closeTo(0, 9)]); // prettier-ignore
    expect(placedAt(pulled.poses[1]!, [13, 4, 0])[2]).toBeCloseTo(10, 3);
  });
});

describe('mobility', () => {
  const planarSlider = new Mechanism([link('g', true), link('p')], [pair('p', 'planar', 0, 1, at(0, 0))]);
  test.each<[string, Mechanism, number]>([
    ['a four-bar', fourBar(), 1],
    ['a slider-crank', sliderCrank(), 1],
    ['a trammel', trammel(), 1],
    ['a gear pair', gears(12, 30), 1],
    ['a chain of seven', chain(7), 7],
    ['a plate on a table', planarSlider, 3],
    ['a free link', new Mechanism([link('a', true), link('b')], []), 6],
    ['a parallelogram with one bar too many', doubleParallelogram(), 1],
    ['a spatial four-bar that counting says is stiff', bennett(), 1],
    ['a parallelogram laid flat', pinned({ a: [0, 0], b: [40, 0], c: [100, 0], d: [60, 0] }, { ground: 'a d', one: 'a b', top: 'b c', two: 'c d' }), 1], // prettier-ignore
    ['a truss of two bars laid flat', pinned({ a: [0, 0], b: [50, 0], c: [100, 0] }, { ground: 'a c', one: 'a b', two: 'b c' }), 0], // prettier-ignore
    ['a triangle', pinned({ a: [0, 0], b: [50, 0], c: [20, 30] }, { ground: 'a b', one: 'a c', two: 'b c' }), 0],
    ['a five-bar', pinned({ a: [0, 0], b: [0, 30], c: [40, 60], d: [80, 30], e: [80, 0] }, { ground: 'a e', p: 'a b', q: 'b c', r: 'c d', s: 'd e' }), 2], // prettier-ignore
    ['a six-bar chain with two loops', pinned({ a: [0, 0], b: [0, 30], c: [40, 60], d: [80, 0], e: [60, 80], f: [120, 0], h: [110, 70] }, { ground: 'a d f', p: 'a b', q: 'b c', r: 'c d e', s: 'e h', t: 'h f' }), 1], // prettier-ignore
  ])('%s', (_, mechanism, expected) => expect(freedoms(mechanism)).toBe(expected));

  test('two pins through one hinge say more than is needed, and it still turns', () => {
    const m = new Mechanism(
      [link('g', true), link('door')],
      [pair('low', 'revolute', 0, 1, at(0, 0)), pair('high', 'revolute', 0, 1, at(0, 0, 90))],
    );
    const { freedoms: left, spare } = mobility(m, home(m).posture);
    expect([left, spare]).toEqual([1, 5]);
  });
});

describe('properties', () => {
  const samples = [fourBar, sliderCrank, trammel, doubleParallelogram, bennett, () => chain(12)];

  test('no drag opens a loop or takes the point further off, whatever is pulled where', () => {
    const pull = fc.record({
      which: fc.nat(samples.length - 1),
      pulls: fc.array(fc.tuple(fc.nat(5), fc.double({ min: -150, max: 150, noNaN: true }), fc.double({ min: -150, max: 150, noNaN: true })), { minLength: 1, maxLength: 6 }), // prettier-ignore
    });
    fc.assert(
      fc.property(pull, ({ which, pulls }) => {
        const m = samples[which]!();
        let now = home(m);
        for (const [l, x, y] of pulls) {
          const grip = { link: 1 + (l % (m.links.length - 1)), at: [10, 5, 0] as const, to: [x, y, 0] as const, along: [[1, 0, 0], [0, 1, 0]] as const }; // prettier-ignore
          const before = placedAt(now.poses[grip.link]!, grip.at);
          const { placed, left } = drag(m, now.posture, grip);
          expect(closureRows(m, placed).worst).toBeLessThan(1e-9);
          expect(left).toBeLessThanOrEqual(Math.hypot(before[0] - x, before[1] - y) + 1e-9);
          now = placed;
        }
      }),
      { numRuns: 60 },
    );
  });

  test('there and back again is home, and the order of joints does not matter', () => {
    const m = fourBar();
    const there = driven(m, 'a0', 2.3);
    const back = driven(m, 'a0', 0, there);
    m.links.forEach((l, i) => expect(posesApart(back.poses[i]!, l.home).by).toBeLessThan(1e-6));
    const turnedRound = new Mechanism(m.links, [...m.pairs.filter((p) => p.id !== '')].reverse());
    const other = driven(turnedRound, 'a0', 2.3);
    m.links.forEach((_, i) => expect(posesApart(there.poses[i]!, other.poses[i]!).by).toBeLessThan(1e-6));
  });

  test('the mechanism set up anywhere in space moves alike', () => {
    const shift = { at: [300, -40, 70] as const, turn: turnOf([0.6, 0, 0.8], 1.9) };
    const m = sliderCrank();
    const moved = new Mechanism(
      m.links.map((l) => ({ ...l, home: shift })),
      m.pairs.filter((p) => p.id !== ''),
    );
    const [one, other] = [driven(m, 'turn', 1.2), driven(moved, 'turn', 1.2)];
    const p = placedAt(one.poses[3]!, [90, 0, 0]);
    const q = placedAt(other.poses[3]!, [90, 0, 0]);
    const expected = turned(shift.turn, p);
    expected.forEach((n, i) => expect(q[i]).toBeCloseTo(n + shift.at[i]!, 7));
  });
});

describe('what cannot be', () => {
  test('a limit stops a drive where it says', () => {
    const m = new Mechanism(
      [link('g', true), link('door')],
      [pair('hinge', 'revolute', 0, 1, at(0, 0), { limits: [{ min: 0, max: 1.5 }] })],
    );
    const outcome = drive(m, { posture: home(m).posture, last: null }, [{ pair: 0, motion: 0, to: 2 }]);
    if (outcome.ok) throw new Error('it went through its limit');
    expect(outcome.why.kind).toBe('limit');
    expect(outcome.reached[0]).toBeCloseTo(1.5, 3);
  });

  test('what stands outside a limit is driven back in, and no farther out', () => {
    const m = new Mechanism(
      [link('g', true), link('door')],
      [pair('hinge', 'revolute', 0, 1, at(0, 0), { limits: [{ min: 0.5, max: 1.5 }] })],
    );
    const to = (angle: number) =>
      drive(m, { posture: home(m).posture, last: null }, [{ pair: 0, motion: 0, to: angle }]);
    expect(to(1).ok).toBe(true);
    expect(to(-0.4)).toMatchObject({ ok: false, why: { kind: 'limit' } });
  });

  test('a value at home that a loop contradicts is told at its joint', () => {
    const m = sliderCrank();
    const rest = m.given.map((p) => (p.id === 'turn' ? { ...p, rest: [1] } : p.id === 'way' ? { ...p, rest: [0] } : p));
    const told = new Mechanism(m.links, rest);
    const { placed, closed } = atHome(told);
    expect(closed).toBe(false);
    expect(contradictionAt(told, placed).misfits.length).toBeGreaterThan(0);
    expect(contradictionAt(told, placed).either).toEqual(expect.arrayContaining(['turn', 'way']));
  });

  test('a drag stops at a limit and slides along it', () => {
    const m = new Mechanism(
      [link('g', true), link('plate')],
      [
        pair('p', 'planar', 0, 1, at(0, 0), {
          limits: [
            { min: -5, max: 20 },
            { min: null, max: null },
            { min: 0, max: 0 },
          ],
        }),
      ],
      [],
      100,
    );
    const grip = {
      link: 1,
      at: [0, 0, 0] as const,
      to: [50, 30, 0] as const,
      along: [
        [1, 0, 0],
        [0, 1, 0],
      ] as const,
    };
    let now = home(m);
    for (let i = 0; i < 40; i++) now = drag(m, now.posture, grip).placed;
    expect(now.poses[1]!.at[0]).toBeCloseTo(20, 6);
    expect(now.poses[1]!.at[1]).toBeCloseTo(30, 1);
  });

  test('a crank too long for its rod jams, and says how far it came', () => {
    const m = new Mechanism(
      [link('g', true), link('crank'), link('rod'), link('slider')],
      [
        pair('turn', 'revolute', 0, 1, at(0, 0)),
        pair('pin', 'revolute', 1, 2, at(50, 0)),
        pair('wrist', 'revolute', 2, 3, at(80, 0)),
        pair('way', 'prismatic', 0, 3, along([80, 0, 0], [1, 0, 0])),
      ],
    );
    const outcome = drive(m, { posture: home(m).posture, last: null }, [{ pair: 0, motion: 0, to: 1.5 }]);
    if (outcome.ok) throw new Error('it passed where the rod cannot reach');
    expect(outcome.why.kind).toBe('jam');
    expect(outcome.reached[0]).toBeCloseTo(Math.asin(30 / 50), 2);
  });

  test('bars that cannot meet say by how much, and which joint would have to go', () => {
    const m = new Mechanism(
      [link('g', true), link('one'), link('two')],
      [
        pair('a', 'revolute', 0, 1, at(0, 0)),
        pair('b', 'revolute', 0, 2, at(100, 0)),
        { id: 'c', kind: 'revolute', a: { link: 1, frame: at(40, 0) }, b: { link: 2, frame: at(50, 0) } },
      ],
    );
    const { placed, closed } = atHome(m);
    expect(closed).toBe(false);
    const { misfits, either } = contradictionAt(m, placed);
    expect(Math.max(...misfits.map((f) => f.by))).toBeGreaterThan(2);
    expect(either).toContain('c');
  });

  test('a held link never moves, whatever is joined to it', () => {
    const m = fourBar();
    expect(driven(m, 'a0', 1).poses[0]).toEqual(HERE);
  });
});
