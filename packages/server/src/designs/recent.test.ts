import { describe, expect, test } from '@jest/globals';
import type { KeptChange } from './log-rows.ts';
import { Recent } from './recent.ts';

const change = (revision: number, size = 2): KeptChange => ({ revision, changeId: `c${revision}`, kind: 'edit', target: null, command: 'x', args: null, label: 'x', author: 'a', touches: '['.padEnd(size, ' '), named: null, createdAt: new Date(0) }); // prettier-ignore
const state = (revision: number) => ({ id: 'd', revision, newest: `c${revision}` });
const revisions = (changes: readonly KeptChange[] | null | undefined) => changes?.map((c) => c.revision);

describe('what was seen last', () => {
  test('is guessed to be the newest, with all that lies between; not more than is remembered', () => {
    const recent = new Recent();
    expect(recent.guess('d', 3)).toBeNull();
    recent.saw(state(5), 3, [change(4), change(5)]);
    recent.wrote(state(5), change(6));
    expect(recent.guess('d', 4)?.row).toEqual(state(6));
    expect(revisions(recent.guess('d', 3)?.missed)).toEqual([4, 5, 6]);
    expect(revisions(recent.guess('d', 6)?.missed)).toEqual([]);
    expect([recent.guess('d', 2), recent.guess('d', 7)]).toEqual([null, null]);
  });

  test('leaves no gap: what does not follow on takes its place', () => {
    const recent = new Recent();
    recent.saw(state(5), 3, [change(4), change(5)]);
    expect([recent.readFrom('d', 4), recent.readFrom('d', 1)]).toEqual([5, 1]);
    // The sender knows more: what lies between is read too, as a desk lacks it.
    expect([recent.readFrom('d', 8), recent.readFrom('d', 106)]).toEqual([5, 106]);
    recent.saw(state(9), 7, [change(8), change(9)]);
    expect(revisions(recent.after('d', 7))).toEqual([8, 9]);
    expect(recent.after('d', 4)).toBeNull();
    recent.wrote(state(12), change(13));
    expect([revisions(recent.after('d', 12)), recent.after('d', 8)]).toEqual([[13], null]);
  });

  test('takes in what others did where it follows on, and nothing else', () => {
    const recent = new Recent();
    recent.heard('d', [change(1)]);
    expect(recent.guess('d', 0)).toBeNull();
    recent.saw(state(5), 4, [change(5)]);
    recent.heard('d', [change(8)]);
    recent.heard('d', [change(4), change(5)]);
    expect(recent.guess('d', 5)?.row).toEqual(state(5));
    recent.heard('d', [change(5), change(6), change(7)]);
    expect(recent.guess('d', 7)?.row).toEqual(state(7));
    expect(revisions(recent.after('d', 4))).toEqual([5, 6, 7]);
    // The log was read meanwhile, from before that on, and up to less or more.
    recent.saw(state(6), 5, [change(6)]);
    recent.saw(
      state(9),
      5,
      [6, 7, 8, 9].map((r) => change(r)),
    );
    expect(revisions(recent.after('d', 4))).toEqual([5, 6, 7, 8, 9]);
  });

  test('is doubted for a while after it was wrong', () => {
    const recent = new Recent();
    recent.saw(state(5), 5, []);
    recent.doubt('d');
    const guesses = Array.from({ length: 61 }, () => recent.guess('d', 5) !== null);
    expect(guesses).toEqual([...Array<boolean>(60).fill(false), true]);
  });

  test('is bounded in number and in size', () => {
    const recent = new Recent();
    recent.saw(state(0), 0, []);
    for (let i = 0; i < 150; i++) recent.wrote(state(i), change(i + 1));
    expect([revisions(recent.after('d', 50))?.length, recent.after('d', 49)]).toEqual([100, null]);
    recent.wrote(state(150), change(151, 290_000));
    recent.wrote(state(151), change(152, 290_000));
    expect([revisions(recent.after('d', 151)), recent.after('d', 150)]).toEqual([[152], null]);
  });

  test('tells what a desk lacks: nothing where it led there itself', () => {
    const recent = new Recent();
    recent.saw(state(5), 5, []);
    expect(recent.lacking(state(5))).toBeNull();
    recent.asked(state(5));
    recent.wrote(state(5), change(6));
    expect(recent.lacking(state(6))).toBeNull();
    recent.saw(state(7), 6, [change(7)]);
    expect(recent.lacking(state(7))).toEqual({ revision: 5, touches: [change(6).touches, change(7).touches] });
    recent.asked(state(7));
    recent.saw(state(8), 7, [change(8)]);
    expect(recent.lacking(state(8))).toEqual({ revision: 7, touches: [change(8).touches] });
  });
});
