/** A server on which people sign in, and the letters it sends. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { HelbServer } from '../helb-server.ts';
import { expect, test as base } from './workplace.ts';

export const PASSWORD = 'seven brass hinges';

export const test = base.extend<object, { house: HelbServer }>({
  house: [
    async ({}, use) => {
      const house = new HelbServer({ HELB_PEOPLE: 'accounts' });
      await house.start();
      await use(house);
      await house.stop();
    },
    { scope: 'worker', timeout: 90_000 },
  ],
});

/** The link to a page in the newest letter to an address. */
export async function linkTo(house: HelbServer, address: string, page = 'welcome'): Promise<string> {
  const folder = join(house.data, 'outbox');
  let link: string | undefined;
  await expect
    .poll(() => {
      const letters = readdirSync(folder).sort().map((f) => readFileSync(join(folder, f), 'utf8')); // prettier-ignore
      link = /http\S+/.exec(
        letters.filter((l) => l.includes(`To: <${address}>`) && l.includes(`/${page}#`)).at(-1) ?? '',
      )?.[0];
      return link;
    })
    .toBeTruthy();
  return link!;
}

/** By a link in a letter, or the first of all. @param does the button's word */
export async function enter(
  page: Page,
  link: string,
  name: string,
  does: 'Begin' | 'Join',
  address?: string,
): Promise<void> {
  await page.goto(link);
  if (address) await page.getByLabel('Mail address').fill(address);
  await page.getByLabel('Your name, as others see it').fill(name);
  await page.getByLabel(/^Password/).fill(PASSWORD);
  await page.getByRole('button', { name: does }).click();
}

/** On the project's page. @param role as it is called there */
export async function invite(page: Page, address: string, role: string): Promise<void> {
  const who = page.getByRole('region', { name: 'Who may do what' });
  await who.getByLabel('Mail address of who is invited').fill(address);
  await who.getByLabel('What they may do', { exact: true }).selectOption(role);
  await who.getByRole('button', { name: 'Invite' }).click();
  await expect(who.getByRole('status')).toContainText(`on its way to ${address}`);
}
