/** Parts and joints on the other side of a plane. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addCoupling, addJoint, addPart, addStep, assembled, drive, emptyDesign, Ledger, lookOfOutcome, mirrorIn, mirrorWork, movedPoint, OPPOSITE_IN, oppositeSteps, ownMirror, PartEvaluator,
  placedAt, placeInstances, poseWithin, valueAt, type Body, type Design, type Instance, type Joint, type MirrorPlane, type PartLook, type Step, type Vec3,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, faceLooking, outline, rectangle, round } from './sample-parts.ts';

const evaluator = new PartEvaluator(await loadKernel());
const at = (x: number, y: number, z: number): Instance['home'] => ({ at: [x, y, z], turn: [0, 0, 0, 1] });

const drawn = edited(
  emptyDesign('Pair'),
  addPart('base', 'Base'),
  addStep('base', 'bs', outline(rectangle(-60, -20, 120, 40))),
  addStep('base', 'be', extruded('bs', '10 mm')),
  // A bracket that is no mirror image of itself: unequal legs with a block on one.
  addPart('bracket', 'Bracket'),
  addStep('bracket', 'ks', outline([[0, 0], [30, 0], [30, 8], [8, 8], [8, 20], [0, 20]])),
  addStep('bracket', 'ke', extruded('ks', '6 mm')),
  addStep('bracket', 'ts', outline(rectangle(22, 0, 8, 4))),
  addStep('bracket', 'te', extruded('ts', '15 mm', { result: 'join' } as Partial<Step>)),
  addPart('pin', 'Pin'),
  addStep('pin', 'ps', round(3)),
  addStep('pin', 'pe', extruded('ps', '25 mm')),
); // prettier-ignore

const bracket = lookOfOutcome(await evaluator.evaluate(drawn, Ledger.of(drawn), 'bracket'));
const design = edited(
  drawn,
  addPart('other', 'Bracket, opposite hand'),
  ...oppositeSteps('bracket', 'Bracket', bracket, 'ob').map((step, i) => addStep('other', ['ob', 'om'][i]!, step)),
);

const outcomes = new Map<string, { look: PartLook; bodies: readonly Body[]; steps: readonly { message?: string | null }[] }>(); // prettier-ignore
for (const id of design.partOrder) {
  const outcome = await evaluator.evaluate(design, Ledger.of(design), id);
  outcomes.set(id, { look: lookOfOutcome(outcome), bodies: outcome.bodies, steps: outcome.steps });
}
const look = (part: string) => outcomes.get(part)?.look ?? null;
const centroid = (part: string): Vec3 => outcomes.get(part)!.bodies[0]!.facts.centroid ?? outcomes.get(part)!.bodies[0]!.facts.center; // prettier-ignore
const put = (of: Design) => assembled(of, Ledger.of(of), 'a', look);

describe('a part and its mirror image', () => {
  test('blocks and pins are their own; a bracket of unequal legs is not', () => {
    for (const part of ['base', 'pin']) {
      const plane = ownMirror(look(part)!)!;
      for (const c of outcomes.get(part)!.bodies[0]!.facts.corners) {
        const image = movedPoint(mirrorIn(plane), c);
        expect(Math.min(...outcomes.get(part)!.bodies[0]!.facts.corners.map((d) => Math.hypot(...d.map((x, k) => x - image[k]!))))).toBeLessThan(1e-6); // prettier-ignore
      }
    }
    expect(ownMirror(look('bracket')!)).toBeNull();
  });

  test('an opposite hand is made of a borrowed part, which does not come along', () => {
    const { bodies } = outcomes.get('other')!;
    expect(bodies.filter((b) => b.name.role !== 'borrowed')).toHaveLength(1);
    const corners = outcomes.get('bracket')!.bodies[0]!.facts.corners;
    const own = bodies.find((b) => b.name.role !== 'borrowed')!.facts.corners;
    for (const c of corners)
      expect(own.some((d) => Math.hypot(d[0] + c[0], d[1] - c[1], d[2] - c[2]) < 1e-9)).toBe(true);
  });
});

describe('mirrored across a plane of the assembly', () => {
  const plane: MirrorPlane = { origin: [0, 0, 0], normal: [1, 0, 0] };
  const faceOf = (part: string, way: Vec3): Joint['a']['on'] => ({
    face: faceLooking(outcomes.get(part)!.bodies[0]!, way),
  });
  const joint = (kind: Joint['kind'], name: string, a: Joint['a'], b: Joint['b'], numbers: Joint['numbers'] = {}): Joint => ({ kind, name, a, b, numbers, ...(kind === 'revolute' ? { flip: true as const } : {}) }); // prettier-ignore
  const start = edited(
    design,
    addAssembly('a', 'Pair'),
    placeInstances('a', [
      ['ib', { of: { part: 'base' }, home: at(0, 0, 0), fixed: true }],
      ['ik', { of: { part: 'bracket' }, home: at(20, -10, 10) }],
      ['ip', { of: { part: 'pin' }, home: at(30, 0, 40) }],
    ]),
    addJoint('a', 'j1', joint('rigid', 'Bracket on base', { instance: ['ib'], on: faceOf('base', [0, 0, 1]) }, { instance: ['ik'], on: faceOf('bracket', [0, 0, -1]) }, { angle: '25 deg', offset: '2 mm' })),
    addJoint('a', 'j2', joint('revolute', 'Pin on bracket', { instance: ['ik'], on: faceOf('bracket', [0, 0, 1]) }, { instance: ['ip'], on: faceOf('pin', [0, 0, 1]) }, { least_turn: '-10 deg', most_turn: '70 deg', rest_turn: '20 deg' })),
  ); // prettier-ignore
  const before = put(start);
  const work = mirrorWork(start, before, ['ik', 'ip'], plane, look);
  const { edits, lost } = work.joints(look);
  const whole = edited(start, ...work.first, ...edits);
  const after = put(whole);
  const link = (key: string) => after.linkOf.get(key)!;
  const imageOf = (part: string) => Object.entries(whole.assemblies!.a!.instances).find(([id, { of }]) => !start.assemblies!.a!.instances[id] && 'part' in of && of.part === part)![0]; // prettier-ignore
  const [mk, mp] = [imageOf('other'), imageOf('pin')];
  const ownOf = (key: string) => (key === 'ik' ? OPPOSITE_IN : ownMirror(look('pin')!)!);
  const made = Object.entries(whole.assemblies!.a!.joints).flatMap(([id, j]) => (start.assemblies!.a!.joints[id] ? [] : [j])); // prettier-ignore

  test('all joints of the images are met, on faces of their own, and every part stands where its image is', () => {
    // The opposite hand that is there already is taken, not made anew.
    expect([work.fresh, lost, made.length]).toEqual([[], 0, 2]);
    expect(before.closed && after.closed).toBe(true);
    expect(after.joints.map((j) => [j.fault, j.misses])).toEqual(after.joints.map(() => [null, null]));
    for (const j of made) for (const end of [j.a, j.b]) expect('face' in end.on).toBe(true);
    for (const [key, as, part] of [
      ['ik', mk, 'bracket'],
      ['ip', mp, 'pin'],
    ] as const) {
      for (const p of [centroid(part), [3, 7, 5], [12, 1, 2]] as Vec3[]) {
        const there = placedAt(after.home.poses[link(as)]!, movedPoint(mirrorIn(ownOf(key)), p));
        const [x, y, z] = placedAt(after.home.poses[link(key)]!, p);
        expect(Math.hypot(there[0] + x, there[1] - y, there[2] - z)).toBeLessThan(1e-6);
      }
    }
  });

  test('what turns one way here turns the other way there, between limits the other way round', () => {
    const [here, there] = ['Pin on bracket', 'Pin on bracket 2'].map((name) => after.joints.find((j) => j.joint.name === name)!); // prettier-ignore
    expect(there!.motions[0]).toMatchObject({ least: expect.closeTo((-70 * Math.PI) / 180, 9), most: expect.closeTo((10 * Math.PI) / 180, 9) }); // prettier-ignore
    expect(valueAt(after.mechanism, after.home, there!.motions[0]!)).toBeCloseTo((-20 * Math.PI) / 180, 9);
    const out = drive(after.mechanism, { posture: after.home.posture, last: null }, [
      { pair: here!.motions[0]!.pair, motion: 0, to: 1 },
      { pair: there!.motions[0]!.pair, motion: 0, to: -1 },
    ]);
    expect(out.ok).toBe(true);
    const s = mirrorIn(ownOf('ip'));
    const p: Vec3 = [3, 0, 4];
    const [x, y, z] = placedAt(poseWithin(out.placed.poses[link('ip')]!, at(0, 0, 0)), p);
    const q = placedAt(out.placed.poses[link(mp)]!, movedPoint(s, p));
    expect(Math.hypot(q[0] + x, q[1] - y, q[2] - z)).toBeLessThan(1e-6);
  });
});

describe('an assembly mirrored across a plane of the one it stands in', () => {
  const plane: MirrorPlane = { origin: [0, 15, 0], normal: [0, 1, 0] };
  const faceOf = (part: string, way: Vec3): Joint['a']['on'] => ({ face: faceLooking(outcomes.get(part)!.bodies[0]!, way) }); // prettier-ignore
  const start = edited(
    design,
    addAssembly('arm', 'Arm'),
    placeInstances('arm', [
      ['k', { of: { part: 'bracket' }, home: at(0, 0, 0), fixed: true }],
      ['p', { of: { part: 'pin' }, home: at(10, 0, 40), name: 'Axle' }],
      ['q', { of: { part: 'pin' }, home: at(60, 0, 0) }],
    ]),
    addJoint('arm', 'j2', { kind: 'cylindrical', name: 'Axle in bracket', a: { instance: ['k'], on: faceOf('bracket', [0, 0, 1]) }, b: { instance: ['p'], on: faceOf('pin', [0, 0, 1]) }, flip: true, numbers: { rest_turn: '20 deg', rest_slide: '4 mm', least_turn: '-5 deg', most_turn: '90 deg' } }),
    addJoint('arm', 'j3', { kind: 'prismatic', name: 'Slide', a: { instance: ['k'], on: faceOf('bracket', [1, 0, 0]) }, b: { instance: ['q'], on: faceOf('pin', [0, 0, 1]) }, numbers: { rest_slide: '3 mm' } }),
    addCoupling('arm', 'rk', { kind: 'rack', name: 'Rack', a: { joint: 'j2', motion: 'turn' }, b: { joint: 'j3', motion: 'slide' }, numbers: { lead: '12 mm' } }),
    addAssembly('a', 'Frame'),
    placeInstances('a', [
      ['b', { of: { part: 'base' }, home: at(0, 0, 0), fixed: true }],
      ['s', { of: { assembly: 'arm' }, home: at(5, 5, 30), moves: true }],
      ['r', { of: { assembly: 'arm' }, home: { at: [-90, 40, 7], turn: [0, 0.6, 0, 0.8] } }],
    ]),
    addJoint('a', 'j1', { kind: 'rigid', name: 'Arm on base', a: { instance: ['b'], on: faceOf('base', [0, 0, 1]) }, b: { instance: ['s', 'k'], on: faceOf('bracket', [0, 0, -1]) }, numbers: { angle: '25 deg', offset: '2 mm' } }),
  ); // prettier-ignore
  const before = put(start);
  const work = mirrorWork(start, before, ['s', 'r'], plane, look);
  const { edits, lost } = work.joints(look);
  const whole = edited(start, ...work.first, ...edits);
  const after = put(whole);

  test('everything in it stands where its image is, whether it moves within or stands as one; its joints are met', () => {
    expect([lost, before.closed, after.closed, work.fresh]).toEqual([0, true, true, []]);
    expect(after.joints.map((j) => [j.fault, j.misses])).toEqual(after.joints.map(() => [null, null]));
    const opposite = Object.entries(whole.assemblies!).find(([, a]) => a.name === 'Arm, opposite hand')![1];
    expect(opposite.instanceOrder.map((id) => opposite.instances[id]!.name ?? null)).toEqual([null, 'Axle', null]);
    // Once for both.
    expect(Object.keys(whole.assemblies!)).toHaveLength(3);
    const image = ([x, y, z]: Vec3): Vec3 => [x, 30 - y, z];
    const centers = (it: typeof after, keys: (key: string) => boolean) =>
      it.members.filter((m) => keys(m.key)).map((m): Vec3 => placedAt(poseWithin(it.home.poses[m.link]!, m.within), centroid(m.part))); // prettier-ignore
    const old = new Set(before.members.map((m) => m.key));
    const [from, to] = [centers(before, (key) => key !== 'b'), centers(after, (key) => !old.has(key))];
    expect(to).toHaveLength(6);
    for (const c of from) {
      const there = image(c);
      expect(Math.min(...to.map((d) => Math.hypot(d[0] - there[0], d[1] - there[1], d[2] - there[2])))).toBeLessThan(1e-6); // prettier-ignore
    }
  });

  test('its rack goes the other way for a turn, and its limits are the other way round', () => {
    const made = Object.values(whole.assemblies!).find((a) => a.name === 'Arm, opposite hand')!;
    expect(Object.values(made.couplings!).map((c) => c.numbers.lead)).toEqual(['-(12 mm)']);
    const inner = put({ ...whole, assemblies: { ...whole.assemblies, a: made } });
    const turn = inner.joints.find((j) => j.joint.name === 'Axle in bracket')!.motions.find((m) => m.key === 'turn')!;
    expect(turn).toMatchObject({ least: expect.closeTo(-Math.PI / 2, 9), most: expect.closeTo(Math.PI / 36, 9) });
    expect(turn.home).toBeCloseTo(-Math.PI / 9, 9);
    expect(inner.couplings.map((c) => c.fault)).toEqual([null]);
  });
});

test('a joint on what the other side does not have is made on a frame that follows nothing, and counted', () => {
  const loose = edited(
    design,
    addAssembly('a', 'Pair'),
    placeInstances('a', [
      ['b', { of: { part: 'base' }, home: at(0, 0, 0), fixed: true }],
      ['k', { of: { part: 'bracket' }, home: at(20, -10, 10) }],
    ]),
    addJoint('a', 'j', { kind: 'rigid', name: 'At a point', a: { instance: ['b'], on: { face: faceLooking(outcomes.get('base')!.bodies[0]!, [0, 0, 1]) } }, b: { instance: ['k'], on: { sketch: 'ks', point: 'p2' } }, numbers: {} }),
  ); // prettier-ignore
  const { still, lost, edits } = mirrorWork(loose, put(loose), ['k'], { origin: [0, 0, 0], normal: [1, 0, 0] }, look).joints(look); // prettier-ignore
  expect([still, lost, edits.length]).toEqual([1, 0, 1]);
});
