/** How much one person may ask: by who they are, and only by address while that is not known. */
import type Koa from 'koa';
import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import { Refusal } from '../refusal.ts';
import type { Asker } from './access.ts';

/** A person dragging makes far fewer. */
const OF_PERSON = { points: 600, duration: 10 };
/** Behind one address there may be many, each unknown only once. */
const OF_ADDRESS = { points: 2000, duration: 10 };

/** After `asked`. @throws Refusal 429 */
export function limits(): Koa.Middleware {
  const person = new RateLimiterMemory(OF_PERSON);
  const address = new RateLimiterMemory(OF_ADDRESS);
  return async (ctx, next) => {
    const { author, known } = ctx.state.asker as Asker;
    try {
      await (known ? person.consume(author) : address.consume(ctx.ip));
    } catch (rejected) {
      const wait = (rejected as RateLimiterRes).msBeforeNext;
      ctx.set('Retry-After', String(Math.max(1, Math.ceil((Number.isFinite(wait) ? wait : 1000) / 1000))));
      throw new Refusal(429, 'Too many requests at once; wait a few seconds.');
    }
    await next();
  };
}
