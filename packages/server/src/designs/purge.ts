/** What was deleted is kept for a while, then gone for good; so is what has ended. */
import type { Logger } from 'pino';
import { Op } from 'sequelize';
import { DesignRow, ProjectRow } from '../database/models.ts';
import { purgeAudit } from '../people/audit.ts';
import { purgeLinks } from '../people/links.ts';
import { ShareRow } from '../people/rows.ts';
import { purgeSignIns } from '../people/sign-ins.ts';

const KEPT_DAYS = 30;
const A_DAY_MS = 24 * 3600 * 1000;

/** @param now ms */
export async function purgeDeleted(now = Date.now()): Promise<void> {
  const where = { deletedAt: { [Op.lt]: new Date(now - KEPT_DAYS * A_DAY_MS) } };
  await DesignRow.destroy({ where });
  for (const project of await ProjectRow.findAll({ where, attributes: ['id'] }))
    if ((await DesignRow.count({ where: { projectId: project.id } })) === 0) await project.destroy();
  await Promise.all([purgeAudit(now), purgeLinks(now), purgeSignIns(now), ShareRow.destroy({ where: { endsAt: { [Op.lt]: new Date(now) } } })]); // prettier-ignore
}

/** Now and every day. @returns what ends it */
export function purgeDaily(log: Logger): () => void {
  const purge = () => void purgeDeleted().catch((error: unknown) => log.warn({ err: error }, 'what was deleted long ago is still there')); // prettier-ignore
  purge();
  const timer = setInterval(purge, A_DAY_MS).unref();
  return () => clearInterval(timer);
}
