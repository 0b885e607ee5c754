/** What does not fit, in closed form; and what fits is passed without a word. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addDimension, addPart, addStep, checkFit, curesOf, emptyDesign, Ledger, PartEvaluator, placeInstances, refOfFace, setDimension, turnOf,
  type Body, type Design, type FaceOf, type FitFinding, type Instance, type Pose, type SolidHandle, type Standing, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const near = (p: readonly number[]) => p.map((n) => expect.closeTo(n, 9));
const at = (x: number, y: number, z: number, turn: Pose['turn'] = [0, 0, 0, 1]): Pose => ({ at: [x, y, z], turn });

/** A block of 20 × 20 × 10; a disc of radius 5, 30 high; a ring of radii 8 and 5, 10 high. */
const design: Design = edited(
  emptyDesign('Fit'),
  addPart('block', 'Block'),
  addStep('block', 's', outline(rectangle(0, 0, 20, 20))),
  addStep('block', 'e', extruded('s', '10 mm')),
  addPart('disc', 'Disc'),
  addStep('disc', 's2', round(5)),
  addStep('disc', 'e2', extruded('s2', '30 mm')),
  addPart('ring', 'Ring'),
  addStep('ring', 's3', round(8, {}, [0, 0], 5)),
  addStep('ring', 'e3', extruded('s3', '10 mm', { profile: { sketch: 's3', regions: [{ outer: ['o'], at: [6.5, 0] }] } } as Partial<Step>)), // prettier-ignore
);
const bodiesOf = async (part: string, of = design) => (await evaluator.evaluate(of, Ledger.of(of), part)).bodies;

async function fit(placed: readonly (readonly [string, Pose])[], clearance = 0): Promise<FitFinding[]> {
  const standing: Standing[] = [];
  for (const [i, [part, pose]] of placed.entries())
    standing.push({ member: { key: `${part}${i}`, link: i }, pose, bodies: await bodiesOf(part) });
  return checkFit(standing, clearance, kernel);
}

describe('two parts', () => {
  const quarter = turnOf([0, 0, 1], Math.PI / 4);
  test.each<[string, readonly [string, Pose], number]>([
    ['a corner in a corner', ['block', at(15, 12, 4)], 5 * 8 * 6],
    ['one wholly in the other', ['disc', at(10, 10, -10)], Math.PI * 25 * 10],
    ['turned', ['block', at(10, 10, 0, quarter)], 100 * 10],
  ])('stand in each other: %s', async (_, other, volume) => {
    const [found, ...more] = await fit([['block', at(0, 0, 0)], other]);
    expect(more).toEqual([]);
    if (found?.kind !== 'overlap') throw new Error('no overlap is told');
    expect(found.volume).toBeCloseTo(volume, 5);
  });

  test('also where the kernel finds no sound solid that they share: a ball whose pole dips into a block', async () => {
    // Turned and moved so that the ball’s middle lies 5.231244 mm above the block’s side: a cap of πh²(3R − h)/3.
    const half = { ...outline([], { name: 'Half', plane: { datum: 'wall' } }), points: { c: [0, 0], a: [0, -6], b: [0, 6] }, curves: { r: { kind: 'arc', center: 'c', from: 'a', to: 'b' }, l: { kind: 'line', from: 'b', to: 'a' } } } as unknown as Step; // prettier-ignore
    const turned = { kind: 'revolve', name: 'Ball', profile: { sketch: 'h', regions: 'all' }, axis: { sketch: 'h', line: 'y_axis' }, way: 'whole', result: 'new_body' } as Step; // prettier-ignore
    const own = edited(emptyDesign('Ball'), addPart('bar', 'Bar'), addStep('bar', 's', outline(rectangle(-10, -7, 20, 14))), addStep('bar', 'e', extruded('s', '12 mm')), addPart('ball', 'Ball'), addStep('ball', 'h', half), addStep('ball', 't', turned)); // prettier-ignore
    const bar: Pose = { at: [7.574969384621348, 1.3471650571316318, 9.004472800998238], turn: [0.5730141375557242, 0.3864308499028017, 0.30039229515431765, 0.6573358847777818] }; // prettier-ignore
    const ball: Pose = { at: [4.588938738028023, 6.661823350778697, 10.874965438561034], turn: [-0.17984151945819457, -0.12128201846552701, -0.09427866304403937, 0.9716271062349608] }; // prettier-ignore
    const standing = await Promise.all([['bar', bar], ['ball', ball]].map(async ([part, pose], link) => ({ member: { key: part as string, link }, pose: pose as Pose, bodies: await bodiesOf(part as string, own) }))); // prettier-ignore
    const [found, ...more] = await checkFit(standing, 0, kernel);
    expect(more).toEqual([]);
    const h = 6 - 5.231244;
    expect(found).toMatchObject({ kind: 'overlap', volume: expect.closeTo((Math.PI * h * h * (18 - h)) / 3, 3) });
    const { at: middle } = found as Extract<FitFinding, { kind: 'overlap' }>;
    expect(Math.hypot(...middle.map((x, k) => x - ball.at[k]!))).toBeCloseTo((0.75 * (12 - h) ** 2) / (18 - h), 3);
  });

  test('what they share is told by what one loses where no sound solid of it is to be had, and else is not known', async () => {
    const doubted = new Set<number>();
    const doubting = (kinds: readonly string[]) =>
      Object.assign(Object.create(kernel) as typeof kernel, {
        combine(...asked: Parameters<typeof kernel.combine>) {
          const made = kernel.combine(...asked);
          if (kinds.includes(asked[0])) for (const { solid } of made) doubted.add(solid);
          return made;
        },
        isValid: (solid: SolidHandle) => !doubted.has(solid) && kernel.isValid(solid),
      });
    const standing = await Promise.all([at(0, 0, 0), at(15, 12, 4)].map(async (pose, link) => ({ member: { key: `b${link}`, link }, pose, bodies: await bodiesOf('block') }))); // prettier-ignore
    const held = kernel.held;
    const [found] = await checkFit(standing, 0, doubting(['common']));
    expect(found).toMatchObject({ kind: 'overlap', volume: expect.closeTo(240, 6), at: near([17.5, 16, 7]) });
    const [unknown] = await checkFit(standing, 0, doubting(['common', 'cut']));
    expect(unknown).toMatchObject({ kind: 'unknown', why: 'The kernel could not find out what they have in common.' });
    expect(kernel.held).toBe(held);
  });

  test('and by which way the second comes free first; where no faces look at each other that is not told', async () => {
    const [found] = await fit([['block', at(0, 0, 0)], ['block', at(15, 12, 4)]]); // prettier-ignore
    expect(found).toMatchObject({ free: { by: expect.closeTo(5, 9), towards: near([1, 0, 0]) }, pieces: [{ member: 'block0' }, { member: 'block1' }] }); // prettier-ignore
    // Almost where the other is: it could only be taken away.
    expect((await fit([['block', at(0, 0, 0)], ['block', at(1, 0, 0)]]))[0]).toMatchObject({ kind: 'overlap', free: null }); // prettier-ignore
    const across = turnOf([0, 1, 0], Math.PI / 2);
    expect((await fit([['disc', at(0, 0, 0)], ['disc', at(-15, 0, 15, across)]]))[0]).toMatchObject({ kind: 'overlap', free: null, pieces: null }); // prettier-ignore
  });

  test.each<[string, readonly [string, Pose][]]>([
    ['face on face', [['block', at(0, 0, 0)], ['block', at(5, 3, 10)]]], // prettier-ignore
    ['face on face but for the rounding of a solved sketch', [['block', at(0, 0, 0)], ['block', at(5, 3, 10 + 4e-9)]]], // prettier-ignore
    ['a pin in a bore of its size', [['ring', at(0, 0, 0)], ['disc', at(0, 0, -5)]]], // prettier-ignore
    ['far away', [['block', at(0, 0, 0)], ['disc', at(90, 0, 0)]]], // prettier-ignore
  ])('are passed: %s', async (_, placed) => expect(await fit(placed, 0.5)).toEqual([]));

  test('a gap below what is asked for is told, one above is not', async () => {
    const placed = [['block', at(0, 0, 0)], ['disc', at(25.3, 10, 0)]] as const; // prettier-ignore
    expect(await fit(placed, 0.5)).toEqual([{ kind: 'close', members: ['block0', 'disc1'], gap: expect.closeTo(0.3, 9) }]); // prettier-ignore
    expect(await fit(placed, 0.2)).toEqual([]);
  });

  test('nothing of the kernel is kept', async () => {
    await fit([['block', at(0, 0, 0)], ['disc', at(10, 10, -10)]]); // prettier-ignore
    const before = kernel.held;
    for (let i = 0; i < 5; i++) await fit([['block', at(0, 0, 0)], ['disc', at(10, 10, -10)]], 1); // prettier-ignore
    expect(kernel.held).toBe(before);
  });
});

describe('bores out of line', () => {
  test('by how much and which way, for bore and pin and for bore and bore; not for what only lies beside', async () => {
    const found = await fit([['ring', at(0, 0, 0)], ['ring', at(0.3, 0.4, 10)], ['disc', at(60, 0, 0)]]); // prettier-ignore
    expect(found).toEqual([expect.objectContaining({ kind: 'out_of_line', by: expect.closeTo(0.5, 9), towards: [expect.closeTo(0.6, 9), expect.closeTo(0.8, 9), expect.closeTo(0, 9)] })]); // prettier-ignore
    expect(await fit([['ring', at(0, 0, 0)], ['ring', at(0, 0, 10)]])).toEqual([]); // prettier-ignore
    expect(await fit([['ring', at(0, 0, 0)], ['ring', at(0.3, 0, 90)]])).toEqual([]); // prettier-ignore
  });

  test('the number that cures it is found among those that could, with its value, and verified', async () => {
    const plate = (id: string, x: string): Step => ({ ...outline(rectangle(0, 0, 60, 30)), points: { ...Object.fromEntries(rectangle(0, 0, 60, 30).map((p, i) => [`p${i}`, [...p]])), m: [id === 'a' ? 20 : 21.2, 15] }, curves: { ...(outline(rectangle(0, 0, 60, 30)).curves as object), o: { kind: 'circle', center: 'm', radius: 4 } }, constraints: { f: { kind: 'fixed', of: ['p0'] }, x: { kind: 'horizontal_distance', of: ['p0', 'm'], value: x, name: 'across' }, y: { kind: 'vertical_distance', of: ['p0', 'm'], value: '15 mm', name: 'up' } } }) as unknown as Step; // prettier-ignore
    const bored = (sketch: string) =>
      ({ profile: { sketch, regions: [{ outer: ['l0', 'l1', 'l2', 'l3'] }] } }) as Partial<Step>;
    const two = edited(
      emptyDesign('Cure'),
      addDimension('margin', { name: 'margin', value: '21.2 mm' }),
      addPart('one', 'One'),
      addStep('one', 'a1', plate('a', '20 mm')),
      addStep('one', 'a2', extruded('a1', '5 mm', bored('a1'))),
      addPart('two', 'Two'),
      addStep('two', 'b1', plate('b', '$margin')),
      addStep('two', 'b2', extruded('b1', '5 mm', bored('b1'))),
      addAssembly('asm', 'Pair'),
      placeInstances('asm', [['i', { of: { part: 'one' }, home: at(0, 0, 0) as Instance['home'], fixed: true }], ['k', { of: { part: 'two' }, home: at(0, 0, 5) as Instance['home'], fixed: true }]]), // prettier-ignore
    );
    const hole = async (part: string) => {
      const [body] = (await bodiesOf(part, two)) as [Body];
      return refOfFace(body, body.facts.faces.findIndex((f) => f.hollow)); // prettier-ignore
    };
    const cures = await curesOf(two, 'asm', [{ member: 'i', face: await hole('one') }, { member: 'k', face: await hole('two') }], 'level', evaluator); // prettier-ignore
    expect(cures.map((c) => [c.path, c.to, c.unlinks])).toEqual([
      ['margin', '20 mm', false],
      ['one.outline.across', '21.2 mm', false],
      ['two.outline.across', '20 mm', true],
    ]);
  });
});

describe('what would free two that stand in each other', () => {
  /** A shelf 28 above the floor, on a post as high as its dial; and a shaft, as thick as its dial, in the ring’s bore. */
  const parts = edited(
    design,
    addDimension('height', { name: 'height', value: '30 mm' }),
    addDimension('shaft_dia', { name: 'shaft_dia', value: '10.4 mm' }),
    addPart('post', 'Post'),
    addStep('post', 'p1', outline(rectangle(0, 0, 20, 20), { name: 'Foot' })),
    addStep('post', 'p2', extruded('p1', '$height')),
    addPart('shaft', 'Shaft'),
    addStep('shaft', 'h1', { ...round(5.2, { name: 'Round' }), constraints: { d: { kind: 'diameter', of: ['o'], value: '$shaft_dia', name: 'across' } } } as Step), // prettier-ignore
    addStep('shaft', 'h2', extruded('h1', '30 mm')),
    addAssembly('asm', 'Stood'),
    placeInstances('asm', (['post', 'block', 'shaft', 'ring'] as const).map((part, i) => [part, { of: { part }, home: at(0, i > 1 ? 90 : 0, part === 'block' ? 28 : 0) as Instance['home'], fixed: true }])), // prettier-ignore
  );
  const cured = async (one: string, other: string) => {
    const standing = await Promise.all([one, other].map(async (part): Promise<Standing> => ({ member: { key: part, link: part === one ? 0 : 1 }, pose: at(0, 0, part === 'block' ? 28 : 0), bodies: await bodiesOf(part, parts) }))); // prettier-ignore
    const [found] = await checkFit(standing, 0, kernel);
    if (found?.kind !== 'overlap') throw new Error('no overlap is told');
    const faces = found.pieces!.map(({ member, body, face }) => ({ member, face: refOfFace(standing.find((s) => s.member.key === member)!.bodies[body]!, face) })); // prettier-ignore
    const cures = await curesOf(parts, 'asm', faces as [FaceOf, FaceOf], { freeBy: kernel }, evaluator);
    return [found.free, cures.map((c) => `${c.path} = ${c.to}`)] as const;
  };

  test('the number that makes a post shorter, and what else would', async () => {
    const [free, cures] = await cured('post', 'block');
    expect(free).toMatchObject({ by: expect.closeTo(2, 9), towards: near([0, 0, 1]) });
    expect(cures[0]).toBe('height = 28 mm');
  });

  test('the number that makes a shaft thinner, or its bore wider; both are tried in the kernel first', async () => {
    const [free, cures] = await cured('shaft', 'ring');
    expect(free).toEqual({ by: expect.closeTo(0.4, 9), towards: null });
    expect(cures).toContain('shaft_dia = 10 mm');
  });
});

describe('what nearly matches', () => {
  const plate = (part: string, holes: readonly (readonly [number, number])[], thickness: string) => {
    const base = outline(rectangle(0, 0, 40, 20), { name: 'Plate outline' });
    return [
      addPart(part, part),
      addStep(part, `${part}s`, {
        ...base,
        points: { ...(base.points as object), ...Object.fromEntries(holes.map((h, i) => [`m${i}`, [...h]])) },
        curves: { ...(base.curves as object), ...Object.fromEntries(holes.map((_, i) => [`o${i}`, { kind: 'circle', center: `m${i}`, radius: 5 }])) }, // prettier-ignore
      } as Step),
      addStep(part, `${part}e`, extruded(`${part}s`, thickness, { profile: { sketch: `${part}s`, regions: [{ outer: ['l0', 'l1', 'l2', 'l3', ...holes.map((_, i) => `o${i}`)] }] } } as Partial<Step>)), // prettier-ignore
    ];
  };
  const parts = edited(
    emptyDesign('Nearly'),
    addDimension('reach', { name: 'reach', value: '17 mm' }),
    addDimension('tongue', { name: 'tongue', value: '6 mm' }),
    ...plate('thick', [[10, 10]], '10 mm'),
    ...plate('thin', [[10, 10]], '8 mm'),
    addPart('pin', 'Pin'),
    addStep('pin', 'ps', round(5)),
    addStep('pin', 'pe', extruded('ps', 'reach')),
    // A grooved block, the groove 5 deep, and a rail whose tongue is as deep as the dial says.
    addPart('grooved', 'Grooved'),
    addStep('grooved', 'gs', outline([[0, 0], [30, 0], [30, 20], [20, 20], [20, 15], [10, 15], [10, 20], [0, 20]], { plane: { datum: 'wall' } })), // prettier-ignore
    addStep('grooved', 'ge', extruded('gs', '12 mm')),
    addPart('rail', 'Rail'),
    addStep(
      'rail',
      'rs',
      outline(
        [
          [0, 0],
          [30, 0],
          [30, 5],
          [0, 5],
        ],
        { plane: { datum: 'wall' } },
      ),
    ),
    addStep('rail', 're', extruded('rs', '12 mm')),
    addStep('rail', 'ts', outline([[10.2, -6], [19.8, -6], [19.8, 0], [10.2, 0]], { plane: { datum: 'wall' }, name: 'Tongue' })), // prettier-ignore
    addStep('rail', 'te', extruded('ts', '12 mm', { result: 'join' })),
  );
  const stand = async (placed: readonly (readonly [string, Pose])[], clearance = 0, of = parts) => {
    const standing: Standing[] = [];
    for (const [i, [part, pose]] of placed.entries())
      standing.push({ member: { key: `${part}${i}`, link: i }, pose, bodies: await bodiesOf(part, of) });
    return checkFit(standing, clearance, kernel);
  };

  test('a pin that ends within the last bore of its stack is told, with how much it lacks', async () => {
    const stack = [['thick', at(0, 0, 0)], ['thin', at(0, 0, 10)]] as const; // prettier-ignore
    expect(await stand([...stack, ['pin', at(10, 10, 0)]])).toEqual([
      expect.objectContaining({ kind: 'short', members: ['pin2', 'thin1'], by: expect.closeTo(1, 9), towards: near([0, 0, 1]) }), // prettier-ignore
    ]);
    // Held higher it is through the upper one, and short of the lower one’s foot.
    expect(await stand([...stack, ['pin', at(10, 10, 1)]])).toEqual([
      expect.objectContaining({ kind: 'short', members: ['pin2', 'thick0'], by: expect.closeTo(1, 9), towards: near([0, 0, -1]) }), // prettier-ignore
    ]);
    // In one bore only it is no stack; out at both ends nothing lacks.
    expect(await stand([stack[0], ['pin', at(10, 10, -10)]])).toEqual([]);
    expect(await stand([stack[0], ['thick', at(0, 0, 10)], ['pin', at(10, 10, 1)]])).toHaveLength(2);
  });

  test('a pin that sticks out of its stack by more than it is thick is told, but not with something on it there', async () => {
    const stack = [['thin', at(0, 0, 0)], ['thin', at(0, 0, 8)]] as const; // prettier-ignore
    const longer = edited(parts, setDimension('reach', '27 mm'));
    const out = async (more: readonly (readonly [string, Pose])[] = []) => (await stand([...stack, ['pin', at(10, 10, 0)], ...more], 0, longer)).map((f) => [f.kind, ...f.members, 'by' in f && f.by]); // prettier-ignore
    expect(await out()).toEqual([['long', 'pin2', 'thin1', expect.closeTo(11, 9)]]);
    expect(await out([['thin', at(0, 0, 18)]])).toEqual([]);
    const fits = edited(parts, setDimension('reach', '25 mm'));
    expect(await stand([...stack, ['pin', at(10, 10, 0)]], 0, fits)).toEqual([]);
  });

  test('parts opposite each other that are nearly each other’s mirror are told, with where they differ', async () => {
    // Left and right cheek: the hole of the one is as far from its rear as the other’s from its front.
    const cheek = (part: string, x: number) => plate(part, [[x, 10]], '6 mm');
    const both = (x: number) => edited(emptyDesign('Cheeks'), ...cheek('left', 12), ...cheek('right', x));
    // Opposite each other along x: the image of 12 from the left is 28.
    const placed = [['left', at(0, 0, 0)], ['right', at(70, 0, 0)]] as const; // prettier-ignore
    expect(await stand(placed, 0, both(28))).toEqual([]);
    const [found, ...more] = await stand(placed, 0, both(27.5));
    expect(more).toEqual([]);
    // Two sickles of bores half a millimetre apart, as deep as the cheek.
    const lens = 2 * 25 * Math.acos(0.5 / 10) - (0.5 / 2) * Math.sqrt(4 * 25 - 0.25);
    expect(found).toMatchObject({ kind: 'not_mirrored', members: ['left0', 'right1'], volume: expect.closeTo(2 * 6 * (Math.PI * 25 - lens), 4) }); // prettier-ignore
    if (found?.kind === 'not_mirrored') expect(found.at.slice(1)).toEqual(near([10, 3]));
    // Unlike enough to be meant so, and one part twice, are passed.
    expect(await stand(placed, 0, both(10))).toEqual([]);
    expect(await stand([['left', at(0, 0, 0)], ['left', at(70, 0, 0)]], 0, both(20))).toEqual([]); // prettier-ignore
  });

  test('faces a little out of flush are told; a step that is meant is not', async () => {
    const beside = (z: number) => [['thick', at(0, 0, 0)], ['thick', at(40, 0, z)]] as const; // prettier-ignore
    const found = await stand(beside(0.3));
    expect(found).toHaveLength(2);
    expect(found[0]).toMatchObject({ kind: 'flush', by: expect.closeTo(0.3, 9) });
    expect(await stand(beside(0))).toEqual([]);
    expect(await stand(beside(3))).toEqual([]);
  });

  test('a tongue that meets the bottom of its groove before the shoulders close is told', async () => {
    // The tongue is 6 deep, the groove 5: laid on the groove’s bottom the shoulders stay 1 open.
    const found = await stand([
      ['grooved', at(0, 0, 0)],
      ['rail', at(0, 0, 21)],
    ]);
    expect(found.map((f) => f.kind)).toEqual(['bottoms', 'bottoms']);
    expect(found[0]).toMatchObject({ by: expect.closeTo(1, 9) });
    // Shoulders closed and the bottom open is as it should be; here the tongue then stands in the block.
    expect(
      (
        await stand([
          ['grooved', at(0, 0, 0)],
          ['rail', at(0, 0, 20)],
        ])
      ).map((f) => f.kind),
    ).toEqual(['overlap']);
  });
});
