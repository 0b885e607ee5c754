import { expect, test } from './workplace.ts';

/** Profiles of different character, drawn by pointer and keyboard alone until the sketch is settled. */
test('a plate with rounded corners, about the origin', async ({ page, workplace: w }) => {
  await w.newSketch('Plate');
  await w.draw('Centred rectangle', [0, 0]);
  await w.point(30, 20);
  await page.keyboard.type('60');
  await page.keyboard.press('Tab');
  await page.keyboard.type('40');
  await page.keyboard.press('Enter');
  await w.putDown();
  await w.change('Round corners');
  await page.keyboard.type('8');
  await page.keyboard.press('Enter');
  for (const [u, v] of [[30, 20], [-30, 20], [-30, -20], [30, -20]] as const) await w.click(u, v); // prettier-ignore
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('60 × 40 × 10 mm');
});

test('a slot on the origin, its two sizes typed while drawing', async ({ page, workplace: w }) => {
  await w.newSketch('Slot');
  await w.draw('Centred slot', [0, 0]);
  await w.point(20, 0);
  await page.keyboard.type('50');
  await page.keyboard.press('Enter');
  await w.point(5, 8);
  await page.keyboard.type('14');
  await page.keyboard.press('Enter');
  await w.putDown();
  await expect(w.step('Sketch 1')).toContainText('settled');
});

test('a nut: a hexagon by its width, and its bore', async ({ page, workplace: w }) => {
  await w.newSketch('Nut');
  await w.draw('Polygon round a circle', [0, 0]);
  await w.point(18, 5);
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await w.draw('Circle', [0, 0]);
  await w.point(6, 6);
  await page.keyboard.type('16');
  await page.keyboard.press('Enter');
  await w.putDown();
  await expect(w.step('Sketch 1')).toContainText('1 freedom left');
  await page.getByRole('button', { name: 'Show freedoms' }).click();
  await expect(page.getByRole('list', { name: 'Freedoms' })).toContainText('can still turn about the origin');
  await page.getByRole('list', { name: 'Freedoms' }).getByRole('button').first().click();
  await page
    .getByRole('button', { name: /^(Angle|Make|Put)/ })
    .first()
    .click();
  await expect(w.step('Sketch 1')).toContainText('settled');
});

test('half a bracket in connected lines, mirrored', async ({ page, workplace: w }) => {
  await w.newSketch('Bracket');
  await w.draw('Line', [0, 0], [30, 0], [30, 12], [12, 12], [12, 40], [0, 40]);
  await w.putDown();
  await w.box([-4, 46], [36, -4]);
  await w.change('Mirror');
  await w.click(0, -20);
  await w.settleAll();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('60 × 40 × 10 mm');
});

test('a link of lines and tangent arcs, drawn in one go', async ({ page, workplace: w }) => {
  await w.newSketch('Link');
  await w.draw('Line', [-20, 10], [20, 10]);
  await page.keyboard.press('a');
  await w.click(20, -10);
  await w.click(-20, -10);
  await page.keyboard.press('a');
  await w.click(-20, 10);
  await w.putDown();
  await w.settleAll();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('60 × 20 × 10 mm');
});

test('a cam: an ellipse on the origin with a bore, cut by a flat', async ({ page, workplace: w }) => {
  await w.newSketch('Cam');
  await w.draw('Ellipse', [0, 0]);
  await w.point(30, 0);
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await w.point(0, 18);
  await page.keyboard.type('18');
  await page.keyboard.press('Enter');
  await w.draw('Line', [-40, -10], [40, -10]);
  await w.putDown();
  await w.change('Trim');
  await w.click(0, -18);
  await w.click(-38, -10);
  await w.click(38, -10);
  await page.getByRole('button', { name: 'Done' }).click();
  await w.settleAll();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText(/× 2[78](\.\d+)? × 10 mm/);
});

test('a dial plate: holes repeated about the centre, their number an expression', async ({ page, workplace: w }) => {
  await w.newSketch('Dial');
  await w.draw('Circle', [0, 0]);
  await w.point(30, 20);
  await page.keyboard.type('80');
  await page.keyboard.press('Enter');
  await w.draw('Circle', [28, 0]);
  await w.point(31, 0);
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  await w.putDown();
  await w.click(28, 3);
  await w.change('Repeat about a point');
  await page.keyboard.type('4*2');
  await page.keyboard.press('Enter');
  await expect(w.row('part_1.sketch_1.count')).toContainText('8');
  await w.settleAll();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await w.setInLedger('part_1.sketch_1.count', '5');
  await expect(w.step('Sketch 1')).toContainText('settled');
});

test('a handle: a spline closed by a line, tangent where they meet', async ({ page, workplace: w }) => {
  await w.newSketch('Handle');
  await w.draw('Spline by control points', [0, 0], [0, 15], [40, 25], [40, 0]);
  await page.keyboard.press('Enter');
  await w.draw('Line', [40, 0], [0, 0]);
  await w.putDown();
  await w.settleAll();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('40 ×');
});

test('a name plate: lettering of given height in a frame', async ({ page, workplace: w }) => {
  await w.newSketch('Name plate');
  await w.draw('Rectangle', [0, 0]);
  await w.point(40, 20);
  await page.keyboard.type('70');
  await page.keyboard.press('Tab');
  await page.keyboard.type('24');
  await page.keyboard.press('Enter');
  await w.draw('Text', [10, 8]);
  await w.point(50, 8);
  await page.keyboard.press('Tab');
  await page.keyboard.type('VENT 2');
  await page.keyboard.press('Tab');
  await page.keyboard.type('8');
  await page.keyboard.press('Enter');
  await w.putDown();
  await w.settleAll();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('70 × 24 × 10 mm');
});
