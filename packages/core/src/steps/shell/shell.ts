/** A body hollowed out, leaving walls. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf } from '../../names/name.ts';
import { expressionOf } from '../../units/units.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { StepData } from '../../slots/slot.ts';
import type { MadeSolid } from '../../solid/kernel.ts';
import { LazyFacts } from '../../names/facts.ts';
import { facesPicked } from '../begin.ts';
import { movedFaces } from '../offset/moved.ts';
import { refuseLeaning } from '../offset/beside.ts';
import { byBody, inMm, isSoundlyMade, orWhatFits, refuseNone, rework } from '../rework/rework.ts';
import { declareStep, type Making } from '../step.ts';

const FIRST_THICKNESS_MM = 2;
/** What comes after a slot's name, for each of the other walls there can be. */
const OTHERS = ['', '_2', '_3'] as const;
const has = (which: (typeof OTHERS)[number]) => (step: StepData) => step[`other_thickness${which}`] !== undefined;

const otherThickness = (which: (typeof OTHERS)[number]) =>
  ({ of: expression('length'), when: has(which), says: `How thick the walls are along the faces of others${which}.` }) as const; // prettier-ignore
const othersOf = (which: (typeof OTHERS)[number]) =>
  ({ of: faces('A face with another wall'), when: has(which), otherwise: () => [] }) as const;

export const shell = declareStep({
  kind: 'shell',
  version: 2,
  worksOn: 'open',
  label: 'Shell',
  key: 's',
  says: 'A body hollowed out, leaving walls along its faces but for those left open.',
  slots: {
    open: { of: faces('A face this step opens'), says: 'Faces left open.' },
    thickness: { of: expression('length') },
    outward: {
      of: flag('inside the faces', 'outside the faces'),
      otherwise: () => false,
      says: 'true: the walls lie outside, and what was solid is the hollow.',
    },
    other_thickness: otherThickness(''),
    others: othersOf(''),
    other_thickness_2: otherThickness('_2'),
    others_2: othersOf('_2'),
    other_thickness_3: otherThickness('_3'),
    others_3: othersOf('_3'),
  },
  first: 'thickness',
  begin(from) {
    const open = facesPicked(from);
    return open && { open, thickness: expressionOf(FIRST_THICKNESS_MM, 'length', from.units), outward: false };
  },
  sentence: (step) => [
    'Shell, open at',
    { slot: 'open' },
    'with walls',
    { slot: 'thickness' },
    { slot: 'outward' },
    ...OTHERS.flatMap((which) => (has(which)(step) ? ['and', { slot: `other_thickness${which}` }, 'along', { slot: `others${which}` }] : [])), // prettier-ignore
  ],
  extras(step) {
    const free = OTHERS.find((which) => !has(which)(step));
    return free === undefined ? [] : [{ label: 'other walls for some faces', slot: `other_thickness${free}`, stored: '4 mm' }]; // prettier-ignore
  },
  make(inputs, context) {
    const { open, thickness, outward } = inputs;
    const walls = OTHERS.flatMap((which) => {
      const own = inputs[`other_thickness${which}`];
      return own === undefined ? [] : [{ thickness: own, faces: inputs[`others${which}`] ?? [] }];
    });
    const others = walls.flatMap((w) => w.faces);
    refuseNone(Math.min(thickness, ...walls.map((w) => w.thickness)), 'The thickness');
    const { kernel } = context;
    const groups = byBody(open);
    for (const [body, own] of groups)
      if (own.length === body.faceNames.length)
        throw new StepFailure('With every face open no wall is left; open fewer.');
    for (const { body, face } of others)
      if (!groups.get(body) || groups.get(body)!.some((f) => f.face === face))
        throw new StepFailure('A face with another wall is one of a body that is hollowed out, and not left open; pick another.'); // prettier-ignore
    if (others.some((f, i) => others.some((g, j) => j < i && f.body === g.body && f.face === g.face)))
      throw new StepFailure('A face has one wall, and one of these is picked for two; take it away from one.');
    let rounded = false;
    const hollow = (body: Body, own: typeof open, wall = thickness) => {
      const even = kernel.shell(body.solid, own.map((f) => f.face), wall, outward); // prettier-ignore
      const other = walls.flatMap((w) => w.faces.flatMap((f) => (f.body === body ? [[f.face, w.thickness - wall] as const] : []))); // prettier-ignore
      rounded ||= !outward && even.faces.some((parents) => parents.some((p) => p.kind === 'edge'));
      return withOtherWalls(even, other, context);
    };
    const made = () => {
      const result = rework(groups, { inner: 'inner', edge: 'round', vertex: 'corner' }, context, hollow);
      for (const { body, from } of result.made) refuseImpossible(body, from!, outward);
      return rounded ? { ...result, note: ROUNDED } : result;
    };
    return orWhatFits(
      made,
      {
        says: `Walls of ${inMm(thickness)} do not fit`,
        number: 'thickness',
        wanted: thickness,
        works: (value) => [...groups].every(([body, own]) => isSoundlyMade(kernel, () => hollow(body, own, value))),
      },
      context,
    );
  },
});

const ROUNDED =
  'Where the outside turns inwards, the inside is rounded by the wall: with sharp corners it could not be made.';

/** A hollow inside takes material away, walls outside take the place of what they are round. */
function refuseImpossible(after: Body, before: Body, outward: boolean): void {
  const { box } = after.facts;
  const grown = [0, 1, 2].some((i) => box.max[i]! - box.min[i]! > before.facts.box.max[i]! - before.facts.box.min[i]! + 1e-6); // prettier-ignore
  if (outward ? !grown : after.facts.volume >= before.facts.volume || grown)
    throw new StepFailure('The kernel’s outcome cannot be right; give another thickness.');
}

/**
 * The walls along some faces made thicker or thinner: their inner faces are moved. What is given is let go of.
 * @param walls faces, and by how much
 */
function withOtherWalls(
  even: MadeSolid,
  walls: readonly (readonly [face: number, by: number])[],
  { kernel, stepId }: Making,
): MadeSolid {
  // prettier-ignore
  const inner = walls.flatMap(([face, by]) =>
    by === 0 ? [] : even.faces.flatMap((parents, i) => (parents.some((p) => p.how === 'inner' && p.index === face) ? [[i, [{ by }]] as const] : [])), // prettier-ignore
  );
  if (inner.length === 0 && walls.every(([, by]) => by === 0)) return even;
  if (inner.length < walls.filter(([, by]) => by !== 0).length) {
    kernel.free(even.solid);
    throw new StepFailure('One of the faces with another wall has none behind it; pick others.');
  }
  const facts = new LazyFacts(kernel, even.solid);
  const body = { solid: even.solid, facts, faceNames: even.faces.map(() => [nameOf(stepId, 'wall')]) };
  try {
    refuseLeaning(body, new Set(inner.map(([face]) => face)), () => 'this shell');
    const moved = movedFaces(body, inner, kernel);
    return { ...moved, faces: moved.faces.map((from) => from.flatMap((p) => even.faces[p.index]!)) };
  } finally {
    kernel.free(even.solid);
  }
}
