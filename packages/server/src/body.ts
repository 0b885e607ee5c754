/** What a request carries, read once and of bounded size. */
import type Koa from 'koa';
import rawBody from 'raw-body';
import type { z } from 'zod';
import { Refusal } from './refusal.ts';

/** Of what is looked into where requests are answered; longer things are read elsewhere. */
const SMALL_BYTES = 256 * 1024;

/** @throws Refusal 400 when it cannot be read, 413 when it is larger, 415 when it is packed */
export async function textOf(ctx: Koa.Context, limit = SMALL_BYTES): Promise<string> {
  const packed = ctx.get('content-encoding');
  if (packed && packed !== 'identity') throw new Refusal(415, 'The server takes requests as they are, not packed.');
  try {
    return await rawBody(ctx.req, { limit, encoding: 'utf8', length: ctx.request.length });
  } catch (error) {
    if ((error as { status?: number }).status !== 413) throw new Refusal(400, 'The request broke off before its end.');
    const most = limit >= 1024 * 1024 ? `${limit / 1024 / 1024} MB` : `${limit / 1024} KB`;
    throw new Refusal(413, `This is larger than the ${most} the server takes at once.`);
  }
}

/** Small JSON of a known form. @param otherwise what is said of anything else @throws Refusal */
export async function jsonOf<T>(ctx: Koa.Context, schema: z.ZodType<T>, otherwise: string): Promise<T> {
  const text = await textOf(ctx);
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new Refusal(400, 'The server could not read this request.');
  }
  const parsed = schema.safeParse(data);
  if (!parsed.success) throw new Refusal(422, otherwise);
  return parsed.data;
}
