/** Parts of other designs of the project: brought, locked here, renewed when they change there, kept when those are gone. */
import { writeDesign } from '../../packages/core/src/index.ts';
import { AssemblyHands, sample } from './assembly-hands.ts';
import { slottedWheel } from './mechanisms.ts';
import { expect, test } from './workplace.ts';

test('a pin of another design stands here: locked, renewed with what changed shown first, kept when its design is deleted', async ({
  page,
  workplace: w,
  helb,
}) => {
  const hands = new AssemblyHands(w);
  // Of a name of its own: others of the sample’s stand in the project from other tests.
  await hands.openDesign(writeDesign(sample('Lent fit')));
  const source = page.url();
  await hands.openDesign(slottedWheel());
  const own = page.url();
  await page.locator('[data-assembly="Intermittent drive"]').click();
  const others = page.getByRole('button', { name: 'From other designs' });
  const guest = page.locator('[data-guest="Lent fit"]');

  await test.step('brought from the other design’s list, placed, and told whose it is', async () => {
    await others.click();
    await page.getByRole('button', { name: 'Lent fit', exact: true }).click();
    await page.getByRole('button', { name: 'Bring Base' }).click();
    await expect(page.locator('[data-part="Base"]')).toContainText('of Lent fit');
    await page.getByRole('button', { name: 'Place Base', exact: true }).click();
    await expect(hands.instance('Base')).toBeVisible();
    await w.allSaved();
  });

  await test.step('its numbers are changed there, and here only once it is cut loose', async () => {
    await page.getByRole('button', { name: 'Work on Base' }).click();
    await w.setInLedger('base.plate_thk', '4 mm');
    await expect(
      page.getByText('Base is of the design Lent fit; change it there, or cut it loose here.'),
    ).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  });

  await test.step('changed there, it is offered with what changed; looked at first, then kept', async () => {
    await page.goto(source);
    await w.setInLedger('plate_thk', '17 mm');
    await expect(w.row('plate_thk')).toContainText('17 mm');
    await w.allSaved();
    const logged = await page.request.get(
      `${helb.url}/api/designs/${/designs\/([0-9a-f-]+)/.exec(source)![1]}/changes?since=0`,
    );
    expect(((await logged.json()) as { changes: unknown[] }).changes.length).toBeGreaterThan(0);
    await page.goto(own);
    await expect(others).toContainText('1 changed there');
    await others.click();
    await expect(guest).toContainText('base.plate_thk: 10 mm → 17 mm');
    await guest.getByRole('button', { name: 'See it with the newest' }).click();
    await w.reveal('base.plate_thk');
    await expect(w.row('base.plate_thk')).toContainText('17 mm');
    await page.keyboard.press('Escape');
    await expect(w.row('base.plate_thk')).toContainText('10 mm');
    await others.click();
    await guest.getByRole('button', { name: 'See it with the newest' }).click();
    await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('With the newest of Lent fit');
    await expect(others).not.toBeFocused();
    await page.keyboard.press('Enter');
    await w.allSaved();
    await expect(w.row('base.plate_thk')).toContainText('17 mm');
    await expect(others).not.toContainText('changed there');
  });

  await test.step('its design deleted, it stays, and that is said; cut loose it is this design’s own', async () => {
    const removed = await page.request.delete(`${helb.url}/api/designs/${/designs\/([0-9a-f-]+)/.exec(source)![1]}`);
    expect(removed.status()).toBe(204);
    await page.reload();
    await expect(others).toContainText('1 out of reach');
    await others.click();
    await expect(guest).toContainText(
      'Lent fit was deleted, or is not yours to look at; what stands here of it stays as it is.',
    );
    await guest.getByRole('button', { name: 'Cut loose' }).click();
    await expect(guest).toHaveCount(0);
    await page.getByRole('button', { name: 'Close' }).click();
    await w.setInLedger('base.plate_thk', '4 mm');
    await expect(w.row('base.plate_thk')).toContainText('4 mm');
  });
});
