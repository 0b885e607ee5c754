/** Routes, each of which says what one must be to ask it; there is no way to declare one without. */
import Router, { type RouterContext } from '@koa/router';
import type Koa from 'koa';
import type { Role } from '../people/rows.ts';
import { Refusal } from '../refusal.ts';
import type { Access, Asker } from './access.ts';

/** A role is one on the project or design that the path names as `:project` or `:design`. */
export type Needs = 'anyone' | 'signed in' | 'keeper' | `${Role} project` | `${Role} design`;

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Under /api. */
  readonly path: string;
  readonly needs: Needs;
}

export type Handler = (ctx: RouterContext, asker: Asker) => Promise<void> | void;

export class Guarded {
  readonly routes: Route[] = [];
  private readonly router = new Router({ prefix: '/api', sensitive: true });

  constructor(readonly access: Access) {}

  on(method: Route['method'], path: string, needs: Needs, handler: Handler): void {
    this.routes.push({ method, path, needs });
    this.router[method](path, async (ctx) => {
      const asker = ctx.state.asker as Asker;
      const refusal = await this.refusal(asker, needs, ctx.params);
      if (refusal) throw refusal;
      await handler(ctx, asker);
    });
  }

  get = (path: string, needs: Needs, handler: Handler): void => this.on('get', path, needs, handler);
  post = (path: string, needs: Needs, handler: Handler): void => this.on('post', path, needs, handler);
  put = (path: string, needs: Needs, handler: Handler): void => this.on('put', path, needs, handler);
  patch = (path: string, needs: Needs, handler: Handler): void => this.on('patch', path, needs, handler);
  delete = (path: string, needs: Needs, handler: Handler): void => this.on('delete', path, needs, handler);

  private async refusal(asker: Asker, needs: Needs, params: Record<string, string>): Promise<Refusal | null> {
    if (needs === 'anyone') return null;
    if (this.access.accounts && !asker.person && (needs === 'signed in' || needs === 'keeper'))
      return new Refusal(401, 'Sign in first.');
    if (needs === 'signed in') return null;
    if (needs === 'keeper')
      return asker.person?.keeper ? null : new Refusal(403, 'Only who keeps this server may do this.');
    const [role, kind] = needs.split(' ') as [Role, 'project' | 'design'];
    const id = params[kind]!;
    return this.access.refusalOn(asker, kind === 'design' ? { design: id } : { project: id }, role);
  }

  middleware(): Koa.Middleware {
    return this.router.routes() as unknown as Koa.Middleware;
  }
}
