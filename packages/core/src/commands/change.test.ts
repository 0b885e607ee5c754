import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension, addPart, applyChange, Change, applyEdit, deletePart, emptyDesign, readDesign, renameDesign, renamePart, setDimension, setMaterial, undoState, writeDesign,
  type Design, type Edit, type LoggedChange,
} from '../index.ts'; // prettier-ignore

const start = (): Design => {
  const base = emptyDesign('Start');
  return [addPart('p1', 'One'), addPart('p2', 'Two'), addDimension('a', { name: 'a', value: '5 mm' })].reduce(
    (d, e) => {
      const o = applyEdit(d, e);
      if (!o.ok) throw new Error(o.message);
      return o.design;
    },
    base,
  );
};

/** Any of the edits a person might make, drawn at random. */
const anyEdit = fc.oneof(
  fc.integer({ min: 1, max: 500 }).map((n): Edit => setDimension('a', `${n} mm`)),
  fc
    .constantFrom('p1', 'p2')
    .chain((p) => fc.string({ minLength: 1, maxLength: 10 }).map((name): Edit => renamePart(p, name))),
  fc.constantFrom('steel', 'brass', null).map((m): Edit => setMaterial('p1', m)),
  fc.string({ minLength: 1, maxLength: 12 }).map((name): Edit => renameDesign(name)),
  fc.constant(null).map((): Edit => deletePart('p2')),
);

describe('changes', () => {
  test('undoing every edit in turn gives back the first document exactly, and redoing the last', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
        let design = start();
        const first = design;
        const done: { patches: never[]; inverse: never[]; after: Design }[] = [];
        for (const edit of edits) {
          const outcome = applyEdit(design, edit);
          if (!outcome.ok) continue;
          design = outcome.design;
          done.push({ patches: outcome.patches as never[], inverse: outcome.inverse as never[], after: design });
        }
        const last = design;
        for (const { inverse } of [...done].reverse()) {
          const outcome = applyChange(design, inverse);
          if (!outcome.ok) throw new Error(outcome.message);
          design = outcome.design;
        }
        expect(design).toEqual(first);
        for (const { patches, after } of done) {
          const outcome = applyChange(design, patches);
          if (!outcome.ok) throw new Error(outcome.message);
          design = outcome.design;
          expect(design).toEqual(after);
        }
        expect(design).toEqual(last);
      }),
    );
  });

  test('a refused edit leaves the document untouched', () => {
    const design = start();
    const before = JSON.stringify(design);
    const outcome = applyEdit(design, setDimension('a', 'a + 1 mm'));
    expect(outcome.ok).toBe(false);
    expect(JSON.stringify(design)).toBe(before);
  });

  test.each([
    ['an unknown field', [{ op: 'add', path: ['colour'], value: 'red' }], /unsound/],
    ['a wrong type', [{ op: 'replace', path: ['name'], value: 7 }], /unsound: name/],
    ['a part missing from the order', [{ op: 'remove', path: ['partOrder', 0] }], /partOrder does not list “p1”/],
    ['a place that is not there', [{ op: 'replace', path: ['parts', 'p9', 'name'], value: 'x' }], /no longer there/],
    ['the prototype', [{ op: 'add', path: ['__proto__', 'x'], value: 1 }], /no longer there|unsound/],
  ])('patches with %s are refused in words', (_, patches, message) => {
    const outcome = applyChange(start(), patches as never[]);
    expect(outcome.ok).toBe(false);
    if (!outcome.ok) expect(outcome.message).toMatch(message);
    expect(({} as { x?: number }).x).toBeUndefined();
  });

  test('undo and redo follow from the log alone', () => {
    const log: LoggedChange[] = [];
    const add = (id: string, kind: LoggedChange['kind'], of?: string) =>
      log.push({ id, kind, label: id, ...(of ? { of } : {}) });
    add('e1', 'edit');
    add('e2', 'edit');
    add('u2', 'undo', 'e2');
    expect(undoState(log)).toEqual({ undo: ['e1'], redo: ['e2'] });
    add('r2', 'redo', 'e2');
    expect(undoState(log)).toEqual({ undo: ['e1', 'e2'], redo: [] });
    add('u2b', 'undo', 'e2');
    add('e3', 'edit');
    expect(undoState(log)).toEqual({ undo: ['e1', 'e3'], redo: [] });
  });
});

describe('design files', () => {
  test('what is written reads back the same', () => {
    const design = start();
    const read = readDesign(writeDesign(design));
    expect(read.ok && read.design).toEqual(design);
  });

  test.each([
    [
      'cut short',
      writeDesign(emptyDesign('X')).slice(0, 60),
      'This is not a design file: it is not JSON, or it was cut short.',
    ],
    ['something else', '{"hello": 1}', 'This is not a design file: its “format” is not “helb-design”.'],
    [
      'from a newer program',
      JSON.stringify({ ...emptyDesign('X'), version: 99 }),
      'This file was written by a newer Helb (format version 99); update to open it.',
    ],
    [
      'without units',
      JSON.stringify({ ...emptyDesign('X'), units: undefined }),
      'This design file does not follow the format: units: Invalid input: expected object, received undefined.',
    ],
    [
      'with an order that names nothing',
      JSON.stringify({ ...emptyDesign('X'), partOrder: ['p'] }),
      'This design file contradicts itself: partOrder lists “p”, which does not exist.',
    ],
    ['too large', 'x'.repeat(17 * 1024 * 1024), 'This file is larger than 16 MB, the most a design file can be.'],
  ])('a file %s is refused in a sentence', (_, text, message) => {
    expect(readDesign(text)).toEqual({ ok: false, message });
  });
});

describe('patches from a hostile client', () => {
  const nested = (depth: number): unknown => {
    let value: unknown = 1;
    for (let i = 0; i < depth; i++) value = [value];
    return value;
  };

  test.each([
    ['set the length of a list', [{ op: 'replace', path: ['partOrder', 'length'], value: 4e9 }]],
    ['set a length that is no number', [{ op: 'replace', path: ['partOrder', 'length'], value: 'x' }]],
    ['name a place far beyond a list', [{ op: 'add', path: ['partOrder', 4e9], value: 'p1' }]],
    ['name such a place as a word', [{ op: 'replace', path: ['partOrder', '999999999'], value: 'p1' }]],
    ['name a fraction of a place', [{ op: 'replace', path: ['partOrder', '0.5'], value: 'p1' }]],
    ['replace the whole', [{ op: 'replace', path: [], value: 1 }]],
    ['reach the prototype', [{ op: 'add', path: ['parts', '__proto__', 'x'], value: 1 }]],
    ['replace the prototype', [{ op: 'add', path: ['parts', '__proto__'], value: {} }]],
    ['make one place by another', [{ op: 'add', path: ['partOrder', 2], value: 'p3' }, { op: 'add', path: ['partOrder', 9], value: 'p4' }]], // prettier-ignore
  ])('that %s are refused at once', (_, patches) => {
    const design = start();
    const outcome = applyChange(design, patches as never[]);
    expect(outcome.ok).toBe(false);
    expect(design.partOrder).toEqual(['p1', 'p2']);
    expect(({} as { x?: number }).x).toBeUndefined();
  });

  test('that shorten a list, or add at its end, are taken when the outcome is sound', () => {
    const outcome = applyChange(start(), [
      { op: 'remove', path: ['parts', 'p2'] },
      { op: 'replace', path: ['partOrder', 'length'], value: 1 },
    ]);
    expect(outcome.ok && outcome.design.partOrder).toEqual(['p1']);
  });

  test.each([
    ['nests without end', nested(100_000)],
    ['holds too much', Array.from({ length: 1_000_001 }, () => 0)],
  ])('are not read when a value %s', (_, value) => {
    const change = { id: 'a-change-1', kind: 'edit', command: 'x', label: 'x' };
    const patched = (v: unknown) => Change.safeParse({ ...change, patches: [{ op: 'add', path: ['x'], value: v }] });
    expect(patched(nested(20)).success).toBe(true);
    expect(patched(value).success).toBe(false);
  });

  test('with more entries than a design may have are unsound', () => {
    const many = Object.fromEntries(Array.from({ length: 501 }, (_, i) => [`q${i}`, emptyDesign('x')]));
    const outcome = applyChange(start(), [{ op: 'replace', path: ['parts'], value: many }] as never[]);
    expect(outcome.ok).toBe(false);
  });
});
