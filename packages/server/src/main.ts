/** Starts database and web server, and ends both in order. */
import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { resolve } from 'node:path';
import { pino } from 'pino';
import { createApp } from './app.ts';
import { connectDatabase } from './database/connect.ts';
import { startPrivateDatabase, type PrivateDatabase } from './database/private-mariadb.ts';
import { loadDemoOnce } from './demo.ts';
import { readSettings } from './settings.ts';

/** Open requests get this long to finish at shutdown. */
const DRAIN_MS = 3000;

let own: PrivateDatabase | null = null;

async function main(): Promise<void> {
  const settings = readSettings();
  const log = pino({ level: settings.log });
  own = settings.databaseUrl ? null : await startPrivateDatabase(settings.dataDir, settings.databasePort);
  const sequelize = await connectDatabase(settings.databaseUrl ?? own!.url);
  await loadDemoOnce(resolve('demo'));

  const webRoot = resolve('packages/web/dist');
  const app = createApp(sequelize, log, existsSync(webRoot) ? webRoot : null);
  const server = createServer(app.callback());
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    server.close();
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), DRAIN_MS).unref();
    await new Promise((done) => (server.listening ? server.once('close', done) : done(null)));
    await sequelize.close();
    await own?.stop();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
  server.on('error', (error: NodeJS.ErrnoException) => {
    const sentence =
      error.code === 'EADDRINUSE'
        ? `Port ${settings.port} is taken; set HELB_PORT to another.`
        : `The server could not start: ${error.message}.`;
    console.error(sentence);
    void (own?.stop() ?? Promise.resolve()).then(() => process.exit(1));
  });
  server.listen(settings.port, '127.0.0.1', () => {
    const address = server.address();
    console.log(`Helb is at http://127.0.0.1:${typeof address === 'object' && address ? address.port : settings.port}`);
  });
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : String(error));
  void (own?.stop() ?? Promise.resolve()).then(() => process.exit(1));
});
