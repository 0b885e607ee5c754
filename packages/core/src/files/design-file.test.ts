import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { emptyDesign } from '../document/schema.ts';
import { readDesign, writeDesign } from './design-file.ts';
import { oddKey } from './odd-keys.ts';

const text = writeDesign({ ...emptyDesign('Plate'), dimensions: { a: { name: 'a', value: '1 mm' } }, dimensionOrder: ['a'] }); // prettier-ignore

describe('what reading JSON would drop without a word', () => {
  test('a mark of the byte order is no fault', () => {
    expect(readDesign(`\uFEFF${text}`).ok).toBe(true);
  });

  test.each([
    ['a dimension twice', text.replace('"a": {', '"a": { "name": "b", "value": "2 mm" }, "a": {'), /“a” stands twice in the same place/],
    ['the same key in other letters', text.replace('"a": {', '"\\u0061": { "name": "b", "value": "2 mm" }, "a": {'), /“a” stands twice/],
    ['a key that is the prototype', text.replace('"a": {', '"__proto__": { "name": "b", "value": "2 mm" }, "a": {'), /no thing can be called “__proto__”/],
  ])('%s is told', (_, odd, message) => {
    const read = readDesign(odd);
    expect(read.ok ? '' : read.message).toMatch(message);
  }); // prettier-ignore

  test('the same key in different places, and in texts, is no fault', () => {
    fc.assert(
      fc.property(fc.json(), (json) => {
        const sound = JSON.stringify(JSON.parse(json));
        // Written again, nothing stands twice; only a key that is the prototype may be left.
        expect(oddKey(sound) ?? '__proto__').toContain('__proto__');
      }),
    );
    expect(oddKey('{"a": {"a": [{"a": 1}, {"a": "\\"a\\": {"}]}, "b": "a"}')).toBeNull();
    expect(oddKey('[{"a": 1, "b": ["x", {"c": 1, "c": 2}]}]')).toBe('“c” stands twice in the same place.');
  });
});
