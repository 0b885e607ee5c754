import { Change, emptyDesign, emptyPart, MAX_FILE_BYTES, type Design } from '@helb/core';
import Router from '@koa/router';
import { randomUUID } from 'node:crypto';
import rawBody from 'raw-body';
import { literal, type Sequelize } from 'sequelize';
import { z } from 'zod';
import { DesignRow, PictureRow, ProjectRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';
import { appendChange, changeNamed, logOf } from './change-log.ts';
import type { Reader } from './reader.ts';

const NewDesign = z.strictObject({ name: z.string().trim().min(1).max(80) });
const Sent = z.strictObject({ base: z.number().int().min(0), change: Change });

/** @param document the design as text */
export async function storeDesign(projectId: string, name: string, document: string): Promise<string> {
  const id = randomUUID();
  await DesignRow.create({ id, projectId, name, revision: 0, document });
  return id;
}

/** Where a design's name or a whole design file is sent, as text. */
export function isFilePath(method: string, path: string): boolean {
  return method === 'POST' && /^\/api\/projects\/[^/]+\/designs\/?$/.test(path);
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

export function designRoutes(sequelize: Sequelize, read: Reader): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/projects/:project/designs', async (ctx) => {
    const project = await ProjectRow.findByPk(ctx.params.project);
    if (!project) throw new Refusal(404, 'This project no longer exists.');
    const rows = await DesignRow.findAll({
      where: { projectId: project.id },
      attributes: ['id', 'name', 'updatedAt', [literal(`JSON_VALUE(document, '$.partOrder[0]')`), 'firstPart']],
      order: [['updatedAt', 'DESC']],
    });
    const pictures = await PictureRow.findAll({
      where: { designId: rows.map((r) => r.id) },
      attributes: ['designId', 'part', 'pictureKey'],
    });
    const keys = new Map(pictures.map((p) => [`${p.designId} ${p.part}`, { part: p.part, key: p.pictureKey }]));
    ctx.body = {
      project: { id: project.id, name: project.name },
      designs: rows.map((r) => ({
        id: r.id,
        name: r.name,
        changed: r.updatedAt,
        picture: keys.get(`${r.id} ${String(r.get('firstPart'))}`) ?? null,
      })),
    };
  });

  router.post('/projects/:project/designs', async (ctx) => {
    if (!(await ProjectRow.findByPk(ctx.params.project))) throw new Refusal(404, 'This project no longer exists.');
    const text = await rawBody(ctx.req, { limit: MAX_FILE_BYTES, encoding: 'utf8', length: ctx.request.length });
    const name = nameAsked(text);
    const file = name === null ? await read(text) : null;
    if (file && !file.ok) throw new Refusal(422, file.message);
    const made = file ?? { name: name!, document: JSON.stringify(freshDesign(name!)) };
    ctx.status = 201;
    ctx.body = { id: await storeDesign(ctx.params.project!, made.name, made.document), name: made.name };
  });
  router.get('/designs/:design', async (ctx) => {
    const row = await found(ctx.params.design!);
    const project = await ProjectRow.findByPk(row.projectId);
    ctx.body = {
      id: row.id,
      project: { id: row.projectId, name: project?.name ?? '' },
      revision: row.revision,
      document: JSON.parse(row.document) as Design,
      log: await logOf(row.id),
    };
  });

  router.delete('/designs/:design', async (ctx) => {
    await (await found(ctx.params.design!)).destroy();
    ctx.status = 204;
  });

  router.post('/designs/:design/changes', async (ctx) => {
    const sent = Sent.safeParse(ctx.request.body);
    if (!sent.success)
      throw new Refusal(422, 'This change cannot be read; reload the page, which may be older than the server.');
    ctx.body = await appendChange(sequelize, ctx.params.design!, sent.data.base, sent.data.change);
  });

  router.get('/designs/:design/changes/:change', async (ctx) => {
    ctx.body = await changeNamed(ctx.params.design!, ctx.params.change!);
  });

  return router;
}

async function found(id: string): Promise<DesignRow> {
  const row = await DesignRow.findByPk(id);
  if (!row) throw new Refusal(404, 'This design no longer exists.');
  return row;
}
