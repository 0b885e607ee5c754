import { expect, test } from '@jest/globals';
import { lineName } from './line-names.ts';
import { written } from './written.ts';

test('lines are called by where they lie; no two alike; construction lines do not count for the place', () => {
  const s = written(
    'a 0 0, b 60 0, c 50 30, d 20 30, e 20 12, f 0 12, g 0 -90, h 0 90',
    'l1 a b; l2 b c; l3 c d; l4 d e; l5 e f; l6 f a; l7 g h; k a 5',
    '',
  );
  s.curves.l7 = { ...s.curves.l7!, construction: true };
  expect(['l1', 'l2', 'l3', 'l4', 'l5', 'l6', 'l7', 'k', 'no such'].map((id) => lineName(s, id))).toEqual([
    'the bottom edge',
    'the right flank',
    'the top edge',
    'the inner left side',
    'the inner bottom edge',
    'the left side',
    'the construction line',
    null,
    null,
  ]);
  const slots = written('a 0 0, b 40 0, c 40 20, d 0 20, e 0 30', 'l1 a b; l2 b c; l3 c d; l4 d a; l5 d e', '');
  expect(['l4', 'l5'].map((id) => lineName(slots, id))).toEqual(['the left side 1', 'the left side 2']);
});
