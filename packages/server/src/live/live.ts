/** Pages of one design hear of each other's changes, and where the others are at work. */
import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { z } from 'zod';
import type { Access, Asker } from '../access/access.ts';
import { hostFault, type HostList } from '../access/hosts.ts';
import type { Told } from '../designs/log-rows.ts';
import type { Role } from '../people/rows.ts';
import type { Elsewhere, Seen } from './elsewhere.ts';

/** Where somebody is: a part, and a step of it. */
const Where = z.strictObject({ part: z.string().max(40).nullable(), step: z.string().max(40).nullable() });
type Where = z.infer<typeof Where>;

interface Page {
  readonly socket: WebSocket;
  readonly asker: Asker;
  /** What they came with, looked at again now and then: they may have signed out, or be let in no longer. */
  readonly cookies: string | undefined;
  /** Tells tabs of one person apart. */
  readonly tab: number;
  where: Where;
  /** What they may do, as told last. */
  role: Role;
  /** Changes up to here were told. */
  told: number;
  alive: boolean;
}

const PATH = /^\/api\/designs\/([0-9a-f-]{36})\/live$/;
const MOST_MESSAGE_BYTES = 1000;
const MOST_PAGES = 200;
const BEAT_MS = 10_000;
/** Closed because one may not look any more. */
const NOT_ALLOWED = 4403;
/** Pages have so long to say goodbye. */
const LAST_WORD_MS = 500;
/** How often other servers' changes are looked for, where there may be others. */
const LOOK_MS = 150;

export class Live {
  private readonly pages = new Map<string, Set<Page>>();
  private readonly sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_MESSAGE_BYTES });
  private readonly timers: NodeJS.Timeout[] = [];
  private access: Access | null = null;
  private tabs: number;
  private ended = false;
  /** By design, as told last. */
  private there: ReadonlyMap<string, readonly Seen[]> = new Map();

  /** @param elsewhere where there may be other servers */
  constructor(private readonly elsewhere: Elsewhere | null = null) {
    this.tabs = elsewhere?.firstTab ?? 0;
  }

  /** Tell all pages of a design of a change made through this server. */
  changed(design: string, change: Told): void {
    for (const page of this.pages.get(design) ?? []) {
      // What lies between was made through another server, and is found by looking.
      if (page.told !== change.revision - 1) continue;
      page.told = change.revision;
      send(page, { kind: 'changes', changes: [change] });
    }
  }

  /** Tell all pages of a design that a state was given a name through this server, or lost it. */
  named(design: string, revision: number, name: string | null): void {
    for (const page of this.pages.get(design) ?? []) send(page, { kind: 'named', revision, name });
  }

  /**
   * Take part in the talk over this server.
   * @param log `revisionsOf` those designs that are there; `later` than a revision of each, without a gap
   */
  serve(
    server: Server,
    access: Access,
    hosts: HostList,
    log: {
      revisionsOf(designs: readonly string[]): Promise<ReadonlyMap<string, number>>;
      later(since: ReadonlyMap<string, number>): Promise<ReadonlyMap<string, readonly Told[]>>;
    },
  ): void {
    this.access = access;
    server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      const design = PATH.exec(new URL(request.url ?? '/', 'http://x').pathname)?.[1];
      const refuse = (status: string): void => void socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
      socket.on('error', () => {});
      if (hostFault({ headers: request.headers, method: 'POST' }, hosts) || request.headers.origin === undefined)
        return refuse('403 Forbidden');
      if (!design) return refuse('404 Not Found');
      if ((this.pages.get(design)?.size ?? 0) >= MOST_PAGES) return refuse('503 Service Unavailable');
      const admit = async (): Promise<void> => {
        const { asker } = await access.askerOf(request.headers.cookie);
        if (!asker.known) return refuse('401 Unauthorized');
        const [role, found] = await Promise.all([access.roleOn(asker, { design }), log.revisionsOf([design])]);
        const revision = found.get(design);
        if (!role) return refuse(asker.person ? '404 Not Found' : '401 Unauthorized');
        if (revision === undefined) return refuse('404 Not Found');
        const cookies = request.headers.cookie;
        this.sockets.handleUpgrade(request, socket, head, (own) => this.join(design, own, { asker, cookies, role }, revision)); // prettier-ignore
      };
      void admit().catch(() => refuse('503 Service Unavailable'));
    });
    const look = async (): Promise<void> => {
      const open = [...this.pages.keys()];
      try {
        if (open.length > 0) this.tell(await log.later(this.toldOf(open)));
        if (open.length > 0 && this.elsewhere) this.hearOf(open, await this.elsewhere.pages(open));
      } catch {
        // The database is away for now; it is looked for again.
      }
      if (!this.ended) this.timers[0] = setTimeout(() => void look(), LOOK_MS).unref();
    };
    void look();
    this.timers[1] = setInterval(() => this.beat(), BEAT_MS).unref();
  }

  /** Up to where all pages of these designs know. */
  private toldOf(open: readonly string[]): ReadonlyMap<string, number> {
    return new Map(open.map((id) => [id, Math.min(...[...this.pages.get(id)!].map((p) => p.told))]));
  }

  private tell(later: ReadonlyMap<string, readonly Told[]>): void {
    for (const [design, changes] of later)
      for (const page of this.pages.get(design) ?? []) {
        // One that came meanwhile knows more than was asked for; one that left a gap is asked for again.
        const fresh = changes.filter((c) => c.revision > page.told);
        if (fresh[0]?.revision !== page.told + 1) continue;
        page.told = fresh.at(-1)!.revision;
        send(page, { kind: 'changes', changes: fresh });
      }
  }

  /** Somebody came, went or moved on at another server. */
  private hearOf(open: readonly string[], now: ReadonlyMap<string, readonly Seen[]>): void {
    const before = this.there;
    this.there = now;
    for (const design of open) {
      const [was, is] = [before, now].map((pages) => JSON.stringify((pages.get(design) ?? []).map(placeOf)));
      if (was !== is) this.tellPeople(design);
    }
  }

  /** For other servers to tell of; where the database is away, they will hear of it when it moves on. */
  private tellElsewhere(design: string, page: Page): void {
    void this.elsewhere?.tell(design, seenOf(page)).catch(() => {});
  }

  private join(
    design: string,
    socket: WebSocket,
    who: Pick<Page, 'asker' | 'cookies' | 'role'>,
    revision: number,
  ): void {
    const page: Page = {
      ...who,
      socket,
      tab: ++this.tabs,
      where: { part: null, step: null },
      told: revision,
      alive: true,
    };
    const all = this.pages.get(design) ?? new Set();
    this.pages.set(design, all.add(page));
    socket.on('message', (data: Buffer) => {
      const where = read(data);
      if (!where) return;
      page.where = where;
      this.tellElsewhere(design, page);
      this.tellPeople(design);
    });
    socket.on('pong', () => (page.alive = true));
    socket.on('error', () => {});
    socket.on('close', () => {
      all.delete(page);
      void this.elsewhere?.forget(page.tab).catch(() => {});
      if (all.size === 0) this.pages.delete(design);
      this.tellPeople(design);
    });
    this.tellElsewhere(design, page);
    send(page, { kind: 'hello', tab: page.tab, revision, role: page.role });
    this.tellPeople(design);
  }

  private tellPeople(design: string): void {
    const all = [...(this.pages.get(design) ?? [])];
    const seen = [...all.map(seenOf), ...(this.there.get(design) ?? []).map(placeOf)];
    for (const page of all) {
      const others = seen.filter((p) => p.tab !== page.tab);
      const people = others.map(({ author, ...place }) => ({ ...place, mine: author === page.asker.author }));
      send(page, { kind: 'people', people });
    }
  }

  /** Let go of those who may not see any more what they have open, and tell those who may do more or less than before. */
  async recheck(): Promise<void> {
    const { access } = this;
    if (!access?.accounts) return;
    for (const [design, pages] of [...this.pages])
      for (const page of [...pages]) {
        const { asker } = await access.askerOf(page.cookies);
        const role = await access.roleOn(asker, { design });
        // Where what they signed in with was only renewed, the page comes back with the new one.
        if (!role) page.socket.close(NOT_ALLOWED);
        else if (role !== page.role) send(page, { kind: 'role', role: (page.role = role) });
      }
  }

  private beat(): void {
    void this.recheck().catch(() => {});
    const all = [...this.pages.values()].flatMap((set) => [...set]);
    void this.elsewhere?.beat(all.map((p) => p.tab)).catch(() => {});
    for (const page of all) {
      if (!page.alive) page.socket.terminate();
      page.alive = false;
      page.socket.ping();
    }
  }

  async stop(): Promise<void> {
    this.ended = true;
    for (const timer of this.timers) clearTimeout(timer);
    for (const { socket } of [...this.pages.values()].flatMap((set) => [...set])) {
      socket.close(1012);
      setTimeout(() => socket.terminate(), LAST_WORD_MS).unref();
    }
    this.sockets.close();
    await this.elsewhere?.stop().catch(() => {});
  }
}

const seenOf = ({ tab, asker, where }: Page): Seen => ({ tab, author: asker.author, name: asker.person?.name ?? null, ...where }); // prettier-ignore
/** As kept, without what only the table needs. */
const placeOf = ({ tab, author, name, part, step }: Seen): Seen => ({ tab, author, name, part, step });

function send({ socket }: Page, message: object): void {
  if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message));
}

function read(data: Buffer): Where | null {
  try {
    return Where.safeParse(JSON.parse(data.toString('utf8'))).data ?? null;
  } catch {
    return null;
  }
}
