/** Parts as designers make them, from an empty design, by pointer and keyboard. */
import { expect, test, type Workplace } from './workplace.ts';

/** Type into a number that is open, and take a choice of a step's sentence for another. */
function hands({ page, step }: Workplace) {
  return {
    async give(label: string, value: string) {
      await page.getByLabel(label).fill(value);
      await page.getByLabel(label).press('Enter');
    },
    async turn(name: string, from: string | RegExp, to: string) {
      await step(name).getByRole('button', { name: from }).first().click();
      await page.getByRole('menuitem', { name: to, exact: true }).click();
    },
  };
}

test('a slotted disc: pins the other way from the same sketch, bars from an offset start', async ({
  page,
  workplace: w,
}) => {
  page.setDefaultTimeout(10_000);
  const { give, turn } = hands(w);
  await w.newSketch('Disc');
  await w.draw('Circle', [0, 0]);
  await w.point(20, 6);
  await page.keyboard.type('60');
  await page.keyboard.press('Enter');
  await w.putDown();
  await page.keyboard.press('x');
  await give('Extrude 1: distance', '4 mm');
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
  await turn('Extrude 2', 'a new body', 'cut from');
  await turn('Extrude 2', 'one way', 'through all both ways');
  await w.keep('Extrude 2');
  await w.pick([-15, -10, 4]);
  await w.choose('Pattern');
  await turn('Pattern 1', /^Extrude 1/, 'also Extrude 2');
  await turn('Pattern 1', /^Extrude 1/, 'without Extrude 1');
  await turn('Pattern 1', 'in a row along', 'around');
  await turn('Pattern 1', 'x axis', 'z axis of the part');
  await w.step('Pattern 1').getByRole('button', { name: /count/ }).click();
  await give('Pattern 1: count', '6');
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
  await turn('Extrude 3', 'forward', 'reversed');
  await turn('Extrude 3', 'a new body', 'joined to');
  await w
    .step('Extrude 3')
    .getByRole('button', { name: /distance/ })
    .click();
  await give('Extrude 3: distance', '6 mm');
  await w.keep('Extrude 3');
  await expect(w.caption()).toContainText('60 × 60 × 10 mm');
  await page.getByRole('button', { name: 'Look from lower right front' }).click();
  await w.pick([0.3, 8.2, -6]);
  await w.choose('Pattern');
  await turn('Pattern 2', 'in a row along', 'around');
  await turn('Pattern 2', 'x axis', 'z axis of the part');
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
  await turn('Extrude 4', 'a new body', 'joined to');
  await page.getByRole('button', { name: 'More for Extrude 4' }).click();
  await page.getByRole('menuitem', { name: 'Add: start off the profile' }).click();
  await w.step('Extrude 4').getByRole('button', { name: /start/ }).click();
  await give('Extrude 4: start', 'extrude_1.distance');
  await w
    .step('Extrude 4')
    .getByRole('button', { name: /distance/ })
    .first()
    .click();
  await give('Extrude 4: distance', '3 mm');
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
  const { give, turn } = hands(w);
  await w.newDesign('Bracket');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('Line', [0, 40], [0, 0], [30, 0]);
  await w.putDown();
  await w.dimension('45 mm', [0, 20]);
  await w.dimension('35 mm', [15, 0]);
  await page.keyboard.press('x');
  await expect(w.step('Extrude 1')).toContainText('open outline');
  await give('Extrude 1: distance', '24 mm');
  await turn('Extrude 1', 'half each way', 'to the left');
  await w.step('Extrude 1').getByRole('button', { name: /wall/ }).first().click();
  await give('Extrude 1: wall', '4 mm');
  await turn('Extrude 1', 'one way', 'symmetric');
  await w.keep('Extrude 1');
  await expect(w.caption()).toContainText('35 × 24 × 45 mm');

  await page.getByRole('button', { name: 'Look from top', exact: true }).click();
  await w.pick([20, 2, 4]);
  await page.keyboard.press('k');
  await w.viewSettled();
  await w.draw('point', [4, 0]);
  await w.putDown();
  await w.verb('Hole').click();
  await give('Hole 1: diameter', '6 mm');
  await w.keep('Hole 1');
  await page.getByRole('button', { name: 'Look from right', exact: true }).click();
  await w.pick([4, 3, 30]);
  await page.keyboard.press('k');
  await w.viewSettled();
  await w.draw('point', [0, 8]);
  await w.putDown();
  await w.verb('Hole').click();
  await give('Hole 2: diameter', '6 mm');
  await w.keep('Hole 2');
  await w.setInLedger('part_1.extrude_1.wall', '5 mm');
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
  await expect(w.caption()).toContainText('35 × 24 × 45 mm');
});
