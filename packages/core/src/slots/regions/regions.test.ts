import { expect, test } from '@jest/globals';
import type { RegionRef } from '../../references/references.ts';
import { regions } from './regions.ts';

const slot = regions();
const pick = (ref: RegionRef, sketch = 's') => ({ kind: 'region', sketch, ref }) as const;

test('regions are picked one after another, each put back by a second pick, in whatever order its curves stand', () => {
  const [one, two]: RegionRef[] = [{ outer: ['+a', '-b'], at: [1, 2] }, { outer: ['+c'] }];
  const both = slot.take(slot.take(undefined, pick(one!))!, pick(two!));
  expect(both).toEqual({ sketch: 's', regions: [one, two] });
  expect(slot.take(both!, pick({ outer: ['-b', '+a'], at: [5, 5] }))).toEqual({ sketch: 's', regions: [two] });
  expect(slot.take({ sketch: 's', regions: [two!] }, pick(two!))).toBeNull();
  expect(slot.take(both!, pick(two!, 't'))).toEqual({ sketch: 't', regions: [two] });
  expect(slot.take({ sketch: 's', regions: 'all' }, pick(two!))).toEqual({ sketch: 's', regions: [two] });
});

test('two between the same curves are picked both, and each put back by itself', () => {
  const [one, two] = [5, 45].map((x): RegionRef => ({ outer: ['+h', '-w'], at: [x, 1], piece: true }));
  const both = slot.take(slot.take(undefined, pick(one!))!, pick(two!));
  expect(both).toEqual({ sketch: 's', regions: [one, two] });
  expect(slot.take(both!, pick(one!))).toEqual({ sketch: 's', regions: [two] });
});
