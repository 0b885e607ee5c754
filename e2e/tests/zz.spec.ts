import { writeFile } from 'node:fs/promises';
import { expect, test } from './workplace.ts';
test('zz', async ({ page, workplace: w }) => {
  test.setTimeout(240_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await w.openDemo();
  const sheet = page.getByTestId('sheet');
  await page.getByRole('button', { name: 'New sheet' }).click();
  await expect(sheet.locator('[data-view]')).toHaveCount(4);
  const front = (await sheet.locator('[data-view="front"]').boundingBox())!;
  const at = (x: number, y: number) => [front.x + (front.width * x) / 96, front.y + (front.height * (136 - y)) / 136] as const;
  const rims = [[0.3, 40], [14 + 3.3, 14], [48 + 13, 68], [82 - 3.3, 122], [95.7, 60]];
  for (const [i, [x, y]] of rims.entries()) {
    if (i > 0) await page.keyboard.down('Shift');
    await page.mouse.move(...at(x!, y!));
    await page.waitForTimeout(150);
    await page.mouse.click(...at(x!, y!));
    await page.keyboard.up('Shift');
  }
  await w.verb('Ordinates across').click();
  await page.waitForTimeout(2500);
  await page.screenshot({ path: '/tmp/z1.png' });
  await page.evaluate(() => { window.print = () => undefined; });
  await page.mouse.click(400, 620);
  await w.verb('Print').click();
  await page.emulateMedia({ media: 'print' });
  await writeFile('/tmp/z.pdf', await page.pdf({ preferCSSPageSize: true }));
  await page.emulateMedia({ media: null });
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
  // The arm
  await page.getByRole('button', { name: 'Work on Sector arm' }).click();
  await page.getByRole('button', { name: 'New sheet' }).click();
  await expect(sheet.locator('[data-view]')).toHaveCount(4);
  await page.waitForTimeout(1500);
  await w.verb('Bring the model’s sizes').click();
  await page.waitForTimeout(3000);
  await page.screenshot({ path: '/tmp/z2.png' });
});
test('zz2', async ({ page, workplace: w }) => {
  test.setTimeout(240_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await w.openDemo('vent-drive');
  const sheet = page.getByTestId('sheet');
  await page.locator('[data-assembly]').first().click();
  await page.getByRole('button', { name: 'New sheet' }).click();
  await expect(sheet.locator('[data-view]')).toHaveCount(4);
  await page.getByLabel('Stands').selectOption({ label: 'taken apart' });
  await page.waitForTimeout(6000);
  await page.screenshot({ path: '/tmp/z3.png' });
});
