/** npm start: everything set up, built, and served. */
import { spawn } from 'node:child_process';
import { buildIfStale, checkNode, ensureCommand, installPackages, orExplain } from './setup.mjs';

await orExplain(async () => {
  checkNode();
  installPackages();
  if (!process.env.HELB_DATABASE_URL) ensureCommand('mariadbd', 'mariadb-server');
  buildIfStale();
});

const server = spawn(process.execPath, ['packages/server/dist/main.mjs'], { stdio: 'inherit' });
// Ctrl-C reaches the server too; it ends the database, and then this ends.
process.on('SIGINT', () => {});
for (const signal of ['SIGTERM', 'SIGHUP']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 1));
