/** Mechanisms moved on the page: by contact, over time, traced and charted, checked on their way. */
import { readFile } from 'node:fs/promises';
import { AssemblyHands } from './assembly-hands.ts';
import { SLOTTED, slottedWheel, TRAMMEL, trammel } from './mechanisms.ts';
import { expect, test, type Workplace } from './workplace.ts';

const valueOf = async (w: Workplace, motion: string) => Number.parseFloat((await w.page.locator(`[data-motion="${motion}"] .number`).innerText()).replace('−', '-')); // prettier-ignore

test('a pin drives a slotted wheel by contact alone, live and in a run that is played, charted and kept', async ({
  page,
  workplace: w,
}) => {
  const hands = new AssemblyHands(w);
  await hands.openDesign(slottedWheel());
  await page.locator('[data-assembly="Intermittent drive"]').click();
  await expect(hands.state).toHaveText('2 freedoms');

  await test.step('without contact the pin goes through; with it the wheel is turned', async () => {
    const slider = page.getByRole('slider', { name: 'Crank, turn' });
    await slider.fill('-90');
    expect(await valueOf(w, 'Wheel turn')).toBe(0);
    await page.keyboard.press('h');
    await page.getByLabel('What parts do where they touch').selectOption('all');
    for (const angle of [-30, -50, -70, -90]) await slider.fill(String(angle));
    // In the middle of its way the pin is on the line of the axes, and the slot with it, but for its play.
    const play = (((SLOTTED.half - SLOTTED.pin) / (SLOTTED.way * (Math.SQRT2 - 1))) * 180) / Math.PI;
    expect(Math.abs((await valueOf(w, 'Wheel turn')) - 45)).toBeLessThan(play + 0.1);
    await page.keyboard.press('h');
  });

  await test.step('a run of two turns is gone through, and the wheel has made two quarters', async () => {
    await page.getByRole('button', { name: 'Drive several over time' }).click();
    await page.getByLabel('Drive one more in Run').selectOption({ label: 'Crank, turn' });
    await page.getByRole('button', { name: 'Add where it stands now' }).click();
    const run = page.locator('[data-run="Run"]');
    await run.getByRole('button', { name: 'where it is then: 0°' }).nth(1).click();
    await run.getByRole('combobox', { name: 'where it is then' }).fill('-720°');
    await page.keyboard.press('Enter');
    await run.getByRole('button', { name: 'seconds: 1' }).click();
    await run.getByRole('combobox', { name: 'seconds' }).fill('2');
    await page.keyboard.press('Enter');
    await page.getByLabel('What parts do where they touch').selectOption('none');
    await run.getByRole('checkbox', { name: 'parts push' }).check();
    await run.getByRole('button', { name: 'Chart Run' }).click();
    const chart = page.getByRole('region', { name: 'Chart of a motion' });
    await expect(chart.getByText('computing')).toBeHidden({ timeout: 30000 });
    await chart.getByLabel('What is charted').selectOption({ label: 'Wheel, turn' });
    const downloading = page.waitForEvent('download');
    await chart.getByRole('button', { name: 'Write CSV' }).click();
    const rows = (await readFile(await (await downloading).path(), 'utf8')).trim().split(/\r?\n/);
    expect(rows[0]).toBe('Run s,"Crank, turn°","Wheel, turn°"');
    const [time, crank, wheel] = rows.at(-1)!.split(',').map(Number);
    expect([time, crank]).toEqual([2, -720]);
    expect(Math.abs(wheel! - 180)).toBeLessThan(1);
    await chart.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('slider', { name: 'Time in Run' }).fill('1');
    await expect.poll(() => valueOf(w, 'Wheel turn')).toBeCloseTo(90, 0);
    await run.getByRole('button', { name: 'Play Run' }).click();
    await expect.poll(() => valueOf(w, 'Crank turn'), { timeout: 10000 }).toBe(-720);
  });

  await test.step('kept: it is there after reopening, and undone it is as before', async () => {
    await w.allSaved();
    await page.reload();
    await expect(page.locator('[data-run="Run"]').getByRole('button', { name: 'where it is then: -720°' })).toBeVisible(); // prettier-ignore
    await page.locator('[data-run="Run"]').getByRole('button', { name: 'Remove' }).click();
    await expect(page.locator('[data-run]')).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('[data-run="Run"]')).toContainText('of 2.00 s');
  });
});

test('a point of a rod on two sliders goes round an ellipse; the longest sliders that clear are found by number', async ({
  page,
  workplace: w,
}) => {
  const { arm, wide } = TRAMMEL;
  const hands = new AssemblyHands(w);
  await hands.openDesign(trammel());
  await page.locator('[data-assembly="Trammel"]').click();
  await expect(hands.state).toHaveText('1 freedom');
  const chart = page.getByRole('region', { name: 'Chart of a motion' });

  await test.step('the way of a corner of the rod is written as a table', async () => {
    await page.getByRole('button', { name: 'Look from top', exact: true }).click();
    await page.getByRole('button', { name: 'Chart Rod on level, turn' }).click();
    // Its far end, by the middle of its short edge.
    await hands.click('Rod', [-(arm + 34), 0, 4]);
    await expect(chart.getByText('computing')).toBeHidden();
    await expect(chart.getByLabel('What is charted')).toContainText('Rod');
    const downloading = page.waitForEvent('download');
    await chart.getByRole('button', { name: 'Write CSV' }).click();
    const rows = (await readFile(await (await downloading).path(), 'utf8')).trim().split(/\r?\n/).slice(1);
    expect(rows.length).toBe(91);
    const cells = rows.map((r) => r.split(',').map(Number));
    const from = cells[0]!.length - 3;
    const places = cells.map((c) => c.slice(from));
    // A point at r from the level pin along the rod: half axes r and r − arm.
    const [r, half] = [arm + 34, 34];
    for (const [x, y] of places) expect((x! / half) ** 2 + (y! / r) ** 2).toBeCloseTo(1, 6);
    await page.keyboard.press('Escape');
  });

  await test.step('the clearance of the sliders on the way: least where both are as far from the middle', async () => {
    for (const name of ['Level slider', 'Upright slider'])
      await hands
        .instance(name)
        .getByRole('button', { name: `Pick ${name}` })
        .click({ modifiers: ['Shift'] });
    await chart.getByLabel('What is charted').selectOption({ label: 'Clearance of Level slider and Upright slider' });
    await expect(chart.getByText('computing')).toBeHidden({ timeout: 30000 });
    const downloading = page.waitForEvent('download');
    await chart.getByRole('button', { name: 'Write CSV' }).click();
    const rows = (await readFile(await (await downloading).path(), 'utf8')).trim().split(/\r?\n/).slice(1);
    const least = Math.min(...rows.map((row) => Number(row.split(',').at(-1))));
    const clear = (arm / Math.SQRT2 - (40 + wide) / 2) * Math.SQRT2;
    expect(least).toBeGreaterThan(clear - 1e-3);
    expect(least).toBeLessThan(clear + 0.5);
    await chart.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('sliders a little shorter than √2 arm − width clear; a little longer, they run into each other', async () => {
    const longest = Math.SQRT2 * arm - wide;
    const check = async () => {
      await page.getByLabel('Where the fit is checked').selectOption({ label: 'on the way of Rod on level, turn' });
      await page.getByRole('button', { name: 'Check the fit' }).click();
      await expect(page.getByRole('button', { name: 'Check the fit' })).toBeEnabled({ timeout: 60000 });
    };
    await w.setInLedger('slider_len', `${(longest - 0.3).toFixed(2)} mm`);
    await check();
    await expect(page.getByTestId('finding').filter({ hasText: 'run into each other' })).toHaveCount(0);
    await w.setInLedger('slider_len', `${(longest + 2).toFixed(2)} mm`);
    await check();
    const finding = page.getByTestId('finding').filter({ hasText: 'Level slider and Upright slider run into each other' }); // prettier-ignore
    await expect(finding).toBeVisible();
    await finding.getByRole('button', { name: 'Look there' }).click();
    await expect(page.getByText('Moved, only to be looked at')).toBeVisible();
  });
});
