import { test, expect } from './workplace.ts';
test('look', async ({ workplace: w, page }) => {
  test.setTimeout(240000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await w.newSketch('Look');
  await w.draw('Line', [0, 0], [80, 0], [80, 18], [50, 18], [50, 55], [28, 55], [28, 18], [0, 18], [0, 0]);
  await w.putDown();
  await page.screenshot({ path: '/tmp/shots/a1.png' });
  // angle by corner
  await w.draw('Line', [-60, 0], [-20, 10], [-40, 40], [-60, 0]);
  await w.putDown();
  await w.click(-45, 3.75);
  await w.click(-30, 25);
  await page.waitForTimeout(400);
  await page.screenshot({ path: '/tmp/shots/a2.png' });
  await page.keyboard.press('d');
  const field = w.stage().getByRole('combobox');
  await page.waitForTimeout(300);
  console.log('angle reads', await field.inputValue());
  await field.fill('75'); await field.press('Enter');
  for (const [p, v] of [[[40, 0], '80'], [[80, 9], '18'], [[65, 18], '30'], [[39, 55], '22']] as any) {
    await w.click(p[0], p[1]); await page.keyboard.press('d'); await page.waitForTimeout(200);
    const f = w.stage().getByRole('combobox'); await f.fill(v); await f.press('Enter'); await expect(f).toHaveCount(0);
  }
  await page.keyboard.press('Escape');
  await page.screenshot({ path: '/tmp/shots/a3.png' });
  await page.getByRole('button', { name: 'Show freedoms' }).click();
  await w.stage().hover({position:{x:300,y:500}}); await page.keyboard.down('m');
  await page.waitForTimeout(400);
  await page.screenshot({ path: '/tmp/shots/a4.png' });
});
