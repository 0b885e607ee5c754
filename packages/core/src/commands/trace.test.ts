import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension,
  addPart,
  addStep,
  applyEdit,
  emptyDesign,
  influences,
  Ledger,
  linkNumbers,
  moveDimensions,
  numbersTypedTwice,
  renameDimension,
  setDimension,
  setDimensions,
  traceOf,
  unusedDimensions,
} from '../index.ts';
import { edited, refusalOf } from './edited.ts';

const dim = (id: string, value: string) => addDimension(id, { name: id, value });

/** thk → margin → pitch, thk → bore; lone stands alone; the block is as thick as the margin. */
const chain = edited(
  emptyDesign('Chain'),
  dim('thk', '6 mm'),
  dim('margin', '2 * thk'),
  dim('pitch', 'margin + thk'),
  dim('bore', 'thk / 2'),
  dim('lone', '47.3 mm'),
  addPart('p', 'Block'),
  addStep('p', 's', {
    kind: 'sketch',
    name: 'Outline',
    plane: { datum: 'floor' },
    points: {},
    curves: {},
    constraints: {},
  }),
  addStep('p', 'e', {
    kind: 'extrude',
    name: 'Block',
    profile: { sketch: 's', regions: 'all' },
    way: 'one_way',
    distance: '$margin',
    result: 'new_body',
  }),
);

describe('a trace', () => {
  test('lists what a number hangs on and what hangs on it, nearest first, with the links between', () => {
    const { above, below, steps } = traceOf(Ledger.of(chain), 'margin');
    expect(above).toEqual([{ ref: 'thk', away: 1, through: ['margin'] }]);
    expect(below.map((l) => [l.ref, l.away])).toEqual([
      ['pitch', 1],
      ['e.distance', 1],
    ]);
    expect(steps).toEqual([{ part: 'p', step: 'e' }]);
  });

  test('names every way a number is reached', () => {
    const { below } = traceOf(Ledger.of(chain), 'thk');
    expect(below.find((l) => l.ref === 'pitch')).toEqual({ ref: 'pitch', away: 1, through: ['thk', 'margin'] });
    expect(below).toHaveLength(4);
  });

  test('counts all that hangs on a number, once each', () => {
    const counts = influences(Ledger.of(chain));
    expect([counts.get('thk'), counts.get('margin'), counts.get('lone')]).toEqual([4, 2, 0]);
  });

  test('finds what nothing uses', () => {
    expect(unusedDimensions(Ledger.of(chain)).map((e) => e.ref)).toEqual(['pitch', 'bore', 'lone']);
  });
});

describe('a number typed twice', () => {
  const twice = edited(chain, dim('gap', '47.3 mm'), dim('inches', '1.8622047244094488 in'), dim('angle', '47.3 deg'));

  test('is found in whatever unit it was typed, with the one worth keeping', () => {
    expect(numbersTypedTwice(Ledger.of(twice))).toEqual([{ keep: 'lone', refs: ['lone', 'gap', 'inches'] }]);
  });

  test('becomes one by linking, and then follows', () => {
    const linked = edited(twice, linkNumbers(['lone', 'gap'], 'lone'), setDimension('lone', '50'));
    expect(linked.dimensions.gap!.value).toBe('$lone');
    expect(Ledger.of(linked).number('gap')).toBe(50);
  });

  test('is not linked where that would go in a circle', () => {
    expect(refusalOf(chain, linkNumbers(['thk'], 'margin'))).toMatch(/thk cannot follow margin: .*goes in a circle/);
  });

  test('says nothing of equal dials, nor of numbers as common as 1 and 2', () => {
    const dials = edited(
      emptyDesign('Dials'),
      addDimension('a', { name: 'a', value: '20 mm', dial: {} }),
      addDimension('b', { name: 'b', value: '20 mm', dial: {} }),
      dim('c', '1 mm'),
      dim('d', '1 mm'),
    );
    expect(numbersTypedTwice(Ledger.of(dials))).toEqual([]);
  });
});

describe('edits of many numbers', () => {
  test('are made all or none', () => {
    const typed = [
      ['lone', '50'],
      ['bore', 'thk +'],
    ] as const;
    expect(refusalOf(chain, setDimensions(typed))).not.toBe('made');
    const both = edited(chain, setDimensions([['lone', '50'], ['thk', '8']])); // prettier-ignore
    expect([Ledger.of(both).number('lone'), Ledger.of(both).number('pitch')]).toEqual([50, 24]);
  });

  test('move before another of the same owner', () => {
    const moved = edited(chain, moveDimensions(['lone', 'bore'], 'thk'));
    expect(moved.dimensionOrder).toEqual(['bore', 'lone', 'thk', 'margin', 'pitch']);
  });
});

describe('a dial', () => {
  const dial = edited(
    emptyDesign('Dial'),
    addDimension('lift', { name: 'lift', value: '30 deg', dial: { min: '10 deg', max: '60 deg', step: '5 deg' } }),
  );
  test('keeps within its range, at both ends, in any unit', () => {
    expect(refusalOf(dial, setDimension('lift', '60'))).toBe('made');
    expect(refusalOf(dial, setDimension('lift', '61'))).toMatch(/61° is above 60°, the most allowed for lift/);
    expect(refusalOf(dial, setDimension('lift', '0.1 rad'))).toMatch(/is below 10°, the least allowed for lift/);
  });
});

/** Random ledgers: each number may use those before it. */
const edits = fc.array(
  fc.oneof(
    fc.record({ kind: fc.constant('set' as const), at: fc.nat(19), use: fc.nat(19), n: fc.integer({ min: -50, max: 50 }), as: fc.nat(5) }),
    fc.record({ kind: fc.constant('rename' as const), at: fc.nat(19), n: fc.integer({ min: 0, max: 99 }) }),
  ),
  { maxLength: 25 },
); // prettier-ignore

/** Sums, quotients and products change the unit of what hangs on them, or leave it without a value. */
const written = ({ use, n, as }: { use: number; n: number; as: number }) =>
  [
    `$q${use} + ${n} mm`,
    `$q${use} / ${n}`,
    `$q${use} * $q${(use * 7 + 3) % 20}`,
    `max($q${use}, ${n} mm)`,
    `${n} deg`,
    `${n}`,
  ][as]!;

describe('a ledger brought up to date', () => {
  const start = edited(emptyDesign('Many'), ...Array.from({ length: 20 }, (_, i) => dim(`q${i}`, `${i + 3} mm`)));

  test('holds what one computed from nothing holds, whatever was edited', () => {
    fc.assert(
      fc.property(edits, (list) => {
        let now = start;
        for (const e of list) {
          const ref = `q${e.at}`;
          const edit = e.kind === 'rename' ? renameDimension(ref, `n${e.n}_x`) : setDimension(ref, written(e));
          const outcome = applyEdit(now, edit);
          if (outcome.ok) now = outcome.design;
          const [grown, fresh] = [Ledger.of(now), Ledger.fresh(now)];
          expect(grown.entries.map((x) => [x.name, grown.shown(x), grown.format(grown.valueOfEntry(x))])).toEqual(
            fresh.entries.map((x) => [x.name, fresh.shown(x), fresh.format(fresh.valueOfEntry(x))]),
          );
          for (const x of fresh.entries) expect(grown.usersOf(x.ref).sort()).toEqual(fresh.usersOf(x.ref).sort());
        }
      }),
      { numRuns: 150 },
    );
  });

  test('gives every number its value after those it uses: users come later in any order of the links', () => {
    fc.assert(
      fc.property(edits, (list) => {
        const made = list
          .filter((e) => e.kind === 'set')
          .map((e) => setDimension(`q${e.at}`, `$q${e.use} + ${e.n} mm`));
        const now = made.reduce((d, e) => {
          const outcome = applyEdit(d, e);
          return outcome.ok ? outcome.design : d;
        }, start); // prettier-ignore
        const ledger = Ledger.of(now);
        const counts = influences(ledger);
        for (const entry of ledger.entries) {
          expect(ledger.valueOfEntry(entry).ok).toBe(true);
          // No circle was let in, so nothing hangs on itself.
          expect(traceOf(ledger, entry.ref).below.map((l) => l.ref)).not.toContain(entry.ref);
          expect(counts.get(entry.ref)).toBe(traceOf(ledger, entry.ref).below.length);
          for (const user of ledger.usersOf(entry.ref))
            expect(traceOf(ledger, user).above.map((l) => l.ref)).toContain(entry.ref);
        }
      }),
      { numRuns: 40 },
    );
  });
});
