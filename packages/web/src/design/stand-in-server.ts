/** For tests: a server in memory that keeps one design and its project's dimensions, and takes changes as the real one does. */
import { NOTHING_SHARED, readsOf, take, type Asked, type Change, type Design, type Earlier, type Edit, type Shared } from '@helb/core'; // prettier-ignore
import { applyEdit } from '@helb/core';
import type { Role, Told } from '../server.ts';

type Kept = Told & { readonly command: string; readonly args: unknown };

export class StandInServer {
  revision = 0;
  log: Kept[] = [];
  shared: { revision: number; shared: Shared } = { revision: 0, shared: NOTHING_SHARED };
  /** Nothing comes through. */
  away = false;
  /** The next change is refused with this sentence. */
  refusesNext: string | null = null;
  /** The next answers are these and nothing is done. */
  readonly answersNext: number[] = [];

  /** Who is signed in in this browser, and what they may do. */
  you = 'me';
  role: Role = 'owns';

  constructor(public document: Design) {}

  /** Answer in place of the network. */
  readonly fetch = async (path: string, init: { method: string; body?: string }): Promise<Response> => {
    await Promise.resolve();
    if (this.away) throw new TypeError('fetch failed');
    const status = this.answersNext.shift();
    if (status !== undefined) return Response.json({ message: `Answered ${status}.` }, { status });
    const body: unknown = init.body ? JSON.parse(init.body) : null;
    return this.answer(`${init.method} ${path}`, body);
  };

  private answer(request: string, body: unknown): Response {
    if (request === 'GET /api/designs/one')
      return Response.json({
        id: 'one',
        project: { id: 'p', name: 'Project' },
        revision: this.revision,
        document: this.document,
        you: this.you,
        signedIn: true,
        role: this.role,
        log: this.log.map(({ touches: _, ...listed }) => listed),
        more: false,
      });
    if (request === 'POST /api/designs/one/changes')
      return this.append(body as { base: number; own: string[]; by: string; change: Change });
    if (request === 'GET /api/projects/p/dimensions') return Response.json(this.shared);
    if (request === 'PUT /api/projects/p/dimensions') {
      const { base, shared } = body as { base: number; shared: Shared };
      if (base !== this.shared.revision) return Response.json({ message: 'Someone was quicker.' }, { status: 409 });
      this.shared = { revision: base + 1, shared };
      return Response.json(this.shared);
    }
    const since = /^GET \/api\/designs\/one\/changes\?since=(\d+)$/.exec(request);
    if (since) return Response.json({ changes: this.log.slice(Number(since[1])) });
    const change = this.log.find((c) => request === `GET /api/designs/one/changes/${c.id}`);
    if (change) return Response.json(change);
    return Response.json({ message: `There is no ${request}.` }, { status: 404 });
  }

  private append({ base, own, by, change }: { base: number; own: string[]; by: string; change: Change }): Response {
    if (by !== this.you) return Response.json({ message: 'Another signed in.' }, { status: 401 });
    const at = this.log.findIndex((c) => c.id === change.id);
    if (at >= 0) return Response.json({ revision: at + 1, kept: this.log[at], missed: this.log.slice(base, at) });
    if (this.refusesNext) {
      const message = this.refusesNext;
      this.refusesNext = null;
      return Response.json({ message }, { status: 409 });
    }
    const missed = this.log.slice(base);
    const refusal = this.make(change, this.you, base, own);
    if (typeof refusal === 'string') return Response.json({ message: refusal }, { status: 409 });
    return Response.json({ revision: this.revision, kept: refusal, missed });
  }

  /** A change, from whomever. @returns it as kept, null when it changes nothing, or why it is refused */
  make(change: Change, author: string, base = this.revision, own: readonly string[] = []): Kept | null | string {
    if (change.kind === 'restore') return 'There are no states here.';
    const of = 'of' in change ? this.log.find((c) => c.id === change.of) : undefined;
    const since = this.log
      .slice(of ? of.revision : base)
      .filter((c) => of || !own.includes(c.id))
      .map(earlierOf);
    const asked: Asked = 'of' in change ? { kind: change.kind, earlier: earlierOf(of!) } : change;
    const taken = take(this.document, asked, since);
    if (!taken.ok) return taken.message;
    if (taken.touches.length === 0) return null;
    this.document = taken.design;
    this.revision++;
    const { label, touches } = taken;
    const kept: Kept = { id: change.id, kind: change.kind, label, touches, author, by: null, revision: this.revision, at: '2026-01-01T00:00:00Z', named: null, command: 'command' in change ? change.command : change.kind, args: 'args' in change ? change.args : null, ...('of' in change ? { of: change.of } : {}) }; // prettier-ignore
    this.log.push(kept);
    return kept;
  }

  /** An edit as another page would send it. */
  fromElsewhere(edit: Edit, kind: 'edit' | 'follow' = 'edit'): Kept {
    const outcome = applyEdit(this.document, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    const { command, args } = outcome.edit;
    const kept = this.make({ id: `other-${this.revision}`, kind, command, args }, 'another');
    if (!kept || typeof kept === 'string') throw new Error(kept ?? 'it changes nothing');
    return kept;
  }
}

const earlierOf = ({ label, author, touches, command, args }: Kept): Earlier => ({
  label,
  by: author === 'me' ? 'You' : 'Someone else',
  touches,
  reads: args === null ? [] : readsOf(command, args),
});

/** Wait until it is so. @throws after two seconds */
export async function until(is: () => boolean): Promise<void> {
  for (let i = 0; i < 400; i++) {
    if (is()) return;
    await new Promise((done) => setTimeout(done, 5));
  }
  throw new Error('it did not come to be so');
}
