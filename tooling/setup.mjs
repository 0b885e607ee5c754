/** Installs what is missing on this machine. Uses Node alone, so it runs before anything is installed. */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** A condition the user must mend; the message says how. */
export class SetupError extends Error {}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new SetupError(`Helb needs Node 20.19 or newer; this is ${process.versions.node}.`);
}

export function installPackages() {
  const mark = 'node_modules/.package-lock.json';
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync('package-lock.json').mtimeMs) return;
  console.error('Installing npm packages …');
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: ['ignore', 2, 2] });
}

function has(command) {
  return spawnSync('sh', ['-c', `command -v ${command}`]).status === 0;
}

/** Make sure a command exists, from Debian's packages when we may install them. */
export function ensureCommand(command, debianPackage) {
  // Debian keeps servers where a plain user's path does not look.
  process.env.PATH = `${process.env.PATH}:/usr/sbin:/sbin`;
  if (has(command)) return;
  const install = `apt-get update && apt-get install -y --no-install-recommends ${debianPackage}`;
  if (process.getuid?.() !== 0 || !has('apt-get')) {
    throw new SetupError(`${command} is missing. Install it, then run this again:\n  sudo sh -c '${install}'`);
  }
  console.error(`Installing ${debianPackage} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const quiet = ['-qq', '-o', 'Dpkg::Use-Pty=0'];
  execFileSync('apt-get', [...quiet, 'update'], { env, stdio: ['ignore', 2, 2] });
  execFileSync('apt-get', [...quiet, 'install', '-y', '--no-install-recommends', debianPackage], {
    env,
    stdio: ['ignore', 2, 2],
  });
}

/** The newest change among all that is built. */
function newestSource(directory) {
  let newest = 0;
  for (const entry of readdirSync(directory, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist') continue;
    const path = join(directory, entry.name);
    newest = Math.max(newest, entry.isDirectory() ? newestSource(path) : statSync(path).mtimeMs);
  }
  return newest;
}

/** Build unless what is built is newer than every source. */
export function buildIfStale() {
  const mark = '.helb/built.json';
  const newest = Math.max(
    newestSource('packages'),
    statSync('package-lock.json').mtimeMs,
    statSync('tooling/build.mjs').mtimeMs,
  );
  const complete = existsSync('packages/web/dist/index.html') && existsSync('packages/server/dist/main.mjs');
  if (complete && existsSync(mark) && JSON.parse(readFileSync(mark, 'utf8')).newest >= newest) return;
  console.error('Building …');
  execFileSync(process.execPath, ['tooling/build.mjs'], { stdio: ['ignore', 2, 2] });
  mkdirSync('.helb', { recursive: true, mode: 0o700 });
  writeFileSync(mark, JSON.stringify({ newest }));
}

/** Run `work`; a SetupError ends the program with its sentence, no stack. */
export async function orExplain(work) {
  try {
    await work();
  } catch (error) {
    if (!(error instanceof SetupError) && error.status === undefined) throw error;
    console.error(error.message);
    process.exit(1);
  }
}
