/** What is handed out to be shown again: kept here only as a hash, so that who reads the database holds nothing. */
import { createHash, randomBytes } from 'node:crypto';

export const newToken = (): string => randomBytes(32).toString('base64url');
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** A cookie of a request, from its header. */
export function cookieIn(header: string | undefined, name: string): string | undefined {
  const pair = header?.split(/;\s*/).find((p) => p.startsWith(`${name}=`));
  return pair?.slice(name.length + 1);
}
