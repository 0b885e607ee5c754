/** A part drawn in its place between two others, from their edges and up to their faces; what it took stays linked. */
import { AssemblyHands } from './assembly-hands.ts';
import { expect, test } from './workplace.ts';

test('a post drawn between two plates from one’s bore up to the other’s underside follows both', async ({
  page,
  workplace: w,
}) => {
  const hands = new AssemblyHands(w);
  await hands.openDesign();
  const joint = page.locator('[data-joint="Cap on Base"]');

  await test.step('the cap is held off the base by a number', async () => {
    await page.getByRole('button', { name: 'New assembly' }).click();
    for (const part of ['Base', 'Cap']) await page.getByRole('button', { name: `Place ${part}`, exact: true }).click();
    await hands.pickRim('Cap', [20, 20, 6], 5);
    await hands.pickRim('Base', [20, 20, 10], 5);
    await w.verb('Rigid').click();
    await joint.getByRole('button', { name: 'Add a number' }).click();
    await page.getByRole('button', { name: 'an offset' }).click();
    await page.getByRole('combobox', { name: 'offset' }).fill('36 mm');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await expect.poll(() => hands.placeOf('Cap')).toEqual([0, 0, 40]);
  });

  await test.step('a new part stands between them; the base is borrowed, and its bore’s rim drawn from', async () => {
    await w.verb('New part here').click();
    await expect(page.getByText('Part 1 in its place in Assembly')).toBeVisible();
    await w.pick([40, 30, 10]);
    await w.verb('Borrow Base').click();
    await w.keep('Borrow Base');
    await w.pick([40, 30, 10]);
    await page.keyboard.press('k');
    await w.viewSettled();
    await w.change('Borrow edges and faces');
    await w.click(20 + 3, 20 + 4);
    await page.getByRole('button', { name: 'Done' }).click();
    await expect(w.step('Sketch 1')).toContainText('settled');
    await page.keyboard.press('x');
    await expect(w.step('Extrude 1').getByText('new ·')).toBeVisible();
  });

  await test.step('up to the cap: it is borrowed as it is picked', async () => {
    await w.step('Extrude 1').getByRole('button', { name: 'one way' }).click();
    await page.getByRole('menuitem', { name: 'up to the face' }).click();
    await w.step('Extrude 1').getByRole('button', { name: 'no face yet' }).click();
    await page.getByRole('button', { name: 'Look from lower right front' }).click();
    await w.pick([70, 10, 40]);
    await expect(w.step('Borrow Cap')).toBeVisible();
    await expect(w.step('Extrude 1')).toContainText('1 face');
    await page.getByRole('button', { name: 'Look from upper right front' }).click();
    await page.keyboard.press('Enter');
    await w.keep('Extrude 1');
    await expect(w.caption()).toContainText('30 mm');
    await w.allSaved();
  });

  await test.step('one number moves the cap, and the post with it; another the base', async () => {
    await w.setInLedger('plate_thk', '15 mm');
    await expect(w.caption()).toContainText('30 mm');
    await page.getByRole('button', { name: 'Back to Assembly' }).click();
    await joint.getByRole('button', { name: /36 mm/ }).click();
    await page.getByRole('combobox', { name: 'offset' }).fill('50 mm');
    await page.keyboard.press('Enter');
    await expect.poll(() => hands.placeOf('Cap')).toEqual([0, 0, 59]);
    await hands.instance('Part 1').hover();
    await hands.instance('Part 1').getByRole('button', { name: 'Edit' }).click();
    await expect(w.caption()).toContainText('44 mm');
  });

  await test.step('a circle of borrowing is told where it closes', async () => {
    await page.getByRole('button', { name: 'Work on Base', exact: true }).click();
    // With the base stands who takes from it.
    await expect(page.getByTestId('lent')).toHaveText('Borrowed from here: its bodies by Part 1, Borrow Base');
    await w.choose('Borrow a part');
    await w
      .step('Borrow 1')
      .getByRole('button', { name: /drawn in the same space/ })
      .click();
    await page.getByRole('menuitem', { name: 'Part 1', exact: true }).click();
    await expect(w.step('Borrow 1').getByRole('alert')).toContainText('Borrowing goes round in a circle');
    await page.keyboard.press('Escape');
    await expect(w.step('Borrow 1')).toHaveCount(0);
  });
});
