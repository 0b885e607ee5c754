/** Sheets as they were issued: the PDF that was given away, kept beside the design and never altered. */
import type { Guarded } from '../access/guarded.ts';
import { IssuedRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';
import { rowOf } from './log-rows.ts';
import rawBody from 'raw-body';

const MOST_BYTES = 8 * 1024 * 1024;
/** Of all issues of a design together. */
const MOST_IN_ALL = 200 * 1024 * 1024;
const SHEET = /^[\w-]{1,40}$/;
const LETTER = /^[A-Z]{1,2}$/;
const HEAD = Buffer.from('%PDF-');

/** @throws Refusal where that is no issue’s address */
function issueOf({ sheet = '', letter = '', revision = '' }: Record<string, string | undefined>) {
  if (!SHEET.test(sheet) || !LETTER.test(letter) || !/^\d{1,9}$/.test(revision)) throw new Refusal(404, 'There is no such issue of a sheet.'); // prettier-ignore
  return { sheet, letter, revision: Number(revision) };
}

const PATH = '/designs/:design/issued/:sheet/:letter/:revision';

export function issuedRoutes(routes: Guarded): void {
  routes.get(PATH, 'reads design', async (ctx) => {
    const issue = issueOf(ctx.params);
    const { id } = await rowOf(ctx.params.design!);
    const row = await IssuedRow.findOne({ where: { designId: id, ...issue } });
    if (!row) throw new Refusal(404, 'This issue was not kept as a file; show it as it was, and write it anew.');
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
    ctx.set('Content-Disposition', 'attachment');
    ctx.type = 'application/pdf';
    ctx.body = row.data;
  });

  routes.put(PATH, 'edits design', async (ctx) => {
    const issue = issueOf(ctx.params);
    const { id } = await rowOf(ctx.params.design!);
    const data = await rawBody(ctx.req, { limit: MOST_BYTES, length: ctx.request.length }).catch((error: { status?: number }) => {
      throw error.status === 413 ? new Refusal(413, 'This sheet is larger than the 8 MB the server keeps of an issue.') : new Refusal(400, 'The request broke off before its end.');
    }); // prettier-ignore
    if (!data.subarray(0, HEAD.length).equals(HEAD)) throw new Refusal(422, 'An issue of a sheet is kept as a PDF; this is none.'); // prettier-ignore
    const known = await IssuedRow.findOne({ where: { designId: id, ...issue } });
    // Sent again after an answer that was lost it is the same; anything else would alter what was given away.
    if (known && !known.data.equals(data)) throw new Refusal(409, 'This issue is kept already, and stays as it was.');
    if (!known) {
      const kept = (await IssuedRow.sum('bytes', { where: { designId: id } })) || 0;
      if (kept + data.length > MOST_IN_ALL) throw new Refusal(413, 'The issues of this design fill all the room they have; the PDF is yours to keep.'); // prettier-ignore
      await IssuedRow.create({ designId: id, ...issue, bytes: data.length, data });
    }
    ctx.status = 204;
  });
}
