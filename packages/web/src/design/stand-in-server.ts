/** For tests: a server in memory that keeps one design and its project's dimensions, answering what the page asks. */
import { applyChange, NOTHING_SHARED, type Change, type Design, type Shared } from '@helb/core';

type Patches = Parameters<typeof applyChange>[1];

export class StandInServer {
  revision = 0;
  log: Change[] = [];
  shared: { revision: number; shared: Shared } = { revision: 0, shared: NOTHING_SHARED };
  /** Nothing comes through. */
  away = false;
  /** The next change is refused with this sentence. */
  refusesNext: string | null = null;
  /** The next answers are these and nothing is done. */
  readonly answersNext: number[] = [];
  private readonly inverses = new Map<string, unknown>();

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
        log: this.log.map(({ id, kind, of, label }, i) => ({ id, kind, of, label, revision: i + 1 })),
      });
    if (request === 'POST /api/designs/one/changes') return this.append(body as { base: number; change: Change });
    if (request === 'GET /api/projects/p/dimensions') return Response.json(this.shared);
    if (request === 'PUT /api/projects/p/dimensions') {
      const { base, shared } = body as { base: number; shared: Shared };
      if (base !== this.shared.revision) return Response.json({ message: 'Someone was quicker.' }, { status: 409 });
      this.shared = { revision: base + 1, shared };
      return Response.json(this.shared);
    }
    const change = this.log.find((c) => request === `GET /api/designs/one/changes/${c.id}`);
    if (change)
      return Response.json({ label: change.label, patches: change.patches, inverse: this.inverses.get(change.id) });
    return Response.json({ message: `There is no ${request}.` }, { status: 404 });
  }

  private append({ base, change }: { base: number; change: Change }): Response {
    const at = this.log.findIndex((c) => c.id === change.id);
    if (at >= 0) return this.kept(base, at);
    if (this.refusesNext) {
      const message = this.refusesNext;
      this.refusesNext = null;
      return Response.json({ message }, { status: 409 });
    }
    this.make(change);
    return this.kept(base, this.log.length - 1);
  }

  private kept(base: number, at: number): Response {
    const missed = this.log.slice(base, at).map((c, i) => ({ ...c, revision: base + i + 1 }));
    return Response.json({ revision: at + 1, missed });
  }

  /** A change, from whomever. */
  make(change: Change): void {
    const outcome = applyChange(this.document, change.patches as Patches);
    if (!outcome.ok) throw new Error(outcome.message);
    this.document = outcome.design;
    this.inverses.set(change.id, outcome.inverse);
    this.log.push(change);
    this.revision++;
  }
}

/** Wait until it is so. @throws after two seconds */
export async function until(is: () => boolean): Promise<void> {
  for (let i = 0; i < 400; i++) {
    if (is()) return;
    await new Promise((done) => setTimeout(done, 5));
  }
  throw new Error('it did not come to be so');
}
