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
const hasOthers = (step: StepData) => step.other_thickness !== undefined;

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
    other_thickness: {
      of: expression('length'),
      when: hasOthers,
      says: 'How thick the walls are along the faces of others.',
    },
    others: { of: faces('A face with another wall'), when: hasOthers, otherwise: () => [] },
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
    ...(hasOthers(step) ? ['and', { slot: 'other_thickness' }, 'along', { slot: 'others' }] : []),
  ],
  extras: (step) =>
    hasOthers(step) ? [] : [{ label: 'other walls for some faces', slot: 'other_thickness', stored: '4 mm' }],
  make({ open, thickness, outward, others = [], other_thickness = thickness }, context) {
    refuseNone(Math.min(thickness, other_thickness), 'The thickness');
    const { kernel } = context;
    const groups = byBody(open);
    for (const [body, own] of groups)
      if (own.length === body.faceNames.length)
        throw new StepFailure('With every face open no wall is left; open fewer.');
    for (const { body, face } of others)
      if (!groups.get(body) || groups.get(body)!.some((f) => f.face === face))
        throw new StepFailure('A face with another wall is one of a body that is hollowed out, and not left open; pick another.'); // prettier-ignore
    let rounded = false;
    const hollow = (body: Body, own: typeof open, wall = thickness) => {
      const even = kernel.shell(body.solid, own.map((f) => f.face), wall, outward); // prettier-ignore
      const thicker = others.flatMap((f) => (f.body === body ? [f.face] : []));
      rounded ||= !outward && even.faces.some((parents) => parents.some((p) => p.kind === 'edge'));
      return withOtherWalls(even, thicker, other_thickness - wall, context);
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

/** The walls along some faces made thicker or thinner: their inner faces are moved. What is given is let go of. */
function withOtherWalls(even: MadeSolid, faces: readonly number[], by: number, { kernel, stepId }: Making): MadeSolid {
  if (faces.length === 0 || by === 0) return even;
  const inner = even.faces.flatMap((parents, i) =>
    parents.some((p) => p.how === 'inner' && faces.includes(p.index)) ? [i] : [],
  );
  if (inner.length < faces.length) {
    kernel.free(even.solid);
    throw new StepFailure('One of the faces with another wall has none behind it; pick others.');
  }
  const facts = new LazyFacts(kernel, even.solid);
  const body = { solid: even.solid, facts, faceNames: even.faces.map(() => [nameOf(stepId, 'wall')]) };
  try {
    refuseLeaning(body, new Set(inner), () => 'this shell');
    const moved = movedFaces(body, inner, by, kernel);
    return { ...moved, faces: moved.faces.map((from) => from.flatMap((p) => even.faces[p.index]!)) };
  } finally {
    kernel.free(even.solid);
  }
}
