/** Parts as designers make them, from an empty design, by pointer and keyboard. */
import { Hands } from './hands.ts';
import { expect, test } from './workplace.ts';

test('a slotted disc: pins the other way from the same sketch, bars from an offset start', async ({
  page,
  workplace: w,
}) => {
  page.setDefaultTimeout(10_000);
  const hands = new Hands(w);
  await w.newSketch('Disc');
  await w.draw('Circle', [0, 0]);
  await w.point(20, 6);
  await page.keyboard.type('60');
  await page.keyboard.press('Enter');
  await w.putDown();
  await page.keyboard.press('x');
  await hands.give('Extrude 1: distance', '4 mm');
  await w.keep('Extrude 1');
  await expect(w.caption()).toContainText('60 × 60 × 4 mm');
  await w.verb('Sketch on floor').click();
  await w.viewSettled();
  await w.draw('Rectangle', [12, -1.5]);
  await w.point(20, 1);
  await page.keyboard.type('12');
  await page.keyboard.press('Tab');
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  await w.putDown();
  await w.draw('Circle', [0, 8]);
  await w.point(1, 9);
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  await w.putDown();
  await page.keyboard.press('x');
  await hands.turn('Extrude 2', 'a new body', 'cut from');
  await hands.turn('Extrude 2', 'one way', 'through all both ways');
  await w.keep('Extrude 2');
  await w.pick([-15, -10, 4]);
  await w.choose('Pattern');
  await hands.turn('Pattern 1', /^Extrude 1/, 'also Extrude 2');
  await hands.turn('Pattern 1', /^Extrude 1/, 'without Extrude 1');
  await hands.turn('Pattern 1', 'in a row along', 'around');
  await hands.turn('Pattern 1', 'x axis', 'z axis of the part');
  await w.step('Pattern 1').getByRole('button', { name: /count/ }).click();
  await hands.give('Pattern 1: count', '6');
  await w.keep('Pattern 1');
  await page.getByRole('button', { name: 'More for Sketch 2' }).click();
  await page.getByRole('menuitem', { name: 'Open the sketch' }).click();
  await w.viewSettled();
  await page.keyboard.press('x');
  await w
    .step('Extrude 3')
    .getByRole('button', { name: /^Sketch 2/ })
    .click();
  await w.pick([0.5, 8.3, 0]);
  await w.pick([18, 0, 0]);
  await page.getByRole('button', { name: 'Done' }).click();
  await hands.turn('Extrude 3', 'forward', 'reversed');
  await hands.turn('Extrude 3', 'a new body', 'joined to');
  await w
    .step('Extrude 3')
    .getByRole('button', { name: /distance/ })
    .click();
  await hands.give('Extrude 3: distance', '6 mm');
  await w.keep('Extrude 3');
  await expect(w.caption()).toContainText('60 × 60 × 10 mm');
  await page.getByRole('button', { name: 'Look from lower right front' }).click();
  await w.pick([0.3, 8.2, -6]);
  await w.choose('Pattern');
  await hands.turn('Pattern 2', 'in a row along', 'around');
  await hands.turn('Pattern 2', 'x axis', 'z axis of the part');
  await w.keep('Pattern 2');
  await page.keyboard.press('Escape');
  await w.verb('Sketch on floor').click();
  await w.viewSettled();
  await w.draw('Centred rectangle', [-25, 0]);
  await w.point(-24, 6);
  await page.keyboard.type('2');
  await page.keyboard.press('Tab');
  await page.keyboard.type('20');
  await page.keyboard.press('Enter');
  await w.putDown();
  await page.keyboard.press('x');
  await hands.turn('Extrude 4', 'a new body', 'joined to');
  await page.getByRole('button', { name: 'More for Extrude 4' }).click();
  await page.getByRole('menuitem', { name: 'Add: start off the profile' }).click();
  await w.step('Extrude 4').getByRole('button', { name: /start/ }).click();
  await hands.give('Extrude 4: start', 'extrude_1.distance');
  await w
    .step('Extrude 4')
    .getByRole('button', { name: /distance/ })
    .first()
    .click();
  await hands.give('Extrude 4: distance', '3 mm');
  await w.keep('Extrude 4');
  await page.getByRole('button', { name: 'Look from upper right front' }).click();
  await w.pick([-25, 0, 7]);
  await w.choose('Mirror');
  await w.keep('Mirror 1');
  await w.setInLedger('part_1.extrude_1.distance', '6 mm');
  await expect(w.caption()).toContainText('60 × 60 × 15 mm');
  await w.setInLedger('part_1.pattern_1.count', '8');
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
});

test('a bracket from an open outline, holes through both legs', async ({ page, workplace: w }) => {
  page.setDefaultTimeout(10_000);
  const hands = new Hands(w);
  await w.newDesign('Bracket');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('Line', [0, 40], [0, 0], [30, 0]);
  await w.putDown();
  await w.dimension('45 mm', [0, 20]);
  await w.dimension('35 mm', [15, 0]);
  await page.keyboard.press('x');
  await expect(w.step('Extrude 1')).toContainText('open outline');
  await hands.give('Extrude 1: distance', '24 mm');
  await hands.turn('Extrude 1', 'half each way', 'to the left');
  await w.step('Extrude 1').getByRole('button', { name: /wall/ }).first().click();
  await hands.give('Extrude 1: wall', '4 mm');
  await hands.turn('Extrude 1', 'one way', 'symmetric');
  await w.keep('Extrude 1');
  await expect(w.caption()).toContainText('35 × 24 × 45 mm');

  await page.getByRole('button', { name: 'Look from top', exact: true }).click();
  await w.pick([20, 2, 4]);
  await page.keyboard.press('k');
  await w.viewSettled();
  await w.draw('point', [4, 0]);
  await w.putDown();
  await w.verb('Hole').click();
  await hands.give('Hole 1: diameter', '6 mm');
  await w.keep('Hole 1');
  await page.getByRole('button', { name: 'Look from right', exact: true }).click();
  await w.pick([4, 3, 30]);
  await page.keyboard.press('k');
  await w.viewSettled();
  await w.draw('point', [0, 8]);
  await w.putDown();
  await w.verb('Hole').click();
  await hands.give('Hole 2: diameter', '6 mm');
  await w.keep('Hole 2');
  await w.setInLedger('part_1.extrude_1.wall', '5 mm');
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
  await expect(w.caption()).toContainText('35 × 24 × 45 mm');
});

test('a turned knob: a groove and its rounds repeated along the axis, a pocket in its foot', async ({
  page,
  workplace: w,
}) => {
  page.setDefaultTimeout(10_000);
  const hands = new Hands(w);
  await w.newDesign('Knob');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await hands.rectangle([0, 0], [12, 30], '16', '40');
  await page.keyboard.press('v');
  await expect(w.step('Revolve 1')).toContainText('y axis');
  await w.keep('Revolve 1');
  await expect(w.caption()).toContainText('32 × 32 × 40 mm');

  await w.verb('Sketch on wall').click();
  await w.viewSettled();
  await hands.rectangle([15, 6], [17, 8], '3', '4');
  await page.keyboard.press('v');
  await hands.turn('Revolve 2', 'a new body', 'cut from');
  await w.keep('Revolve 2');

  await page.getByRole('button', { name: 'Look from upper right front' }).click();
  await w.pick([0, -16, 6]);
  await w.pick([0, -16, 10], { modifiers: ['Shift'] });
  await w.choose('Fillet');
  await expect(w.step('Fillet 1')).toContainText('2 edges');
  await hands.give('Fillet 1: radius', '0.5 mm');
  await w.keep('Fillet 1');

  await w.pick([0, -15, 8]);
  await w.choose('Pattern');
  await hands.turn('Pattern 1', /^Revolve 2/, 'also Fillet 1');
  await hands.turn('Pattern 1', 'x axis', 'z axis of the part');
  await w.step('Pattern 1').getByRole('button', { name: /pitch/ }).click();
  await hands.give('Pattern 1: pitch', '9 mm');
  await w.keep('Pattern 1');

  await page.getByRole('button', { name: 'Look from under', exact: true }).click();
  await w.pick([8, 2, 0]);
  await page.keyboard.press('k');
  await w.viewSettled();
  await w.draw('Circle', [0, 0]);
  await w.point(5, 1);
  await page.keyboard.type('12');
  await page.keyboard.press('Enter');
  await w.putDown();
  await page.keyboard.press('x');
  await hands.turn('Extrude 1', 'joined to', 'cut from');
  await hands.turn('Extrude 1', 'forward', 'reversed');
  await w
    .step('Extrude 1')
    .getByRole('button', { name: /distance/ })
    .click();
  await hands.give('Extrude 1: distance', '15 mm');
  await w.keep('Extrude 1');

  await w.setInLedger('part_1.pattern_1.count', '4');
  await w.setInLedger('part_1.pattern_1.pitch', '7.5 mm');
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: 'More for Part 1' }).click();
  await page.getByRole('menuitem', { name: 'steel', exact: true }).click();
  // A rod less the pocket and four grooves of a ring 15 … 16 by 4, their rims rounded: 7850 kg/m³.
  await expect(w.caption()).toContainText('steel · 0.227 kg');
});
