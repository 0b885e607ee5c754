/** Assemblies on real parts: joined by picked frames, following their numbers, telling what cannot be. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addCoupling, addRun, copyInstances, driveInRun, keepPose, dissolveInstance, gatherInstances, partsCsv, partsList, poseWithin, setMaterial, weighed, type PartBulk, addDimension, addJoint, addPart, addStep, applyEdit, assembled, changeJoint, checkConsistency, correspondingSpot, deletePart, deleteStep,
  drive, emptyDesign, exploded, faultOfTouched, frameOn, freedomsOfAssembly, Ledger, lookOfOutcome, markInstances, PartEvaluator, placeInstances, placedAt, refOfEdge, refOfFace,
  removeInstances, removeJoints, setDimension, setJointNumber, type Assembled, type Body, type Design, type Edit, type Instance, type Joint, type JointEnd, type PartLook, type Step, type Vec3,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, faceLooking, outline, rectangle, round } from './sample-parts.ts';

const evaluator = new PartEvaluator(await loadKernel());
const at = (x: number, y: number, z: number): Instance['home'] => ({ at: [x, y, z], turn: [0, 0, 0, 1] });

/** A plate with a bore, and a pin for it: their sizes are dials of the design. */
const bored: Step = {
  ...outline(rectangle(0, 0, 60, 40)),
  points: { ...Object.fromEntries(rectangle(0, 0, 60, 40).map((p, i) => [`p${i}`, [...p]])), m: [20, 15] },
  curves: { ...(outline(rectangle(0, 0, 60, 40)).curves as object), o: { kind: 'circle', center: 'm', radius: 5 } },
} as Step;
const parts: Edit[] = [
  addDimension('thk', { name: 'plate_thk', value: '8 mm' }),
  addDimension('gap', { name: 'gap', value: '0.5 mm' }),
  addPart('plate', 'Plate'),
  addStep('plate', 's', bored),
  addStep(
    'plate',
    'e',
    extruded('s', 'plate_thk', {
      profile: { sketch: 's', regions: [{ outer: ['l0', 'l1', 'l2', 'l3', 'o'] }] },
    } as Partial<Step>),
  ),
  addPart('pin', 'Pin'),
  addStep('pin', 's2', round(4.8)),
  addStep('pin', 'e2', extruded('s2', '30 mm')),
];

async function looksOf(design: Design): Promise<ReadonlyMap<string, PartLook & { of: readonly Body[] }>> {
  const looks = new Map<string, PartLook & { of: readonly Body[] }>();
  for (const id of design.partOrder) {
    const outcome = await evaluator.evaluate(design, Ledger.of(design), id);
    looks.set(id, { ...lookOfOutcome(outcome), of: outcome.bodies });
  }
  return looks;
}

async function put(design: Design, assembly = 'a'): Promise<Assembled> {
  const looks = await looksOf(design);
  return assembled(design, Ledger.of(design), assembly, (part) => looks.get(part) ?? null);
}

const bare = edited(emptyDesign('Fit'), ...parts);
const [plate] = (await looksOf(bare)).get('plate')!.of as [Body];
const [pin] = (await looksOf(bare)).get('pin')!.of as [Body];
const rim = (body: Body, z: number): JointEnd['on'] => {
  const edge = body.facts.edges.findIndex((e) => e.kind === 'circle' && Math.abs(e.axis!.origin[2] - z) < 1e-6);
  return { edge: refOfEdge(body, edge) };
};
const top: JointEnd['on'] = { face: faceLooking(plate, [0, 0, 1]) };

/** The pin’s foot in the bore’s upper rim, looking the same way. */
const joint = (more: Partial<Joint> = {}): Joint => ({
  kind: 'revolute',
  name: 'Pin in bore',
  a: { instance: ['i1'], on: rim(plate, 8) },
  b: { instance: ['i2'], on: rim(pin, 30) },
  flip: true,
  numbers: {},
  ...more,
});
const placedParts = (...more: Edit[]) =>
  edited(
    bare,
    addAssembly('a', 'Fit'),
    placeInstances('a', [['i1', { of: { part: 'plate' }, home: at(0, 0, 0), fixed: true }], ['i2', { of: { part: 'pin' }, home: at(80, 70, 5) }]]),
    ...more,
  ); // prettier-ignore
const whereIs = (it: Assembled, key: string, p: Vec3 = [0, 0, 0]) => placedAt(it.home.poses[it.linkOf.get(key)!]!, p);
const near = (p: readonly number[]) => p.map((n) => expect.closeTo(n, 6));

describe('joined', () => {
  test('a pin stands where its joint puts it, its head the offset above, and follows the plate’s thickness', async () => {
    const design = placedParts(addJoint('a', 'j', joint({ numbers: { offset: 'gap * 2' } })));
    const it = await put(design);
    expect(it.closed).toBe(true);
    expect(whereIs(it, 'i2', [0, 0, 30])).toEqual(near([20, 15, 9]));
    const thicker = await put(edited(design, setDimension('thk', '12 mm'), setDimension('j.offset', '3 mm')));
    expect(whereIs(thicker, 'i2', [0, 0, 30])).toEqual(near([20, 15, 15]));
    expect(freedomsOfAssembly(it).whole.freedoms).toBe(1);
    expect(freedomsOfAssembly(it).links.map((l) => l.says)).toEqual(['stands still', 'can still turn about its joint with Plate']); // prettier-ignore
    // The joint that would hold it, and as what.
    const { held } = freedomsOfAssembly(it).links[1]!;
    expect(held).toEqual([{ joint: 'j', kind: 'rigid' }]);
    const held_ = await put(edited(placedParts(addJoint('a', 'j', joint())), changeJoint('a', 'j', { kind: 'rigid' })));
    expect(freedomsOfAssembly(held_).whole.freedoms).toBe(0);
  });

  test('flipped it stands upside down, and an angle turns it', async () => {
    const design = placedParts(addJoint('a', 'j', joint({ kind: 'rigid', numbers: { angle: '90 deg' } })));
    const it = await put(design);
    expect(whereIs(it, 'i2', [1, 0, 30])).toEqual(near([20, 16, 8]));
    const over = await put(edited(design, changeJoint('a', 'j', { flip: false })));
    expect(whereIs(over, 'i2', [0, 0, 0])[2]).toBeCloseTo(38, 6);
  });

  test('faces laid against each other and an axis on an axis come to the same as a joint', async () => {
    const foot: JointEnd['on'] = { face: faceLooking(pin, [0, 0, -1]) };
    const bore = refOfFace(
      plate,
      plate.facts.faces.findIndex((f) => f.hollow),
    );
    const shank = refOfFace(
      pin,
      pin.facts.faces.findIndex((f) => f.axis),
    );
    const design = placedParts(
      addJoint('a', 'm1', joint({ kind: 'against', name: 'Foot on top', a: { instance: ['i1'], on: top }, b: { instance: ['i2'], on: foot }, flip: undefined } as Partial<Joint>)), // prettier-ignore
      addJoint('a', 'm2', joint({ kind: 'on_axis', name: 'Shank in bore', a: { instance: ['i1'], on: { face: bore } }, b: { instance: ['i2'], on: { face: shank } } })), // prettier-ignore
    );
    const it = await put(design);
    expect(it.closed).toBe(true);
    expect(whereIs(it, 'i2')).toEqual(near([20, 15, 8]));
    expect(freedomsOfAssembly(it).whole.freedoms).toBe(1);
  });

  test('an assembly stands in another as one, or moves in it, and never in itself', async () => {
    const outer = (moves: boolean): Edit[] => [
      addAssembly('b', 'Twice'),
      placeInstances('b', [['u1', { of: { assembly: 'a' }, home: at(0, 0, 0), fixed: true, ...(moves ? { moves: true as const } : {}) }], ['u2', { of: { assembly: 'a' }, home: at(100, 0, 0) }]]), // prettier-ignore
    ];
    const design = placedParts(addJoint('a', 'j', joint()));
    const stiff = await put(edited(design, ...outer(false)), 'b');
    expect(stiff.members.map((m) => m.key)).toEqual(['u1/i1', 'u1/i2', 'u2/i1', 'u2/i2']);
    expect(stiff.links).toHaveLength(2);
    const inner = stiff.members[3]!;
    expect(placedAt(stiff.home.poses[inner.link]!, placedAt(inner.within, [0, 0, 30]))).toEqual(near([120, 15, 8]));
    const loose = await put(edited(design, ...outer(true)), 'b');
    expect(loose.links).toHaveLength(3);
    expect(freedomsOfAssembly(loose).whole.freedoms).toBe(1 + 6);
    const within = applyEdit(
      edited(design, ...outer(false)),
      placeInstances('a', [['x', { of: { assembly: 'b' }, home: at(0, 0, 0) }]]),
    );
    expect(within).toMatchObject({ ok: false, message: expect.stringMatching(/cannot stand in itself/) });
  });

  test('mates turn a part round that stands the wrong way up', async () => {
    const design = placedParts(
      addJoint('a', 'm1', joint({ kind: 'against', name: 'Head on top', a: { instance: ['i1'], on: top }, b: { instance: ['i2'], on: { face: faceLooking(pin, [0, 0, 1]) } }, flip: undefined } as Partial<Joint>)), // prettier-ignore
    );
    const it = await put(design);
    expect([it.closed, it.joints[0]!.misses]).toEqual([true, null]);
    expect(whereIs(it, 'i2', [0, 0, 30])[2]).toBeCloseTo(8, 6);
    expect(whereIs(it, 'i2')[2]).toBeCloseTo(38, 6);
  });

  test('what does not hold together within an assembly that moves as one is told outside it', async () => {
    const design = placedParts(
      addJoint('a', 'j', joint()),
      addJoint('a', 'k', joint({ name: 'Too high', kind: 'rigid', numbers: { offset: '4 mm' } })),
      addAssembly('b', 'Around'),
      placeInstances('b', [['u', { of: { assembly: 'a' }, home: at(0, 0, 0), fixed: true }]]),
    );
    expect((await put(design, 'b')).faults).toEqual(['Fit does not hold together in itself; open it to see why.']);
  });

  test('two pins geared to each other turn by their teeth', async () => {
    const design = placedParts(
      placeInstances('a', [['i3', { of: { part: 'pin' }, home: at(50, 0, 0) }]]),
      addJoint('a', 'j', joint()),
      addJoint('a', 'k', joint({ name: 'Other pin', b: { instance: ['i3'], on: rim(pin, 30) } })),
      addCoupling('a', 'c', { kind: 'gear', name: 'Mesh', a: { joint: 'j', motion: 'turn' }, b: { joint: 'k', motion: 'turn' }, numbers: { first: '12', second: '36' } }), // prettier-ignore
    );
    const it = await put(design);
    const outcome = drive(it.mechanism, { posture: it.home.posture, last: null }, [{ pair: 0, motion: 0, to: 3 }]);
    expect(outcome.placed.posture.q[it.mechanism.columnOf({ pair: 1, motion: 0 })]).toBeCloseTo(-1, 9);
    expect(freedomsOfAssembly(it).whole.freedoms).toBe(1);
  });
});

describe('rearranged', () => {
  const three = () =>
    placedParts(
      placeInstances('a', [['i3', { of: { part: 'pin' }, home: at(50, 0, 0) }]]),
      addJoint('a', 'j', joint({ numbers: { offset: '2 mm' } })),
      addJoint('a', 'k', joint({ name: 'Pin on pin', kind: 'rigid', a: { instance: ['i2'], on: rim(pin, 30) }, b: { instance: ['i3'], on: rim(pin, 0) }, flip: undefined } as Partial<Joint>)), // prettier-ignore
    );
  const standing = async (design: Design) => {
    const it = await put(design);
    return it.members.map((m) => placedAt(poseWithin(it.home.poses[m.link]!, m.within), [1, 2, 3])).sort((p, q) => p[2] - q[2]); // prettier-ignore
  };

  test('gathered into an assembly, and dissolved again, everything stands and moves as it did', async () => {
    const design = three();
    const before = await standing(design);
    const gathered = edited(design, gatherInstances('a', ['i2', 'i3'], 'g', 'ig', 'Pins'));
    expect(checkConsistency(gathered)).toEqual([]);
    expect(gathered.assemblies!.a!.jointOrder).toEqual(['j']);
    expect(gathered.assemblies!.g!.jointOrder).toEqual(['k']);
    const within = await put(gathered);
    expect(within.joints.map((j) => [j.fault, j.misses])).toEqual([[null, null], [null, null]]); // prettier-ignore
    (await standing(gathered)).forEach((p, i) => expect(p).toEqual(near(before[i]!)));
    expect(freedomsOfAssembly(within).whole.freedoms).toBe(1);
    const again = edited(gathered, dissolveInstance('a', 'ig', [['i2', 'n2'], ['i3', 'n3']], [['k', 'nk']])); // prettier-ignore
    expect(checkConsistency(again)).toEqual([]);
    (await standing(again)).forEach((p, i) => expect(p).toEqual(near(before[i]!)));
    expect(freedomsOfAssembly(await put(again)).whole.freedoms).toBe(1);
  });

  test('what tells of it by where it stands goes on doing so: poses, runs, what is borrowed, also from farther out', async () => {
    const borrow = { kind: 'borrow', name: 'Borrow', from: { part: 'plate', at: { assembly: 'a', own: ['i3'], other: ['i1'] } } } as unknown as Step; // prettier-ignore
    const design = edited(
      three(),
      keepPose('a', 'kp', { name: 'Off', at: { i2: at(0, 0, 5), i3: at(0, 0, 6) } as never }),
      addRun('a', 'r', 'Turn'),
      driveInRun('a', 'r', 'd', { name: 'Pin on pin', joint: 'k', motion: 'turn', between: 'even', numbers: {} }),
      driveInRun('a', 'r', 'd2', { name: 'Pin in bore', joint: 'j', motion: 'turn', between: 'even', numbers: {} }),
      addStep('pin', 'pb', borrow, null),
      addAssembly('o', 'Outer'),
      placeInstances('o', [['ia', { of: { assembly: 'a' }, home: at(0, 0, 0), moves: true }], ['io', { of: { part: 'plate' }, home: at(0, 90, 0) }]]), // prettier-ignore
      addJoint('o', 'oj', joint({ a: { instance: ['io'], on: rim(plate, 8) }, b: { instance: ['ia', 'i3'], on: rim(pin, 0) } } as Partial<Joint>)), // prettier-ignore
    );
    const told = ({ assemblies, parts }: Design) => {
      const { a, o } = assemblies!;
      return [
        Object.keys(a!.poses!.kp!.at),
        ['d', 'd2'].map((d) => a!.runs!.r!.drives[d]!.joint),
        (parts.pin!.steps.pb as unknown as { from: { at: unknown } }).from.at,
        o!.joints.oj!.b.instance,
      ];
    };
    const gathered = edited(design, gatherInstances('a', ['i2', 'i3'], 'g', 'ig', 'Pins'));
    expect(told(gathered)).toEqual([['ig/i2', 'ig/i3'], ['ig/k', 'j'], { assembly: 'a', own: ['ig', 'i3'], other: ['i1'] }, ['ia', 'ig', 'i3']]); // prettier-ignore
    const again = edited(gathered, dissolveInstance('a', 'ig', [['i2', 'n2'], ['i3', 'n3']], [['k', 'nk']])); // prettier-ignore
    expect(told(again)).toEqual([['n2', 'n3'], ['nk', 'j'], { assembly: 'a', own: ['n3'], other: ['i1'] }, ['ia', 'n3']]); // prettier-ignore
    expect(checkConsistency(again)).toEqual([]);
    // Kept while it was moved as one: what it is made of stands where it stood.
    const asOne = edited(gathered, keepPose('a', 'kp', { name: 'Off', at: { ig: at(0, 0, 7) } as never }));
    const taken = edited(
      asOne,
      dissolveInstance(
        'a',
        'ig',
        [
          ['i2', 'n2'],
          ['i3', 'n3'],
        ],
        [['k', 'nk']],
      ),
    );
    expect(taken.assemblies!.a!.poses!.kp!.at).toEqual({ n2: { at: gathered.assemblies!.g!.instances.i2!.home.at.map((x, i) => x + (i === 2 ? 7 : 0)), turn: expect.anything() }, n3: expect.anything() }); // prettier-ignore
  });

  test('a copy stands beside, joined as what it was copied from', async () => {
    const design = edited(three(), copyInstances('a', [['i2', 'c2'], ['i3', 'c3']], [['k', 'ck']], at(0, 50, 0))); // prettier-ignore
    const it = await put(design);
    const from = whereIs(it, 'c2', [0, 0, 30]);
    expect(whereIs(it, 'c3')).toEqual(near(from));
    expect(it.joints.map((j) => j.joint.name)).toEqual(['Pin in bore', 'Pin on pin', 'Pin on pin 2']);
  });

  test('the parts list counts and weighs, and the whole has its centre where it is in closed form', async () => {
    const design = edited(three(), setMaterial('plate', 'steel'), setMaterial('pin', 'brass'), markInstances('a', ['i3'], { material: 'oak' })); // prettier-ignore
    const it = await put(design);
    const bulk = (part: string): PartBulk => {
      const { volume, center, box } = (part === 'plate' ? plate : pin).facts;
      return { volume, center, size: [0, 1, 2].map((k) => box.max[k]! - box.min[k]!) as unknown as Vec3 };
    };
    const rows = partsList(design, it.members, bulk);
    expect(rows.map((r) => [r.name, r.count, r.material])).toEqual([['Plate', 1, 'steel'], ['Pin', 1, 'brass'], ['Pin', 1, 'oak']]); // prettier-ignore
    const shank = Math.PI * 4.8 ** 2 * 30;
    const [base, one, other] = [(60 * 40 - Math.PI * 25) * 8 * 7.85e-6, shank * 8.5e-6, shank * 0.72e-6];
    expect(rows[0]!.each).toBeCloseTo(base, 9);
    const poses = new Map(it.members.map((m) => [m.key, poseWithin(it.home.poses[m.link]!, m.within)]));
    const { mass, center } = weighed(design, it.members, poses, bulk);
    expect(mass).toBeCloseTo(base + one + other, 9);
    const x = (60 * 40 * 30 - Math.PI * 25 * 20) / (60 * 40 - Math.PI * 25);
    expect(center![0]).toBeCloseTo((x * base + 20 * (one + other)) / mass, 6);
    expect(partsCsv(rows).split('\r\n')[1]).toMatch(/^1,Plate,1,steel,0\.1458,0\.1458,60,40,8$/);
  });
});

describe('what cannot be is told, and the rest works on', () => {
  test('a face that is gone, in words, on its own joint alone', async () => {
    const design = placedParts(
      placeInstances('a', [['i3', { of: { part: 'pin' }, home: at(50, 0, 0) }]]),
      addJoint('a', 'j', joint()),
      addJoint(
        'a',
        'k',
        joint({ name: 'On top', a: { instance: ['i1'], on: top }, b: { instance: ['i3'], on: rim(pin, 0) } }),
      ),
    );
    const it = await put(edited(design, deleteStep('pin', 'e2')));
    expect(it.joints.map((j) => j.fault)).toEqual([expect.stringMatching(/^Its side on Pin 1 sits on an edge that is no longer found: /), expect.stringMatching(/Pin 2/)]); // prettier-ignore
    expect(it.links).toHaveLength(3);
  });

  test('joints that contradict say by how much, and which may go', async () => {
    const design = placedParts(
      addJoint('a', 'j', joint()),
      addJoint('a', 'k', joint({ name: 'Too high', kind: 'rigid', numbers: { offset: '4 mm' } })),
    );
    const it = await put(design);
    expect(it.closed).toBe(false);
    expect(it.joints.map((j) => j.inTheWay)).toEqual([true, true]);
    expect(Math.max(...it.joints.map((j) => j.misses ?? 0))).toBeGreaterThan(1);
  });

  test('a part in use is not deleted; an instance takes its joints along; numbers that cannot be are refused', () => {
    const design = placedParts(addJoint('a', 'j', joint({ numbers: { offset: '2 mm' } })));
    expect(applyEdit(design, deletePart('pin'))).toMatchObject({
      message: 'Pin stands in Fit; remove it there first.',
    });
    expect(edited(design, removeInstances('a', ['i2'])).assemblies!.a!.joints).toEqual({});
    expect(applyEdit(design, setJointNumber('a', 'j', 'least_turn', '5 mm'))).toMatchObject({ ok: false });
    expect(applyEdit(design, setJointNumber('a', 'j', 'constructor', '5'))).toMatchObject({ ok: false });
    expect(applyEdit(design, addJoint('a', 'k', joint({ b: { instance: ['i1'], on: top } })))).toMatchObject({
      ok: false,
    });
    const used = edited(design, setDimension('gap', 'fit.pin_in_bore.offset / 4'));
    expect(applyEdit(used, removeJoints('a', ['j']))).toMatchObject({ ok: false, message: expect.stringMatching(/^gap uses/) }); // prettier-ignore
    expect(Ledger.of(edited(used, setDimension('j.offset', '6 mm'))).number('gap')).toBeCloseTo(1.5, 12);
  });

  test('every edit leaves a sound design, told by what it touched as by the whole', () => {
    let design = bare;
    const steps = [
      addAssembly('a', 'Fit'),
      placeInstances('a', [['i1', { of: { part: 'plate' }, home: at(0, 0, 0) }], ['i2', { of: { part: 'pin' }, home: at(9, 0, 0) }]]),
      addJoint('a', 'j', joint({ numbers: { offset: '1 mm' } })),
      setJointNumber('a', 'j', 'most_turn', '90 deg'),
      markInstances('a', ['i1'], { fixed: true, name: 'Base' }),
      changeJoint('a', 'j', { kind: 'cylindrical', suppressed: true }),
      removeInstances('a', ['i2']),
    ]; // prettier-ignore
    for (const edit of steps) {
      const outcome = applyEdit(design, edit);
      if (!outcome.ok) throw new Error(outcome.message);
      design = outcome.design;
      expect(checkConsistency(design)).toEqual([]);
      expect(faultOfTouched(design, outcome.touches)).toBeNull();
    }
  });
});

test('a part replaced keeps its joints where faces correspond', async () => {
  const other = edited(
    placedParts(addJoint('a', 'j', joint())),
    addPart('longer', 'Longer pin'),
    addStep('longer', 's9', round(4.5)),
    addStep('longer', 'e9', extruded('s9', '44 mm')),
  );
  const looks = await looksOf(other);
  const spot = correspondingSpot(joint().b.on, looks.get('pin')!, looks.get('longer')!);
  const of = { part: 'longer' };
  const bare = await put(edited(other, markInstances('a', ['i2'], { of })));
  expect(bare.joints[0]!.fault).toMatch(/^Its side on Longer pin sits on an edge that is no longer found/);
  const it = await put(edited(other, markInstances('a', ['i2'], { of }), changeJoint('a', 'j', { b: { instance: ['i2'], on: spot! } }))); // prettier-ignore
  // Its upper rim, 44 high, in the bore’s upper rim at 8.
  expect([it.joints[0]!.fault, it.closed]).toEqual([null, true]);
  expect(whereIs(it, 'i2')).toEqual(near([20, 15, 8 - 44]));
  expect(correspondingSpot({ step: 'd' }, looks.get('pin')!, looks.get('longer')!)).toBeNull();
});

test('taken apart, what hangs on the held part is drawn off along its joint until it is free', async () => {
  const it = await put(placedParts(addJoint('a', 'j', joint())));
  // The plate is 8 thick; the pin stands from 22 below its top to it.
  const boxes = [
    { min: [0, 0, 0], max: [60, 40, 8] },
    { min: [15.2, 10.2, -22], max: [24.8, 19.8, 8] },
  ] as const;
  const [plate, pin] = exploded(it, boxes);
  expect(plate).toEqual([0, 0, 0]);
  expect([pin![0], pin![1]]).toEqual(near([0, 0]));
  // It lies below the plate’s middle, so it goes down, and no farther than it must.
  expect(pin![2]).toBeLessThan(-8);
  expect(pin![2]).toBeGreaterThan(-20);
  // Without a joint it goes along the axis on which it lies farthest out, or stays where it is free.
  const loose = await put(placedParts());
  expect(exploded(loose, [boxes[0], { min: [75, 65, 5], max: [85, 75, 35] }])[1]).toEqual([0, 0, 0]);
  expect(exploded(loose, [null, null])).toEqual([[0, 0, 0], [0, 0, 0]]); // prettier-ignore
});

test('a frame of two: midway between parallel faces, where straight edges cross; it follows, and tells what is no frame', async () => {
  const looking = (d: Vec3) => faceLooking(plate, d);
  const edgeOn = (is: (p: Vec3) => boolean) => refOfEdge(plate, plate.facts.edges.findIndex((e) => e.kind === 'line' && is(e.middle))); // prettier-ignore
  const back = edgeOn(([, y, z]) => y === 40 && Math.abs(z - 8) < 1e-9);
  const right = edgeOn(([x, , z]) => x === 60 && Math.abs(z - 8) < 1e-9);
  const west = edgeOn(([x, , z]) => x === 0 && Math.abs(z - 8) < 1e-9);
  // Where the bore takes its share from a face’s centre.
  const left = (whole: number, bore: number) => (2400 * whole - 25 * Math.PI * bore) / (2400 - 25 * Math.PI);
  for (const [thk, z] of [
    ['8 mm', 4],
    ['15 mm', 7.5],
  ] as const) {
    const look = (await looksOf(edited(bare, setDimension('thk', thk)))).get('plate')!;
    const middle = frameOn({ between: [looking([0, 0, 1]), looking([0, 0, -1])] }, look).frame;
    expect(middle.at).toEqual(near([left(30, 20), left(20, 15), z]));
    const cross = frameOn({ crossing: [back, right] }, look).frame;
    expect(cross.at).toEqual(near([60, 40, 2 * z]));
    expect(poseWithin(cross, { at: [0, 0, 1], turn: [0, 0, 0, 1] }).at.map((n, i) => Math.abs(n - cross.at[i]!))).toEqual(near([0, 0, 1])); // prettier-ignore
  }
  const look = (await looksOf(bare)).get('plate')!;
  expect(() => frameOn({ between: [looking([0, 0, 1]), looking([1, 0, 0])] }, look)).toThrow(/not parallel/);
  expect(() => frameOn({ crossing: [west, right] }, look)).toThrow(/parallel; pick others/);
});
