/** The web server: the interface's files, and the designs behind /api. */
import Koa from 'koa';
import compress from 'koa-compress';
import helmet from 'koa-helmet';
import serve from 'koa-static';
import { createReadStream, existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { ConnectionError, DatabaseError, type Sequelize } from 'sequelize';
import type { Access } from './access/access.ts';
import { Guarded } from './access/guarded.ts';
import { hostFault, type HostList } from './access/hosts.ts';
import { limits } from './access/limiter.ts';
import type { ChangeLog } from './designs/change-log.ts';
import type { Desks } from './designs/desk-threads.ts';
import { issuedRoutes } from './designs/issued.ts';
import { pictureRoutes } from './designs/pictures.ts';
import { designRoutes } from './designs/routes.ts';
import { accountRoutes, type Post } from './people/account-routes.ts';
import { memberRoutes } from './people/member-routes.ts';
import { projectRoutes } from './projects/routes.ts';
import { Refusal } from './refusal.ts';

const A_YEAR_MS = 365 * 24 * 3600 * 1000;
const HEALTH_LIMIT_MS = 2000;

export interface Parts {
  readonly sequelize: Sequelize;
  readonly log: Logger;
  readonly desks: Desks;
  readonly changes: ChangeLog;
  readonly hosts: HostList;
  readonly access: Access;
  readonly post: Post;
  /** Somebody may no longer see what they have open. */
  readonly lostAccess: () => void;
  /** Where the built interface lies, when it is served here. */
  readonly webRoot: string | null;
}

/** All that can be asked of the server. */
export function allRoutes({ sequelize, desks, changes, access, post, lostAccess }: Parts): Guarded {
  const routes = new Guarded(access);
  projectRoutes(routes, sequelize, desks);
  pictureRoutes(routes, changes);
  issuedRoutes(routes);
  designRoutes(routes, sequelize, desks, changes);
  accountRoutes(routes, sequelize, post);
  memberRoutes(routes, sequelize, post, lostAccess);
  return routes;
}

/** @param proxied it stands behind a balancer, which tells from where one asks */
export function createApp(parts: Parts, proxied = false): Koa {
  const { sequelize, log, hosts, access, webRoot } = parts;
  const app = new Koa({ proxy: proxied, maxIpsCount: 1 });
  // A client that goes away in the middle of an answer is no fault of ours.
  app.on('error', (error: unknown) => log.debug({ err: error }, 'connection lost'));

  app.use(async (ctx, next) => {
    try {
      await next();
    } catch (error) {
      answerError(ctx, error, log);
    }
  });
  app.use(securityHeaders());
  app.use((ctx, next) => {
    const fault = hostFault(ctx.req, hosts);
    if (fault) throw new Refusal(403, fault);
    return next();
  });
  app.use(compress({ filter: (type) => /json|javascript|css|html|svg/.test(type), br: false }));
  // What a design holds now is asked of the server each time, and stays on no shared computer.
  app.use(
    behindApi((ctx, next) => {
      ctx.set('Cache-Control', 'no-store');
      return next();
    }),
  );
  app.use(behindApi(access.asked));
  app.use(behindApi(limits()));
  app.use(async (ctx, next) => {
    if (ctx.path === '/api/health') await answerHealth(ctx, sequelize);
    else await next();
  });
  app.use(allRoutes(parts).middleware());
  app.use(
    behindApi(() => {
      throw new Refusal(404, 'There is nothing at this address.');
    }),
  );
  if (webRoot) serveInterface(app, webRoot);
  return app;
}

/** However it is written: no spelling of the address leads round what stands before it. */
function behindApi(middleware: Koa.Middleware): Koa.Middleware {
  return (ctx, next) => (/^\/+api(\/|$)/i.test(decoded(ctx.path)) ? middleware(ctx, next) : next());
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}

async function answerHealth(ctx: Koa.Context, sequelize: Sequelize): Promise<void> {
  const limit = new Promise<never>((_, fail) => setTimeout(() => fail(new Error('no answer')), HEALTH_LIMIT_MS).unref()); // prettier-ignore
  try {
    await Promise.race([sequelize.query('SELECT 1'), limit]);
    ctx.body = { ok: true };
  } catch {
    ctx.status = 503;
    ctx.set('Retry-After', '1');
    ctx.body = { ok: false, message: 'The database does not answer; it is being started again.' };
  }
}

/** The kernel's glue code builds functions from text, so its worker alone may; the page may not. */
function securityHeaders(): Koa.Middleware {
  const policy = (scripts: string[]) =>
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: scripts,
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    });
  const page = policy(["'self'"]);
  const worker = policy(["'self'", "'wasm-unsafe-eval'", "'unsafe-eval'"]);
  return (ctx, next) => (/^\/assets\/[\w.-]*worker[\w.-]*\.js$/.test(ctx.path) ? worker : page)(ctx as never, next);
}

function serveInterface(app: Koa, webRoot: string): void {
  app.use(
    serve(webRoot, {
      index: 'index.html',
      setHeaders: (res, path) => {
        // Names of built files hold a hash of their content.
        if (path.includes('/assets/')) res.setHeader('Cache-Control', `public, max-age=${A_YEAR_MS / 1000}, immutable`);
      },
    }),
  );
  app.use(async (ctx, next) => {
    await next();
    const page = join(webRoot, 'index.html');
    // The interface's own addresses have no ending; a file that is not there is not there.
    const isFile = /\.\w+$/.test(ctx.path) || ctx.path.startsWith('/assets/');
    if (ctx.status === 404 && ctx.method === 'GET' && !isFile && ctx.accepts('html') && existsSync(page)) {
      ctx.type = 'html';
      ctx.body = createReadStream(page);
    }
  });
}

function answerError(ctx: Koa.Context, error: unknown, log: Logger): void {
  const status = error instanceof Refusal ? error.status : (error as { status?: number }).status;
  if (error instanceof Refusal) {
    ctx.status = error.status;
    ctx.body = { message: error.message };
  } else if (status !== undefined && status >= 400 && status < 500) {
    ctx.status = status;
    ctx.body = { message: 'The server could not read this request.' };
  } else if (isDatabaseAway(error)) {
    ctx.status = 503;
    ctx.body = { message: 'The database does not answer just now; what you sent may have been kept, and is asked for again by its id.' }; // prettier-ignore
  } else {
    log.error({ err: error, path: ctx.path }, 'request failed');
    ctx.status = 500;
    ctx.body = { message: 'The server met a fault of its own; what you sent may have been kept. Look, and try again.' };
  }
  if (ctx.status === 503) ctx.set('Retry-After', '1');
}

const AWAY = new Set(['ECONNREFUSED', 'ECONNRESET', 'PROTOCOL_CONNECTION_LOST', 'ETIMEDOUT', 'EPIPE', 'ER_SERVER_SHUTDOWN', 'ER_CONNECTION_KILLED']); // prettier-ignore

/** Connections end in many ways when a database goes away. */
function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const code = error instanceof DatabaseError ? (error.parent as { code?: string }).code : (error as { code?: string }).code; // prettier-ignore
  return code !== undefined && AWAY.has(code);
}
