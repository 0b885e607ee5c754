import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './workplace.ts';

/** What hinders people who see or point otherwise, worst first. */
async function seriousIn(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
}

test('projects, a part and an open sketch have no serious fault of access', async ({ page, workplace: w }) => {
  await page.goto(w.helb.url);
  await expect(page.getByRole('link', { name: /Glasshouse/ })).toBeVisible();
  expect(await seriousIn(page)).toEqual([]);
  await w.openDemo();
  expect(await seriousIn(page)).toEqual([]);
  await w
    .step('Outline')
    .getByRole('button', { name: /dimensions/ })
    .click();
  await w.viewSettled();
  expect(await seriousIn(page)).toEqual([]);
  // By lamp light, and so it stays.
  const colours = page.getByRole('button', { name: /^Colours/ });
  while (!/dark/.test((await colours.getAttribute('aria-label'))!)) await colours.click();
  expect(await seriousIn(page)).toEqual([]);
  await page.reload();
  await expect(w.caption()).toContainText('kg');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  expect(await seriousIn(page)).toEqual([]);
});

test('a trial, a trace, suggestions and the variants have no serious fault of access', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  await page.getByLabel('plate_thk, dial').focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('region', { name: 'Trial' })).toBeVisible();
  expect(await seriousIn(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await w.row('plate_thk').getByText('plate_thk').first().focus();
  await page.getByRole('button', { name: 'More for plate_thk' }).press('Enter');
  await page.getByRole('menuitem', { name: 'Trace it' }).click();
  await expect(page.getByRole('region', { name: 'Trace' })).toContainText('faces moved');
  await w.row('pin_dia').getByRole('button', { name: /10 mm/ }).click();
  await page.getByRole('combobox', { name: 'Expression of pin_dia' }).fill('pla');
  await expect(page.getByRole('listbox', { name: 'Names that fit' })).toBeVisible();
  expect(await seriousIn(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Variants/ }).click();
  await page.getByRole('button', { name: 'New column' }).click();
  expect(await seriousIn(page)).toEqual([]);
});

test('the way by keyboard alone: find a verb, open the list of keys, step back', async ({ page, workplace: w }) => {
  await w.openDemo();
  await w.stage().focus();
  await page.keyboard.press('Space');
  await page.getByRole('combobox', { name: 'Find a verb' }).fill('wall');
  await page.keyboard.press('Enter');
  await expect(w.step('Sketch 1')).toContainText('the wall plane');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('rectangle');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(w.step('Sketch 1')).toHaveCount(0);
});
