/** Starts web server and database, and ends both in order. */
import { existsSync } from 'node:fs';
import { createServer, type RequestListener, type Server } from 'node:http';
import { join, resolve } from 'node:path';
import { pino } from 'pino';
import { Access } from './access/access.ts';
import { hostList } from './access/hosts.ts';
import { createApp } from './app.ts';
import { alone, connectDatabase, sharedSecret } from './database/connect.ts';
import { lockDirectory } from './database/data-lock.ts';
import { startPrivateDatabase } from './database/private-mariadb.ts';
import { loadDemoOnce } from './demo.ts';
import { ChangeLog } from './designs/change-log.ts';
import { startDesks } from './designs/desk-threads.ts';
import { revisionsOf } from './designs/log-rows.ts';
import { LogTable } from './designs/log-table.ts';
import { purgeDaily } from './designs/purge.ts';
import { upgradeStored } from './designs/upgrades.ts';
import { Elsewhere } from './live/elsewhere.ts';
import { Live } from './live/live.ts';
import { keeperLink, pageOf } from './people/links.ts';
import { Outbox } from './people/outbox.ts';
import { readSettings, type Settings } from './settings.ts';

/** Longer than balancers keep a connection they do not use, so that none is closed on a request under way. */
const KEEP_ALIVE_MS = 75_000;
/** Open requests get this long to finish at shutdown. */
const DRAIN_MS = 3000;

/** What was started, to be ended in the opposite order; only what this process started is in it. */
const started: (() => unknown)[] = [];
let starting: Promise<unknown> = Promise.resolve();
let stopping: Promise<void> | null = null;

/** What is being started is waited for: a database half up would be left behind. */
function stop(): Promise<void> {
  stopping ??= (async () => {
    await starting.catch(() => {});
    for (let end = started.pop(); end; end = started.pop()) {
      try {
        await end();
      } catch (error) {
        console.error(error instanceof Error ? error.message : String(error));
      }
    }
  })();
  return stopping;
}

/** Signals that ask for an end; the terminal closing is one. */
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.on(signal, () => void stop().then(() => process.exit(0)));

const NOT_YET: RequestListener = (_, response) => {
  response.writeHead(503, { 'content-type': 'application/json', 'retry-after': '1' });
  response.end(JSON.stringify({ message: 'Helb is starting; try again in a moment.' }));
};

/** The port is taken first: where it cannot be had, the database is not touched. */
async function listen(server: Server, settings: Settings): Promise<void> {
  await new Promise<void>((done, fail) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      fail(
        new Error(
          error.code === 'EADDRINUSE'
            ? `Port ${settings.port} is taken; set HELB_PORT to another.`
            : `The server could not start: ${error.message}.`,
        ),
      ),
    );
    server.listen(settings.port, '127.0.0.1', done);
  });
  started.push(() => close(server));
}

async function close(server: Server): Promise<void> {
  const closed = new Promise((done) => server.close(done));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), DRAIN_MS).unref();
  await closed;
}

async function databaseUrl(settings: Settings): Promise<string> {
  if (settings.databaseUrl) return settings.databaseUrl;
  const lock = await lockDirectory(settings.dataDir);
  started.push(() => lock.release());
  const own = await startPrivateDatabase(settings.dataDir, settings.databasePort);
  started.push(() => own.stop());
  return own.url;
}

async function main(): Promise<void> {
  const settings = readSettings();
  const log = pino({ level: settings.log });
  let answer = NOT_YET;
  const server = createServer({ keepAliveTimeout: KEEP_ALIVE_MS }, (request, response) => answer(request, response));
  await listen(server, settings);
  const url = await databaseUrl(settings);
  const sequelize = await connectDatabase(url);
  started.push(() => sequelize.close());
  await alone(sequelize, () => upgradeStored(sequelize, log));
  const desks = startDesks();
  started.push(() => desks.stop());
  const live = new Live(settings.databaseUrl ? new Elsewhere() : null);
  const table = new LogTable(url);
  started.push(() => table.stop());
  const changes = new ChangeLog(sequelize, desks, live, table);
  started.push(() => changes.stop());
  // Requests end before what they use does.
  started.push(started.shift()!);
  // The server ends only when nobody listens any more.
  started.push(() => live.stop());
  if (stopping) return;
  await alone(sequelize, () => loadDemoOnce(sequelize, resolve('demo')));
  started.push(purgeDaily(log));
  const webRoot = resolve('packages/web/dist');
  const [hosts, secret] = [hostList(settings.hosts), await sharedSecret('authors')];
  const access = new Access(secret, settings.accounts, settings.address?.startsWith('https:') ?? false);
  live.serve(server, access, hosts, { revisionsOf, later: (since) => changes.later(since) });
  const address = server.address();
  const here = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : settings.port}`;
  const post = { outbox: new Outbox(join(settings.dataDir, 'outbox')), home: () => settings.address ?? here };
  const app = createApp({ sequelize, log, desks, changes, hosts, access, post, lostAccess: () => void live.recheck().catch(() => {}), webRoot: existsSync(webRoot) ? webRoot : null }, settings.balancer); // prettier-ignore
  answer = app.callback();
  console.log(`Helb is at ${here}`);
  const first = settings.accounts ? await alone(sequelize, keeperLink) : null;
  if (first) console.log(`Nobody keeps this server yet. Whoever opens this link within a day does:\n${pageOf(post.home(), 'welcome', first)}`); // prettier-ignore
}

starting = main();
starting.catch(async (error: unknown) => {
  // An end asked for in the middle of the start may make what was being started fail.
  const asked = stopping !== null;
  if (!asked) console.error(error instanceof Error ? error.message : String(error));
  await stop();
  process.exit(asked ? 0 : 1);
});
