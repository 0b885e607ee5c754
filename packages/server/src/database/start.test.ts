import { describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { connectDatabase } from './connect.ts';
import { lockDirectory } from './data-lock.ts';
import { startPrivateDatabase } from './private-mariadb.ts';
import { readJson, writeWhole } from './whole-file.ts';

describe('a start', () => {
  const fresh = () => mkdtempSync(join(tmpdir(), 'helb-start-'));

  test('ends a database that a killed server left running, and finds all that was in it', async () => {
    const data = fresh();
    const first = await startPrivateDatabase(data, 0);
    const before = await connectDatabase(first.url);
    await before.query('CREATE TABLE kept (n INT)');
    await before.close();
    await first.stop();
    const dir = join(data, 'database');
    const left = spawn('mariadbd', ['--no-defaults', `--datadir=${dir}`, `--pid-file=${join(dir, 'helb.pid')}`, `--socket=${join(data, 'left.sock')}`, '--skip-networking', ...(userInfo().uid === 0 ? ['--user=root'] : [])]); // prettier-ignore
    let said = '';
    left.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
    const begun = () => said.includes('ready for connections') && existsSync(join(dir, 'helb.pid'));
    for (let i = 0; i < 300 && !begun(); i++) await new Promise((done) => setTimeout(done, 100));
    const again = await startPrivateDatabase(data, 0);
    const after = await connectDatabase(again.url);
    expect(await after.getQueryInterface().tableExists('kept')).toBe(true);
    expect(left.exitCode).toBe(0);
    await after.close();
    await again.stop();
    rmSync(data, { recursive: true, force: true });
  });

  test('kills a database that hangs', async () => {
    const data = fresh();
    const pidFile = join(data, 'database', 'helb.pid');
    mkdirSync(join(data, 'database'));
    const deaf = spawn('bash', [
      '-c',
      'trap "" TERM; while :; do sleep 0.1; done',
      'mariadbd',
      `--pid-file=${pidFile}`,
    ]);
    writeFileSync(pidFile, String(deaf.pid));
    await new Promise((done) => setTimeout(done, 200));
    const own = await startPrivateDatabase(data, 0, 500);
    expect(deaf.signalCode).toBe('SIGKILL');
    await own.stop();
    rmSync(data, { recursive: true, force: true });
  });

  test('that was cut off while the database was installed is made good by the next', async () => {
    const data = fresh();
    mkdirSync(join(data, 'database', 'mysql'), { recursive: true });
    mkdirSync(join(data, 'database.installing', 'mysql'), { recursive: true });
    writeFileSync(join(data, 'database-access.json'), '{"password": "abc');
    const own = await startPrivateDatabase(data, 0);
    expect(own.url).toMatch(/^mysql:/);
    await own.stop();
    rmSync(data, { recursive: true, force: true });
  });

  test('on a directory in use is refused in words, and the lock goes with its holder', async () => {
    const data = fresh();
    const held = await lockDirectory(data);
    await expect(lockDirectory(join(data, '.'))).rejects.toThrow(/Another Helb is running on .*; use that one/);
    held.release();
    await new Promise((done) => setTimeout(done, 20));
    (await lockDirectory(data)).release();
    rmSync(data, { recursive: true, force: true });
  });

  test('reads a broken small file as none, and writes one whole', () => {
    const data = fresh();
    const file = join(data, 'x.json');
    expect(readJson(file)).toBeNull();
    writeFileSync(file, '{"a": ');
    expect(readJson(file)).toBeNull();
    writeWhole(file, '{"a": 1}');
    expect(readJson(file)).toEqual({ a: 1 });
    expect(readdirSync(data)).toEqual(['x.json']);
  });
});
