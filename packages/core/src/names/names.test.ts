import { describe, expect, test } from '@jest/globals';
import { curvesAsParents, likeness, nameOf, readName, stepsIn, withSteps, type Name } from './name.ts';

const read = (text: string): Name => readName(text)!;

describe('a name', () => {
  test('is the same object for the same thing, whether made or read', () => {
    const inner = nameOf('cut', 'side', ['c1']);
    expect(inner.text).toBe('cut:side:c1');
    expect(nameOf('cut', 'side', ['c1'])).toBe(inner);
    expect(readName('cut:side:c1')).toBe(inner);
    const outer = nameOf('ring', 'side', [inner]);
    expect(outer.text).toBe('ring:side:(cut:side:c1)');
    expect(outer.parents).toEqual([inner]);
    expect(nameOf('ring', 'side', [inner, '+l2']).text).toBe('ring:side:(cut:side:c1 +l2)');
    expect(nameOf('e', 'end').text).toBe('e:end');
    expect(nameOf('e', 'end').parents).toEqual([]);
  });

  test('reads as it was written, however nested', () => {
    const text = 'm9_a:member:(r9:side:(k9:end:(+l1 -l2) n9:start) ~abc q9:x)';
    const name = read(text);
    expect(name.text).toBe(text);
    expect([name.step, name.role]).toEqual(['m9_a', 'member']);
    const [first, digest, last] = name.parents as [Name, string, Name];
    expect(digest).toBe('~abc');
    expect(last).toBe(nameOf('q9', 'x'));
    expect(first).toBe(nameOf('r9', 'side', [nameOf('k9', 'end', ['+l1', '-l2']), nameOf('n9', 'start')]));
  });

  test.each(['', ':', 'e', 'e:', 'e::l1', 'e:side:', 'e:side:(', 'e:side:()', 'e:side:(l1', 'e:side:(l1 )', 'e:side:(l1  l2)', 'e:side:(l1 l2))', 'e:side:l1 ', ' e:side', 'e:side:l1:x', 'e side', 'e:side:(l1,l2)', 'é:side'])(
    'is not read from “%s”',
    (text) => expect(readName(text)).toBeNull(),
  ); // prettier-ignore

  test('that is nested without end is none, and one that is long is told by a digest', () => {
    const nested = (n: number) => `${'a:b:('.repeat(n)}c${')'.repeat(n)}`;
    expect(readName(nested(40))).not.toBeNull();
    expect(readName(nested(41))).toBeNull();
    const long = (last: string) => nameOf('e', 'end', [...Array.from({ length: 200 }, (_, i) => `+curve${i}`), last]);
    expect(long('x').text).toMatch(/^e:end:~[a-z0-9]+$/);
    expect(long('x')).toBe(long('x'));
    expect(long('x')).not.toBe(long('y'));
    expect(readName(long('x').text)).toBe(long('x'));
    const spelled = nameOf('e', 'end', ['p'.repeat(700 - 'e:end:'.length)]);
    expect(spelled.text).toHaveLength(700);
    expect(nameOf('e', 'end', ['p'.repeat(701 - 'e:end:'.length)]).text).toMatch(/~/);
  });

  test('tells the steps in it, each once, and is rewritten with others', () => {
    const text = 'r8:side:(k8:end:(+l1 -l2) n8:start k8:side:c)';
    expect(stepsIn(text)).toEqual(['r8', 'k8', 'n8']);
    expect(stepsIn('no name:(')).toEqual(['no name']);
    expect(withSteps(text, (s) => `${s}x`)).toBe('r8x:side:(k8x:end:(+l1 -l2) n8x:start k8x:side:c)');
    expect(withSteps('no name:(', () => 'y')).toBe('no name:(');
  });

  test('is like another of the same step and role by the share of what they were made from', () => {
    const of = (...parents: (string | Name)[]) => nameOf('e', 'end', parents);
    expect(likeness(of('a', 'b'), of('a', 'b'))).toBe(1);
    expect(likeness(of('a', 'b', 'c'), of('a', 'b', 'd'))).toBe(0.5);
    expect(likeness(of('a'), of('b'))).toBe(0);
    expect(likeness(of(), of('b'))).toBe(1);
    expect(likeness(of('b'), of())).toBe(1);
    expect(likeness(of('a'), nameOf('e', 'start', ['a']))).toBe(0);
    expect(likeness(of('a'), nameOf('f', 'end', ['a']))).toBe(0);
    const [near, far] = [nameOf('k', 'side', ['p', 'q', 'r']), nameOf('k', 'side', ['p', 'q', 's'])];
    expect(likeness(of(near), of(near))).toBe(1);
    // Half of the only parent is shared: a half of one and a half.
    expect(likeness(of(near), of(far))).toBeCloseTo(0.5 / 1.5, 12);
    expect(likeness(of(near), of('p'))).toBe(0);
    expect(likeness(of('p', near), of('p', far))).toBeCloseTo(1.5 / 2.5, 12);
  });

  test('of a region spells out few curves in any order, and tells more by a digest', () => {
    expect(curvesAsParents(['-b', '+c', '+a'])).toEqual(['+a', '+c', '-b']);
    const many = (n: number) => Array.from({ length: n }, (_, i) => `+${String.fromCharCode(97 + i)}`);
    expect(curvesAsParents(many(12))).toEqual(many(12));
    const more = curvesAsParents(many(14).reverse());
    expect(more).toHaveLength(13);
    expect(more.slice(0, 12)).toEqual(many(12));
    expect(more[12]).toMatch(/^~.{8}$/);
    expect(curvesAsParents([...many(13), '+z'])[12]).not.toBe(more[12]);
  });
});
