import { describe, expect, test } from '@jest/globals';
import { addPart, deleteSection, editOf, emptyDesign, keepSection, readDesign, writeDesign } from '../index.ts';
import { edited, refusalOf } from './edited.ts';

const base = edited(emptyDesign('Box'), addPart('p', 'Part'));
const planes: { normal: [number, number, number]; at: number }[] = [{ normal: [0, -1, 0], at: 2.5 }];

describe('kept sections', () => {
  test('stay in the file under their names, and can be renamed and forgotten', () => {
    const kept = edited(base, keepSection('p', 'a', { name: 'Bore', planes }), keepSection('p', 'b', { name: 'Corner', planes: [...planes, { normal: [1, 0, 0], at: 0 }] })); // prettier-ignore
    const read = readDesign(writeDesign(kept));
    expect(read.ok && read.design.parts.p!.sections).toEqual(kept.parts.p!.sections);
    const renamed = edited(kept, keepSection('p', 'a', { name: 'Through the bore', planes }));
    expect(renamed.parts.p!.sections).toMatchObject({ order: ['a', 'b'], rows: { a: { name: 'Through the bore' } } });
    expect(edited(renamed, deleteSection('p', 'a'), deleteSection('p', 'b'))).toEqual(base);
  });

  test('that are not there, or of too many planes, are refused', () => {
    expect(refusalOf(base, deleteSection('p', 'a'))).toBe('This section no longer exists.');
    expect(refusalOf(base, keepSection('q', 'a', { name: 'Bore', planes }))).toBe('This part no longer exists.');
    const four = Array.from({ length: 4 }, () => planes[0]!);
    expect(() => editOf('keep-section', { part: 'p', id: 'a', section: { name: 'Bore', planes: four } })).toThrow('cannot be read'); // prettier-ignore
  });
});
