import { beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useModes } from './mode-stack.ts';

beforeEach(() => setActivePinia(createPinia()));
const kinds = () => useModes().stack.map((m) => m.kind);

describe('modes', () => {
  test('Escape ends the newest, one at a time', () => {
    const modes = useModes();
    modes.enter('trace', 'd1');
    modes.enter('fill', 's2');
    modes.enter('pick', { step: 's2', slot: 'faces' });
    expect(modes.escape()).toBe(true);
    expect(kinds()).toEqual(['trace', 'fill']);
    modes.escape();
    modes.escape();
    expect(kinds()).toEqual([]);
    expect(modes.escape()).toBe(false);
  });

  test('a mode may keep itself open, and its keys come before those below', () => {
    const modes = useModes();
    const heard: string[] = [];
    modes.handle('sketch', { escape: () => true, enter: () => heard.push('sketch') > 0 });
    modes.handle('tool', { enter: () => false, key: () => heard.push('tool') > 0 });
    modes.enter('sketch', 's1');
    modes.enter('tool', 'line');
    expect(modes.confirm()).toBe(true);
    expect(heard).toEqual(['sketch']);
    expect(modes.key({ key: 'a' } as KeyboardEvent)).toBe(true);
    modes.escape();
    expect(kinds()).toEqual(['sketch']);
    modes.escape();
    expect(kinds()).toEqual(['sketch']);
    expect(modes.key({ key: 'a' } as KeyboardEvent)).toBe(false);
  });

  test('a tool goes with its sketch; another tool takes the place of the first', () => {
    const modes = useModes();
    const tool = modes.slot('tool');
    modes.enter('sketch', 's1');
    tool.value = 'line';
    modes.enter('trace', 'd1');
    tool.value = 'circle';
    expect(kinds()).toEqual(['sketch', 'tool', 'trace']);
    expect(tool.value).toBe('circle');
    modes.leave('sketch');
    expect(kinds()).toEqual(['trace']);
    expect(tool.value).toBeNull();
  });
});
