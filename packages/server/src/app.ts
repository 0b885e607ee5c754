/** The web server: the interface's files, and the designs behind /api. */
import { bodyParser } from '@koa/bodyparser';
import Koa from 'koa';
import compress from 'koa-compress';
import helmet from 'koa-helmet';
import serve from 'koa-static';
import { createReadStream, existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import type { Sequelize } from 'sequelize';
import type { Reader } from './designs/reader.ts';
import { designRoutes, isFilePath } from './designs/routes.ts';
import { pictureRoutes } from './designs/pictures.ts';
import { projectRoutes } from './projects/routes.ts';
import { Refusal } from './refusal.ts';

/** Requests to /api a client may make in ten seconds; a person dragging makes far fewer. */
const REQUESTS_PER_WINDOW = 600;
const WINDOW_SECONDS = 10;
const A_YEAR_MS = 365 * 24 * 3600 * 1000;

/** @param read reads design files that clients send */
export function createApp(sequelize: Sequelize, log: Logger, webRoot: string | null, read: Reader): Koa {
  const app = new Koa();
  // A client that goes away in the middle of an answer is no fault of ours.
  app.on('error', (error: unknown) => log.debug({ err: error }, 'connection lost'));
  const limiter = new RateLimiterMemory({ points: REQUESTS_PER_WINDOW, duration: WINDOW_SECONDS });

  app.use(async (ctx, next) => {
    try {
      await next();
    } catch (error) {
      answerError(ctx, error, log);
    }
  });
  app.use(securityHeaders());
  app.use(compress({ filter: (type) => /json|javascript|css|html|svg/.test(type), br: false }));
  app.use(async (ctx, next) => {
    if (ctx.path.startsWith('/api/')) {
      try {
        await limiter.consume(ctx.ip);
      } catch {
        throw new Refusal(429, 'Too many requests at once; wait a few seconds.');
      }
    }
    await next();
  });
  // Files come as text and are read elsewhere.
  app.use((ctx, next) => {
    if (isFilePath(ctx.method, ctx.path)) ctx.disableBodyParser = true;
    return next();
  });
  app.use(bodyParser({ jsonLimit: '16mb', enableTypes: ['json'] }));
  app.use(projectRoutes().routes());
  app.use(pictureRoutes().routes());
  app.use(designRoutes(sequelize, read).routes());
  app.use(async (ctx, next) => {
    if (ctx.path === '/api/health') ctx.body = { ok: true };
    else if (ctx.path.startsWith('/api/')) throw new Refusal(404, 'There is nothing at this address.');
    else await next();
  });
  if (webRoot) serveInterface(app, webRoot);
  return app;
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
    if (ctx.status === 404 && ctx.method === 'GET' && ctx.accepts('html') && existsSync(page)) {
      ctx.type = 'html';
      ctx.body = createReadStream(page);
    }
  });
}

function answerError(ctx: Koa.Context, error: unknown, log: Logger): void {
  if (error instanceof Refusal) {
    ctx.status = error.status;
    ctx.body = { message: error.message };
    return;
  }
  const status = (error as { status?: number }).status;
  if (status === 413) {
    ctx.status = 413;
    ctx.body = { message: 'This is larger than the 16 MB the server takes at once.' };
  } else if (status !== undefined && status >= 400 && status < 500) {
    ctx.status = status;
    ctx.body = { message: 'The server could not read this request.' };
  } else {
    log.error({ err: error, path: ctx.path }, 'request failed');
    ctx.status = 500;
    ctx.body = { message: 'The server met a fault of its own; nothing was changed. Try again.' };
  }
}
