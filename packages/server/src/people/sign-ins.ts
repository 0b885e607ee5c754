/** Browsers that are signed in. */
import { Op } from 'sequelize';
import { hashOf, newToken } from '../access/tokens.ts';
import { PersonRow, SignInRow } from './rows.ts';

export const SIGN_IN_COOKIE = 'helb_signed_in';

const HOUR_MS = 3600 * 1000;
/** What a browser holds is changed now and then, so that a copy taken from it does not serve for long. */
const TURNED_EVERY_MS = 12 * HOUR_MS;
/** Requests under way still carry the one before. */
const BEFORE_FOR_MS = 60 * 1000;
const UNUSED_FOR_MS = 30 * 24 * HOUR_MS;
const AT_MOST_MS = 180 * 24 * HOUR_MS;
const SEEN_EVERY_MS = HOUR_MS;

/** Of someone signed in. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly keeper: boolean;
  /** The browser they are signed in with. */
  readonly signIn: string;
}

/** @returns what the browser is to hold */
export async function beginSignIn(personId: string): Promise<string> {
  const token = newToken();
  const now = new Date();
  await SignInRow.create({ id: hashOf(token), personId, before: null, turnedAt: now, seenAt: now });
  return token;
}

/**
 * Who holds this.
 * @param mayTurn another may be given out in its place, as `turned`
 * @param now ms
 */
export async function findSignIn(
  token: string | undefined,
  mayTurn: boolean,
  now = Date.now(),
): Promise<{ readonly person: Person; readonly turned?: string } | null> {
  if (!token) return null;
  const id = hashOf(token);
  const row = await SignInRow.findOne({
    where: { [Op.or]: [{ id }, { before: id, turnedAt: { [Op.gt]: new Date(now - BEFORE_FOR_MS) } }] },
  });
  if (!row) return null;
  if (now - row.seenAt.getTime() > UNUSED_FOR_MS || now - row.createdAt.getTime() > AT_MOST_MS) {
    await row.destroy();
    return null;
  }
  const person = await PersonRow.findByPk(row.personId);
  if (!person || person.leftAt) return null;
  const told = { id: person.id, name: person.name!, address: person.address!, keeper: person.keeper };
  if (mayTurn && row.id === id && now - row.turnedAt.getTime() > TURNED_EVERY_MS) {
    const turned = newToken();
    const next = { id: hashOf(turned), before: id, turnedAt: new Date(now), seenAt: new Date(now) };
    const [taken] = await SignInRow.update(next, { where: { id } });
    if (taken > 0) return { person: { ...told, signIn: next.id }, turned };
  } else if (now - row.seenAt.getTime() > SEEN_EVERY_MS)
    await SignInRow.update({ seenAt: new Date(now) }, { where: { id: row.id } });
  return { person: { ...told, signIn: row.id } };
}

/** Browsers that did not come back in time. @param now ms */
export const purgeSignIns = (now = Date.now()) =>
  SignInRow.destroy({ where: { seenAt: { [Op.lt]: new Date(now - UNUSED_FOR_MS) } } });

export const endSignIn = (id: string) => SignInRow.destroy({ where: { id } });

/** @param but this one stays */
export const endSignIns = (personId: string, but?: string) =>
  SignInRow.destroy({ where: { personId, ...(but ? { id: { [Op.ne]: but } } : {}) } });
