/** Parts made of many kinds of step, by pointer and keyboard. */
import { expect, test } from './workplace.ts';

test('a cover is drilled, rounded, hollowed out and repeated, and says what does not fit', async ({
  workplace: w,
  page,
}) => {
  page.setDefaultTimeout(10_000);
  await w.newPlate('Cover');
  const keep = async (step: string) => {
    await page.keyboard.press('Enter');
    await expect(w.step(step).getByText('new ·')).toHaveCount(0);
    await w.allSaved();
  };
  /** Type into the number that a step begun opens first. */
  const give = async (label: string, value: string) => {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Enter');
  };

  await test.step('upright edges rounded; too much says how much fits, and one press takes it', async () => {
    await w.pick([30, -20, 5]);
    await page.keyboard.press('r');
    await give('Fillet 1: radius', '55 mm');
    await expect(w.step('Fillet 1')).toContainText(/A radius of 55 mm does not fit this edge; [\d.]+ mm does\./);
    await page.getByRole('button', { name: /^Make it 3\d/ }).click();
    await expect(w.step('Fillet 1').getByRole('alert')).toHaveCount(0);
    await w
      .step('Fillet 1')
      .getByRole('button', { name: /radius/ })
      .click();
    await give('Fillet 1: radius', '8 mm');
    await keep('Fillet 1');
    // 60 × 40 × 10 less the corner: (1 − π/4) 8² × 10.
    await expect(w.caption()).toContainText('60 × 40 × 10 mm');
  });

  await test.step('hollowed out from below, then all edges of the top by one face', async () => {
    await page.getByRole('button', { name: 'Look from under', exact: true }).click();
    await w.pick([3, 4, 0]);
    await page.keyboard.press('s');
    await give('Shell 1: thickness', '12 mm');
    await expect(w.step('Shell 1')).toContainText(/Walls of 12 mm do not fit/);
    await page.keyboard.press('Escape');
    await expect(w.step('Shell 1')).toHaveCount(0);
    await w.pick([3, 4, 0]);
    await page.keyboard.press('s');
    await give('Shell 1: thickness', '2 mm');
    await keep('Shell 1');
    await expect(w.step('Shell 1').getByRole('alert')).toHaveCount(0);
    await page.getByRole('button', { name: 'Look from upper right front' }).click();
    await w.pick([0, 0, 10]);
    await page.keyboard.press('c');
    await give('Chamfer 1: distance', '1 mm');
    await keep('Chamfer 1');
    await expect(w.step('Chamfer 1')).toContainText('the sharp edges of a face');
    await expect(w.step('Chamfer 1').getByRole('alert')).toHaveCount(0);
  });

  await test.step('a hole for a screw of the table, repeated in a row through the wall', async () => {
    await page.getByRole('button', { name: 'Look from top', exact: true }).click();
    await w.pick([-4, 6, 10]);
    await page.keyboard.press('k');
    await w.viewSettled();
    await w.draw('point', [-20, 5]);
    await w.putDown();
    await w.verb('Hole').click();
    await give('Hole 1: diameter', '3 mm');
    await w.step('Hole 1').getByRole('button', { name: 'of diameter' }).click();
    await page.getByRole('menuitem', { name: 'for M4', exact: true }).click();
    await expect(w.step('Hole 1')).toContainText('normal fit');
    await keep('Hole 1');
    await page.getByRole('button', { name: 'Look from upper right front' }).click();
    await w.pick([14, 6, 10]);
  });

  await test.step('the step to repeat is chosen in the sentence, and its numbers stand in the ledger', async () => {
    const begun = w.step('Pattern 1');
    await page.keyboard.press('p');
    for (const choice of ['also Hole 1', 'without Extrude 1']) {
      await begun.getByRole('button', { name: /^Extrude 1/ }).click();
      await page.getByRole('menuitem', { name: choice, exact: true }).click();
    }
    await expect(begun).toContainText('Hole 1');
    await begun.getByRole('button', { name: /count/ }).click();
    await give('Pattern 1: count', '3');
    await begun.getByRole('button', { name: /pitch/ }).click();
    await give('Pattern 1: pitch', '14 mm');
    await keep('Pattern 1');
    await expect(begun.getByRole('alert')).toHaveCount(0);
    await w.setInLedger('part_1.pattern_1.count', '4');
    await expect(begun).toContainText('4');
    await page.keyboard.press('Control+z');
    await expect(w.row('part_1.pattern_1.count')).toContainText('3');
  });

  await test.step('after a reload the part is the same, and every step stands', async () => {
    await w.allSaved();
    await page.reload();
    await expect(w.caption()).toContainText('60 × 40 × 10 mm');
    await expect(w.recipe().getByRole('alert')).toHaveCount(0);
    await expect(w.recipe().getByText('failed')).toHaveCount(0);
  });
});

test('a plane of one’s own, and a loft up to a circle on it', async ({ workplace: w, page }) => {
  await w.newPlate('Spout');
  await test.step('a plane off the top by its tab’s face, sketched on', async () => {
    await w.pick([4, 4, 10]);
    await page.keyboard.press('d');
    await page.getByLabel('Plane 1: distance').fill('25 mm');
    await page.getByLabel('Plane 1: distance').press('Enter');
    await page.keyboard.press('Enter');
    await expect(w.stage().getByRole('button', { name: 'Plane 1' })).toBeVisible();
    await w.stage().getByRole('button', { name: 'Plane 1' }).click();
    await page.keyboard.press('k');
    await w.viewSettled();
    await w.draw('circle', [0, 0], [9, 0]);
    await w.putDown();
    await page.keyboard.press('Enter');
  });

  await test.step('lofted from the top to the circle, joined', async () => {
    await w.pick([0, 0, 35]);
    await w.pick([24, -14, 10], { modifiers: ['Shift'] });
    await page.keyboard.press('l');
    await expect(w.step('Loft 1')).toContainText('2 sections');
    await page.keyboard.press('Enter');
    await expect(w.step('Loft 1').getByRole('alert')).toHaveCount(0);
    await expect(w.caption()).toContainText('60 × 40 × 35 mm');
  });
});

test('corners and edges become points and axes; a body is split, joined again, drilled on both sides and moved', async ({
  workplace: w,
  page,
}) => {
  page.setDefaultTimeout(10_000);
  await w.newPlate('Halves');
  await w.pick([30, -20, 10]);
  await w.choose('Datum point');
  await expect(w.step('Point 1')).toContainText('Point at a corner');
  await w.keep('Point 1');
  await w.pick([4, -20, 10]);
  await w.choose('Datum axis');
  await w.keep('Axis 1');
  await expect(w.stage().getByRole('button', { name: 'Axis 1' })).toBeVisible();

  await w.pick([10, 5, 10]);
  await w.choose('Split');
  await w.keep('Split 1');
  await expect(page.getByText('2 bodies')).toBeVisible();
  await w.pick([20, 5, 10]);
  await w.pick([-20, 5, 10], { modifiers: ['Shift'] });
  await w.choose('Combine');
  await w.keep('Combine 1');
  await expect(page.getByText('1 body')).toBeVisible();

  await w.pick([10, 5, 10]);
  await w.choose('Move');
  await w.keep('Move 1');
  await w.pick([10, 5, 10]);
  await w.choose('Hole');
  await w.keep('Hole 1');
  await w.pick([22, 12, 10]);
  await w.choose('Mirror');
  for (const choice of ['also Hole 1', 'without Extrude 1']) {
    await w
      .step('Mirror 1')
      .getByRole('button', { name: /^Extrude 1/ })
      .click();
    await page.getByRole('menuitem', { name: choice, exact: true }).click();
  }
  await w.keep('Mirror 1');
  await expect(w.caption()).toContainText('60 × 40 × 10 mm');
});

test('a pipe is swept along a line, and a wall made of an open outline', async ({ workplace: w, page }) => {
  page.setDefaultTimeout(10_000);
  await w.newSketch('Pipes');
  await w.draw('circle', [0, 0], [5, 0]);
  await w.putDown();
  await page.keyboard.press('Enter');
  await w.verb('Sketch on wall').click();
  await w.viewSettled();
  await w.draw('line', [0, 0], [0, 40]);
  await w.putDown();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Look from upper right front' }).click();
  await w.pick([0, 3, 0]);
  await w.pick([0, 0, 18], { modifiers: ['Shift'] });
  await w.choose('Sweep');
  await expect(w.step('Sweep 1')).toContainText('along Sketch 2');
  await w.keep('Sweep 1');
  await expect(w.caption()).toContainText('10 × 10 × 40 mm');

  await w.newDesign('Bracket');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await w.draw('line', [-30, 0], [10, 0], [10, 20]);
  await w.putDown();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Look from upper right front' }).click();
  await page.keyboard.press('f');
  await w.pick([-12, 0, 0]);
  await w.choose('Extrude');
  await expect(w.step('Extrude 1')).toContainText('open outline as a wall of 2 mm half each way');
  await w.keep('Extrude 1');
  await expect(w.caption()).toContainText('41 × 10 × 21 mm');
});
