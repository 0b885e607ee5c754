/** For tests: people who come to have accounts, by the letters they are sent. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Served } from '../served.ts';
import { keeperLink } from './links.ts';
import type { Role } from './rows.ts';

export const PASSWORD = 'correct horse battery';
type Browser = ReturnType<Served['browser']>;

export function newcomers(s: Served) {
  /** What stands in the newest letter's link. */
  const letterTo = (address: string): string => {
    const letters = readdirSync(s.outbox).sort().map((f) => readFileSync(join(s.outbox, f), 'utf8')); // prettier-ignore
    const letter = letters.filter((l) => l.includes(`To: <${address}>`)).at(-1);
    return /#([\w-]+)/.exec(letter ?? '')?.[1] ?? '';
  };
  const nameOf = (address: string) => `Person ${address.split('@')[0]}`;

  async function keeper(): Promise<Browser> {
    const own = s.browser();
    await own.post('/api/links/use').send({ token: await keeperLink(), address: 'keeper@works.example', name: 'Person keeper', password: PASSWORD }).expect(200); // prettier-ignore
    return (first = own);
  }
  let first: Browser;
  let hall: string | undefined;

  async function invited(by: Browser, project: string, address: string, role: Role): Promise<Browser> {
    await by.post(`/api/projects/${project}/invitations`).send({ address, role }).expect(204);
    const own = s.browser();
    await own.post('/api/links/use').send({ token: letterTo(address), name: nameOf(address), password: PASSWORD }).expect(200); // prettier-ignore
    return own;
  }

  /** Somebody in no project but one that nobody else is asked about. */
  async function account(address: string): Promise<Browser> {
    hall ??= (await first.post('/api/projects').send({ name: 'Hall' }).expect(201)).body.id as string;
    return invited(first, hall, address, 'reads');
  }

  /** As a header. */
  const cookies = (browser: Browser): string =>
    browser.jar
      .getCookies({ path: '/', domain: '127.0.0.1', secure: false, script: false })
      .map((c) => `${c.name}=${c.value}`)
      .join('; ');

  return { keeper, invited, account, letterTo, cookies };
}
