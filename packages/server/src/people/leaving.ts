/** The end of an account. */
import type { Sequelize } from 'sequelize';
import { ProjectRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';
import { audited } from './audit.ts';
import { forgetName } from './names.ts';
import { AuditRow, LinkRow, MemberRow, PersonRow, SignInRow } from './rows.ts';

/** Projects that would be without an owner. */
export async function projectsOwnedAlone(personId: string): Promise<ProjectRow[]> {
  const own = await MemberRow.findAll({ where: { personId, role: 'owns' } });
  const alone: string[] = [];
  for (const { projectId } of own)
    if ((await MemberRow.count({ where: { projectId, role: 'owns' } })) === 1) alone.push(projectId);
  return ProjectRow.findAll({ where: { id: alone, deletedAt: null } });
}

/**
 * Their changes stay under the id; what told who it was goes.
 * @param heir takes over what they alone own; null when there is no such thing
 * @throws Refusal 409 when nobody would keep the server
 */
export async function leave(sequelize: Sequelize, personId: string, heir: string | null): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const person = await PersonRow.findByPk(personId, { transaction, lock: transaction.LOCK.UPDATE });
    if (!person || person.leftAt) throw new Refusal(404, 'This account no longer exists.');
    if (person.keeper && (await PersonRow.count({ where: { keeper: true, leftAt: null }, transaction })) === 1)
      throw new Refusal(409, 'You alone keep this server; nobody could invite or remove people after you.');
    if (heir)
      for (const { id } of await projectsOwnedAlone(personId))
        await MemberRow.upsert({ projectId: id, personId: heir, role: 'owns' }, { transaction });
    await MemberRow.destroy({ where: { personId }, transaction });
    await SignInRow.destroy({ where: { personId }, transaction });
    await LinkRow.destroy({ where: { address: person.address }, transaction });
    await AuditRow.update({ address: null }, { where: { address: person.address }, transaction });
    await person.update({ address: null, name: null, password: null, keeper: false, leftAt: new Date() }, { transaction }); // prettier-ignore
  });
  forgetName(personId);
  await audited('left', personId, heir ? 'removed by who keeps the server' : 'by themselves');
}
