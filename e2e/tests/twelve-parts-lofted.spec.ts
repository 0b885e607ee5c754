/** Lofted and swept parts, from an empty design, by pointer and keyboard. */
import { expect, test } from './hands.ts';

test('a bottle: crossed ellipses, a slanted cut, a neck down to the next, hollow, threaded', async ({
  page,
  workplace: w,
  hands,
}) => {
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
  await w.draw('Line', [-30, 70], [-8, 92], [-30, 92], [-30, 70]);
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
  await hands.turn('Thread 1', 'the thread that fits', 'a thread of pitch');
  await hands.number('Thread 1', 'pitch', '1 mm');
  await w.keep('Thread 1');
  await expect(w.step('Thread 1')).toContainText('marked, not modelled', { timeout: 60_000 });
  await hands.computed();
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
});

test(
  'a fan scroll: stepped half-round housing, a swept duct and its bore, a thin inlet, a row of holes',
  { tag: '@long' },
  async ({ page, workplace: w, hands }) => {
    await w.newDesign('Scroll');
    await page.getByRole('button', { name: 'wall plane' }).click();
    await w.viewSettled();
    await w.draw('Arc about a centre', [0, 0], [30, 0], [-30, 0]);
    await w.draw('Line', [-30, 0], [30, 0]);
    await w.putDown();
    await w.settleAll();
    await page.keyboard.press('x');
    await hands.number('Extrude 1', 'distance', '40 mm');
    await hands.turn('Extrude 1', 'one way', 'symmetric');
    await w.keep('Extrude 1');
    await hands.sketchOn('wall');
    await w.draw('Arc about a centre', [0, 0], [22, 0], [-22, 0]);
    await w.draw('Line', [-22, 0], [22, 0]);
    await w.putDown();
    await page.keyboard.press('x');
    await hands.turn('Extrude 2', 'a new body', 'joined to');
    await hands.number('Extrude 2', 'distance', '56 mm');
    await hands.turn('Extrude 2', 'one way', 'symmetric');
    await w.keep('Extrude 2');
    await expect(w.caption()).toContainText('60 × 56 × 30 mm');

    await hands.sketchOn('wall');
    // Room below the housing.
    await w.point(0, 10);
    await page.mouse.wheel(0, 400);
    await w.viewSettled();
    await w.draw('Line', [18, 0], [18, -8]);
    await page.keyboard.press('a');
    await w.click(28, -18);
    await w.putDown();
    await page.keyboard.press('Enter');
    await hands.sketchOn('floor');
    await hands.rectangle([18, 0], [22, 5], '14', '18', 'Centred rectangle');
    await w.change('Round corners');
    await page.keyboard.type('3');
    await page.keyboard.press('Enter');
    for (const [u, v] of [[25, 9], [11, 9], [11, -9], [25, -9]] as const) await w.click(u, v); // prettier-ignore
    await page.getByRole('button', { name: 'Done' }).click();
    await w.click(18, 9);
    await w.change('Pick the whole chain');
    await w.change('Offset');
    await hands.give('distance', '1.5');
    await w.putDown();
    await page.keyboard.press('Enter');
    await hands.look('lower right front');
    await page.keyboard.press('f');
    await w.choose('Sweep');
    for (const place of [
      [24.2, 0, 0],
      [18, 4, 0],
      [20.929, 0, -15.071],
    ] as const)
      await w.pick([...place]);
    await expect(w.step('Sweep 1')).toContainText('2 regions');
    await hands.turn('Sweep 1', 'a new body', 'joined to');
    await w.keep('Sweep 1');
    // The bore of the duct: the same along the same, of what lies within the offset outline alone.
    await hands.more('Sweep 1', 'Duplicate');
    await hands.pickFor('Sweep 2', /^Sketch 4/, [24.2, 0, 0]);
    await expect(w.step('Sweep 2')).toContainText('1 region');
    await hands.turn('Sweep 2', 'joined to', 'cut from');
    await expect(w.step('Sweep 2').getByRole('alert')).toHaveCount(0);

    await hands.look('front');
    await hands.sketchOnFace([10, -28, 8]);
    await hands.circle([0, 10], '12');
    await page.keyboard.press('Enter');
    await w.choose('Datum plane');
    await w.pick([14, -28, 8]);
    await hands.number('Plane 1', 'distance', '12 mm');
    await w.keep('Plane 1');
    await w.stage().getByRole('button', { name: 'Plane 1' }).click();
    await page.keyboard.press('k');
    await w.viewSettled();
    await hands.circle([0, 10], '18');
    await page.keyboard.press('Enter');
    await hands.look('upper right front');
    await page.keyboard.press('f');
    await w.choose('Loft');
    await w.pick([2, -40, 11]);
    await w.pick([2, -28, 11]);
    await hands.more('Loft 1', 'Add: only a thin wall');
    await hands.turn('Loft 1', 'a new body', 'joined to');
    await hands.number('Loft 1', 'thin', '1.5 mm');
    await w.keep('Loft 1');
    await expect(w.caption()).toContainText('60 × 68 × 55 mm');

    await w.make('Count of the design', 'holes');
    await w.setInLedger('holes', '3');
    await expect(w.row('holes')).not.toContainText('mm');
    await page.keyboard.press('Escape');
    await hands.sketchOn('floor');
    await hands.circle([-20, -14], '3');
    await w.dimension('14 mm', [-20, -14], [24, 0]);
    // The row stays about its middle, 13 mm out, whatever its number.
    await w.dimension('13 mm + (holes - 1) / 2 * 7 mm', [-20, -14], [0, 24]);
    await expect(w.step('Sketch 7')).toContainText('settled');
    await page.keyboard.press('x');
    await hands.turn('Extrude 3', 'a new body', 'cut from');
    await hands.turn('Extrude 3', 'one way', 'up to the next face');
    await w.keep('Extrude 3');
    await hands.look('under');
    await page.keyboard.press('f');
    const rim = async () => {
      await page.keyboard.press('Escape');
      await w.pick([-20 + 1.5, -14, 0]);
      await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('Ø3 mm', { timeout: 1000 });
    };
    await expect(rim).toPass();
    await w.choose('Pattern');
    await expect(w.step('Pattern 1')).toContainText('the steps Extrude 3');
    await hands.number('Pattern 1', 'count', 'holes');
    await hands.number('Pattern 1', 'pitch', '7 mm');
    await hands.turn('Pattern 1', 'as they are', 'each fitted to where it goes');
    await w.keep('Pattern 1');
    await expect(rim).toPass();
    await w.choose('Mirror');
    await w.step('Mirror 1').getByRole('button', { name: 'the side plane' }).click();
    await w.verb('Put it on the wall').click();
    await hands.turn('Mirror 1', /^Extrude 3/, 'also Pattern 1');
    await w.keep('Mirror 1');
    await w.choose('Fillet');
    await w.pick([-30, 4, 0]);
    await hands.give('Fillet 1: radius', '3 mm');
    await w.keep('Fillet 1');
    await w.setInLedger('holes', '2');
    await hands.computed();
    await expect(w.recipe().getByRole('alert')).toHaveCount(0);
    await expect(page.getByText('1 body')).toBeVisible();
  },
);
