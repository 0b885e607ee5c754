/** Who makes a change without an account: each browser is a person of its own, known by a signed cookie. */
import { createHmac, randomUUID, timingSafeEqual } from 'node:crypto';

export const AUTHOR_COOKIE = 'helb_author';
const ID = /^[0-9a-f-]{36}$/;

const signature = (id: string, secret: string) => createHmac('sha256', secret).update(id).digest('base64url');

/** The author a cookie names; null when it was not given out by this server. */
export function authorIn(cookie: string | undefined, secret: string): string | null {
  const [id, given] = (cookie ?? '').split('.');
  if (!id || !given || !ID.test(id)) return null;
  const [a, b] = [Buffer.from(given), Buffer.from(signature(id, secret))];
  return a.length === b.length && timingSafeEqual(a, b) ? id : null;
}

/** One not seen before, and the cookie it will be known by. */
export function newAuthor(secret: string): { readonly author: string; readonly cookie: string } {
  const author = randomUUID();
  return { author, cookie: `${author}.${signature(author, secret)}` };
}
