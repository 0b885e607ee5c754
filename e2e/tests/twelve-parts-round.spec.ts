/** Turned and rounded parts, from an empty design, by pointer and keyboard. */
import { Hands } from './hands.ts';
import { expect, test } from './workplace.ts';

test.beforeEach(({ page }) => page.setDefaultTimeout(10_000));

test('a tube with a plug of its borrowed bore, a cone by loft, a ball end by half a revolve', async ({
  page,
  workplace: w,
}) => {
  const hands = new Hands(w);
  await w.newSketch('Tube');
  await hands.circle([0, 0], '30');
  await hands.circle([0, 0], '24');
  await page.keyboard.press('x');
  await hands.number('Extrude 1', 'distance', '50 mm');
  await w.keep('Extrude 1');
  await expect(w.caption()).toContainText('30 × 30 × 50 mm');
  await hands.sketchAbove('Plane 1', '20 mm');
  await hands.borrow([12, 0]);
  await page.keyboard.press('x');
  await hands.turn('Extrude 2', 'a new body', 'joined to');
  await hands.number('Extrude 2', 'distance', '6 mm');
  await w.keep('Extrude 2');
  await hands.sketchAbove('Plane 2', 'extrude_1.distance + 25 mm');
  await hands.circle([0, 0], '10');
  await page.keyboard.press('Enter');
  await hands.sketchAbove('Plane 3', 'extrude_1.distance');
  await hands.borrow([0, 15]);
  await page.keyboard.press('Enter');
  await hands.look('upper right front');
  await page.keyboard.press('f');
  await w.choose('Loft');
  await w.pick([6, 6, 50]);
  await w.pick([1, 1, 75]);
  await hands.turn('Loft 1', 'a new body', 'joined to');
  await w.keep('Loft 1');
  await expect(w.caption()).toContainText('30 × 30 × 75 mm');
  await hands.sketchOn('wall');
  await w.draw('Arc about a centre', [0, 0], [-15, 0], [15, 0]);
  await w.draw('Line', [-15, 0], [15, 0]);
  await w.putDown();
  await w.dimension('sketch_1.diameter / 2', [-15 * Math.cos(0.35), -15 * Math.sin(0.35)]);
  await page.keyboard.press('v');
  await hands.turn('Revolve 1', 'a new body', 'joined to');
  await w.keep('Revolve 1');
  await expect(w.caption()).toContainText('30 × 30 × 90 mm');
  await w.setInLedger('part_1.sketch_1.diameter', '34 mm');
  await expect(w.caption()).toContainText('34 × 34 × 92 mm');
  await w.setInLedger('part_1.extrude_1.distance', '60 mm');
  await expect(w.caption()).toContainText('34 × 34 × 102 mm');
  await hands.computed();
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
});

test('a rim of a stepped profile mirrored in part, spokes from offset lines, a tyre with a tread', async ({
  page,
  workplace: w,
}) => {
  const hands = new Hands(w);
  await w.newDesign('Rim');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('Line', [34, 0], [34, 6], [38, 6], [38, 9], [42, 9], [42, 0]);
  await w.putDown();
  const [x0, y0] = await w.at(30, 13);
  const [x1, y1] = await w.at(46, -3);
  await page.mouse.move(x0, y0);
  await page.mouse.down();
  await page.mouse.move((x0 + x1) / 2, (y0 + y1) / 2);
  await page.mouse.move(x1, y1);
  await page.mouse.up();
  await w.change('Mirror');
  await w.click(10, 0);
  await w.settleAll();
  await page.keyboard.press('v');
  await w.keep('Revolve 1');
  await expect(w.caption()).toContainText('84 × 84 × 18 mm');

  await hands.sketchOn('floor');
  await w.draw('Line', [0, 0], [36, 0]);
  await w.putDown();
  await w.click(18, 0);
  await w.change('Construction');
  await w.change('Offset');
  await hands.give('distance', '3');
  await w.putDown();
  await w.click(18, 0);
  await w.change('Offset');
  await page.getByLabel('Other side').check();
  await hands.give('distance', '3');
  await w.draw('Line', [0, 3], [0, -3]);
  await w.draw('Line', [36, 3], [36, -3]);
  await w.putDown();
  await page.keyboard.press('x');
  await hands.turn('Extrude 1', 'a new body', 'joined to');
  await hands.turn('Extrude 1', 'one way', 'symmetric');
  await hands.number('Extrude 1', 'distance', '8 mm');
  await w.keep('Extrude 1');
  await w.pick([24, -3, 4]);
  await w.choose('Pattern');
  await expect(w.step('Pattern 1')).toContainText('the steps Extrude 1');
  await hands.turn('Pattern 1', 'in a row along', 'around');
  await hands.turn('Pattern 1', 'x axis', 'z axis of the part');
  await hands.number('Pattern 1', 'count', '4');
  await w.keep('Pattern 1');
  await page.keyboard.press('Escape');
  await hands.sketchOn('wall');
  await hands.rectangle([43, -8], [48, 5], '8', '18');
  await w.dimension('42 mm', [43, 4], [0, 14]);
  await w.dimension('9 mm', [45, -8], [20, 0]);
  await page.keyboard.press('v');
  await w.keep('Revolve 2');
  await expect(w.caption()).toContainText('100 × 100 × 18 mm');
  await hands.sketchOn('floor');
  await hands.rectangle([48, -2], [53, 1], '6', '4');
  await page.keyboard.press('x');
  await hands.turn('Extrude 2', 'a new body', 'cut from');
  await hands.turn('Extrude 2', 'one way', 'through all both ways');
  await w.keep('Extrude 2');
  await hands.look('right');
  await w.pick([48, 0, 3]);
  await w.choose('Pattern');
  await expect(w.step('Pattern 2')).toContainText('the steps Extrude 2');
  await hands.turn('Pattern 2', 'in a row along', 'around');
  await hands.turn('Pattern 2', 'x axis', 'z axis of the part');
  await hands.number('Pattern 2', 'count', '25');
  await w.keep('Pattern 2');
  await expect(page.getByText('2 bodies')).toBeVisible();
  await w.setInLedger('part_1.pattern_2.count', '30');
  await w.setInLedger('part_1.pattern_1.count', '5');
  await hands.computed();
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
});

test('a fork and its stepped pin weighed from a corner', async ({ page, workplace: w }) => {
  const hands = new Hands(w);
  await w.newDesign('Fork');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('Line', [-20, 0], [20, 0], [20, 40], [12, 40], [12, 10], [-12, 10], [-12, 40], [-20, 40], [-20, 0]);
  await w.putDown();
  await w.settleAll();
  await page.keyboard.press('x');
  await hands.number('Extrude 1', 'distance', '20 mm');
  await hands.turn('Extrude 1', 'one way', 'symmetric');
  await w.keep('Extrude 1');
  await expect(w.caption()).toContainText('40 × 20 × 40 mm');
  await hands.look('upper right front');
  await w.pick([20, 3, 15]);
  await w.choose('Hole');
  await hands.give('Hole 1: diameter', '8 mm');
  await w.keep('Hole 1');
  await page.getByRole('button', { name: 'More for Part 1' }).click();
  await page.getByRole('menuitem', { name: 'steel', exact: true }).click();
  const hole = Math.PI * 16 * 8;
  const volume = 880 * 20 - 2 * hole;
  await expect(w.caption()).toContainText(`steel · ${((volume * 7850) / 1e9).toFixed(3)} kg`);
  await w.pick([20, -10, 40]);
  await w.verb('Weigh').click();
  const weight = page.getByRole('region', { name: 'Weight' });
  // Of the U: the whole square less the slot; both holes in the middle of the legs.
  const up = (40 * 40 * 20 * 20 - 24 * 30 * 20 * 25 - 2 * hole * 20) / volume - 40;
  await expect(weight.getByRole('row', { name: 'Centre from the corner' })).toContainText(up.toFixed(3));
  await weight.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('Escape');

  await w.verb('New part').click();
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('Line', [0, 0], [6, 0], [6, 4], [4, 4], [4, 44], [0, 44], [0, 0]);
  await w.putDown();
  await w.settleAll();
  await page.keyboard.press('v');
  await expect(w.step('Revolve 1')).toContainText('y axis');
  await w.keep('Revolve 1');
  await page.getByRole('button', { name: 'More for Part 2' }).click();
  await page.getByRole('menuitem', { name: 'brass', exact: true }).click();
  await expect(w.caption()).toContainText('12 × 12 × 44 mm');
  // Two steps of a rod, brass of 8500 kg/m³.
  await expect(w.caption()).toContainText('brass · 0.021 kg');
});
