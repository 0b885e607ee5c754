/** Parts and assemblies of other designs: they come whole, are locked, are renewed, and joints on them hold. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addDimension, addJoint, addPart, addStep, applyEdit, assembled, checkConsistency, compareDesigns, deletePart, describeDimensions, emptyDesign, followGuest, guestBundle, Ledger, lookOfOutcome,
  loosenGuests, PartEvaluator, placeInstances, readDesign, removeInstances, renamePart, setDimension, setSlot, takeGuests, writeDesign,
  type Design, type Edit, type GuestWanted, type Instance, type PartLook, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, faceLooking, outline, rectangle, round } from './sample-parts.ts';

const evaluator = new PartEvaluator(await loadKernel());
const at = (x: number, y: number, z: number): Instance['home'] => ({ at: [x, y, z], turn: [0, 0, 0, 1] });

/** A block whose height is a number of its design, a lid drawn on it, and both put together. */
const source = edited(
  emptyDesign('Box'),
  addDimension('half', { name: 'half_high', value: '15 mm' }),
  addDimension('high', { name: 'box_high', value: '2 * $half' }),
  addPart('block', 'Block'),
  addStep('block', 'b', outline(rectangle(0, 0, 40, 30))),
  addStep('block', 'be', extruded('b', '$high')),
  addPart('lid', 'Lid'),
  addStep('lid', 'lb', { kind: 'borrow', name: 'Borrow block', from: { part: 'block' } } as unknown as Step),
  addStep('lid', 'l', outline(rectangle(0, 0, 40, 30))),
  addStep('lid', 'le', extruded('l', '$be.distance / 10')),
  addAssembly('box', 'Box put together'),
  placeInstances('box', [['x', { of: { part: 'block' }, home: at(0, 0, 0), fixed: true }], ['y', { of: { part: 'lid' }, home: at(0, 0, 40) }]]),
); // prettier-ignore

/** A host that has ids of its own which are taken there too. */
const host = edited(
  emptyDesign('Shelf'),
  addDimension('high', { name: 'box_high', value: '99 mm' }),
  addPart('board', 'Board'),
  addStep('board', 'b', outline(rectangle(0, 0, 200, 60))),
  addStep('board', 'boe', extruded('b', '8 mm')),
);
const wanted = (more: Partial<GuestWanted> = {}): GuestWanted => ({ design: 'd1', revision: 4, follows: 'newest', parts: ['lid'], assemblies: [], ...more }); // prettier-ignore
const taken = (design: Design, from: Design, want = wanted()): Edit =>
  takeGuests('g', guestBundle(design, from, want, 'g'));
const refusal = (design: Design, edit: Edit) => {
  const outcome = applyEdit(design, edit);
  return outcome.ok ? null : outcome.message;
};
async function volumeOf(design: Design, part: string): Promise<number> {
  const outcome = await evaluator.evaluate(design, Ledger.of(design), part);
  expect(outcome.steps.map((s) => s.message ?? s.status)).not.toContain('failed');
  return outcome.bodies.reduce((sum, b) => sum + b.facts.volume, 0);
}
const named = (design: Design, name: string) => design.partOrder.find((id) => design.parts[id]!.name === name)!;

describe('parts of another design', () => {
  const with_ = edited(host, taken(host, source));

  test('come with what they borrow from, their numbers as they stand there, beside the same ids here', async () => {
    expect(checkConsistency(with_)).toEqual([]);
    expect(with_.partOrder.map((id) => with_.parts[id]!.name).sort()).toEqual(['Block', 'Board', 'Lid']);
    expect(readDesign(writeDesign(with_))).toMatchObject({ ok: true });
    expect(await volumeOf(with_, named(with_, 'Block'))).toBeCloseTo(40 * 30 * 30, 6);
    expect(await volumeOf(with_, 'lid')).toBeCloseTo(40 * 30 * 3, 6);
    const ledger = Ledger.of(with_);
    const block = ledger.entries.find((e) => e.path.join('.') === 'block.box_high')!;
    expect(ledger.format(ledger.valueOfEntry(block))).toBe('30 mm');
    // The host’s own number of that name is another.
    expect(ledger.format(ledger.valueOf('high'))).toBe('99 mm');
  });

  test('are changed there, not here, until they are cut loose', () => {
    const lid = /^Lid is of the design Box; change it there, or cut it loose here\.$/;
    expect(refusal(with_, setDimension('le.distance', '5 mm'))).toMatch(lid);
    expect(refusal(with_, renamePart('lid', 'Cover'))).toMatch(lid);
    expect(refusal(with_, setSlot('lid', 'le', 'way', 'both_ways'))).toMatch(lid);
    expect(refusal(with_, addStep('lid', 'more', outline(rectangle(0, 0, 1, 1))))).toMatch(lid);
    const loose = edited(with_, loosenGuests('g'));
    expect(loose.guests).toEqual({});
    expect(refusal(loose, setDimension('le.distance', '5 mm'))).toBeNull();
    expect(edited(with_, followGuest('g', 'fixed')).guests!.g!.follows).toBe('fixed');
  });

  test('are renewed under the same ids: what changed is told, and joints on them hold', async () => {
    const placed = edited(
      with_,
      addAssembly('a', 'Shelf with lid'),
      placeInstances('a', [['i1', { of: { part: 'board' }, home: at(0, 0, 0), fixed: true }], ['i2', { of: { part: 'lid' }, home: at(5, 5, 20) }]]),
    ); // prettier-ignore
    const looks = async (design: Design) => {
      const found = new Map<string, PartLook>();
      for (const id of design.partOrder) found.set(id, lookOfOutcome(await evaluator.evaluate(design, Ledger.of(design), id))); // prettier-ignore
      return (part: string) => found.get(part) ?? null;
    };
    const bodyOf = async (part: string) => (await evaluator.evaluate(placed, Ledger.of(placed), part)).bodies.at(-1)!;
    const joined = edited(
      placed,
      addJoint('a', 'j', {
        kind: 'rigid',
        name: 'Lid on board',
        a: { instance: ['i1'], on: { face: faceLooking(await bodyOf('board'), [0, 0, 1]) } },
        b: { instance: ['i2'], on: { face: faceLooking(await bodyOf('lid'), [0, 0, 1]) } },
        flip: true,
        numbers: {},
      }),
    );
    const changed = edited(source, setDimension('half', '25 mm'), addStep('lid', 'knob', round(4)));
    const renewed = edited(joined, taken(joined, changed, wanted({ revision: 9 })));
    expect(renewed.guests!.g).toMatchObject({ revision: 9, name: 'Box' });
    expect(compareDesigns(joined, renewed).numbers.map((n) => [n.name, n.before, n.after])).toContainEqual([
      'block.box_high', '30 mm', '50 mm',
    ]); // prettier-ignore
    const it = assembled(renewed, Ledger.of(renewed), 'a', await looks(renewed));
    expect(it.joints[0]).toMatchObject({ fault: null, misses: null });
    // Taken again without a change: nothing differs but the revision.
    const again = edited(renewed, taken(renewed, changed, wanted({ revision: 10 })));
    expect(again.parts).toEqual(renewed.parts);
  });

  test('what is gone there stays while it stands here, and says so; deleted here it is not asked for again', () => {
    const both = edited(host, taken(host, source, wanted({ parts: ['lid', 'block'] })));
    const placed = edited(both, addAssembly('a', 'A'), placeInstances('a', [['i', { of: { part: 'lid' }, home: at(0, 0, 0) }]])); // prettier-ignore
    const without = edited(source, removeInstances('box', ['y']), deletePart('lid'));
    const want = wanted({ parts: ['lid', 'block'], revision: 7 });
    expect(refusal(placed, taken(placed, without, want))).toMatch(/^Lid is no longer in Box, and stands in A; remove it there, or cut Box loose\.$/); // prettier-ignore
    const dropped = edited(both, taken(both, without, want));
    expect(dropped.parts.lid).toBeUndefined();
    const fewer = edited(both, deletePart('lid'));
    expect(fewer.guests!.g!.parts).toEqual(['block']);
    expect(edited(fewer, deletePart(named(fewer, 'Block'))).guests).toEqual({});
  });
});

test('an assembly of another design comes with its parts and stands as one', async () => {
  const linked = edited(
    source,
    addJoint('box', 'jj', {
      kind: 'rigid',
      name: 'Lid on block',
      a: { instance: ['x'], on: { origin: true } },
      b: { instance: ['y'], on: { origin: true } },
      flip: true,
      numbers: { offset: '$high + 1 mm' },
    }),
    describeDimensions(['high'], { note: 'kept' }),
  );
  const want = wanted({ parts: [], assemblies: ['box'] });
  const design = edited(
    host,
    taken(host, linked, want),
    addAssembly('a', 'All'),
    placeInstances('a', [['i', { of: { assembly: 'box' }, home: at(100, 0, 0), fixed: true }]]),
  );
  expect(checkConsistency(design)).toEqual([]);
  const outcomes = new Map<string, PartLook>();
  for (const id of design.partOrder) outcomes.set(id, lookOfOutcome(await evaluator.evaluate(design, Ledger.of(design), id))); // prettier-ignore
  const it = assembled(design, Ledger.of(design), 'a', (part) => outcomes.get(part) ?? null);
  expect(it.faults).toEqual([]);
  const lid = it.members.find((m) => m.key === 'i/y')!;
  expect(lid.within.at[2]).toBeCloseTo(31, 9);
  expect(refusal(design, renamePart(named(design, 'Block'), 'B'))).toMatch(/is of the design Box/);
});
