import { describe, expect, test } from '@jest/globals';
import { newSheet } from './new-sheet.ts';
import { readTemplate, templateOf } from './template.ts';

const sheet = { ...newSheet('Sheet', { part: 'p' }, null), paper: 'A2' as const, upright: true as const, fields: { title: 'Bracket', drawn: 'M. Oak' } }; // prettier-ignore

describe('templates of sheets', () => {
  test('are read as they were written, without what is of one part alone', () => {
    const [first] = sheet.viewOrder as [string];
    const cut = { ...sheet, views: { ...sheet.views, [first]: { look: 'front' as const, cut: {} } } };
    expect(readTemplate(templateOf(sheet))).toMatchObject({ paper: 'A2', upright: true, angle: 'first', fields: { drawn: 'M. Oak' }, views: [{ look: 'front' }, { look: 'top' }, { look: 'right' }, { look: 'oblique' }] }); // prettier-ignore
    const read = readTemplate(templateOf(cut));
    expect(typeof read === 'string' ? read : read.views.map((v) => v.look)).toEqual(['top', 'right', 'oblique']);
    expect(templateOf(sheet)).not.toContain('Bracket');
  });

  test.each([
    ['no JSON', '{', 'This file is no template of sheets: it is not JSON.'],
    ['another format', '{"format":"x"}', /^This file is no template of sheets: /],
    ['paper that is none', templateOf(sheet).replace('A2', 'A9'), /paper/],
    ['a look twice', templateOf(sheet).replace('"top"', '"front"'), /twice/],
    ['too large', ' '.repeat(300_000), 'This file is too large for a template of sheets.'],
  ])('%s is told in a sentence', (_, text, says) => {
    const read = readTemplate(text);
    expect(typeof read === 'string' ? read : '').toMatch(says);
  });
});
