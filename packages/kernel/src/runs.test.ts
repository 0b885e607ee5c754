/** Runs: several motions driven over time, through points that follow the numbers of the design. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addDimension, addJoint, addPart, addPointToRun, addRun, addStep, applyEdit, assembled, changeRun, checkConsistency, courseOf, driveInRun, dropPointFromRun, emptyDesign, gapsAlong, Ledger,
  lookOfOutcome, PartEvaluator, placeInstances, removeJoints, removeRun, renameDimension, setDimension, setJointNumber, travelOf, wayOfRun,
  type Assembled, type Course, type Design, type Edit, type Instance, type PartOutcome, type RunDrive,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, faceLooking, outline, rectangle } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const at = (x: number, y: number, z: number): Instance['home'] => ({ at: [x, y, z], turn: [0, 0, 0, 1] });

const bare = edited(
  emptyDesign('Lift'),
  addDimension('rise', { name: 'rise', value: '30 mm' }),
  addPart('bed', 'Bed'),
  addStep('bed', 'sb', outline(rectangle(0, 0, 40, 40))),
  addStep('bed', 'eb', extruded('sb', '10 mm')),
  addPart('block', 'Block'),
  addStep('block', 'sk', outline(rectangle(0, 0, 10, 10))),
  addStep('block', 'ek', extruded('sk', '10 mm')),
  addAssembly('a', 'Lift'),
  placeInstances('a', [['i1', { of: { part: 'bed' }, home: at(0, 0, 0), fixed: true }], ['i2', { of: { part: 'block' }, home: at(0, 0, 20) }]]),
); // prettier-ignore

async function outcomeOf(design: Design, part: string): Promise<PartOutcome> {
  return evaluator.evaluate(design, Ledger.of(design), part);
}
const [bed, block] = [await outcomeOf(bare, 'bed'), await outcomeOf(bare, 'block')];

const joined = edited(
  bare,
  addJoint('a', 'jb', {
    kind: 'cylindrical',
    name: 'Block on bed',
    a: { instance: ['i1'], on: { face: faceLooking(bed.bodies[0]!, [0, 0, 1]) } },
    b: { instance: ['i2'], on: { face: faceLooking(block.bodies[0]!, [0, 0, -1]) } },
    numbers: {},
  }),
);
const put = (design: Design): Assembled =>
  assembled(design, Ledger.of(design), 'a', (part) => lookOfOutcome(part === 'bed' ? bed : block));

const drive = (motion: RunDrive['motion'], numbers: RunDrive['numbers'], between: RunDrive['between'] = 'even') =>
  ({ name: 'Block on bed', joint: 'jb', motion, between, numbers }) satisfies RunDrive;
const lifting: Edit[] = [
  addRun('a', 'run', 'Up and round'),
  driveInRun('a', 'run', 'slide', drive('slide', { at_1: '0', to_1: '10 mm', at_2: '2', to_2: 'rise' }, 'eased')),
  driveInRun('a', 'run', 'turn', drive('turn', { at_1: '1', to_1: '0 deg', at_2: '4', to_2: '270 deg' })),
];
const course = (design: Design): Course => courseOf(design.assemblies!.a!.runs!.run!, put(design), Ledger.of(design));
const valuesAt = (design: Design, time: number) => course(design).at!(time).map((d) => d.to);

describe('several motions over time', () => {
  const design = edited(joined, ...lifting);

  test('each goes through its points, eased or at one speed, and rests before and after', () => {
    expect(checkConsistency(design)).toEqual([]);
    expect(course(design).seconds).toBe(4);
    expect(valuesAt(design, 0)).toEqual([10, 0]);
    // At a quarter of the way eased: u²(3 − 2u) = 5/32.
    expect(valuesAt(design, 0.5)[0]).toBeCloseTo(10 + (20 * 5) / 32, 12);
    expect(valuesAt(design, 1)[0]).toBeCloseTo(20, 12);
    expect(valuesAt(design, 3)).toEqual([30, Math.PI]);
  });

  test('its points follow the numbers they are made of, whatever these are called', () => {
    const raised = edited(design, renameDimension('rise', 'lift'), setDimension('rise', '50 mm'));
    expect(valuesAt(raised, 3)[0]).toBe(50);
  });

  test('gone through, the block stands where both motions have it, and clears the bed by its lift', async () => {
    const it = put(design);
    const { at: when, seconds } = course(design);
    const { samples, stopped } = await travelOf(it, it.home, wayOfRun(when!, seconds, 9));
    expect(stopped).toBeNull();
    expect(samples.map((s) => s.value)).toEqual([0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4]);
    const end = samples.at(-1)!.placed.poses[1]!;
    expect(end.at[2]).toBeCloseTo(40, 9);
    const stations = samples.map(({ value, placed }) => ({ value, poses: placed.poses }));
    const part = { within: { at: [0, 0, 0], turn: [0, 0, 0, 1] } } as const;
    const gaps = await gapsAlong({ key: 'i1', link: 0, ...part, bodies: bed.bodies }, { key: 'i2', link: 1, ...part, bodies: block.bodies }, stations, kernel); // prettier-ignore
    for (const [i, gap] of gaps.entries()) expect(gap).toBeCloseTo(valuesAt(design, i / 2)[0]!, 6);
  });

  test('what cannot be driven says why, and which', () => {
    const faults = (...more: Edit[]) => course(edited(design, ...more)).drives.map((d) => d.fault);
    expect(faults(removeJoints('a', ['jb']))[0]).toMatch(/^Block on bed does not move any more/);
    expect(faults(addPointToRun('a', 'run', 'turn', '4', '10 deg'))[1]).toMatch(/is to be in two places at 4 s/);
    expect(faults(setDimension('turn.at_1', '-1'))[1]).toMatch(/lie between 0 and 3600 seconds/);
    expect(faults(dropPointFromRun('a', 'run', 'turn', 1), dropPointFromRun('a', 'run', 'turn', 2))[1]).toMatch(
      /goes nowhere yet/,
    );
    expect(course(edited(design, removeJoints('a', ['jb']))).at).toBeNull();
    // A point of which half is gone is still listed, to be mended.
    const half = course(edited(design, setJointNumber('a', 'turn', 'to_1', null))).drives[1]!;
    expect([half.points.map((q) => q.n), half.listed]).toEqual([[2], [2, 1]]);
  });

  test('a motion is driven once in a run; lengths are no angles; used numbers stay', () => {
    const refused = (edit: Edit, why: RegExp, from = design) =>
      expect(applyEdit(from, edit)).toMatchObject({ ok: false, message: expect.stringMatching(why) });
    refused(driveInRun('a', 'run', 'again', drive('turn', {})), /drives Block on bed already/);
    refused(addPointToRun('a', 'run', 'turn', '5', '3 mm'), /angle/);
    refused(changeRun('a', 'gone', { push: true }), /no longer exists/);
    const used = edited(design, setDimension('rise', '10 mm'), addDimension('half', { name: 'half', value: '$slide.to_1 / 2' })); // prettier-ignore
    refused(removeRun('a', 'run'), /half uses a number of this/, used);
    expect(edited(design, removeRun('a', 'run')).assemblies!.a!.runs).toEqual({});
  });
});
