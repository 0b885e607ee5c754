import { describe, expect, test } from '@jest/globals';
import { enablePatches, produceWithPatches, type Patch } from 'immer';
import { readFileSync } from 'node:fs';
import { Design } from '../document/schema.ts';
import { readDesign } from '../files/design-file.ts';
import { differences, withDifferences } from '../document/differences.ts';
import { inverted, withTouches } from '../document/touches.ts';
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

  test('differences say nothing of what is the same', () => {
    expect(differences({ a: [1, { b: 2 }], c: 3 }, { a: [1, { b: 2 }], c: 3 })).toEqual([]);
    expect(withDifferences({ a: 1, c: { d: [1] } }, differences({ a: 1, c: { d: [1] } }, { b: 1, c: { d: [2] } }))).toEqual({ b: 1, c: { d: [2] } }); // prettier-ignore
  });
});
