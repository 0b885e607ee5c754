/** Passwords: argon2id at the package's settings (19 MiB, two passes), which are those OWASP advises. */
import { hash, verify } from '@node-rs/argon2';
import { z } from 'zod';
import { atMost } from '../at-most.ts';

export const Password = z.string().min(10).max(200);
export const PASSWORD_RULE = 'A password has 10 to 200 characters.';

/** Hashing takes much of a core. */
const inTurn = atMost(2);

export const hashPassword = (password: string): Promise<string> => inTurn(() => hash(password));

/** Of nobody: who is not known takes as long to refuse as who is. */
const nobodys = hash('nobody has this one');

export const isPassword = (kept: string | null, password: string): Promise<boolean> =>
  inTurn(async () => (await verify(kept ?? (await nobodys), password)) && kept !== null);
