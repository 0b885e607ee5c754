/** Who makes a change: without accounts each browser is a person of its own, known by a signed cookie. */
import { createHmac, randomUUID, timingSafeEqual } from 'node:crypto';
import type Koa from 'koa';

const COOKIE = 'helb_author';
const A_YEAR_MS = 365 * 24 * 3600 * 1000;
const ID = /^[0-9a-f-]{36}$/;

const signature = (id: string, secret: string) => createHmac('sha256', secret).update(id).digest('base64url');

/** The author a cookie names; null when it was not given out by this server. */
function authorIn(cookie: string | undefined, secret: string): string | null {
  const [id, given] = (cookie ?? '').split('.');
  if (!id || !given || !ID.test(id)) return null;
  const [a, b] = [Buffer.from(given), Buffer.from(signature(id, secret))];
  return a.length === b.length && timingSafeEqual(a, b) ? id : null;
}

/** The author of a request from its headers alone. */
export function authorOfHeader(header: string | undefined, secret: string): string | null {
  const pair = header?.split(/;\s*/).find((p) => p.startsWith(`${COOKIE}=`));
  return authorIn(pair?.slice(COOKIE.length + 1), secret);
}

/** Sets `ctx.state.author`, and `ctx.state.known`: whether the browser came with it. */
export function authors(secret: string): Koa.Middleware {
  return (ctx, next) => {
    const known = authorIn(ctx.cookies.get(COOKIE), secret);
    const author = known ?? randomUUID();
    if (!known)
      ctx.cookies.set(COOKIE, `${author}.${signature(author, secret)}`, { httpOnly: true, sameSite: 'lax', maxAge: A_YEAR_MS, overwrite: true }); // prettier-ignore
    Object.assign(ctx.state, { author, known: known !== null });
    return next();
  };
}
