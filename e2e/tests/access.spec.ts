import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './workplace.ts';

test('projects, a part and an open sketch have no serious fault of access', async ({ page, workplace: w }) => {
  const serious = async () => {
    const { violations } = await new AxeBuilder({ page }).analyze();
    return violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  };
  await page.goto(w.helb.url);
  await expect(page.getByRole('link', { name: /Glasshouse/ })).toBeVisible();
  expect(await serious()).toEqual([]);
  await w.openDemo();
  expect(await serious()).toEqual([]);
  await w
    .step('Outline')
    .getByRole('button', { name: /dimensions/ })
    .click();
  await w.viewSettled();
  expect(await serious()).toEqual([]);
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
