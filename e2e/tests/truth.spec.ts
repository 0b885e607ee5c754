import { expect, test } from './workplace.ts';

/** A small drawing in the open format, in group codes and values. */
const group = (...pairs: (string | number)[]) => pairs.map((p) => `${p}\n`).join('');
const dxf =
  group(0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES') +
  [[0, 0, 30, 0], [30, 0.004, 30, 20], [30, 20, 0, 20], [0, 20, 0, 0]].map(([a, b, c, d]) => group(0, 'LINE', 8, 'cut', 10, a!, 20, b!, 11, c!, 21, d!)).join('') +
  group(0, 'CIRCLE', 8, 'notes', 10, 15, 20, 10, 40, 4, 0, 'ENDSEC', 0, 'EOF'); // prettier-ignore

test('a clashing number is not taken; it can be had if another only measures', async ({ page, workplace: w }) => {
  await w.newSketch('Clash');
  await w.draw('Rectangle', [0, 0]);
  await w.point(30, 20);
  await page.keyboard.type('40');
  await page.keyboard.press('Tab');
  await page.keyboard.type('25');
  await page.keyboard.press('Enter');
  await w.putDown();
  await expect(w.step('Sketch 1')).toContainText('settled');
  await w.click(20, 25);
  await page.keyboard.press('d');
  const field = w.stage().getByRole('combobox');
  await field.fill('55');
  await field.press('Enter');
  const offer = page.getByRole('group', { name: 'What disagrees' });
  await expect(offer).toContainText('width = 40 mm');
  await expect(offer).toContainText('would read 55 mm if the others hold');
  await offer
    .getByRole('listitem')
    .filter({ hasText: 'width' })
    .getByRole('button', { name: 'Only measure it' })
    .click();
  await expect(offer).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Reference width, (55)' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('55 × 25 × 10 mm');
});

test('two lines are measured in the corner in which they are clicked; what can still move is named', async ({
  page,
  workplace: w,
}) => {
  await w.newSketch('Corner');
  await w.draw('Line', [-50, -10], [20, -10], [-10, 32], [-50, -10]);
  await w.putDown();
  // Near the right corner: the sloping side comes down to the level one.
  await w.click(10, -10);
  await w.click(8, 6.8);
  await expect(w.verb(/^Angle 54°/)).toBeVisible();
  await page.keyboard.press('d');
  const field = w.stage().getByRole('combobox');
  await field.fill('60');
  await field.press('Enter');
  await expect(field).toHaveCount(0);
  await expect(w.row('part_1.sketch_1.angle')).toContainText('60°');
  await page.getByRole('button', { name: 'Show freedoms' }).click();
  const freedoms = page.getByRole('list', { name: 'Freedoms' }).getByRole('button');
  await expect(freedoms.first()).toBeVisible();
  const said = await freedoms.allInnerTexts();
  expect(new Set(said).size).toBe(said.length);
  expect(said.join(' ')).toContain('The triangle can still slide sideways.');
});

test('a step that is edited is seen among the bodies before it; closed, the whole part is back', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  const { x, y, width, height } = (await w.stage().boundingBox())!;
  const look = () =>
    page.screenshot({ clip: { x: x + width * 0.42, y: y + height * 0.4, width: width * 0.16, height: height * 0.2 } });
  await page.mouse.move(x + 5, y + 5);
  await page.waitForTimeout(500);
  const whole = await look();
  await w.step('Drill').getByRole('button', { name: 'More for Drill' }).click();
  await page.getByRole('menuitem', { name: 'Edit' }).click();
  await expect(w.step('Drill')).toContainText('editing');
  // The boss comes later and is not there.
  await expect.poll(async () => Buffer.compare(whole, await look())).not.toBe(0);
  await page.keyboard.press('Escape');
  await page.mouse.move(x + 5, y + 5);
  await expect.poll(async () => Buffer.compare(whole, await look())).toBe(0);
});

test('a DXF drawing is read by layers, its nearly meeting ends made one', async ({ page, workplace: w }) => {
  await w.newSketch('Drawing');
  const chosen = page.waitForEvent('filechooser');
  await w.change('Read a DXF drawing');
  await (await chosen).setFiles({ name: 'plate.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(dxf) });
  const form = page.getByRole('form', { name: 'Read a DXF drawing' });
  await form.getByLabel('notes').uncheck();
  await form.getByRole('button', { name: 'Take in 4' }).click();
  await expect(page.getByText('Read 4 curves, 1 ends joined.')).toBeVisible();
  await page.keyboard.press('x');
  await expect(w.caption()).toContainText('30 × 20 × 10 mm');
});

test('an edge borrowed from the part follows it', async ({ page, workplace: w }) => {
  await w.newPlate('Lender');
  await w.clickStage(0.5, 0.45);
  await page.keyboard.press('k');
  await w.viewSettled();
  await w.change('Borrow edges and faces');
  await w.click(30, 5);
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Borrow from the part');
  await expect(w.step('Sketch 2')).toContainText('settled');
  await page.getByRole('button', { name: 'Done' }).click();
  await w.draw('Circle', [18, 6]);
  await w.point(22, 6);
  await page.keyboard.type('8');
  await page.keyboard.press('Enter');
  await w.putDown();
  await w.dimension('9', [18, 6], [30, -12]);
  await page.keyboard.press('Enter');

  await test.step('when the plate grows, the edge and what hangs on it go along', async () => {
    await w.setInLedger('part_1.sketch_1.width', '80');
    await expect(w.caption()).toContainText('80 × 40 × 10 mm');
    await w
      .step('Sketch 2')
      .getByRole('button', { name: /a face/ })
      .first()
      .waitFor();
    await w.step('Sketch 2').getByRole('button', { name: 'More for Sketch 2' }).click();
    await page.getByRole('menuitem', { name: 'Open the sketch' }).click();
    await w.viewSettled();
    await w.click(31, 10);
    await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('1 picked');
    await w.verb(/^Diameter/).waitFor();
  });
});
