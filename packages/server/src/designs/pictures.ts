/** The last pictures of a design's parts: a browser leaves them, the next one shows them while its kernel starts. */
import { Ledger, pack, PartEvaluator, PartPainter, pictureKey, type Design } from '@helb/core';
import type { SolidKernel } from '@helb/core';
import type { Guarded } from '../access/guarded.ts';
import { PictureRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';
import type { ChangeLog } from './change-log.ts';
import { rowOf } from './log-rows.ts';

/** A part with a finer picture than this is simply computed anew. */
const MOST_BYTES = 8 * 1024 * 1024;
const KEY = /^[a-z0-9]{8,40}$/;

export async function storePicture(designId: string, part: string, key: string, data: Uint8Array): Promise<void> {
  await PictureRow.upsert({ designId, part, pictureKey: key, data: Buffer.from(data) });
}

/** Evaluate all parts here and keep their pictures. */
export async function paintDesign(designId: string, design: Design, kernel: SolidKernel): Promise<void> {
  const ledger = Ledger.of(design);
  const evaluator = new PartEvaluator(kernel);
  const painter = new PartPainter(kernel);
  for (const part of design.partOrder) {
    const view = painter.paint(await evaluator.evaluate(design, ledger, part));
    await storePicture(designId, part, pictureKey(design, ledger, part), pack(view));
  }
}

export function pictureRoutes(routes: Guarded, changes: ChangeLog): void {
  /** Part and key of each picture there is. */
  routes.get('/designs/:design/pictures', 'reads design', async (ctx) => {
    const { id } = await rowOf(ctx.params.design!);
    const rows = await PictureRow.findAll({ where: { designId: id }, attributes: ['part', 'pictureKey'] });
    ctx.body = rows.map((r) => ({ part: r.part, key: r.pictureKey }));
  });

  routes.get('/designs/:design/pictures/:part/:key', 'reads design', async (ctx) => {
    const { id } = await rowOf(ctx.params.design!);
    const row = await PictureRow.findOne({ where: { designId: id, part: ctx.params.part!, pictureKey: ctx.params.key! } }); // prettier-ignore
    if (!row) throw new Refusal(404, 'There is no such picture.');
    // Named by content, so it can be kept as long as the browser likes.
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
    ctx.type = 'application/octet-stream';
    ctx.body = row.data;
  });

  routes.put('/designs/:design/pictures/:part/:key', 'edits design', async (ctx) => {
    const { design, part, key } = ctx.params as { design: string; part: string; key: string };
    if (!KEY.test(key)) throw new Refusal(422, 'This picture is of no part of the design.');
    const { id } = await rowOf(design);
    const chunks: Buffer[] = [];
    let size = 0;
    for await (const chunk of ctx.req as AsyncIterable<Buffer>) {
      size += chunk.length;
      if (size > MOST_BYTES) throw new Refusal(413, 'This picture is too large to keep.');
      chunks.push(chunk);
    }
    const data = Buffer.concat(chunks);
    await changes.checkPicture(id, part, key, data);
    await storePicture(id, part, key, data);
    ctx.status = 204;
  });
}
