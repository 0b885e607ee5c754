/** Links that are used once: the keeper's first, invitations, lost passwords. */
import { Op } from 'sequelize';
import { hashOf, newToken } from '../access/tokens.ts';
import { LinkRow, PersonRow, type LinkKind, type Role } from './rows.ts';

const HOUR_MS = 3600 * 1000;
const LASTS_MS: Record<LinkKind, number> = { keeper: 24 * HOUR_MS, invitation: 14 * 24 * HOUR_MS, password: HOUR_MS };

export interface LinkAbout {
  readonly kind: LinkKind;
  readonly address?: string;
  readonly personId?: string;
  readonly projectId?: string;
  readonly role?: Role;
}

/** @returns what stands in the link */
export async function makeLink({ kind, address, personId, projectId, role }: LinkAbout): Promise<string> {
  const token = newToken();
  await LinkRow.create({
    id: hashOf(token),
    kind,
    address: address ?? null,
    personId: personId ?? null,
    projectId: projectId ?? null,
    role: role ?? null,
    endsAt: new Date(Date.now() + LASTS_MS[kind]),
  });
  return token;
}

/** A link that still stands; null otherwise. */
export const linkOf = (token: string): Promise<LinkRow | null> =>
  LinkRow.findOne({ where: { id: hashOf(token), endsAt: { [Op.gt]: new Date() } } });

/** Links that nobody used in time. @param now ms */
export const purgeLinks = (now = Date.now()) => LinkRow.destroy({ where: { endsAt: { [Op.lt]: new Date(now) } } });

/** Of those who use it at once, the first takes it. */
export const takeLink = async (row: LinkRow): Promise<boolean> => (await LinkRow.destroy({ where: { id: row.id } })) === 1; // prettier-ignore

/** Where nobody keeps the server yet: the link by which somebody comes to; links not used before end. */
export async function keeperLink(): Promise<string | null> {
  if ((await PersonRow.count({ where: { keeper: true, leftAt: null } })) > 0) return null;
  await LinkRow.destroy({ where: { kind: 'keeper' } });
  return makeLink({ kind: 'keeper' });
}

/** The page's own addresses: what stands behind # never reaches a server's log. */
export const pageOf = (home: string, page: 'welcome' | 'new-password' | 'shared', token: string): string =>
  `${home}/${page}#${token}`;
