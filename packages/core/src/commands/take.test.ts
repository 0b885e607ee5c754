import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension, addMeasured, addPart, addRequirement, addStep, addVariant, applyEdit, copyStep, deleteDimension, deletePart, deleteStep, deleteVariant, describeDimensions, editSketch, emptyDesign, groupSteps, keepReadings, Ledger, linkNumbers, makeDial, moveDimensions, moveStep, renameDesign, renameDimension, renamePart, renameStep, setAppearance, setDimension, setMaterial, setSlot, severalEdits, suppressStep, take,
  checkConsistency, Design, type Asked, type Earlier, type Edit, type SketchStep, type Step, type Taken,
} from '../index.ts'; // prettier-ignore
import { readsOf } from '../document/command.ts';
import { mergedOrder } from '../document/touches.ts';
import { edited } from './edited.ts';

const plate = {
  kind: 'sketch', name: 'Outline', plane: { datum: 'floor' },
  points: { a: [0, 0], b: [30, 0], c: [30, 20], d: [0, 20] },
  curves: { l: { kind: 'line', from: 'a', to: 'b' }, m: { kind: 'line', from: 'b', to: 'c' }, n: { kind: 'line', from: 'c', to: 'd' }, o: { kind: 'line', from: 'd', to: 'a' } },
  constraints: {
    f: { kind: 'coincident', of: ['a', 'origin'] }, h: { kind: 'horizontal', of: ['l'] }, k: { kind: 'horizontal', of: ['n'] },
    v: { kind: 'vertical', of: ['m'] }, w: { kind: 'vertical', of: ['o'] },
    x: { kind: 'distance', of: ['l'], value: '30 mm', name: 'width' }, y: { kind: 'distance', of: ['m'], value: '20 mm', name: 'height' },
  },
} as unknown as Step; // prettier-ignore
const block = { kind: 'extrude', name: 'Block', profile: { sketch: 's', regions: 'all' }, way: 'one_way', distance: '$t', result: 'new_body' } as unknown as Step; // prettier-ignore

const base = edited(
  emptyDesign('Shared'),
  addDimension('t', { name: 'thk', value: '6 mm' }),
  addDimension('u', { name: 'gap', value: '2 mm' }),
  addPart('p', 'Plate'),
  addStep('p', 's', plate),
  addStep('p', 'e', block),
  addVariant('v1', 'Small'),
);

const asked = (edit: Edit): Asked => {
  const made = applyEdit(base, edit);
  const { command, args } = made.ok ? made.edit : edit;
  return JSON.parse(JSON.stringify({ kind: 'edit', command, args })) as Asked;
};

const earlierOf = ({ label, touches }: Taken & { ok: true }, by: string, from?: Asked): Earlier => ({
  label,
  by,
  touches,
  reads: from && 'command' in from ? readsOf(from.command, from.args) : [],
});

/** One is made, then the other, which was made on the same state. */
function both(first: Edit, second: Edit) {
  const one = take(base, asked(first), []);
  if (!one.ok) throw new Error(one.message);
  const earlier = earlierOf(one, 'Ana', asked(first));
  return { one, two: take(one.design, asked(second), [earlier]), earlier };
}

const line = (part: string, id: string, y: number) =>
  editSketch(part, 's', `Draw ${id}`, (sketch) => {
    sketch.points[`${id}1`] = [2, y];
    sketch.points[`${id}2`] = [9, y];
    sketch.curves[id] = { kind: 'line', from: `${id}1`, to: `${id}2` };
    sketch.constraints[`${id}c`] = { kind: 'distance', of: [id], value: '7 mm', name: 'width_2' };
  });

describe('two people at once', () => {
  test('both succeed who add a step, a part, a dimension, or draw in one sketch; names are kept apart', () => {
    const hole: Step = { ...block, name: 'Extrude 2' };
    const steps = both(addStep('p', 'e2', hole), addStep('p', 'e3', hole)).two;
    expect(steps.ok && steps.design.parts.p!.stepOrder).toEqual(['s', 'e', 'e2', 'e3']);
    expect(steps.ok && Object.values(steps.design.parts.p!.steps).map((s) => s.name)).toEqual(['Outline', 'Block', 'Extrude 2', 'Extrude 3']); // prettier-ignore
    const parts = both(addPart('q', 'Part 2'), addPart('r', 'Part 2')).two;
    expect(parts.ok && Object.values(parts.design.parts).map((p) => p.name)).toEqual(['Plate', 'Part 2', 'Part 3']);
    const drawn = both(line('p', 'i', 5), line('p', 'j', 9)).two;
    const sketch = drawn.ok && (drawn.design.parts.p!.steps.s as SketchStep);
    expect(sketch && Object.keys(sketch.curves)).toEqual(['l', 'm', 'n', 'o', 'i', 'j']);
    expect(sketch && [sketch.constraints.ic, sketch.constraints.jc]).toMatchObject([{ name: 'width_2' }, { name: 'width_3' }]); // prettier-ignore
  });

  test('both succeed who change two numbers of one sketch, and the sketch is solved with both', () => {
    const { two } = both(setDimension('s.x', '50 mm'), setDimension('s.y', '12 mm'));
    const { points } = (two.ok ? two.design : base).parts.p!.steps.s as SketchStep;
    expect(points.c!.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([50, 12]);
  });

  test.each<[string, Edit, Edit, RegExp]>([
    ['set one number otherwise', setDimension('t', '8 mm'), setDimension('t', '9 mm'), /^Ana made “Set thk to 8 mm” meanwhile, which decides the same/], // prettier-ignore
    ['use a number that the other deleted', deleteDimension('u'), setDimension('s.x', 'gap * 3'), /^Ana made “Delete gap” meanwhile; now this cannot be made: .*no longer exists/], // prettier-ignore
    ['use by id a number that the other deleted', deleteDimension('u'), addStep('p', 'z', { ...block, name: 'More', distance: '$u' }), /^Ana made “Delete gap” meanwhile/], // prettier-ignore
    ['delete a number that the other used', setDimension('s.x', 'gap * 3'), deleteDimension('u'), /gap is used by/], // prettier-ignore
    ['go in a circle together', setDimension('t', 'gap * 2'), setDimension('u', 'thk / 2'), /^Ana made “Set thk to gap \* 2” meanwhile/], // prettier-ignore
    ['change what the other deleted', deleteStep('p', 'e'), setSlot('p', 'e', 'way', 'symmetric'), /^Ana made “Delete a step” meanwhile; now this cannot be made: This step no longer exists/], // prettier-ignore
    ['delete what the other changed', setSlot('p', 'e', 'way', 'symmetric'), deleteStep('p', 'e'), /^Ana made “Change a step” meanwhile/], // prettier-ignore
    ['rest on what the other deleted', deleteStep('p', 'e'), addStep('p', 'm', { kind: 'mirror', name: 'Mirror', what: 'steps', steps: ['e'], plane: { datum: 'side' } } as unknown as Step), /^Ana made “Delete a step” meanwhile; with it this cannot stand: Mirror would miss/], // prettier-ignore
    ['delete what the other rests on', addStep('p', 'm', { kind: 'mirror', name: 'Mirror', what: 'steps', steps: ['e'], plane: { datum: 'side' } } as unknown as Step), deleteStep('p', 'e'), /^Ana made “Add Mirror” meanwhile; with it this cannot stand: Mirror would miss/], // prettier-ignore
    [
      'give one name to two numbers',
      renameDimension('t', 'wall'),
      renameDimension('u', 'wall'),
      /“wall” is taken here/,
    ],
  ])('are told when they %s', (_, first, second, message) => {
    const { two } = both(first, second);
    expect(two.ok ? 'taken' : two.message).toMatch(message);
  });

  test('who decide the same thing alike do not clash', () => {
    expect(both(setMaterial('p', 'steel'), setMaterial('p', 'steel')).two.ok).toBe(true);
  });
});

describe('taking back', () => {
  const undo = (design: Design, earlier: Earlier, since: readonly Earlier[]) => take(design, { kind: 'undo', earlier }, since); // prettier-ignore

  test('one’s own edit leaves what others did since', () => {
    const { two, earlier } = both(setDimension('s.x', '50 mm'), setDimension('s.y', '12 mm'));
    if (!two.ok) throw new Error(two.message);
    const back = undo(two.design, earlier, [earlierOf(two, 'Ben')]);
    const { points, constraints } = (back.ok ? back.design : base).parts.p!.steps.s as SketchStep;
    expect(constraints).toMatchObject({ x: { value: '30 mm' }, y: { value: '12 mm' } });
    expect(points.c!.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([30, 12]);
  });

  test('a number is not taken back from under those who use it', () => {
    const made = take(base, asked(addDimension('n', { name: 'rim', value: '3 mm' })), []);
    if (!made.ok) throw new Error(made.message);
    const used = take(
      made.design,
      { kind: 'edit', command: 'set-dimension', args: { ref: 's.x', text: 'rim * 9' } },
      [],
    );
    if (!used.ok) throw new Error(used.message);
    const last = take(used.design, asked(renameDesign('Z')), []);
    if (!last.ok) throw new Error(last.message);
    const back = undo(last.design, earlierOf(made, 'You'), [earlierOf(used, 'Ben'), earlierOf(last, 'Ana')]);
    expect(back.ok ? '' : back.message).toMatch(
      /^Ben made “Set width to rim \* 9” meanwhile; with it this cannot stand: /,
    );
  });

  test('is refused in words where somebody built on it', () => {
    const { one, earlier } = both(addStep('p', 'h', { ...block, name: 'Boss' }), renameDesign('X'));
    const next = take(one.design, asked(renameDesign('Y')), []);
    if (!next.ok) throw new Error(next.message);
    const built = take(next.design, { kind: 'edit', command: 'set-slot', args: { part: 'p', step: 'h', slot: 'way', value: 'symmetric' } }, []); // prettier-ignore
    if (!built.ok) throw new Error(built.message);
    const since = [next, built].map((t, i) => earlierOf(t, ['You', 'Ben'][i]!));
    const back = undo(built.design, earlier, since);
    expect(back.ok ? '' : back.message).toBe('“Add Boss” cannot be taken back any more: Ben built on it with “Change a step”.'); // prettier-ignore
  });
});

test.each([
  [
    ['a', 'b', 'c'],
    ['a', 'b', 'c'],
    ['c', 'a', 'b'],
    ['c', 'a', 'b'],
  ],
  [
    ['a', 'x', 'b', 'c'],
    ['a', 'b', 'c'],
    ['c', 'a', 'b'],
    ['c', 'a', 'x', 'b'],
  ],
  [
    ['a', 'x', 'b'],
    ['a', 'b'],
    ['a', 'n', 'b'],
    ['a', 'n', 'x', 'b'],
  ],
  [
    ['x', 'b'],
    ['a', 'b'],
    ['a', 'n', 'b'],
    ['n', 'x', 'b'],
  ],
  [['a', 'b', 'x'], ['a', 'b'], ['b'], ['b', 'x']],
])('the order %j, of which %j became %j, is %j', (now, was, is, merged) => {
  expect(mergedOrder(now, was, is)).toEqual(merged);
});

/** Edits that two people might make on the same state, drawn at random. */
const anyEdit = (who: string): fc.Arbitrary<Edit> => {
  const number = fc.constantFrom('t', 'u', 's.x', 's.y', 'e.distance');
  const value = fc.constantFrom('4 mm', '9 mm', 'thk', 'gap * 2', 'thk + gap', 'width / 3');
  const step = fc.constantFrom('s', 'e');
  return fc.oneof(
    fc.tuple(number, value).map(([ref, text]) => setDimension(ref, text)),
    fc.constantFrom('t', 'u').map((ref) => deleteDimension(ref)),
    fc
      .tuple(fc.constantFrom('t', 'u'), fc.constantFrom('wall', 'rim'))
      .map(([ref, name]) => renameDimension(ref, name)),
    value.map((v) => addDimension(`${who}d`, { name: `${who}_new`, value: v })),
    step.map((s) => deleteStep('p', s)),
    fc.constant(addStep('p', `${who}s`, { ...block, name: `Extrude of ${who}` })),
    step.map((s) => copyStep('p', s, `${who}c`, `Copy of ${who}`)),
    step.map((s) => suppressStep('p', s, true)),
    fc.tuple(step, fc.constantFrom('One', 'Other')).map(([s, name]) => renameStep('p', s, name)),
    fc.constantFrom('symmetric', 'both_ways').map((way) => setSlot('p', 'e', 'way', way)),
    fc.constant(moveStep('p', 'e', null)),
    fc.constant(groupSteps('p', ['s', 'e'], `Group of ${who}`)),
    fc.constantFrom('steel', 'brass').map((m) => setMaterial('p', m)),
    fc.constant(setAppearance('p', { opacity: 0.5 })),
    fc.constant(deletePart('p')),
    fc.constant(addPart(`${who}p`, `Part of ${who}`)),
    fc.constantFrom('A', 'B').map((name) => renamePart('p', name)),
    fc.constantFrom('A', 'B').map((name) => renameDesign(name)),
    fc.constant(makeDial('s.x', `${who}m`, `${who}_wide`)),
    fc.constant(linkNumbers(['s.x', 's.y'], 's.x')),
    fc.constant(moveDimensions(['u'], 't')),
    fc.constantFrom('note', 'other').map((note) => describeDimensions(['t'], { note })),
    fc.constant(addMeasured(`${who}r`, `${who}_read`, { part: 'p', what: 'volume' }, '3 mm^3')),
    fc.constant(keepReadings(new Map([['t', '3 mm']]))),
    fc.constant(addRequirement(`${who}q`, 'thk >= 1 mm')),
    fc.constant(addVariant(`${who}v`, `Variant of ${who}`)),
    fc.constant(deleteVariant('v1')),
    fc.constant(line('p', `${who}l`, who === 'a' ? 5 : 9)),
    fc.constant(editSketch('p', 's', 'Drag', (s) => void (s.points.c = [31, 22]))),
    fc.constant(editSketch('p', 's', 'Loosen', (s) => void delete s.constraints.y)),
    fc.constant(severalEdits('Two', [setDimension('t', '5 mm'), renamePart('p', `Plate of ${who}`)])),
  );
};

/** Order, names given apart, and where loose points lie may follow who was first; all else may not. */
const order = new Set(['dimensionOrder', 'partOrder', 'stepOrder', 'order']);
const sorted = (value: unknown, key = ''): unknown => {
  if (Array.isArray(value)) return order.has(key) ? [...value].sort() : value.map((v) => sorted(v));
  if (typeof value === 'number') return Math.round(value * 1e5) / 1e5;
  if (key === 'points' && value !== null) return Object.keys(value as object).sort();
  if (typeof value !== 'object' || value === null) return /^width_\d$/.test(String(value)) ? 'width_n' : value;
  return Object.fromEntries(
    Object.entries(value)
      .sort()
      .map(([k, v]) => [k, sorted(v, k)]),
  );
};

test('any two commands made on one state lead to the same sound design in either order, or are refused in both', () => {
  let met = 0;
  fc.assert(
    fc.property(anyEdit('a'), anyEdit('b'), (one, other) => {
      const outcomes = [[one, other], [other, one]].map(([x, y]) => {
        const first = take(base, asked(x!), []);
        // What changes nothing is not kept.
        if (!first.ok || first.touches.length === 0) return null;
        const second = take(first.design, asked(y!), [earlierOf(first, 'Ana', asked(x!))]);
        if (!second.ok) return 'refused';
        const { design } = second;
        expect(Design.safeParse(design).error).toBeUndefined();
        expect(checkConsistency(design)).toEqual([]);
        const ledger = Ledger.of(design);
        for (const entry of ledger.entries)
          if (Ledger.of(base).index.byReference(entry.ref)) expect(ledger.valueOfEntry(entry)).toMatchObject({ ok: true }); // prettier-ignore
        return design;
      }); // prettier-ignore
      if (outcomes.includes(null)) return;
      met++;
      const [a, b] = outcomes as [Design | 'refused', Design | 'refused'];
      expect(sorted(a)).toEqual(sorted(b));
    }),
    { numRuns: Number(process.env.HELB_PAIRS ?? 600) },
  );
  expect(met).toBeGreaterThan(100);
});
