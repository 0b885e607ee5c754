/** Mechanisms to be moved on the page: each a design file, its joints on frames that stand. */
import { addAssembly, addDimension, addJoint, addPart, addStep, applyEdit, emptyDesign, placeInstances, writeDesign, type Edit, type Instance, type Joint, type Step } from '../../packages/core/src/index.ts'; // prettier-ignore

type At = readonly [number, number];
type Turn = [number, number, number, number];

function closed(name: string, loops: readonly (readonly At[])[], discs: readonly (readonly [At, number])[]): Step {
  const points: Record<string, [number, number]> = {};
  const curves: Record<string, unknown> = {};
  loops.forEach((loop, n) =>
    loop.forEach((p, i) => {
      points[`p${n}_${i}`] = [...p];
      curves[`l${n}_${i}`] = { kind: 'line', from: `p${n}_${i}`, to: `p${n}_${(i + 1) % loop.length}` };
    }),
  );
  discs.forEach(([c, radius], i) => {
    points[`m${i}`] = [...c];
    curves[`o${i}`] = { kind: 'circle', center: `m${i}`, radius };
  });
  return { kind: 'sketch', name, plane: { datum: 'floor' }, points, curves, constraints: {} } as Step;
}

const grown = (name: string, sketch: string, distance: string, result: string, down = false): Step =>
  ({ kind: 'extrude', name, profile: { sketch, regions: 'all' }, way: 'one_way', distance, result, ...(down ? { reversed: true } : {}) }) as Step; // prettier-ignore

const bar = ([x, y]: At, [dx, dy]: At): At[] => [[x, y], [x + dx, y], [x + dx, y + dy], [x, y + dy]]; // prettier-ignore
const turnedZ = (angle: number): Turn => [0, 0, Math.sin(angle / 2), Math.cos(angle / 2)];
/** A frame in an instance, or in the space of the assembly. */
const on = (instance: string[], [x, y, z = 0]: readonly [number, number, number?], turn: Turn = [0, 0, 0, 1]): Joint['a'] => ({
  instance,
  on: { stands: { at: [x, y, z], turn } },
}); // prettier-ignore
const home = (at: [number, number, number], turn: Turn = [0, 0, 0, 1]): Instance['home'] => ({ at, turn });

function written(name: string, edits: readonly Edit[]): string {
  const design = edits.reduce((now, edit) => {
    const outcome = applyEdit(now, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, emptyDesign(name));
  return writeDesign(design);
}

/** Pin and slots of a wheel: radius of the pin’s way, of the pin, and half of a slot, mm. */
export const SLOTTED = { way: 30, pin: 3, half: 3.1 };

/** A crank whose pin turns a wheel of four slots; nothing but contact joins them. */
export function slottedWheel(): string {
  const { way, pin, half } = SLOTTED;
  const apart = way * Math.SQRT2;
  const slot = (k: number): At[] => {
    const [c, s] = [Math.cos(Math.PI / 4 + (k * Math.PI) / 2), Math.sin(Math.PI / 4 + (k * Math.PI) / 2)];
    return ([[8, -half], [40, -half], [40, half], [8, half]] as At[]).map(([x, y]): At => [x * c - y * s, x * s + y * c]); // prettier-ignore
  };
  return written('Slotted wheel', [
    addPart('crank', 'Crank'),
    addStep('crank', 'ca', closed('Arm outline', [bar([-4, -4], [38, 8])], [])),
    addStep('crank', 'ce', grown('Arm', 'ca', '4 mm', 'new_body', true)),
    addStep('crank', 'cp', closed('Pin outline', [], [[[way, 0], pin]])),
    addStep('crank', 'cq', grown('Pin', 'cp', '8 mm', 'join')),
    addPart('wheel', 'Wheel'),
    addStep('wheel', 'wd', closed('Disc outline', [], [[[0, 0], way]])),
    addStep('wheel', 'we', grown('Disc', 'wd', '6 mm', 'new_body')),
    addStep('wheel', 'ws', closed('Slots', [0, 1, 2, 3].map(slot), [])),
    addStep('wheel', 'wc', grown('Slots cut', 'ws', '6 mm', 'cut')),
    addAssembly('a', 'Intermittent drive'),
    placeInstances('a', [['ic', { of: { part: 'crank' }, home: home([0, 0, 0], turnedZ(Math.PI / 2)) }], ['iw', { of: { part: 'wheel' }, home: home([apart, 0, 1]) }]]), // prettier-ignore
    addJoint('a', 'jc', { kind: 'revolute', name: 'Crank', a: on([], [0, 0], turnedZ(Math.PI / 2)), b: on(['ic'], [0, 0]), flip: true, numbers: {} }), // prettier-ignore
    addJoint('a', 'jw', { kind: 'revolute', name: 'Wheel', a: on([], [apart, 0, 1]), b: on(['iw'], [0, 0]), flip: true, numbers: {} }), // prettier-ignore
  ]);
}

/** Half the distance of the trammel’s pins, mm, and how wide its sliders are. */
export const TRAMMEL = { arm: 60, wide: 10 };

/** Two sliders square to each other, and a rod on both; a dial says how long they are. */
export function trammel(): string {
  const { arm, wide } = TRAMMEL;
  const alongX: Turn = [0, Math.SQRT1_2, 0, Math.SQRT1_2];
  const alongY: Turn = [-0.5, 0.5, 0.5, 0.5];
  const slider = closed('Outline', [bar([-20, -wide / 2], [40, wide])], []);
  const middle = { ...slider, constraints: { y1: { kind: 'symmetric', of: ['p0_0', 'p0_1', 'y_axis'] }, y2: { kind: 'symmetric', of: ['p0_3', 'p0_2', 'y_axis'] }, x: { kind: 'symmetric', of: ['p0_1', 'p0_2', 'x_axis'] }, l: { kind: 'distance', of: ['p0_0', 'p0_1'], value: '$long' }, h: { kind: 'distance', of: ['p0_1', 'p0_2'], value: `${wide} mm` } } } as Step; // prettier-ignore
  return written('Trammel', [
    addDimension('long', { name: 'slider_len', value: '40 mm', dial: { min: '20 mm', max: '90 mm' } }),
    addPart('slider', 'Slider'),
    addStep('slider', 's', middle),
    addStep('slider', 'e', grown('Block', 's', '6 mm', 'new_body')),
    addPart('rod', 'Rod'),
    addStep('rod', 'r', closed('Rod outline', [bar([-4, -4], [arm + 38, 8])], [])),
    addStep('rod', 're', grown('Rod', 'r', '4 mm', 'new_body')),
    addAssembly('a', 'Trammel'),
    placeInstances('a', [['ix', { of: { part: 'slider' }, name: 'Level slider', home: home([arm, 0, 0]) }], ['iy', { of: { part: 'slider' }, name: 'Upright slider', home: home([0, 0, 0], turnedZ(Math.PI / 2)) }], ['ir', { of: { part: 'rod' }, home: home([arm, 0, 7], turnedZ(Math.PI)) }]]), // prettier-ignore
    addJoint('a', 'jx', { kind: 'prismatic', name: 'Level', a: on([], [0, 0], alongX), b: on(['ix'], [0, 0], alongX), flip: true, numbers: {} }), // prettier-ignore
    addJoint('a', 'jy', { kind: 'prismatic', name: 'Upright', a: on([], [0, 0], alongY), b: on(['iy'], [0, 0], alongX), flip: true, numbers: {} }), // prettier-ignore
    addJoint('a', 'kx', { kind: 'revolute', name: 'Rod on level', a: on(['ix'], [0, 0, 7]), b: on(['ir'], [0, 0]), flip: true, numbers: {} }), // prettier-ignore
    addJoint('a', 'ky', { kind: 'revolute', name: 'Rod on upright', a: on(['iy'], [0, 0, 7]), b: on(['ir'], [arm, 0]), flip: true, numbers: {} }), // prettier-ignore
  ]);
}
