import { describe, expect, test } from '@jest/globals';
import {
  addDimension,
  addPart,
  addStep,
  applyEdit,
  copySteps,
  deleteStep,
  editSketch,
  emptyDesign,
  groupSteps,
  Ledger,
  moveStep,
  renameStep,
  replaceSketch,
  readingOf,
  sentenceOf,
  setDimension,
  stepWithRests,
  suppressStep,
  usersOfStep,
  type Design,
  type Edit,
  type SketchStep,
  type Step,
} from '../index.ts';

const sketch: Step = {
  kind: 'sketch',
  name: 'Outline',
  plane: { datum: 'wall' },
  points: { a: [0, 0], b: [20, 0] },
  curves: { l: { kind: 'line', from: 'a', to: 'b' } },
  constraints: { w: { kind: 'distance', of: ['l'], value: '20 mm', name: 'width' } },
};
const extrude: Step = {
  kind: 'extrude',
  name: 'Plate',
  profile: { sketch: 's', regions: 'all' },
  way: 'one_way',
  distance: 'thk',
  result: 'new_body',
};

function make(...edits: Edit[]): Design {
  return edits.reduce((design, edit) => {
    const outcome = applyEdit(design, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, emptyDesign('Test'));
}
/** Any slots of the extrude, put in as a file would have them. */
const changed = (slots: Partial<Step>): Edit => ({
  command: 'x',
  label: 'x',
  run: (draft) => void Object.assign(draft.parts.p!.steps.e!, slots),
});
const base = (...more: Edit[]) =>
  make(
    addDimension('thk', { name: 'thk', value: '6 mm' }),
    addPart('p', 'Part'),
    addStep('p', 's', sketch),
    addStep('p', 'e', extrude),
    ...more,
  );

function read(design: Design, step: string): string {
  const part = design.parts.p!;
  return sentenceOf(part.steps[step]!, readingOf(design, 'p', step, Ledger.of(design)))
    .map((piece) => ('text' in piece ? piece.text : `[${piece.label}${piece.value ? ` = ${piece.value}` : ''}]`))
    .join(' ');
}

describe('a step reads as a sentence', () => {
  test.each<[string, Partial<Step>, string]>([
    ['a new body', {}, 'Extrude [Outline, all regions] by [thk = 6 mm] [one way] [forward] as [a new body]'],
    [
      'reversed',
      { reversed: true },
      'Extrude [Outline, all regions] by [thk = 6 mm] [one way] [reversed] as [a new body]',
    ],
    [
      'both ways',
      { way: 'both_ways', back_distance: '2 mm' },
      'Extrude [Outline, all regions] by [thk = 6 mm] [both ways] and back [2 mm] [forward] as [a new body]',
    ],
    [
      'a cut of one body',
      { result: 'cut', bodies: [{ name: 'e' }] },
      'Extrude [Outline, all regions] by [thk = 6 mm] [one way] [forward] [cut from] [Plate]',
    ],
    [
      'a join with all',
      { result: 'join' },
      'Extrude [Outline, all regions] by [thk = 6 mm] [one way] [forward] [joined to] [all bodies]',
    ],
    [
      'picked regions',
      { profile: { sketch: 's', regions: [{ outer: ['l'] }] } },
      'Extrude [Outline, 1 region] by [thk = 6 mm] [one way] [forward] as [a new body]',
    ],
    [
      'a lost sketch',
      { profile: { sketch: 'gone', regions: 'all' } },
      'Extrude [a deleted sketch, all regions] by [thk = 6 mm] [one way] [forward] as [a new body]',
    ],
  ])('%s', (_, slots, sentence) => {
    const design = base(changed(slots));
    expect(read(design, 'e')).toBe(sentence);
  });

  test('a sketch', () => {
    expect(read(base(), 's')).toBe('Sketch on [the wall plane] with [1 dimension]');
  });
});

describe('edits of a recipe', () => {
  const refusal = (design: Design, edit: Edit) => {
    const outcome = applyEdit(design, edit);
    return outcome.ok ? null : outcome.message;
  };

  test('rename, move, suppress and delete do just that', () => {
    const design = base(renameStep('p', 'e', ' Wall plate '), suppressStep('p', 'e', true));
    expect(design.parts.p!.steps.e).toMatchObject({ name: 'Wall plate', suppressed: true });
    const back = applyEdit(design, suppressStep('p', 'e', false));
    expect(back.ok && 'suppressed' in back.design.parts.p!.steps.e!).toBe(false);
    const gone = applyEdit(design, deleteStep('p', 'e'));
    expect(gone.ok && gone.design.parts.p!.stepOrder).toEqual(['s']);
  });

  test('a step is not moved before what it rests on, nor behind what rests on it', () => {
    const design = base(addStep('p', 't', { ...sketch, name: 'Notes' }));
    expect(refusal(design, moveStep('p', 'e', null))).toBe('Plate rests on Outline, so it cannot stand before it.');
    expect(refusal(design, moveStep('p', 's', 'e'))).toBe('Plate rests on Outline, so it cannot stand before it.');
    const moved = applyEdit(design, moveStep('p', 't', null));
    expect(moved.ok && moved.design.parts.p!.stepOrder).toEqual(['t', 's', 'e']);
  });

  test('steps are grouped under a name, and taken out again', () => {
    const design = base(groupSteps('p', ['s', 'e'], 'Stock'));
    expect(design.parts.p!.steps).toMatchObject({ s: { group: 'Stock' }, e: { group: 'Stock' } });
    const out = applyEdit(design, groupSteps('p', ['e'], null));
    expect(out.ok && 'group' in out.design.parts.p!.steps.e!).toBe(false);
  });

  test('a step goes to another part with all it rests on, its numbers and the links among them with it', () => {
    const linked: Step = { ...extrude, distance: '$s.w / 4' };
    const design = base(addPart('q', 'Other'), addStep('p', 'f', linked), addStep('p', 't', { ...sketch, name: 'Notes' })); // prettier-ignore
    const ids = stepWithRests(design.parts.p!, 'f');
    expect(ids).toEqual(['s', 'f']);
    const copied = applyEdit(design, copySteps('p', 'q', [['s', 's2'], ['f', 'f2']])); // prettier-ignore
    if (!copied.ok) throw new Error(copied.message);
    expect(copied.design.parts.q!.stepOrder).toEqual(['s2', 'f2']);
    expect(copied.design.parts.q!.steps.f2).toMatchObject({ profile: { sketch: 's2' }, distance: '$s2.w / 4' });
    expect(copied.design.parts.p).toEqual(design.parts.p);
    // The number of the design stays the design’s.
    const whole = applyEdit(design, copySteps('p', 'q', [['s', 's3'], ['e', 'e3']])); // prettier-ignore
    expect(whole.ok && whole.design.parts.q!.steps.e3!.distance).toBe('$thk');
    expect(refusal(copied.design, copySteps('p', 'q', [['s', 's2']]))).toBe('A step of this id is there already.'); // prettier-ignore
  });

  test('another sketch takes the place of one, for all that use it', () => {
    const other: Step = { ...sketch, name: 'Newer' };
    const first = make(addDimension('thk', { name: 'thk', value: '6 mm' }), addPart('p', 'Part'), addStep('p', 's', sketch), addStep('p', 't', other), addStep('p', 'e', extrude), addStep('p', 'f', extrude)); // prettier-ignore
    const done = applyEdit(first, replaceSketch('p', 's', 't'));
    if (!done.ok) throw new Error(done.message);
    expect(done.design.parts.p!.steps).toMatchObject({ e: { profile: { sketch: 't' } }, f: { profile: { sketch: 't' } } }); // prettier-ignore
    expect(refusal(done.design, replaceSketch('p', 's', 't'))).toBe('No step uses Outline.');
    const later = base(addStep('p', 't', other));
    expect(refusal(later, replaceSketch('p', 's', 't'))).toBe('Plate stands before Newer; move that up first.');
    expect(refusal(later, replaceSketch('p', 's', 'e'))).toBe('Only a sketch can take the place of another.');
  });

  test('a deleted step’s users are known, and a number in use holds its step', () => {
    const design = base(addDimension('half', { name: 'half', value: 'part.outline.width / 2' }));
    expect(usersOfStep(design.parts.p!, 's')).toEqual(['Plate']);
    expect(refusal(design, deleteStep('p', 's'))).toBe('Outline holds a number that half uses; change that first.');
    expect(refusal(design, deleteStep('p', 'nothing'))).toBe('This step no longer exists.');
    expect(refusal(design, renameStep('p', 'e', '  '))).toBe('A step needs a name.');
  });

  test('an edit of a sketch stores where everything went, and a clashing one is refused whole', () => {
    const design = base(setDimension('s.w', '35 mm'));
    const solved = design.parts.p!.steps.s as SketchStep;
    const [a, b] = [solved.points.a!, solved.points.b!];
    expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(35, 9);
    const clash = editSketch('p', 's', 'Add a distance', (s) => {
      s.constraints.v = { kind: 'distance', of: ['a', 'b'], value: '40 mm', name: 'reach' };
    });
    expect(refusal(design, clash)).toBe('width and reach cannot both hold; change or remove one of them.');
  });

  test('names typed in a new step become references', () => {
    expect((base().parts.p!.steps.e as ExtrudeStep).distance).toBe('$thk');
  });
});
