/** Shapes that something leads: a twist on a way with a bend, guides beside a loft. */
import { expect, test } from './hands.ts';

test('a handle twisted round its bend keeps its section all the way', async ({ page, workplace: w, hands }) => {
  await hands.bentBar('12', '5');
  await hands.more('Sweep 1', 'Add: twist on the way');
  await hands.number('Sweep 1', 'twist', '150 deg');
  await hands.computed();
  // The arc leaves straight up at 25 mm and ends at 30, 50: about a middle so far to the right of where it begins.
  const radius = (30 ** 2 + 25 ** 2) / (2 * 30);
  const long = 25 + radius * Math.atan2(25, radius - 30);
  await w.verb('Weigh').click();
  const weight = page.getByRole('region', { name: 'Weight' });
  const volume = await weight.getByRole('row', { name: 'Volume' }).getByRole('cell').last().innerText();
  // Clicked places are true to a pixel's share.
  expect(Number(volume) / (60 * long)).toBeCloseTo(1, 4);
  await weight.getByRole('button', { name: 'Close' }).click();
});

test('a vase led by two guides; where one misses an outline, the step says so and shows them', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newSketch('Vase');
  await hands.circle([0, 0], '30');
  await page.keyboard.press('Enter');
  await hands.sketchAbove('Plane 1', '60 mm');
  await hands.circle([0, 0], '20');
  await page.keyboard.press('Enter');
  await hands.sketchOn('wall');
  await w.point(0, 30);
  await page.mouse.wheel(0, 400);
  await w.viewSettled();
  await w.draw('Spline', [15, 0], [24, 20], [10, 42], [10, 60]);
  await page.keyboard.press('Enter');
  await w.draw('Spline', [-15, 0], [-20, 25], [-14, 45], [-10, 60]);
  await page.keyboard.press('Enter');
  await w.putDown();
  await page.keyboard.press('Enter');
  await hands.look('upper right front');
  await page.keyboard.press('f');
  await w.choose('Loft');
  await w.pick([2, 2, 0]);
  await w.pick([2, 2, 60]);
  await w.keep('Loft 1');
  await expect(w.caption()).toContainText('30 × 30 × 60 mm');
  await hands.more('Loft 1', 'Add: lead its sides by guides');
  await w.step('Loft 1').getByRole('button', { name: 'no curve yet' }).click();
  await page.getByRole('menuitem', { name: 'Sketch 3', exact: true }).click();
  await expect(w.caption()).toContainText(/4\d\.\d+ × 30 × 60 mm/);
  await w.setInLedger('part_1.sketch_2.diameter', '22 mm');
  await expect(w.step('Loft 1').getByRole('alert')).toContainText(
    'A guide passes 1 mm beside the outline of section 2',
  );
  await hands.computed();
});

test('where a section begins is dragged to its next corner, and the loft turns', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newSketch('Spout');
  await hands.rectangle([0, 0], [8, 5], '24', '24', 'Centred rectangle');
  await page.keyboard.press('Enter');
  await hands.sketchAbove('Plane 1', '30 mm');
  await hands.rectangle([0, 0], [8, 5], '24', '24', 'Centred rectangle');
  await page.keyboard.press('Enter');
  await hands.look('upper right front');
  await page.keyboard.press('f');
  await w.choose('Loft');
  await w.pick([2, 2, 0]);
  await w.pick([2, 2, 30]);
  const handle = page.getByRole('button', { name: /^Where section 2 begins/ });
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  for (const [x, y] of [[0, -14], [10, -11]] as [number, number][]) await page.mouse.move(...(await w.inSpace(x, y, 30))); // prettier-ignore
  await page.mouse.up();
  await w.keep('Loft 1');
  await w.verb('Weigh').click();
  // Half way turned: of the square, on the mean, two thirds.
  const weight = page.getByRole('region', { name: 'Weight' });
  await expect(weight.getByRole('row', { name: 'Volume' })).toContainText(String((24 * 24 * 30 * 2) / 3));
});
