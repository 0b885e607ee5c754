import { expect, test } from './workplace.ts';

test('dials moved through their ranges: what fails first, looked at, mended, kept in a range', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Lid');
  await w.pick([0, 0, 10]);
  await w.choose('Shell');
  await page.keyboard.type('3 mm');
  await w.keep('Shell 1');
  for (const [row, dial] of [
    ['part_1.sketch_1.width', 'wide'],
    ['part_1.shell_1.thickness', 'wall'],
  ] as const) {
    await w.row(row).getByRole('button', { name: /mm$/ }).first().click();
    await page.getByRole('combobox', { name: `Expression of ${row}` }).fill(dial);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: `Make a dimension “${dial}”` }).click();
    await expect(w.row(dial)).toBeVisible();
  }
  await w.setInLedger('wall', '8 mm');
  await expect(w.step('Shell 1').getByRole('alert')).toHaveCount(0);

  const flex = page.getByRole('region', { name: 'Flex' });
  const bar = (name: string) => flex.locator(`[data-dial="${name}"]`);
  const finished = flex.getByText('each dial alone, then in pairs', { exact: true });
  await test.step('a requirement that cannot be read is refused in words, another is judged as one works', async () => {
    await page.getByRole('button', { name: 'Flex' }).click();
    const field = flex.getByLabel('New requirement');
    await field.fill('wid - 2 * wall >= 40');
    await field.press('Enter');
    await expect(flex.getByRole('alert')).toHaveText('No dimension is called “wid”; did you mean “wide”?');
    await field.fill('wide - 2 * wall >= 40');
    await field.press('Enter');
    await expect(flex.getByLabel('Requirements')).toContainText('wide - 2 * wall >= 40 mm');
    await expect(flex.getByLabel('kept', { exact: true })).toBeVisible();
    await expect(flex.getByLabel('Requirements')).toContainText('44 mm >= 40 mm');
  });

  await test.step('each dial stands as far as arithmetic says', async () => {
    await flex.getByRole('button', { name: 'Move every dial' }).click();
    await expect(finished).toBeVisible({ timeout: 60_000 });
    // The hollow needs 40 mm: wide from 56 mm on at this wall; the lid is 10 mm high, so its floor ends where the wall does.
    await expect(bar('wide')).toContainText('Keep 56.1 mm to 90 mm');
    await expect(bar('wall')).toContainText('Shell 1');
    await bar('wide').getByRole('button', { name: 'Keep 56.1' }).click();
    await expect(flex.getByText('the design has changed since')).toBeVisible();
    await w.row('wide').hover();
    await page.getByRole('button', { name: 'More for wide' }).click();
    await page.getByRole('menuitem', { name: 'Range, heading, note' }).click();
    await expect(w.row('wide').getByLabel('least')).toHaveValue('56.1 mm');
  });

  await test.step('a number is charted over a dial', async () => {
    await bar('wide').getByRole('button', { name: 'Chart' }).click();
    await bar('wide').getByRole('combobox').selectOption({ label: 'volume of all parts, mm³' });
    await expect(bar('wide').getByRole('img', { name: 'volume of all parts, mm³ over wide' })).toBeVisible();
  });

  await test.step('what fails is shown on the stage, at the step, with the numbers tried', async () => {
    await bar('wall').getByRole('button', { name: 'Show' }).last().click();
    await expect(flex).toHaveCount(0);
    await expect(page.getByRole('button', { name: /^Keep Enter/ })).toBeVisible();
    await page.getByRole('button', { name: /^Drop/ }).click();
  });

  await test.step('what is not kept stands among the findings', async () => {
    await w.setInLedger('wall', '9 mm');
    await w.setInLedger('wide', '57 mm');
    await page.getByTestId('findings').getByRole('button').click();
    await expect(page.getByRole('menuitem', { name: /wide - 2 \* wall >= 40 mm: is not kept/ })).toBeVisible();
    await page.getByRole('menuitem', { name: /is not kept/ }).click();
    await expect(flex.getByLabel('not kept', { exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(flex).toHaveCount(0);
  });
});
