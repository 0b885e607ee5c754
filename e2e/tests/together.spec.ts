/** Two people, each with a browser of their own, at work on one design. */
import { expect, test, Workplace } from './workplace.ts';

test('two people on one design hear of each other at once, and each takes back their own; the history tells who did what', async ({
  page,
  browser,
  workplace: ana,
  helb,
}) => {
  await ana.openDemo();
  const elsewhere = await browser.newContext();
  const ben = new Workplace(await elsewhere.newPage(), helb);
  await ben.page.goto(page.url());
  await expect(ben.caption()).toContainText('kg');

  await test.step('each sees the other, and where they are at work', async () => {
    await expect(page.getByRole('list', { name: 'Also here' }).getByRole('listitem')).toHaveCount(1);
    await page.locator('[data-part="Hinge pin"]').click();
    await expect(
      ben.page.getByRole('list', { name: 'Also here' }).getByRole('img', { name: /at Hinge pin/ }),
    ).toBeVisible();
    await page.locator('[data-part="Wall bracket"]').click();
  });

  await test.step('a number changed here changes there', async () => {
    await ana.setInLedger('pin_dia', '12 mm');
    await ben.reveal('pin_dia');
    await expect(ben.row('pin_dia')).toContainText('12 mm');
    await ben.setInLedger('plate_thk', '9 mm');
    await ana.reveal('plate_thk');
    await expect(ana.row('plate_thk')).toContainText('9 mm');
  });

  await test.step('undo takes back one’s own', async () => {
    await page.getByRole('button', { name: 'Undo' }).click();
    await ana.reveal('pin_dia');
    await expect(ana.row('pin_dia')).toContainText('10 mm');
    await ben.reveal('plate_thk');
    await expect(ben.row('plate_thk')).toContainText('9 mm');
    await ben.reveal('pin_dia');
    await expect(ben.row('pin_dia')).toContainText('10 mm');
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });

  await test.step('who was away is told what clashes; what does not is kept', async () => {
    await elsewhere.setOffline(true);
    await ben.setInLedger('plate_thk', '7 mm');
    await ben.make('Number of the design', 'spare');
    await expect(ben.saved()).toContainText('Offline');
    await ana.setInLedger('plate_thk', '11 mm');
    await ana.allSaved();
    await elsewhere.setOffline(false);
    await expect(ben.page.getByText('Someone else made “Set plate_thk to 11 mm” meanwhile')).toBeVisible();
    await ben.allSaved();
    await ben.reveal('plate_thk');
    await expect(ben.row('plate_thk')).toContainText('11 mm');
    await ana.reveal('spare');
    await expect(ana.row('spare')).toBeVisible();
  });

  await test.step('the history: looked at, compared, named, gone back to', async () => {
    await page.getByRole('button', { name: 'History', exact: true }).click();
    const history = page.getByRole('region', { name: 'History' });
    const rows = history.getByRole('list', { name: 'Changes' }).getByRole('listitem');
    await expect(rows.first()).toContainText('Rename number_1 to spare');
    await expect(rows.first()).toContainText('someone else');
    await rows.filter({ hasText: 'Set plate_thk to 9 mm' }).getByRole('button').first().click();
    const compared = history.getByRole('region', { name: 'Compared' });
    await expect(compared).toContainText('plate_thk');
    await expect(compared.getByRole('row', { name: /plate_thk/ })).toContainText(/9 mm.*11 mm/);
    await expect(compared.getByRole('row', { name: /Wall bracket/ })).toContainText('kg', { timeout: 60_000 });
    await ana.setInLedger('pin_dia', '15 mm');
    await expect(page.getByText('You are looking at how the design was')).toBeVisible();
    await page.keyboard.press('Escape');
    await compared.getByRole('button', { name: 'Go back to it' }).click();
    await expect(rows.first()).toContainText('Go back to state');
    await ben.reveal('plate_thk');
    await expect(ben.row('plate_thk')).toContainText('9 mm');
    await expect(ben.row('spare')).toHaveCount(0);
  });

  await test.step('a state is named, for all to see', async () => {
    await ben.page.getByRole('button', { name: 'History', exact: true }).click();
    const state = page.getByRole('list', { name: 'Changes' }).getByRole('listitem').filter({ hasText: 'Set plate_thk to 9 mm' }).last(); // prettier-ignore
    await state.getByText('name it').dblclick();
    await page.keyboard.type('As quoted');
    await page.keyboard.press('Enter');
    await expect(state).toContainText('As quoted');
    await expect(ben.page.getByRole('list', { name: 'Changes' })).toContainText('As quoted');
    await ben.page.getByRole('button', { name: 'History', exact: true }).click();
  });

  await test.step('a page that loses its network, edits and is closed sends it on its return; its tabs hear of each other', async () => {
    await elsewhere.setOffline(true);
    await ben.setInLedger('pin_dia', '13 mm');
    await expect(ben.saved()).toContainText('Offline');
    await ben.page.close();
    await ana.setInLedger('lift_angle', '41 deg');
    await ana.allSaved();
    await elsewhere.setOffline(false);
    const back = new Workplace(await elsewhere.newPage(), helb);
    await back.page.goto(page.url());
    await expect(back.caption()).toContainText('kg');
    await back.allSaved();
    await back.reveal('lift_angle');
    await expect(back.row('lift_angle')).toContainText('41');
    await ana.reveal('pin_dia');
    await expect(ana.row('pin_dia')).toContainText('13 mm');
    const tab = new Workplace(await elsewhere.newPage(), helb);
    await tab.page.goto(page.url());
    await expect(back.page.getByRole('img', { name: /You, in another tab/ })).toBeVisible();
    await back.page.getByRole('button', { name: 'Undo' }).click();
    await tab.reveal('pin_dia');
    await expect(tab.row('pin_dia')).toContainText('12 mm');
  });
  await elsewhere.close();

  await test.step('a deleted design is brought back', async () => {
    await page.getByRole('navigation', { name: 'Where I am' }).getByRole('link').click();
    const address = page.url();
    await page.getByLabel('Name of a new design').fill('Left over');
    await page.getByRole('button', { name: 'Make design' }).click();
    await expect(ana.saved()).toBeVisible();
    await page.goto(address);
    await page.getByRole('button', { name: 'Delete Left over' }).click();
    await page.getByRole('button', { name: 'Delete it' }).click();
    await expect(page.getByRole('link', { name: 'Left over' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Bring back Left over' }).click();
    await page.getByRole('link', { name: 'Left over' }).click();
    await expect(ana.saved()).toContainText('Saved');
  });
});
