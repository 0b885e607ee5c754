/** For tests: the application over a database of its own, asked as a browser asks it. */
import type { Design, Edit } from '@helb/core';
import { afterAll, beforeAll } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import request from 'supertest';
import { Access } from './access/access.ts';
import { hostList } from './access/hosts.ts';
import { allRoutes, createApp, type Parts } from './app.ts';
import { connectDatabase } from './database/connect.ts';
import { startPrivateDatabase, type PrivateDatabase } from './database/private-mariadb.ts';
import { ChangeLog } from './designs/change-log.ts';
import { Desk } from './designs/desk.ts';
import type { Desks } from './designs/desk-threads.ts';
import { LogTable } from './designs/log-table.ts';
import { Live } from './live/live.ts';
import { Outbox } from './people/outbox.ts';

interface Opened {
  document: Design;
  revision: number;
  you: string;
  log: { id: string; label: string; author: string }[];
}
type Browser = ReturnType<typeof request.agent>;

/** In this thread: what a desk works out does not depend on where it stands. */
export const oneDesk = (desk: Desk): Desks => ({
  do: async (task) => desk.do(structuredClone(task)),
  turn: (_, work) => work(),
  stop: async () => {},
});

export class Served {
  readonly directory = mkdtempSync(join(tmpdir(), 'helb-test-'));
  sequelize!: Sequelize;
  changes!: ChangeLog;
  table!: LogTable;
  app!: RequestListener;
  /** A browser that comes with its cookie. */
  api!: Browser;
  parts!: Parts;
  readonly outbox = join(this.directory, 'outbox');
  private database!: PrivateDatabase;
  private made = 0;
  readonly desks = oneDesk(new Desk());

  constructor(private readonly accounts: boolean) {}

  readonly routes = () => allRoutes(this.parts).routes;

  async start(): Promise<void> {
    this.database = await startPrivateDatabase(this.directory, 0);
    this.sequelize = await connectDatabase(this.database.url);
    this.table = new LogTable(this.database.url);
    this.changes = new ChangeLog(this.sequelize, this.desks, new Live(), this.table);
    const { sequelize, desks, changes } = this;
    const access = new Access('a secret of the tests', this.accounts);
    const post = { outbox: new Outbox(this.outbox), home: () => 'http://127.0.0.1' };
    this.parts = { sequelize, log: pino({ level: 'silent' }), desks, changes, hosts: hostList([]), access, post, lostAccess: () => {}, webRoot: null }; // prettier-ignore
    this.app = createApp(this.parts).callback();
    this.api = this.browser();
  }

  async stop(): Promise<void> {
    await this.changes.stop();
    await this.table.stop();
    await this.sequelize.close();
    await this.database.stop();
    rmSync(this.directory, { recursive: true, force: true });
  }

  /** Another person's. */
  readonly browser = (): Browser => request.agent(this.app);

  async newProject(name = 'Test'): Promise<string> {
    return (await this.api.post('/api/projects').send({ name }).expect(201)).body.id as string;
  }

  async newDesign(): Promise<string> {
    const project = await this.newProject();
    return (await this.api.post(`/api/projects/${project}/designs`).send({ name: 'Plate' }).expect(201)).body.id as string; // prettier-ignore
  }

  /** An edit as a page sends it. */
  readonly changeOf = ({ command, args }: Edit) => ({ id: `change-${this.made++}`, kind: 'edit', command, args });
  readonly turn = (kind: 'undo' | 'redo', of: string) => ({ id: `change-${this.made++}`, kind, of });

  readonly open = async (id: string, as = this.api) => (await as.get(`/api/designs/${id}`).expect(200)).body as Opened;
  readonly send = (id: string, base: number, change: object, as = this.api) =>
    as.post(`/api/designs/${id}/changes`).send({ base, change });
}

/** One for all tests of a file. */
export function served(accounts = false): Served {
  const own = new Served(accounts);
  beforeAll(() => own.start());
  afterAll(() => own.stop());
  return own;
}
