import { readDesign, type SolidKernel } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Sequelize } from 'sequelize';
import { ProjectRow } from './database/models.ts';
import { paintDesign } from './designs/pictures.ts';
import { storeDesign } from './designs/routes.ts';
import { createProject } from './projects/routes.ts';

const DEMO_PROJECT = 'Glasshouse';

/** Load the demo designs into a database that has no project yet. */
export async function loadDemoOnce(sequelize: Sequelize, directory: string): Promise<void> {
  if (!existsSync(directory) || (await ProjectRow.count()) > 0) return;
  const project = await createProject(sequelize, DEMO_PROJECT, null);
  let kernel: SolidKernel | null = null;
  for (const file of readdirSync(directory)
    .filter((f) => f.endsWith('.helb.json'))
    .sort()) {
    const read = readDesign(readFileSync(join(directory, file), 'utf8'));
    if (!read.ok) throw new Error(`The demo design ${file} cannot be read: ${read.message}`);
    const id = await storeDesign(
      sequelize,
      project,
      read.design.name,
      JSON.stringify(read.design),
      read.design.partOrder[0] ?? null,
    );
    kernel ??= await loadKernel();
    await paintDesign(id, read.design, kernel);
  }
}
