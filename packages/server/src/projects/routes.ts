import { faultOfShared, firstIssue, NOTHING_SHARED, Shared } from '@helb/core';
import Router from '@koa/router';
import { randomUUID } from 'node:crypto';
import { col, fn } from 'sequelize';
import { z } from 'zod';
import { DesignRow, ProjectRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';

const Named = z.strictObject({ name: z.string().trim().min(1).max(80) });

function nameIn(body: unknown): string {
  const parsed = Named.safeParse(body);
  if (!parsed.success) throw new Refusal(422, 'A project needs a name of 1 to 80 characters.');
  return parsed.data.name;
}

const SharedChange = z.strictObject({ base: z.number().int().min(0), shared: Shared });

function sharedOf(row: ProjectRow): { revision: number; shared: Shared } {
  const kept = row.shared ? Shared.safeParse(JSON.parse(row.shared)) : null;
  return { revision: row.sharedRevision, shared: kept?.success ? kept.data : NOTHING_SHARED };
}

async function found(id: string): Promise<ProjectRow> {
  const row = await ProjectRow.findByPk(id);
  if (!row) throw new Refusal(404, 'This project no longer exists.');
  return row;
}

export async function createProject(name: string): Promise<string> {
  const id = randomUUID();
  await ProjectRow.create({ id, name, shared: null, sharedRevision: 0 });
  return id;
}

export function projectRoutes(): Router {
  const router = new Router({ prefix: '/api/projects' });

  router.get('/', async (ctx) => {
    const [projects, counts] = await Promise.all([
      ProjectRow.findAll({ order: [['updatedAt', 'DESC']] }),
      DesignRow.findAll({
        attributes: ['projectId', [fn('COUNT', col('id')), 'count']],
        group: ['projectId'],
        raw: true,
      }) as unknown as Promise<{ projectId: string; count: number }[]>,
    ]);
    const countOf = new Map(counts.map((c) => [c.projectId, Number(c.count)]));
    ctx.body = projects.map((p) => ({ id: p.id, name: p.name, designs: countOf.get(p.id) ?? 0, changed: p.updatedAt }));
  });

  router.post('/', async (ctx) => {
    const name = nameIn(ctx.request.body);
    ctx.status = 201;
    ctx.body = { id: await createProject(name), name };
  });

  router.patch('/:project', async (ctx) => {
    const row = await found(ctx.params.project!);
    await row.update({ name: nameIn(ctx.request.body) });
    ctx.body = { id: row.id, name: row.name };
  });

  router.get('/:project/dimensions', async (ctx) => {
    ctx.body = sharedOf(await found(ctx.params.project!));
  });

  router.put('/:project/dimensions', async (ctx) => {
    const parsed = SharedChange.safeParse(ctx.request.body);
    if (!parsed.success)
      throw new Refusal(422, `These dimensions do not follow the format: ${firstIssue(parsed.error)}`);
    const { base, shared } = parsed.data;
    const fault = faultOfShared(shared);
    if (fault) throw new Refusal(422, fault);
    const row = await found(ctx.params.project!);
    // One statement, so that of two who change them at once only the first is taken.
    const [taken] = await ProjectRow.update(
      { shared: JSON.stringify(shared), sharedRevision: base + 1 },
      { where: { id: row.id, sharedRevision: base } },
    );
    if (taken === 0)
      throw new Refusal(409, 'The project’s dimensions were changed by someone else meanwhile; look at them again.');
    ctx.body = { revision: base + 1, shared };
  });

  router.delete('/:project', async (ctx) => {
    const row = await found(ctx.params.project!);
    if ((await DesignRow.count({ where: { projectId: row.id } })) > 0) {
      throw new Refusal(409, `${row.name} still holds designs; delete or move them first.`);
    }
    await row.destroy();
    ctx.status = 204;
  });

  return router;
}
