/** What was tried and done that decides who may do what; and how often one may try. */
import { Op } from 'sequelize';
import { AuditRow } from './rows.ts';

const WINDOW_MS = 15 * 60 * 1000;
/** Wrong attempts under one address of mail. */
const MOST_WRONG = 8;
/** Of all kinds from one place on the net; a whole office may sit behind one. */
const MOST_FROM_PLACE = 300;
const KEPT_MS = 180 * 24 * 3600 * 1000;

export interface Attempt {
  readonly what: 'sign-in' | 'forgot' | 'link' | 'password';
  readonly address: string | null;
  readonly ip: string;
}

/**
 * Count an attempt before it is made, so that many at once do not slip through.
 * @returns its record, to be told how it went; or for how many seconds there are to be no more
 */
export async function tried(attempt: Attempt): Promise<{ readonly row: AuditRow } | { readonly waitS: number }> {
  const row = await AuditRow.create({ ...attempt, outcome: 'tried' });
  const since = { createdAt: { [Op.gt]: new Date(Date.now() - WINDOW_MS) }, id: { [Op.lt]: row.id } };
  const counted = { what: ['sign-in', 'forgot', 'link', 'password'], outcome: ['tried', 'wrong'] };
  const [ofAddress, ofPlace] = await Promise.all([
    attempt.address === null ? 0 : AuditRow.count({ where: { ...since, ...counted, address: attempt.address } }),
    AuditRow.count({ where: { ...since, what: counted.what, ip: attempt.ip } }),
  ]);
  if (ofAddress < MOST_WRONG && ofPlace < MOST_FROM_PLACE) return { row };
  // Of those who go on for long, no more is kept.
  if (ofPlace > 2 * MOST_FROM_PLACE) await row.destroy();
  else await row.update({ outcome: 'limited' });
  return { waitS: WINDOW_MS / 1000 };
}

/** Something that was done. @param about in words */
export const audited = (what: string, personId: string | null, about: string): Promise<AuditRow> =>
  AuditRow.create({ what, outcome: 'done', personId, about: about.slice(0, 200) });

/** @param now ms */
export const purgeAudit = (now = Date.now()) =>
  AuditRow.destroy({ where: { createdAt: { [Op.lt]: new Date(now - KEPT_MS) } } });
