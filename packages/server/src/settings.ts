/** Settings come from environment variables, checked once at start. */
import { resolve } from 'node:path';
import { z } from 'zod';

const port = z.coerce.number().int().min(0).max(65535);

const Settings = z.object({
  HELB_PORT: port.default(4680),
  HELB_DATA: z.string().default('.helb'),
  HELB_DATABASE_PORT: port.default(0),
  HELB_DATABASE_URL: z.url({ protocol: /^(mysql|mariadb)$/ }).optional(),
  HELB_HOSTS: z.string().default(''),
  HELB_PEOPLE: z.enum(['one', 'accounts']).default('one'),
  HELB_ADDRESS: z.url({ protocol: /^https?$/ }).optional(),
  HELB_BALANCER: z.stringbool().default(false),
  HELB_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('warn'),
});

export interface Settings {
  /** Port of the web server on 127.0.0.1. */
  readonly port: number;
  /** Directory of the private database. */
  readonly dataDir: string;
  /** Port of the private database; 0 takes a free one. */
  readonly databasePort: number;
  /** An existing database instead of the private one. */
  readonly databaseUrl: string | undefined;
  /** Names under which the server is reached besides this machine's own. */
  readonly hosts: readonly string[];
  /** People sign in; otherwise the one at this machine needs not. */
  readonly accounts: boolean;
  /** Where pages are reached, as letters say it: without an end slash; null for this machine's own. */
  readonly address: string | null;
  /** A balancer stands before it, and says from where one asks. */
  readonly balancer: boolean;
  readonly log: string;
}

/** @throws Error with a sentence that names the variable */
export function readSettings(env: NodeJS.ProcessEnv = process.env): Settings {
  const parsed = Settings.safeParse(env);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new Error(`The setting ${issue.path.join('.')} is not usable: ${issue.message}.`);
  }
  const s = parsed.data;
  return {
    port: s.HELB_PORT,
    dataDir: resolve(s.HELB_DATA),
    databasePort: s.HELB_DATABASE_PORT,
    databaseUrl: s.HELB_DATABASE_URL,
    hosts: [
      ...s.HELB_HOSTS.split(',').map((h) => h.trim()),
      s.HELB_ADDRESS ? new URL(s.HELB_ADDRESS).hostname : '',
    ].filter(Boolean),
    accounts: s.HELB_PEOPLE === 'accounts',
    address: s.HELB_ADDRESS?.replace(/\/+$/, '') ?? null,
    balancer: s.HELB_BALANCER,
    log: s.HELB_LOG,
  };
}
