import { expect, test } from '@jest/globals';
import { solveSketch } from '../../sketch/solve.ts';
import { written } from '../../sketch/written.ts';
import { clashSentence } from './clash-sentence.ts';

test('a clash names the lines it means', () => {
  const s = written(
    'a 0 0, b 40 0, c 40 20, d 0 20',
    'l1 a b; l2 b c; l3 c d; l4 d a',
    'horizontal:l1; perpendicular:l1,l2; parallel:l2,l4; fixed:l1; angle:l1,l4=1.2 second',
  );
  const sentence = clashSentence(
    s,
    solveSketch(s, () => 1.2),
  );
  expect(sentence).toContain('right side and left side parallel');
  expect(sentence).toContain('Bottom edge and right side square');
  expect(sentence).toMatch(/cannot all hold; change or remove one of them\.$/);
});
