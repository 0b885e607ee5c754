/** Sheets: drawn from the model, audited, sized, and written to files that others read. */
import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, test } from './workplace.ts';

test('a bracket is drawn, what its sheet lacks is found and added, follows a dial, and is read back from PDF and DXF', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  const sheet = page.getByTestId('sheet');
  const audit = page.getByRole('region', { name: 'Audit' });
  const missing = audit.locator('[data-finding="missing"]');
  const words = sheet.locator('[data-size] text');

  await test.step('views are laid out by themselves, and all its sizes are missing', async () => {
    await page.getByRole('button', { name: 'New sheet' }).click();
    await expect(sheet.locator('[data-view]')).toHaveCount(4);
    await expect(missing).toHaveCount(10);
    await expect(audit).toContainText('0 of 13 freedoms of the shape are settled by 0 sizes.');
    await page.screenshot({ path: '/tmp/sheet1.png' });
  });
  await test.step('a size of two picked edges; then all that is missing', async () => {
    const front = (await sheet.locator('[data-view="front"]').boundingBox())!;
    await page.mouse.click(front.x + 1, front.y + front.height * 0.4);
    await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('edge');
    await page.keyboard.down('Shift');
    await page.mouse.click(front.x + front.width - 1, front.y + front.height * 0.4);
    await page.keyboard.up('Shift');
    await w.verb('Length across').click();
    await expect(words).toHaveText(['96']);
    await expect(missing).toHaveCount(9);
    await audit.getByRole('button', { name: 'Add all 9' }).click();
    await expect(audit).toContainText('Everything is settled.');
    await expect(words).toHaveCount(10);
    await page.screenshot({ path: '/tmp/sheet2.png' });
  });
});
