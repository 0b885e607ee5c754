/** Parts of plates and walls, from an empty design, by pointer and keyboard. */
import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, test } from './hands.ts';

test('a plate with a hole mirrored both ways, its sizes from a pasted table', async ({ page, workplace: w, hands }) => {
  await w.newPlate('Drilled plate');
  await hands.sketchOnFace([4, 4, 10]);
  await w.draw('point', [20, 12]);
  await w.putDown();
  await w.dimension('part_1.sketch_1.width / 2 - 8 mm', [20, 12], [0, -20]);
  await w.dimension('part_1.sketch_1.height / 2 - 8 mm', [22, 12], [-25, 0]);
  await expect(w.step('Sketch 2')).toContainText('settled');
  await w.verb('Hole').click();
  await hands.give('Hole 1: diameter', '5.5 mm');
  await w.keep('Hole 1');
  await page.keyboard.press('Escape');
  await hands.look('upper right front');
  await w.pick([22 + 2.75, 12, 10]);
  await w.choose('Mirror');
  await expect(w.step('Mirror 1')).toContainText('the steps Hole 1');
  await hands.turn('Mirror 1', 'once', 'and at once in');
  await w.keep('Mirror 1');
  await page.getByRole('button', { name: /^Variants/ }).click();
  const table = page.getByRole('region', { name: 'Variants' });
  const rows = ['variant\tpart_1.sketch_1.width\tpart_1.sketch_1.height\tpart_1.hole_1.diameter', 'Small\t50\t36\t4', 'Large\t120\t80\t8']; // prettier-ignore
  await table.evaluate((el, text) => {
    const data = new DataTransfer();
    data.setData('text/plain', text);
    el.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  }, rows.join('\n'));
  await table.getByRole('button', { name: 'Take all 2 sound rows' }).click();
  await table.getByRole('button', { name: 'Compute all' }).click();
  await expect(table.locator('tr[data-variant="Large"]')).toContainText('stands', { timeout: 60_000 });
  await table.locator('tr[data-variant="Large"]').getByRole('button', { name: 'look' }).click();
  await expect(w.caption()).toContainText('120 × 80 × 10 mm');
  await page.keyboard.press('Escape');
});

test('a foot with a boss, bevelled by two distances, from its recipe to a PDF that says all of it', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newPlate('Foot');
  await hands.sketchOnFace([4, 4, 10]);
  await hands.circle([0, 0], '24');
  await page.keyboard.press('x');
  await hands.number('Extrude 2', 'distance', '15 mm');
  await w.keep('Extrude 2');
  await expect(w.caption()).toContainText('60 × 40 × 25 mm');
  await hands.look('upper right front');
  await w.pick([0, 0, 25]);
  await w.choose('Hole');
  await hands.give('Hole 1: diameter', '10 mm');
  await w.keep('Hole 1');
  await w.choose('Chamfer');
  await w.pick([12 * Math.SQRT1_2, -12 * Math.SQRT1_2, 25]);
  await hands.give('Chamfer 1: distance', '2 mm');
  await hands.turn('Chamfer 1', 'alike on both faces', 'and on the other face by');
  await hands.number('Chamfer 1', 'other_distance', '4 mm');
  await w.keep('Chamfer 1');
  await page.keyboard.press('Escape');
  await w.verb('Weigh').click();
  // 2 mm down the boss, 4 mm in from its rim: the ring of a triangle about its centre (Pappus).
  const ring = ((2 * 4) / 2) * 2 * Math.PI * (12 - 4 / 3);
  const volume = 60 * 40 * 10 + Math.PI * 144 * 15 - Math.PI * 25 * 25 - ring;
  await expect(page.getByRole('region', { name: 'Weight' }).getByRole('row', { name: 'Volume' })).toContainText(volume.toFixed(2)); // prettier-ignore

  const sheet = page.getByTestId('sheet');
  const audit = page.getByRole('region', { name: 'Audit' });
  const words = sheet.locator('[data-size] text');
  await test.step('a corner of its plate is cut at an angle', async () => {
    await page.getByRole('region', { name: 'Weight' }).getByRole('button', { name: 'Close' }).click();
    await w.choose('Chamfer');
    await w.pick([30, -20, 5]);
    await hands.give('Chamfer 2: distance', '9 mm');
    await hands.turn('Chamfer 2', 'alike on both faces', 'at an angle of');
    await hands.number('Chamfer 2', 'angle', '30 deg');
    await w.keep('Chamfer 2');
    await page.keyboard.press('Escape');
  });

  await test.step('its sheet says all of it, the angle too; what is taken off is named and added', async () => {
    await page.getByRole('button', { name: 'New sheet' }).click();
    await expect(sheet.locator('[data-view]')).toHaveCount(4);
    await w.verb('Bring the model’s sizes').click();
    await expect(words.first()).toBeVisible();
    const all = audit.getByRole('button', { name: /^Add all/ });
    if (await all.isVisible()) await all.click();
    await expect(audit).toContainText('Everything is settled.');
    await expect(words.filter({ hasText: '2 × 4' })).toHaveCount(1);
    await words.filter({ hasText: '150°' }).click();
    await page.keyboard.press('Delete');
    await expect(audit.locator('[data-finding="missing"]')).toHaveText(/angle of a slanted face/);
    await audit.getByRole('button', { name: /^Add: / }).click();
    await expect(audit).toContainText('Everything is settled.');
  });

  await test.step('its PDF says the same, on paper of its size', async () => {
    const said = (await words.allTextContents()).map((t) => t.trim());
    const download = page.waitForEvent('download');
    await w.verb('Write PDF').click();
    const bytes = await readFile(await (await download).path());
    const paper = await (await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise).getPage(1);
    expect(paper.view.map((x) => Math.round((x * 25.4) / 72))).toEqual([0, 0, 420, 297]);
    const texts = (await paper.getTextContent()).items.map((t) => ('str' in t ? t.str : ''));
    expect(texts).toEqual(expect.arrayContaining(said));
    expect(said).toContain('150°');
  });
});

test('a hollow link of a mitred outline: its corner says what the thinned wall no longer bears', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newSketch('Hollow link');
  await w.draw('Line', [0, 0], [60, 0], [60, 40], [20, 40], [0, 20], [0, 0]);
  await w.putDown();
  await w.settleAll();
  await w.click(30, 0);
  await w.change('Pick the whole chain');
  await w.change('Offset');
  await hands.give('distance', '4');
  await w.putDown();
  await page.keyboard.press('x');
  await hands.number('Extrude 1', 'distance', '20 mm');
  await w.keep('Extrude 1');
  await w.choose('Fillet');
  await w.pick([60, 0, 10]);
  await hands.give('Fillet 1: radius', '6 mm');
  await w.keep('Fillet 1');
  await expect(w.caption()).toContainText('60 × 40 × 20 mm');
  await w.setInLedger('part_1.sketch_1.offset', '1.5 mm');
  await expect(w.step('Fillet 1').getByRole('alert')).toContainText(/does not fit/);
  await page.getByRole('button', { name: /^Make it/ }).click();
  await hands.computed();
  await expect(w.recipe().getByRole('alert')).toHaveCount(0);
});

test(
  'a toothed wheel: one tooth on the borrowed rim, twelve of them, a bored hub with a bevel',
  { tag: '@long' },
  async ({ page, workplace: w, hands }) => {
    await w.newSketch('Wheel');
    await hands.circle([0, 0], '48');
    await page.keyboard.press('x');
    await hands.number('Extrude 1', 'distance', '8 mm');
    await w.keep('Extrude 1');
    await hands.sketchOn('floor');
    await hands.borrow([0, -24]);
    await w.draw('Line', [-4, 22], [-2, 29], [2, 29], [4, 22]);
    await w.putDown();
    await page.keyboard.press('x');
    await hands.look('top');
    await hands.pickFor('Extrude 2', /^Sketch 2/, [0, 27, 0], [0, 4, 0]);
    await hands.turn('Extrude 2', 'a new body', 'joined to');
    await hands.number('Extrude 2', 'distance', 'extrude_1.distance');
    await w.keep('Extrude 2');
    // The top is of both; the edge at its tip is the tooth’s alone.
    await w.pick([0, 29, 8]);
    await w.choose('Pattern');
    await expect(w.step('Pattern 1')).toContainText('the steps Extrude 2');
    await hands.turn('Pattern 1', 'in a row along', 'around');
    await hands.turn('Pattern 1', 'x axis', 'z axis of the part');
    await hands.number('Pattern 1', 'count', '12');
    await w.keep('Pattern 1');
    await expect(w.caption()).toContainText('58 × 58 × 8 mm');
    await page.keyboard.press('Escape');
    await hands.sketchOnFace([5, 3, 8]);
    await hands.circle([0, 0], '12');
    await page.keyboard.press('x');
    await hands.turn('Extrude 3', 'joined to', 'cut from');
    await hands.turn('Extrude 3', 'forward', 'reversed');
    await hands.turn('Extrude 3', 'one way', 'through all');
    await w.keep('Extrude 3');
    await w.pick([6 * Math.SQRT1_2, 6 * Math.SQRT1_2, 8]);
    await w.choose('Chamfer');
    await hands.give('Chamfer 1: distance', '1 mm');
    await w.keep('Chamfer 1');
    await w.setInLedger('part_1.pattern_1.count', '9');
    await hands.computed();
    await expect(w.recipe().getByRole('alert')).toHaveCount(0);
  },
);

test('a bracket from an open outline, holes through both legs', async ({ page, workplace: w, hands }) => {
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
