/** People with accounts: who comes in, what each may do, and what the others see of it. */
import type { Browser, Page } from '@playwright/test';
import { enter, invite, linkTo, test } from './house.ts';
import { expect, Workplace } from './workplace.ts';

const another = async (browser: Browser): Promise<Page> => (await browser.newContext()).newPage();

test('the first keeps the server, invites, and each does what they may', async ({ page, house, browser }) => {
  await page.goto(house.url);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await enter(page, /http\S+welcome#\S+/.exec(house.said)![0], 'Ida Holm', 'Begin', 'ida@vents.example');
  await page.getByRole('link', { name: /Glasshouse/ }).click();
  await invite(page, 'ben@vents.example', 'works');
  await invite(page, 'cas@vents.example', 'looks');

  const [ben, cas, guest] = [await another(browser), await another(browser), await another(browser)];
  for (const [own, address, name] of [
    [ben, 'ben@vents.example', 'Ben Okoro'],
    [cas, 'cas@vents.example', 'Cas Lind'],
  ] as const) {
    await enter(own, await linkTo(house, address), name, 'Join');
    await own.getByRole('link', { name: /Roof-vent opener/ }).click();
    await expect(own.getByTestId('caption')).toContainText('kg');
  }
  await page.getByRole('link', { name: /Roof-vent opener/ }).click();
  await expect(page.getByTestId('caption')).toContainText('kg');
  await expect(page.getByRole('list', { name: 'Also here' }).getByRole('img', { name: /Ben Okoro/ })).toBeVisible();

  // One works, and the others see it under his name.
  const bens = new Workplace(ben, house);
  await bens.setInLedger('plate_thk', '9 mm');
  await bens.allSaved();
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('list', { name: 'Changes' })).toContainText('Ben Okoro');

  // The other may look: his edit is refused in words, and trying costs nothing.
  await expect(cas.getByTestId('saved')).toHaveText('To look at only');
  await expect(cas.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await new Workplace(cas, house).setInLedger('plate_thk', '5 mm');
  await expect(cas.getByText(/You may look at this design, not change it/)).toBeVisible();
  await cas.keyboard.press('Escape');
  await expect(cas.locator('[data-ledger="plate_thk"]')).toContainText('9');

  // What one may do is changed while they are at it, and they see it at once.
  const owner = await page.context().newPage();
  await owner.goto(house.url);
  await owner.getByRole('link', { name: /Glasshouse/ }).click();
  await owner.getByLabel('What Ben Okoro may do').selectOption('looks');
  await expect(ben.getByTestId('saved')).toHaveText('To look at only');
  await owner.getByLabel('What Ben Okoro may do').selectOption('works');
  await expect(ben.getByTestId('saved')).toHaveText('Saved');
  await bens.setInLedger('plate_thk', '8 mm');
  await bens.allSaved();
  await owner.close();

  // A link to look, that ends while it is looked through.
  await page.getByRole('button', { name: 'Share' }).click();
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = await page.getByLabel('Link to look at the design').inputValue();
  await guest.goto(link);
  await expect(guest.getByTestId('saved')).toHaveText('To look at only');
  await page.getByRole('button', { name: 'end now' }).click();
  await expect(guest.getByTestId('saved')).toHaveText('Not saved, kept here');
  await guest.reload();
  await expect(guest.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  // A password forgotten.
  await guest.getByRole('link', { name: 'Password forgotten' }).click();
  await expect(guest.getByRole('heading', { name: 'Password forgotten' })).toBeVisible();
  await guest.getByLabel('Mail address').fill('cas@vents.example');
  await guest.getByRole('button', { name: 'Send a link' }).click();
  await expect(guest.getByRole('status')).toContainText('If cas@vents.example has an account here');
  await guest.goto(await linkTo(house, 'cas@vents.example', 'new-password'));
  await guest.getByLabel(/^New password/).fill('another, quite long');
  await guest.getByRole('button', { name: 'Set it and sign in' }).click();
  await expect(guest.getByRole('link', { name: 'Cas Lind' })).toBeVisible();
  // The browser that was signed in before is not any more.
  await cas.reload();
  await expect(cas.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  // The keeper ends an account; what it made stays.
  await page.goto(`${house.url}/people`);
  await page.getByRole('button', { name: 'End the account of Ben Okoro' }).click();
  await page.getByRole('button', { name: 'End it for good' }).click();
  await expect(page.getByRole('list', { name: 'Everyone' })).not.toContainText('Ben Okoro');
  await page.goto(house.url);
  await page.getByRole('link', { name: /Glasshouse/ }).click();
  await page.getByRole('link', { name: /Roof-vent opener/ }).click();
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('list', { name: 'Changes' })).toContainText('Someone who left');
});
