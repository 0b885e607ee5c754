import { NOTHING_SHARED, Shared } from '@helb/core';
import { randomUUID } from 'node:crypto';
import { col, fn, type Sequelize } from 'sequelize';
import { z } from 'zod';
import type { Asker } from '../access/access.ts';
import type { Guarded } from '../access/guarded.ts';
import { jsonOf } from '../body.ts';
import { DesignRow, ProjectRow } from '../database/models.ts';
import type { Desks } from '../designs/desk-threads.ts';
import { MemberRow } from '../people/rows.ts';
import { Refusal } from '../refusal.ts';

const Named = z.strictObject({ name: z.string().trim().min(1).max(80) });
const UNNAMED = 'A project needs a name of 1 to 80 characters.';

/** The dimensions themselves are looked into on a desk. */
const SharedChange = z.strictObject({ base: z.number().int().min(0), shared: z.unknown() });

function sharedOf(row: ProjectRow): { revision: number; shared: Shared } {
  const kept = row.shared ? Shared.safeParse(JSON.parse(row.shared)) : null;
  return { revision: row.sharedRevision, shared: kept?.success ? kept.data : NOTHING_SHARED };
}

/** A project that is there. @throws Refusal 404 */
export async function foundProject(id: string): Promise<ProjectRow> {
  const row = await ProjectRow.findByPk(id);
  if (!row || row.id !== id || row.deletedAt) throw new Refusal(404, 'This project no longer exists.');
  return row;
}

/** @param owner null where there are no accounts */
export async function createProject(sequelize: Sequelize, name: string, owner: string | null): Promise<string> {
  const id = randomUUID();
  await sequelize.transaction(async (transaction) => {
    await ProjectRow.create({ id, name, shared: null, sharedRevision: 0 }, { transaction });
    if (owner) await MemberRow.create({ projectId: id, personId: owner, role: 'owns' }, { transaction });
  });
  return id;
}

/** Of projects one may see; null where all are one's own. */
async function rolesOf({ person }: Asker, accounts: boolean): Promise<ReadonlyMap<string, string> | null> {
  if (!accounts) return null;
  const own = await MemberRow.findAll({ where: { personId: person!.id } });
  return new Map(own.map((m) => [m.projectId, m.role]));
}

export function projectRoutes(routes: Guarded, sequelize: Sequelize, desks: Desks): void {
  routes.get('/projects', 'signed in', async (ctx, asker) => {
    const roles = await rolesOf(asker, routes.access.accounts);
    const mine = roles ? { id: [...roles.keys()] } : {};
    const [projects, counts] = await Promise.all([
      ProjectRow.findAll({ where: { deletedAt: null, ...mine }, order: [['updatedAt', 'DESC']] }),
      DesignRow.findAll({
        attributes: ['projectId', [fn('COUNT', col('id')), 'count']],
        where: { deletedAt: null, ...(roles ? { projectId: [...roles.keys()] } : {}) },
        group: ['projectId'],
        raw: true,
      }) as unknown as Promise<{ projectId: string; count: number }[]>,
    ]);
    const countOf = new Map(counts.map((c) => [c.projectId, Number(c.count)]));
    ctx.body = projects.map((p) => ({ id: p.id, name: p.name, designs: countOf.get(p.id) ?? 0, changed: p.updatedAt, role: roles ? roles.get(p.id) : 'owns' })); // prettier-ignore
  });

  routes.post('/projects', 'signed in', async (ctx, { person }) => {
    const { name } = await jsonOf(ctx, Named, UNNAMED);
    ctx.status = 201;
    ctx.body = { id: await createProject(sequelize, name, person?.id ?? null), name };
  });

  routes.patch('/projects/:project', 'edits project', async (ctx) => {
    const { name } = await jsonOf(ctx, Named, UNNAMED);
    const row = await foundProject(ctx.params.project!);
    await row.update({ name });
    ctx.body = { id: row.id, name: row.name };
  });

  routes.get('/projects/:project/dimensions', 'reads project', async (ctx) => {
    ctx.body = sharedOf(await foundProject(ctx.params.project!));
  });

  routes.put('/projects/:project/dimensions', 'edits project', async (ctx) => {
    const { base, shared } = await jsonOf(ctx, SharedChange, 'These dimensions do not follow the format.');
    const answer = await desks.do({ kind: 'shared', text: JSON.stringify(shared ?? null) });
    if (answer.is === 'refused') throw new Refusal(answer.status, answer.message);
    const row = await foundProject(ctx.params.project!);
    // One statement, so that of two who change them at once only the first is taken.
    const [taken] = await ProjectRow.update(
      { shared: JSON.stringify(shared), sharedRevision: base + 1 },
      { where: { id: row.id, sharedRevision: base } },
    );
    if (taken === 0)
      throw new Refusal(409, 'The project’s dimensions were changed by someone else meanwhile; look at them again.');
    ctx.body = { revision: base + 1, shared };
  });

  routes.delete('/projects/:project', 'owns project', async (ctx) => {
    const { id } = await foundProject(ctx.params.project!);
    await sequelize.transaction(async (transaction) => {
      // Held, so that no design is made in it at the same moment.
      const row = (await ProjectRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE }))!;
      if ((await DesignRow.count({ where: { projectId: id, deletedAt: null }, transaction })) > 0)
        throw new Refusal(409, `${row.name} still holds designs; delete or move them first.`);
      await row.update({ deletedAt: new Date() }, { transaction });
    });
    ctx.status = 204;
  });
}
