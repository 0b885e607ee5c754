import { readFile } from 'node:fs/promises';
import { test, expect } from './workplace.ts';
test('zz', async ({ page, workplace: w, helb }) => {
  const api = `${helb.url}/api/projects`;
  const projects = (await (await page.request.get(api)).json()) as any[];
  const made = await page.request.post(`${api}/${projects.find((p) => p.name === 'Glasshouse').id}/designs`, { data: await readFile('/tmp/bar.json', 'utf8'), headers: { 'content-type': 'application/json' } });
  await page.goto(`${helb.url}/designs/${(await made.json()).id}`);
  await expect(w.caption()).toContainText('mm');
  const sheet = page.getByTestId('sheet');
  await page.getByRole('button', { name: 'New sheet' }).click();
  await expect(sheet.locator('[data-view]')).toHaveCount(4);
  await w.verb(/Bring the model/).click();
  await expect(sheet.locator('[data-size]').first()).toBeVisible();
  await page.getByRole('button', { name: /^Add all/ }).first().click();
  await page.waitForTimeout(800);
  const b = (await sheet.locator('[data-view="front"] path').first().boundingBox())!; const o = (await sheet.locator('[data-view="front"]').boundingBox())!; console.log(b, o);

  await page.mouse.click(600, 336);
  await page.screenshot({ path: '/tmp/z1.png' });
  await w.verb('Break it off').click();
  await page.waitForTimeout(1500);
  await page.keyboard.press('Escape');
  await page.screenshot({ path: `/tmp/z2.png` });
});
