import { describe, expect, test } from '@jest/globals';
import type { SheetIssue } from '../document/sheet.ts';
import { changedSince, nextLetter } from './issues.ts';

const issue = (sizes: Record<string, string>): SheetIssue => ({ letter: 'A', revision: 3, date: '2026-11-27', sizes });

describe('issues of a sheet', () => {
  test('go by the letters, two from the twenty-seventh on', () => {
    const after = (n: number) => nextLetter({ issues: Array.from({ length: n }, () => issue({})) });
    expect([0, 1, 25, 26, 27, 52].map(after)).toEqual(['A', 'B', 'Z', 'AA', 'AB', 'BA']);
  });

  test('say what reads otherwise since, what was taken off and what was added', () => {
    const now = { a: '12', b: 'Ø8', d: 'R2' };
    expect(changedSince(issue({ a: '10', b: 'Ø8', c: '45°' }), now)).toEqual(['10 is 12 now', '45° was taken off', 'R2 was added']); // prettier-ignore
    expect(changedSince(issue(now), now)).toEqual([]);
  });
});
