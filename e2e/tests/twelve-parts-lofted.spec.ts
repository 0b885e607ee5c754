/** Lofted and swept parts, from an empty design, by pointer and keyboard. */
import { Hands } from './hands.ts';
import { expect, test } from './workplace.ts';

test.beforeEach(({ page }) => page.setDefaultTimeout(10_000));

test('a bottle: crossed ellipses, a slanted cut, a neck down to the next, hollow, threaded', async ({
  page,
  workplace: w,
}) => {
  const hands = new Hands(w);
  await w.newSketch('Bottle');
  await hands.ellipse([28, 0], [0, 18]);
  await page.keyboard.press('Enter');
  await hands.sketchAbove('Plane 1', '90 mm');
  await hands.ellipse([0, 24], [16, 0]);
  await page.keyboard.press('Enter');
  await hands.look('upper right front');
  await page.keyboard.press('f');
  await w.choose('Loft');
  await w.pick([2, 2, 0]);
  await w.pick([2, 2, 90]);
  await w.keep('Loft 1');
  await expect(w.caption()).toContainText('56 × 48 × 90 mm');
  await hands.sketchOn('wall');
  await w.draw('Line', [-30, 78], [-12, 96], [-30, 96], [-30, 78]);
  await w.putDown();
  await page.keyboard.press('x');
  await hands.turn('Extrude 1', 'a new body', 'cut from');
  await hands.turn('Extrude 1', 'one way', 'through all both ways');
  await w.keep('Extrude 1');
  await hands.sketchAbove('Plane 2', 'plane_1.distance + 14 mm');
  await hands.circle([0, 0], '18');
  await page.keyboard.press('x');
  await hands.turn('Extrude 2', 'a new body', 'joined to');
  await hands.turn('Extrude 2', 'forward', 'reversed');
  await hands.turn('Extrude 2', 'one way', 'up to the next face');
  await w.keep('Extrude 2');
  await expect(w.caption()).toContainText('56 × 48 × 104 mm');
  await hands.look('upper right front');
  await page.keyboard.press('f');
  await w.choose('Shell');
  await w.pick([2, 2, 104]);
  await hands.give('Shell 1: thickness', '1.6 mm');
  await w.keep('Shell 1');
  await w.choose('Chamfer');
  await w.pick([9 * Math.SQRT1_2, -9 * Math.SQRT1_2, 104]);
  await hands.give('Chamfer 1: distance', '0.4 mm');
  await w.keep('Chamfer 1');
  await w.choose('Thread');
  await w.pick([9 * Math.SQRT1_2, -9 * Math.SQRT1_2, 98]);
  console.log(await w.step('Thread 1').innerText());
  await page.screenshot({ path: '/tmp/b1.png' });
  await hands.turn('Thread 1', 'marked', 'modelled');
  await page.waitForTimeout(15000);
  console.log(await w.step('Thread 1').innerText());
  await page.screenshot({ path: '/tmp/b2.png' });
});
