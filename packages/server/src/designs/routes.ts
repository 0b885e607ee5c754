import { emptyDesign, emptyPart, MAX_FILE_BYTES, type Design } from '@helb/core';
import { randomUUID } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import type { Guarded } from '../access/guarded.ts';
import { jsonOf, textOf } from '../body.ts';
import { DesignRow, PictureRow, ProjectRow } from '../database/models.ts';
import { foundProject } from '../projects/routes.ts';
import { Refusal } from '../refusal.ts';
import type { ChangeLog } from './change-log.ts';
import { changeNamed, pageOfLog, rowOf } from './log-rows.ts';
import type { Desks } from './desk-threads.ts';

const NewDesign = z.strictObject({ name: z.string().trim().min(1).max(80) });
const StateName = z.strictObject({ name: z.string().trim().max(80) });
const Revision = z.coerce.number().int().min(0);

/** @param document the design as text */
export async function storeDesign(
  sequelize: Sequelize,
  projectId: string,
  name: string,
  document: string,
  firstPart: string | null,
): Promise<string> {
  const id = randomUUID();
  await sequelize.transaction(async (transaction) => {
    // Held, so that the project is not deleted at the same moment.
    const project = await ProjectRow.findByPk(projectId, { transaction, lock: transaction.LOCK.SHARE });
    if (!project || project.deletedAt) throw new Refusal(404, 'This project no longer exists.');
    await DesignRow.create({ id, projectId, name, revision: 0, document, documentRevision: 0, firstPart }, { transaction }); // prettier-ignore
  });
  return id;
}

/** Longer texts are files, and not looked into here. */
const LONGEST_NAME_REQUEST = 2000;

/** The name in a request for an empty design; null when it is a file. @throws Refusal 400 when it is not JSON */
function nameAsked(text: string): string | null {
  if (text.length > LONGEST_NAME_REQUEST) return null;
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new Refusal(400, 'The server could not read this request.');
  }
  if (typeof body === 'object' && body !== null && 'format' in body) return null;
  const parsed = NewDesign.safeParse(body);
  if (!parsed.success) throw new Refusal(422, 'A design needs a name of 1 to 80 characters.');
  return parsed.data.name;
}

/** A new design has one part to begin in. */
function freshDesign(name: string): Design {
  return { ...emptyDesign(name), parts: { part1: emptyPart('Part 1') }, partOrder: ['part1'] };
}

export function designRoutes(routes: Guarded, sequelize: Sequelize, desks: Desks, changes: ChangeLog): void {
  routes.get('/projects/:project/designs', 'reads project', async (ctx, asker) => {
    const project = await foundProject(ctx.params.project!);
    const rows = await DesignRow.findAll({
      where: { projectId: project.id },
      attributes: ['id', 'name', 'updatedAt', 'firstPart', 'deletedAt'],
      order: [['updatedAt', 'DESC']],
    });
    const there = rows.filter((r) => !r.deletedAt);
    const pictures = await PictureRow.findAll({
      where: { designId: there.map((r) => r.id) },
      attributes: ['designId', 'part', 'pictureKey'],
    });
    const keys = new Map(pictures.map((p) => [`${p.designId} ${p.part}`, { part: p.part, key: p.pictureKey }]));
    ctx.body = {
      project: { id: project.id, name: project.name, role: await routes.access.roleOn(asker, { project: project.id }) },
      designs: there.map((r) => ({
        id: r.id,
        name: r.name,
        changed: r.updatedAt,
        picture: keys.get(`${r.id} ${r.firstPart}`) ?? null,
      })),
      deleted: rows.flatMap((r) => (r.deletedAt ? [{ id: r.id, name: r.name, deleted: r.deletedAt }] : [])),
    };
  });

  routes.post('/projects/:project/designs', 'edits project', async (ctx) => {
    const project = await foundProject(ctx.params.project!);
    const text = await textOf(ctx, MAX_FILE_BYTES);
    const name = ctx.query.file === undefined ? nameAsked(text) : null;
    const answer = name === null ? await desks.do({ kind: 'read', text }) : null;
    if (answer?.is === 'refused') throw new Refusal(answer.status, answer.message);
    const made =
      answer?.is === 'text' ? answer : { name: name!, text: JSON.stringify(freshDesign(name!)), firstPart: 'part1' };
    ctx.status = 201;
    ctx.body = { id: await storeDesign(sequelize, project.id, made.name, made.text, made.firstPart), name: made.name };
  });

  routes.get('/designs/:design', 'reads design', async (ctx, asker) => {
    const { text, row } = await changes.documentAt(ctx.params.design!);
    const [project, role, { log, more }] = await Promise.all([
      ProjectRow.findByPk(row.projectId, { attributes: ['name'] }),
      routes.access.roleOn(asker, { design: row.id }),
      pageOfLog(row.id, row.revision + 1),
    ]);
    const head = { id: row.id, project: { id: row.projectId, name: project?.name ?? '' }, revision: row.revision, you: asker.author, signedIn: asker.person !== null, role, log, more }; // prettier-ignore
    // The document is text already; it is not read here only to be written again.
    ctx.type = 'json';
    ctx.body = `${JSON.stringify(head).slice(0, -1)},"document":${text}}`;
  });

  routes.delete('/designs/:design', 'edits design', async (ctx) => {
    await (await rowOf(ctx.params.design!)).update({ deletedAt: new Date() });
    ctx.status = 204;
  });

  /** What was deleted is brought back, while it is kept. */
  routes.post('/designs/:design/restore', 'edits design', async (ctx) => {
    const row = await DesignRow.findByPk(ctx.params.design!, { attributes: ['id', 'projectId', 'deletedAt'] });
    if (!row || row.id !== ctx.params.design) throw new Refusal(404, 'This design no longer exists.');
    await foundProject(row.projectId);
    await row.update({ deletedAt: null });
    ctx.status = 204;
  });

  routes.post('/designs/:design/changes', 'edits design', async (ctx, { author }) => {
    const text = await textOf(ctx, MAX_FILE_BYTES);
    // As text: what measures an answer before it is sent would write an object out once more.
    ctx.body = JSON.stringify(await changes.append(ctx.params.design!, author, text));
    ctx.type = 'json';
  });

  /** Changes after a revision with what they did; or a page of the log that ends before one. */
  routes.get('/designs/:design/changes', 'reads design', async (ctx) => {
    const since = Revision.safeParse(ctx.query.since ?? NaN);
    const before = Revision.safeParse(ctx.query.before ?? NaN);
    if (since.success) {
      const found = await changes.since(ctx.params.design!, since.data);
      if (found === null) throw new Refusal(410, 'Too much was changed since; open the design anew.');
      ctx.body = { changes: found };
    } else {
      const row = await rowOf(ctx.params.design!);
      ctx.body = await pageOfLog(row.id, before.success ? before.data : row.revision + 1);
    }
  });

  routes.get('/designs/:design/changes/:change', 'reads design', async (ctx) => {
    ctx.body = await changeNamed((await rowOf(ctx.params.design!)).id, ctx.params.change!);
  });

  /** The design as it was. */
  routes.get('/designs/:design/states/:revision', 'reads design', async (ctx) => {
    const revision = Revision.safeParse(ctx.params.revision);
    if (!revision.success) throw new Refusal(404, 'There is no such state of the design.');
    const { text } = await changes.documentAt(ctx.params.design!, revision.data);
    ctx.type = 'json';
    ctx.body = text;
  });

  /** Name a state; an empty name takes it away. */
  routes.put('/designs/:design/states/:revision/name', 'edits design', async (ctx) => {
    const revision = Revision.safeParse(ctx.params.revision);
    const { name } = await jsonOf(ctx, StateName, 'The name of a state has at most 80 characters.');
    await changes.name(ctx.params.design!, revision.data ?? -1, name || null);
    ctx.status = 204;
  });
}
