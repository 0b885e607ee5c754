import { emptyDesign, emptyPart, renamePart } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { Desk, headOf, type Task } from './desk.ts';

const document = JSON.stringify({ ...emptyDesign('D'), parts: { p: emptyPart('P') }, partOrder: ['p'] });
const text = (id: string, name: string, base = 0) => {
  const { command, args } = renamePart('p', name);
  return JSON.stringify({ base, change: { id, kind: 'edit', command, args } });
};
const taking = (more: Partial<Task & { kind: 'take' }>): Task => ({ kind: 'take', design: 'd', revision: 0, newest: null, since: [], text: '', ...more }); // prettier-ignore

describe('a desk', () => {
  test('asks for a design it does not hold, and then holds it', () => {
    const desk = new Desk();
    const task = taking({ text: text('change-1', 'A') });
    expect(desk.do(task)).toEqual({ is: 'wanting', holds: null });
    expect(desk.do({ ...task, stored: { document, revision: 0, touches: [] } } as Task)).toMatchObject({ is: 'worked', worked: { label: 'Rename a part to A' } }); // prettier-ignore
    expect(desk.do(task)).toMatchObject({ is: 'worked' });
  });

  test('takes what it worked out last for the newest only where that was kept', () => {
    const desk = new Desk();
    const stored = { document, revision: 0, touches: [] };
    desk.do(taking({ text: text('change-1', 'A'), stored }));
    // Another server was quicker: its change is the newest now.
    expect(desk.do(taking({ text: text('change-2', 'B', 1), revision: 1, newest: 'other' }))).toEqual({
      is: 'wanting',
      holds: { revision: 0, newest: null },
    });
    const kept = desk.do({ kind: 'document', design: 'd', revision: 1, newest: 'change-1' });
    expect(kept.is === 'text' && JSON.parse(kept.text)).toMatchObject({ parts: { p: { name: 'A' } } });
  });

  test('is told a state and what was done since, and goes back from there', () => {
    const desk = new Desk();
    const touches = ['A', 'B'].map((name, i) => JSON.stringify([{ path: ['parts', 'p', 'name'], was: ['P', 'A'][i], is: name }])); // prettier-ignore
    const of = { kind: 'document', design: 'd', revision: 2, newest: 'x' } as const;
    const named = (task: Task) => {
      const answer = desk.do(task);
      return answer.is === 'text' && (JSON.parse(answer.text) as { parts: { p: { name: string } } }).parts.p.name;
    };
    expect(named({ ...of, stored: { document, revision: 0, touches } })).toBe('B');
    expect(named({ ...of, back: [touches[1]!] })).toBe('A');
    expect(named({ ...of, back: [touches[1]!, touches[0]!] })).toBe('P');
  });

  test('of a design it holds needs only what was done since; not of another state', () => {
    const desk = new Desk();
    desk.do({ kind: 'document', design: 'd', revision: 0, newest: null, stored: { document, revision: 0, touches: [] } }); // prettier-ignore
    const touches = [JSON.stringify([{ path: ['parts', 'p', 'name'], was: 'P', is: 'Q' }])];
    const of = { kind: 'document', design: 'd', revision: 8, newest: 'x' } as const;
    expect(desk.do({ ...of, stored: { revision: 7, touches } })).toMatchObject({ is: 'wanting' });
    const now = desk.do({ ...of, revision: 1, stored: { revision: 0, touches } });
    expect(now.is === 'text' && JSON.parse(now.text)).toMatchObject({ parts: { p: { name: 'Q' } } });
  });

  test.each([
    ['no JSON', '{'],
    ['no change', '{"base": 0}'],
    ['a revision that is none', '{"base": -1, "change": {}}'],
    ['a list', '[]'],
  ])('refuses %s in words', (_, sent) => {
    expect(headOf(sent)).toMatchObject({ is: 'refused', status: 422 });
    expect(new Desk().do(taking({ text: sent }))).toMatchObject({ is: 'refused', status: 422 });
  });

  test('tells changes of one id apart by what they say, not by when they are sent', () => {
    const digest = (sent: string) => {
      const answer = headOf(sent);
      return answer.is === 'head' && answer.head.digest;
    };
    expect(digest(text('change-1', 'A', 3))).toBe(digest(text('change-1', 'A')));
    expect(digest(text('change-1', 'B'))).not.toBe(digest(text('change-1', 'A')));
  });
});
