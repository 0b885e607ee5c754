/** Issued sheets are kept as they were given away, and by nobody altered. */
import { describe, expect, test } from '@jest/globals';
import { purgeDeleted } from './purge.ts';
import { IssuedRow } from '../database/models.ts';
import { served } from '../served.ts';

const s = served();
const pdf = (text: string) => Buffer.from(`%PDF-1.3\n${text}`);
const at = (design: string, rest: string) => `/api/designs/${design}/issued/${rest}`;
const keep = (design: string, rest: string, data: Buffer) => s.api.put(at(design, rest)).set('content-type', 'application/pdf').send(data); // prettier-ignore

describe('an issued sheet', () => {
  test('is kept to the byte, told apart by sheet, letter and state', async () => {
    const design = await s.newDesign();
    await keep(design, 'front/A/4', pdf('first')).expect(204);
    await keep(design, 'front/B/9', pdf('second')).expect(204);
    // Letters are told apart as they are written.
    await keep(design, 'Front/A/4', pdf('another sheet')).expect(204);
    for (const [rest, text] of [['front/A/4', 'first'], ['front/B/9', 'second'], ['Front/A/4', 'another sheet']] as const) {
      const answer = await s.api.get(at(design, rest)).responseType('blob').expect(200);
      expect(Buffer.from(answer.body as Buffer).equals(pdf(text))).toBe(true);
      expect(answer.headers['content-type']).toBe('application/pdf');
      expect(answer.headers['content-disposition']).toBe('attachment');
    }
    const none = await s.api.get(at(design, 'front/C/9')).expect(404);
    expect(none.body.message).toMatch(/was not kept as a file/);
  }); // prettier-ignore

  test('stays as it was: the same sent again is taken, anything else is refused', async () => {
    const design = await s.newDesign();
    await keep(design, 'h/A/1', pdf('as it was')).expect(204);
    await keep(design, 'h/A/1', pdf('as it was')).expect(204);
    const altered = await keep(design, 'h/A/1', pdf('otherwise')).expect(409);
    expect(altered.body.message).toBe('This issue is kept already, and stays as it was.');
    expect(Buffer.from((await s.api.get(at(design, 'h/A/1')).responseType('blob')).body as Buffer).equals(pdf('as it was'))).toBe(true); // prettier-ignore
  });

  test.each([
    ['no PDF', 'h/A/1', Buffer.from('<html>'), 422, /this is none/],
    ['nothing', 'h/A/1', Buffer.alloc(0), 422, /this is none/],
    ['too large', 'h/A/1', Buffer.concat([pdf(''), Buffer.alloc(9 * 1024 * 1024)]), 413, /larger than the 8 MB/],
    ['a letter that is none', 'h/a1/1', pdf('x'), 404, /no such issue/],
    ['a state that is none', 'h/A/minus', pdf('x'), 404, /no such issue/],
  ] as const)('%s is refused in a sentence', async (_, rest, data, status, says) => {
    const answer = await keep(await s.newDesign(), rest, data);
    expect([answer.status, answer.body.message]).toEqual([status, expect.stringMatching(says)]);
  });

  test('goes with its design, and is none of another', async () => {
    const [design, other] = [await s.newDesign(), await s.newDesign()];
    await keep(design, 'h/A/1', pdf('x')).expect(204);
    await s.api.get(at(other, 'h/A/1')).expect(404);
    await s.api.delete(`/api/designs/${design}`);
    await s.api.get(at(design, 'h/A/1')).expect(404);
    await purgeDeleted(Date.now() + 40 * 24 * 3600 * 1000);
    expect(await IssuedRow.count({ where: { designId: design } })).toBe(0);
  });
});
