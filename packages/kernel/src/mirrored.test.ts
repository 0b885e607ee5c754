/** Parts and joints on the other side of a plane. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addJoint, addPart, addStep, assembled, drive, emptyDesign, jointsToMirror, Ledger, lookOfOutcome, mirrorIn, mirroredInstances, mirroredJoint, movedPoint, OPPOSITE_IN, oppositeSteps, ownMirror, PartEvaluator,
  placedAt, placeInstances, poseWithin, valueAt, type Body, type Design, type Instance, type Joint, type MirrorPart, type MirrorPlane, type PartLook, type Step, type Vec3,
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
  const images = new Map<string, { id: string; of: MirrorPart }>([
    ['ik', { id: 'mk', of: { part: 'other', plane: OPPOSITE_IN } }],
    ['ip', { id: 'mp', of: { part: 'pin', plane: ownMirror(look('pin')!)! } }],
  ]);
  const poseOf = (key: string) => before.home.poses[before.linkOf.get(key)!]!;
  const own = start.assemblies!.a!;
  const ids = jointsToMirror(own, new Set(['ik', 'ip']));
  const made = ids.map((id) => mirroredJoint(own.joints[id]!, plane, { pose: poseOf, look, partOf: (key) => before.members.find((m) => m.key === key)!.part, image: (id2) => images.get(id2) ?? null })); // prettier-ignore
  const whole = edited(
    start,
    placeInstances('a', mirroredInstances([...images].map(([id, { id: as, of }]) => ({ id, as, home: poseOf(id), of })), plane)), // prettier-ignore
    ...made.map((j, i) => addJoint('a', `m${i}`, j!)),
  );
  const after = put(whole);
  const link = (key: string) => after.linkOf.get(key)!;

  test('all joints of the images are met, on faces of their own, and every part stands where its image is', () => {
    expect(before.closed && after.closed).toBe(true);
    expect(after.joints.map((j) => [j.fault, j.misses])).toEqual(after.joints.map(() => [null, null]));
    for (const j of made) for (const end of [j!.a, j!.b]) expect('face' in end.on).toBe(true);
    for (const [key, as, part] of [
      ['ik', 'mk', 'bracket'],
      ['ip', 'mp', 'pin'],
    ] as const) {
      const of = images.get(key)!.of;
      for (const p of [centroid(part), [3, 7, 5], [12, 1, 2]] as Vec3[]) {
        const there = placedAt(after.home.poses[link(as)]!, movedPoint(mirrorIn(of.plane), p));
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
    const s = mirrorIn(images.get('ip')!.of.plane);
    const p: Vec3 = [3, 0, 4];
    const [x, y, z] = placedAt(poseWithin(out.placed.poses[link('ip')]!, at(0, 0, 0)), p);
    const q = placedAt(out.placed.poses[link('mp')]!, movedPoint(s, p));
    expect(Math.hypot(q[0] + x, q[1] - y, q[2] - z)).toBeLessThan(1e-6);
  });
});
