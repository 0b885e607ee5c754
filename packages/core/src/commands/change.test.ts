import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addDimension, addPart, addVariant, addVariantColumn, Change, applyEdit, deletePart, deleteVariant, emptyDesign, faultOfTouched, inverted, keepSection, readDesign, renameDesign, renamePart, setDimension, setMaterial, take, undoState, withTouches, writeDesign,
  type Design, type Edit, type LoggedChange, type Touch,
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
  fc.constantFrom('v1', 'v2').map((v): Edit => addVariant(v, `Variant ${v}`)),
  fc.constantFrom('v1', 'v2').map((v): Edit => deleteVariant(v)),
  fc.constant(null).map((): Edit => addVariantColumn('dimension:a')),
  fc
    .constant(null)
    .map((): Edit => keepSection('p1', 'x1', { name: 'Middle', planes: [{ normal: [1, 0, 0], at: 3 }] })),
);

describe('changes', () => {
  test('undoing every edit in turn gives back the first document exactly, and redoing the last', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
        let design = start();
        const first = design;
        const done: { touches: readonly Touch[]; after: Design }[] = [];
        for (const edit of edits) {
          const outcome = applyEdit(design, edit);
          if (!outcome.ok) continue;
          expect(faultOfTouched(outcome.design, outcome.touches)).toBeNull();
          design = outcome.design;
          done.push({ touches: outcome.touches, after: design });
        }
        const last = design;
        for (const { touches } of [...done].reverse()) design = withTouches(design, inverted(touches), true);
        expect(design).toEqual(first);
        for (const { touches, after } of done) {
          design = withTouches(design, touches, true);
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

describe('what a hostile client sends', () => {
  const nested = (depth: number): unknown => {
    let value: unknown = 1;
    for (let i = 0; i < depth; i++) value = [value];
    return value;
  };
  const keyed = (key: string): unknown => JSON.parse(`{"deep": {"${key}": 1}}`);

  test.each([
    ['nests without end', nested(100_000)],
    ['holds too much', Array.from({ length: 1_000_001 }, () => 0)],
    ['reaches the prototype', keyed('__proto__')],
    ['names a constructor', keyed('constructor')],
  ])('is not read when it %s', (_, args) => {
    const sent = (value: unknown) =>
      Change.safeParse({ id: 'a-change-1', kind: 'edit', command: 'x', args: value }).success;
    expect(sent(nested(20))).toBe(true);
    expect(sent(args)).toBe(false);
  });

  test('never says itself what a command does', () => {
    const sent = { id: 'a-change-1', kind: 'edit', command: 'rename-design', args: { name: 'B' } };
    expect(Change.safeParse(sent).success).toBe(true);
    expect(Change.safeParse({ ...sent, patches: [{ op: 'replace', path: ['name'], value: 'C' }] }).success).toBe(false);
    expect(Change.safeParse({ ...sent, kind: 'undo' }).success).toBe(false);
  });

  const sketch = { kind: 'sketch', name: 'S', plane: { datum: 'floor' }, points: { a: [0, 0], b: [9, 0] }, curves: { l: { kind: 'line', from: 'a', to: 'b' } }, constraints: {} }; // prettier-ignore
  const drawn = () => {
    const made = take(start(), { kind: 'edit', command: 'add-step', args: { part: 'p1', id: 's', step: sketch } }, []);
    if (!made.ok) throw new Error(made.message);
    return made.design;
  };
  test.each([
    ['a field that is none', [{ path: ['colour'], is: 'red' }], /unsound/],
    ['a curve of another form', [{ path: ['curves', 'l', 'from'], was: 'a', is: 7 }], /unsound/],
    ['a curve between points that are not there', [{ path: ['curves', 'm'], is: { kind: 'line', from: 'a', to: 'zz' } }], /unsound/], // prettier-ignore
    ['the kind of step', [{ path: ['kind'], was: 'sketch', is: 'extrude' }], /unsound|no longer exists/],
    ['a place within a list', [{ path: ['points', 'a', '4000000000'], is: 1 }], /unsound|changed meanwhile/],
    ['the prototype', [{ path: ['__proto__', 'x'], is: 1 }], /cannot be read/],
    ['something that stands otherwise', [{ path: ['curves', 'l', 'from'], was: 'zz', is: 'b' }], /changed meanwhile/],
  ])('cannot change %s of a sketch', (_, touches, message) => {
    const design = drawn();
    const taken = take(design, { kind: 'edit', command: 'change-sketch', args: { part: 'p1', step: 's', label: 'Draw', touches } }, []); // prettier-ignore
    expect(taken.ok ? 'taken' : taken.message).toMatch(message);
    expect(({} as { x?: number }).x).toBeUndefined();
    expect(design).toEqual(drawn());
  });

  test('with an id that stands elsewhere already, or beyond the most there can be, is unsound', () => {
    expect(take(start(), { kind: 'edit', command: 'add-step', args: { part: 'p1', id: 'a', step: sketch } }, [])).toMatchObject({ ok: false, message: expect.stringContaining('used twice') as unknown }); // prettier-ignore
    const many = { ...start(), parts: Object.fromEntries(Array.from({ length: 501 }, (_, i) => [`q${i}`, start().parts.p1!])) }; // prettier-ignore
    expect(faultOfTouched(many, [{ path: ['parts', 'q9'], is: {} }])).toContain('more than 500 parts');
  });
});
