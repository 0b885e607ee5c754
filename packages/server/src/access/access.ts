/** Who asks, and what they may do: the one place where this is decided, for requests and live pages alike. */
import type Koa from 'koa';
import { Op } from 'sequelize';
import { DesignRow } from '../database/models.ts';
import { mayAs, MemberRow, ShareRow, type Role } from '../people/rows.ts';
import { findSignIn, SIGN_IN_COOKIE, type Person } from '../people/sign-ins.ts';
import { Refusal } from '../refusal.ts';
import { AUTHOR_COOKIE, authorIn, newAuthor } from './author.ts';
import { cookieIn, hashOf } from './tokens.ts';

export interface Asker {
  /** Under which their changes are kept. */
  readonly author: string;
  /** They came with what they are known by. */
  readonly known: boolean;
  /** Signed in; always null where there are no accounts. */
  readonly person: Person | null;
  /** Hashes of the share links they opened. */
  readonly shares: readonly string[];
}

export type Place = { readonly project: string } | { readonly design: string };

export const SHARES_COOKIE = 'helb_shares';
/** So many opened links are remembered, the newest first. */
export const MOST_SHARES = 10;
/** So many are remembered, for speed. */
const MOST_AUTHORS = 2000;
const A_YEAR_MS = 365 * 24 * 3600 * 1000;

export const cookieOptions = (secure: boolean, maxAge = A_YEAR_MS) =>
  ({ httpOnly: true, sameSite: 'lax', maxAge, overwrite: true, secure }) as const;

export class Access {
  private readonly authors = new Map<string, string>();

  /**
   * @param secret signs what browsers without an account are known by
   * @param accounts people sign in; without, all that reaches this machine is one person's own
   * @param secure pages come over https, and cookies go no other way
   */
  constructor(
    private readonly secret: string,
    readonly accounts = false,
    readonly secure = false,
  ) {}

  /** Sets `ctx.state.asker`. */
  readonly asked: Koa.Middleware = async (ctx, next) => {
    const found = await this.askerOf(ctx.headers.cookie, true);
    if (found.cookie) ctx.cookies.set(AUTHOR_COOKIE, found.cookie, cookieOptions(this.secure));
    if (found.turned) ctx.cookies.set(SIGN_IN_COOKIE, found.turned, cookieOptions(this.secure));
    ctx.state.asker = found.asker;
    await next();
  };

  /**
   * @param cookies the header
   * @param canTell an answer follows that can set cookies: `cookie` for a browser not seen before, `turned` in place of what
   * it signed in with
   */
  async askerOf(
    cookies: string | undefined,
    canTell = false,
  ): Promise<{ readonly asker: Asker; readonly cookie?: string; readonly turned?: string | undefined }> {
    const known = this.authorIn(cookieIn(cookies, AUTHOR_COOKIE));
    const fresh = known ? null : newAuthor(this.secret);
    const signIn = this.accounts ? await findSignIn(cookieIn(cookies, SIGN_IN_COOKIE), canTell) : null;
    const shares = this.accounts ? (cookieIn(cookies, SHARES_COOKIE) ?? '').split('.').filter(Boolean).slice(0, MOST_SHARES) : []; // prettier-ignore
    const asker: Asker = {
      author: signIn?.person.id ?? known ?? fresh!.author,
      known: signIn !== null || known !== null,
      person: signIn?.person ?? null,
      shares: shares.map(hashOf),
    };
    return { asker, ...(fresh ? { cookie: fresh.cookie } : {}), ...(signIn ? { turned: signIn.turned } : {}) };
  }

  /** A cookie that was found to be ours comes with every request. */
  private authorIn(cookie: string | undefined): string | null {
    if (cookie === undefined) return null;
    const author = this.authors.get(cookie) ?? authorIn(cookie, this.secret);
    if (this.authors.size >= MOST_AUTHORS) this.authors.clear();
    if (author !== null) this.authors.set(cookie, author);
    return author;
  }

  /** What they may do there; null where they may not even know of it, or it is not there. */
  async roleOn(asker: Asker, place: Place): Promise<Role | null> {
    if (!this.accounts) return 'owns';
    const project = 'project' in place ? place.project : await projectOf(place.design);
    if (project === null) return null;
    const member = asker.person && (await MemberRow.findOne({ where: { projectId: project, personId: asker.person.id } })); // prettier-ignore
    if (member) return member.role;
    if (!('design' in place) || asker.shares.length === 0) return null;
    const where = { id: [...asker.shares], designId: place.design, endsAt: { [Op.gt]: new Date() } };
    return (await ShareRow.count({ where })) > 0 ? 'reads' : null;
  }

  /** Why they may not do there what needs this role; null when they may. */
  async refusalOn(asker: Asker, place: Place, needed: Role): Promise<Refusal | null> {
    const role = await this.roleOn(asker, place);
    if (role && mayAs(role, needed)) return null;
    if (!asker.person) return new Refusal(401, role ? 'Sign in to do this; the link you came by is for looking only.' : 'Sign in first.'); // prettier-ignore
    if (!role) return new Refusal(404, `This ${'design' in place ? 'design' : 'project'} no longer exists.`);
    return new Refusal(403, needed === 'owns' ? 'Only owners of the project may do this; ask one of them.' : 'You may look at this, not change it; ask an owner of the project.'); // prettier-ignore
  }
}

async function projectOf(design: string): Promise<string | null> {
  const row = await DesignRow.findByPk(design, { attributes: ['id', 'projectId'] });
  return row?.id === design ? row.projectId : null;
}
