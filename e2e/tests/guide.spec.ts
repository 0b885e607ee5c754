import { expect, test } from './workplace.ts';

test('a first part is made by the guide’s moves, left on the way and taken up again', async ({
  page,
  workplace: w,
}) => {
  const card = page.getByRole('region', { name: 'A first part' });
  const move = (title: string) => expect(card.getByRole('heading', { name: title })).toBeVisible();
  await page.goto(w.helb.url);
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await move('A plane to draw on');
  await page.getByRole('button', { name: 'floor plane' }).click();
  await move('A rectangle of true size');
  await w.viewSettled();
  await page.keyboard.press('r');
  await w.click(0, 0);
  await w.point(30, 20);
  await page.keyboard.type('60');
  await page.keyboard.press('Tab');
  await page.keyboard.type('40');
  await page.keyboard.press('Enter');
  await move('A solid');
  await w.putDown();
  await page.keyboard.press('x');
  await page.keyboard.type('8');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await move('A hole');

  await test.step('left, and taken up again', async () => {
    await card.getByRole('button', { name: 'Leave; go on later' }).click();
    await expect(card).toHaveCount(0);
    await w.allSaved();
    await page.goto(w.helb.url);
    await page.getByRole('button', { name: 'Go on at move 4 of 10' }).click();
    await move('A hole');
    await expect(w.caption()).toContainText('60 × 40 × 8 mm');
  });

  await w.pick([30, 20, 8]);
  await w.verb('Hole').click();
  await page.keyboard.type('12');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await move('Round corners');
  await w.pick([60, 0, 4]);
  await page.keyboard.press('r');
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await move('Change a number');
  await w.setInLedger('part_1.sketch_1.width', '75 mm');
  await expect(w.caption()).toContainText('75 × 40 × 8 mm');
  await move('Let one number follow another');
  await w.setInLedger('part_1.hole_1.diameter', 'width / 5');
  await move('Break it, and mend it');
  await w.setInLedger('part_1.fillet_1.radius', '50 mm');
  await w
    .step('Fillet 1')
    .getByRole('button', { name: /^Make it/ })
    .click();
  await move('A dial');
  await w.row('part_1.sketch_1.width').hover();
  await w.row('part_1.sketch_1.width').getByRole('button', { name: 'More for' }).click();
  await page.getByRole('menuitem', { name: 'Make it a dial' }).click();
  await page.keyboard.press('Enter');
  await move('What can it bear?');
  await page.getByRole('button', { name: 'Flex', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Flex' })).toBeVisible();
  await page.keyboard.press('Escape');
  await move('That was a first part');
});
