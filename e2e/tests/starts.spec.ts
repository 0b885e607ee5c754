import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { HelbServer } from '../helb-server.ts';

/** Start a server that is expected to refuse, and hear what it says. */
function refusedStart(env: Record<string, string>): Promise<{ code: number; said: string }> {
  return new Promise((done) => {
    const options = { cwd: resolve(import.meta.dirname, '../..'), env: { ...process.env, ...env } };
    execFile(process.execPath, ['packages/server/dist/main.mjs'], options, (error, stdout, stderr) =>
      done({ code: Number(error?.code ?? 0), said: stdout + stderr }),
    );
  });
}

test('a second start on the same data or port is refused in a sentence and leaves the first alone', async ({
  request,
}) => {
  const first = new HelbServer();
  const elsewhere = mkdtempSync(join(tmpdir(), 'helb-e2e-'));
  try {
    await first.start();
    const sameData = await refusedStart({ HELB_DATA: first.data, HELB_PORT: '0' });
    expect(sameData).toEqual({ code: 1, said: expect.stringContaining('Another Helb is running on') as unknown });
    const samePort = await refusedStart({ HELB_DATA: elsewhere, HELB_PORT: new URL(first.url).port });
    expect(samePort).toEqual({ code: 1, said: expect.stringMatching(/^Port \d+ is taken/) as unknown });
    expect((await request.get(`${first.url}/api/projects`)).status()).toBe(200);
  } finally {
    await first.stop();
    rmSync(elsewhere, { recursive: true, force: true });
  }
});

test('files are read beside the server’s own thread, and broken ones refused in a sentence', async ({ request }) => {
  const server = new HelbServer();
  try {
    await server.start();
    const [project] = (await (await request.get(`${server.url}/api/projects`)).json()) as { id: string }[];
    const path = `${server.url}/api/projects/${project!.id}/designs`;
    const ids = Array.from({ length: 15_000 }, (_, i) => `d${i}`);
    const dimensions = Object.fromEntries(ids.map((id) => [id, { name: `n_${id}`, value: '1 mm' }]));
    const units = { length: 'mm', angle: 'deg', decimals: 3 };
    const design = { format: 'helb-design', version: 1, name: 'Big', units, dimensions, dimensionOrder: ids, parts: {}, partOrder: [] }; // prettier-ignore
    const made = await request.post(path, { data: design });
    expect(made.status()).toBe(201);
    const refused = await request.post(path, { data: { ...design, dimensionOrder: [...ids, 'nowhere'] } });
    expect(refused.status()).toBe(422);
    expect(((await refused.json()) as { message: string }).message).toContain('lists “nowhere”, which does not exist');
  } finally {
    await server.stop();
  }
});
