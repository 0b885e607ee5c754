/** Turned and rounded parts, from an empty design, by pointer and keyboard. */
import { expect, test } from './hands.ts';

test(
  'a tube with a plug of its borrowed bore, a cone by loft, a ball end by half a revolve',
  { tag: '@long' },
  async ({ page, workplace: w, hands }) => {
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
  },
);

test('a rim of a stepped profile mirrored in part, spokes from offset lines, a tyre with a tread', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newDesign('Rim');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('Line', [34, 0], [34, 6], [38, 6], [38, 9], [42, 9], [42, 0]);
  await w.putDown();
  await w.box([30, 13], [46, -3]);
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

test('a fork and its stepped pin weighed from a corner', async ({ page, workplace: w, hands }) => {
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

test(
  'a turned knob: a groove and its rounds repeated along the axis, a pocket in its foot',
  { tag: '@long' },
  async ({ page, workplace: w, hands }) => {
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
  },
);

test(
  'a slotted disc: pins the other way from the same sketch, bars from an offset start',
  { tag: '@long' },
  async ({ page, workplace: w, hands }) => {
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
  },
);
