import { describe, expect, test } from '@jest/globals';
import { enablePatches, produceWithPatches, type Patch } from 'immer';
import { readFileSync } from 'node:fs';
import { Design } from '../document/schema.ts';
import { readDesign } from '../files/design-file.ts';
import { differences, withDifferences } from '../document/differences.ts';
import { inverted, touchesBetween, withTouches } from '../document/touches.ts';
import { hashText } from '../ids/hash.ts';
import { upgraded, upgradedWithLog } from './upgrade.ts';

enablePatches();
const stored = JSON.parse(readFileSync(new URL('./stored/version-1.json', import.meta.url), 'utf8')) as Record<
  string,
  unknown
>;

type Loose = Record<string, any>; // eslint-disable-line @typescript-eslint/no-explicit-any

const line = (from: string, to: string) => ({ kind: 'line', from, to });
/** Two posts and a block cut by the second, as version 1 had it. */
const old = (more: Loose = {}): Loose => ({
  ...stored,
  dimensions: {}, dimensionOrder: [], variants: undefined,
  parts: {
    p: {
      name: 'Part', dimensions: {}, dimensionOrder: [], stepOrder: ['s', 'e', 't', 'u'],
      steps: {
        s: {
          kind: 'sketch', name: 'Posts', plane: { datum: 'floor' }, constraints: {},
          points: { a: [0, 0], b: [30, 0] },
          curves: { one: { kind: 'circle', center: 'a', radius: 5 }, two: { kind: 'circle', center: 'b', radius: 5 } },
        },
        e: { kind: 'extrude', name: 'Posts', sketch: 's', regions: 'all', way: 'one_way', distance: '20 mm', reversed: true, result: 'new_body' },
        t: { kind: 'sketch', name: 'On top', plane: { face: { name: 'e:end', near: [0, 0, 0], normal: [0, 0, 1] } }, points: { p: [0, 0], q: [3, 0], r: [0, 3] }, curves: { l: line('p', 'q'), m: line('q', 'r'), n: line('r', 'p') }, constraints: {},
          borrowed: { v: { source: { kind: 'section', body: 'e/2' }, of: [] }, w: { source: { kind: 'face', face: 'e:side:two#2', near: [1, 2, 3] }, of: [] } } },
        u: { kind: 'extrude', name: 'Cut', sketch: 't', regions: [{ outer: ['+l', '+m', '+n'] }], way: 'symmetric', distance: '5 mm', result: 'cut', bodies: ['e/2'] },
        ...more,
      },
    },
  },
  partOrder: ['p'],
}); // prettier-ignore

describe('a design of version 1', () => {
  test('reads as a sound design of the present version', () => {
    const read = readDesign(JSON.stringify(stored));
    expect(read.ok ? '' : read.message).toBe('');
    expect(Design.parse(upgraded(old())).version).toBe(2);
  });

  test('keeps what its names and bodies meant', () => {
    const { steps } = (upgraded(old()) as Loose).parts.p;
    expect(steps.e.profile).toEqual({ sketch: 's', regions: 'all' });
    // Reversed, what was `end` by the plane’s normal is the cap at the sketch.
    expect(steps.t.plane.face.name).toBe('e:start');
    expect(steps.u.bodies).toEqual([{ name: 'e:body:+two' }]);
    expect(steps.t.borrowed.v.source.body).toEqual({ name: 'e:body:+two' });
    expect(steps.t.borrowed.w.source.face).toEqual({ name: 'e:side:two', near: [1, 2, 3], piece: true });
  });

  test('keeps the worth of its expressions', () => {
    const d = {
      ...old(),
      dimensions: { a: { name: 'a', value: '36 mm^2 + sqrt(2.5 cm ^ 2) * 1 mm', dial: { max: '3 1/2 in^2' } } },
      dimensionOrder: ['a'],
    };
    const { value, dial } = (upgraded(d) as Loose).dimensions.a;
    expect(value).toBe('(36 mm)^2 + sqrt((2.5 cm)^ 2) * 1 mm');
    expect(dial.max).toBe('(3 1/2 in)^2');
    for (const text of ['$w^2', '(3 mm)^2', '2^3', 'width_2 ^2', '5 mm * 2']) {
      const same = { ...d, dimensions: { a: { name: 'a', value: text } } };
      expect((upgraded(same) as Loose).dimensions.a.value).toBe(text);
    }
  });

  test('wherever an expression stands, and nowhere else', () => {
    const power = '4 mm^2';
    const all = { value: power, min: power, max: power, step: power, name: power };
    const dimensions = { a: { ...all, dial: { ...all } }, b: { name: 'b', value: 7 }, c: 'nothing' };
    const steps = {
      e: { kind: 'extrude', name: power, distance: power, back_distance: power, way: power },
      s: { kind: 'sketch', name: power, constraints: { k: { kind: 'length', value: power, line: power } } },
    };
    const cells = { 'dimension:a': power, 'suppressed:dimension:': power, 'dimension:b': 3 };
    const now = upgraded({ version: 1, dimensions, shared: { dimensions }, parts: { p: { dimensions, steps } }, variants: { rows: { r: { cells }, q: { cells: 'none' } } } }) as Loose; // prettier-ignore
    const as = '(4 mm)^2';
    const meant = { value: as, min: as, max: as, step: as, name: power };
    for (const home of [now, now.shared, now.parts.p])
      expect(home.dimensions).toEqual({ a: { ...meant, dial: meant }, b: { name: 'b', value: 7 }, c: 'nothing' });
    expect(now.parts.p.steps.e).toMatchObject({ name: power, distance: as, back_distance: as, way: power });
    expect(now.parts.p.steps.s.constraints.k).toEqual({ kind: 'length', value: as, line: power });
    expect(now.variants.rows.r.cells).toEqual({ 'dimension:a': as, 'suppressed:dimension:': power, 'dimension:b': 3 });
    expect(now.variants.rows.q).toEqual({ cells: 'none' });
  });

  test.each(['5 mm', '2.5 cm', '1/2 in', '30 deg', '2 "', "7 '", '4 °', '6 m'])(
    'a measure of %s to a power is bracketed',
    (measure) => {
      const value = `1 + ${measure} ^3`;
      const now = upgraded({ version: 1, dimensions: { a: { value } } }) as Loose;
      expect(now.dimensions.a.value).toBe(`1 + (${measure})^3`);
    },
  );

  describe('whose extrude', () => {
    const digest = (...curves: string[]) => hashText(curves.join()).slice(0, 8);
    const block = {
      kind: 'extrude',
      name: 'Posts',
      sketch: 's',
      way: 'one_way',
      distance: '20 mm',
      result: 'new_body',
    };
    const onTop = (name: string) => ({ kind: 'sketch', name: 'On', plane: { face: { name } } });
    const withSteps = (steps: Loose) => (upgraded({ ...old(), parts: { p: { ...old().parts.p, steps: { s: old().parts.p.steps.s, ...steps } } } }) as Loose).parts.p.steps; // prettier-ignore

    test.each<[string, Loose, string]>([
      ['goes forward keeps its caps', {}, 'end'],
      ['is reversed changes them', { reversed: true }, 'start'],
      ['goes back by a number below nothing changes them', { distance: '-4 mm' }, 'start'],
      ['is reversed and goes back keeps them', { reversed: true, distance: '-4 mm' }, 'end'],
      ['is of no length keeps them', { distance: '0 mm' }, 'end'],
    ])('%s', (_, more, side) => {
      const steps = withSteps({ e: { ...block, regions: 'all', ...more }, t: onTop('e:end'), u: onTop('e:start'), v: onTop('other:end') }); // prettier-ignore
      expect(steps.t.plane.face.name).toBe(`e:${side}`);
      expect(steps.u.plane.face.name).toBe(`e:${side === 'end' ? 'start' : 'end'}`);
      expect(steps.v.plane.face.name).toBe('other:end');
    });

    test('caps are told by their curves instead of a digest, pieces by a mark', () => {
      const steps = withSteps({
        e: { ...block, regions: 'all' },
        t: onTop(`e:end:${digest('+two')}#1`),
        u: onTop(`e:end:${digest('+nothing')}`),
        v: onTop(`none:end:${digest('+two')}`),
        w: onTop('e:side:one#3'),
      });
      expect(steps.t.plane.face).toEqual({ name: 'e:end:+two', piece: true });
      expect(steps.u.plane.face).toEqual({ name: 'e:end' });
      expect(steps.v.plane.face).toEqual({ name: 'none:end' });
      expect(steps.w.plane.face).toEqual({ name: 'e:side:one', piece: true });
    });

    test('made several bodies, of chosen regions in their order, tells them by their curves', () => {
      const chosen = (regions: unknown) => {
        const steps = withSteps({ e: { ...block, regions }, u: { ...block, regions: 'all', result: 'cut', bodies: ['e', 'e/2', 'e/3', 'x/2', 7] } }); // prettier-ignore
        return steps.u.bodies as unknown[];
      };
      const [one, two] = [{ name: 'e:body:+one' }, { name: 'e:body:+two' }];
      const [e, x] = [{ name: 'e' }, { name: 'x' }];
      expect(chosen('all')).toEqual([one, two, e, x, 7]);
      expect(chosen([{ outer: ['+two'] }, { outer: ['+one'] }])).toEqual([two, one, e, x, 7]);
      expect(chosen([{ outer: ['+two'] }])).toEqual([e, e, e, x, 7]);
      expect(chosen([{ outer: ['+two'] }, { outer: ['+gone'] }])).toEqual([e, e, e, x, 7]);
      expect(chosen('none')).toEqual([e, e, e, x, 7]);
    });

    test('has its profile in one slot, and keeps all else', () => {
      const { e, f, g, h } = withSteps({
        e: { ...block, regions: 'all', suppressed: true },
        f: { kind: 'extrude', name: 'F', sketch: 's' },
        g: { kind: 'extrude', name: 'G', regions: 'all' },
        h: { kind: 'extrude', name: 'H', profile: { sketch: 's', regions: 'all' }, suppressed: false },
      });
      const { sketch, ...rest } = block;
      expect(e).toEqual({ ...rest, suppressed: true, profile: { sketch, regions: 'all' } });
      expect(f).toEqual({ kind: 'extrude', name: 'F', profile: { sketch: 's', regions: undefined } });
      expect(g).toEqual({ kind: 'extrude', name: 'G', profile: { sketch: undefined, regions: 'all' } });
      expect(h).toEqual({ kind: 'extrude', name: 'H', profile: { sketch: 's', regions: 'all' }, suppressed: false });
    });

    test('is borrowed from, and measured, by the new names', () => {
      const edge = () => ({ faces: ['e:end', 'e:side:one', 7] });
      const borrowed = (source: unknown) => ({ source });
      const reversed = { e: { ...block, regions: 'all', reversed: true } };
      const steps = withSteps({
        ...reversed,
        t: { kind: 'sketch', name: 'T', borrowed: { a: borrowed({ kind: 'edge', edge: edge() }), b: borrowed({ kind: 'vertex', edge: edge() }), c: borrowed({ kind: 'face', face: 'e:end', near: [1, 2, 3] }), d: borrowed({ kind: 'silhouette', body: 'e/2' }), f: borrowed({ kind: 'curve', edge: edge(), face: 'e:end', body: 'e/2' }), g: borrowed('nothing'), h: borrowed({ kind: 'face', face: { name: 'e:end' } }) } },
        x: { kind: 'other', name: 'X', plane: { face: { name: 'e:end' } }, bodies: ['e/2'], sketch: 's' },
      }); // prettier-ignore
      const meant = { faces: ['e:start', 'e:side:one', 7] };
      expect(steps.t.borrowed).toEqual({
        a: borrowed({ kind: 'edge', edge: meant }),
        b: borrowed({ kind: 'vertex', edge: meant }),
        c: borrowed({ kind: 'face', face: { name: 'e:start', near: [1, 2, 3] } }),
        d: borrowed({ kind: 'silhouette', body: { name: 'e:body:+two' } }),
        f: borrowed({ kind: 'curve', edge: edge(), face: 'e:end', body: 'e/2' }),
        g: borrowed('nothing'),
        h: borrowed({ kind: 'face', face: { name: 'e:end' } }),
      });
      expect(steps.x).toEqual({ kind: 'other', name: 'X', plane: { face: { name: 'e:end' } }, bodies: ['e/2'], sketch: 's' }); // prettier-ignore
      const face = () => ({ name: 'e:end' });
      const dimensions = { a: { measured: { face: face(), edge: edge() } }, b: { measured: { between: [face(), edge(), 'nothing', { faces: 'none', name: 'e:end' }] } }, c: { measured: 'none' } }; // prettier-ignore
      const d = old();
      const now = upgraded({ ...d, dimensions, shared: { dimensions }, parts: { p: { ...d.parts.p, dimensions, steps: { s: d.parts.p.steps.s, ...reversed } } } }) as Loose; // prettier-ignore
      for (const home of [now, now.shared, now.parts.p])
        expect(home.dimensions).toEqual({
          a: { measured: { face: { name: 'e:start' }, edge: meant } },
          b: { measured: { between: [{ name: 'e:start' }, meant, 'nothing', { faces: 'none', name: 'e:start' }] } },
          c: { measured: 'none' },
        });
    });
  });

  test.each([null, undefined, 'text', 7, [], {}, { version: 2, a: 1 }, { version: 3 }, { version: '1' }, { version: 0 }])(
    'what is none of ours, or not older, comes back as it was: %j',
    (data) => expect(upgraded(data)).toBe(data),
  ); // prettier-ignore

  test.each([['nothing at all', {}], ['steps that are none', { parts: { p: { steps: { e: { kind: 'extrude', regions: 7 } } } } }], ['parts that are a list', { parts: [] }]])(
    'with %s is left for the schema to refuse, and nothing throws',
    (_, broken) => {
      expect(() => upgraded({ ...broken, format: 'helb-design', version: 1 })).not.toThrow();
    },
  ); // prettier-ignore
});

describe('a log of version 1', () => {
  test('goes back and forth between the same states as before', () => {
    const states = [old()];
    const log: { patches: Patch[]; inverse: Patch[] }[] = [];
    const edit = (change: (d: Loose) => void) => {
      const [next, patches, inverse] = produceWithPatches(states.at(-1)!, change);
      states.push(next);
      log.push({ patches, inverse });
    };
    edit((d) => void (d.parts.p.steps.e.regions = [{ outer: ['+two'] }]));
    edit((d) => void delete d.parts.p.steps.e.reversed);
    edit((d) => void (d.parts.p.steps.u.bodies = 'all'));
    edit((d) => void (d.name = 'Other'));
    const now = upgradedWithLog(states.at(-1)!, log);
    let state = now.document as object;
    expect(state).toEqual(upgraded(states.at(-1)));
    for (let i = log.length - 1; i >= 0; i--) {
      state = withTouches(state, inverted(now.log[i]!), true);
      expect(state).toEqual(upgraded(states[i]));
    }
    for (const [i, touches] of now.log.entries()) {
      state = withTouches(state, touches, true);
      expect(state).toEqual(upgraded(states[i + 1]));
    }
  });

  test('keeps the newer changes that came after it', () => {
    const before = { version: 1, dimensions: { a: { value: '2 mm^2' } }, name: 'A' };
    const now = upgradedWithLog({ ...before, name: 'B' }, [
      { touches: touchesBetween(before, { ...before, name: 'B' }) },
    ]);
    expect(withTouches(now.document as object, inverted(now.log[0]!), true)).toEqual(upgraded(before));
  });

  test('differences say nothing of what is the same', () => {
    expect(differences({ a: [1, { b: 2 }], c: 3 }, { a: [1, { b: 2 }], c: 3 })).toEqual([]);
    expect(withDifferences({ a: 1, c: { d: [1] } }, differences({ a: 1, c: { d: [1] } }, { b: 1, c: { d: [2] } }))).toEqual({ b: 1, c: { d: [2] } }); // prettier-ignore
  });
});
