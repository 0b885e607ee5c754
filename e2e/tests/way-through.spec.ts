import { readFile } from 'node:fs/promises';
import { expect, test } from './workplace.ts';

test('from an empty design to a saved plate with two holes that follows its numbers', async ({
  page,
  workplace: w,
  helb,
}) => {
  await w.newDesign('Plate');
  await page.getByRole('button', { name: 'floor plane' }).click();
  await w.viewSettled();

  await test.step('a rectangle with typed sizes, on the origin', async () => {
    await page.keyboard.press('r');
    await w.click(0, 0);
    await w.point(33, 21);
    await page.keyboard.type('80');
    await page.keyboard.press('Tab');
    await page.keyboard.type('50');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await expect(w.step('Sketch 1')).toContainText('settled');
    await expect(page.locator('[data-dimension="width"]')).toHaveText('80');
  });

  await test.step('two circles, made equal, one dimensioned by typing and both placed by dimensions', async () => {
    await page.keyboard.press('f');
    await w.viewSettled();
    await page.keyboard.press('c');
    await w.click(20, 25);
    await w.point(26, 27);
    await page.keyboard.type('12');
    await page.keyboard.press('Enter');
    await w.click(55, 30);
    await w.click(60, 31);
    await page.keyboard.press('Escape');
    await w.click(14, 25);
    await w.click(50, 29);
    await w.verb(/^Equal/).click();
    await expect(w.step('Sketch 1')).toContainText('4 freedoms left');
    for (const [[u, v], [x, y], reading, value] of [
      [[20, 25], [0, 0], 'Horizontal distance', 'width / 4'],
      [[20, 25], [0, 0], 'Vertical distance', 'height / 2'],
    ] as const) {
      await w.click(u, v);
      await w.click(x, y);
      await w.verb('Measure').click();
      await page.getByRole('menuitem', { name: reading }).click();
      await page.keyboard.press('Control+A');
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    }
    await expect(w.step('Sketch 1')).toContainText('2 freedoms left');
  });

  await test.step('a dimension that would clash is refused with a sentence, and nothing changes', async () => {
    await w.click(40, 0);
    await w.verb(/^Length/).click();
    await expect(page.getByRole('alert')).toHaveCount(0);
    await page.keyboard.press('Control+A');
    await page.keyboard.type('95');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('cannot both hold; change or remove one of them.');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    await expect(w.row('part_1.sketch_1.width')).toContainText('80 mm');
  });

  await test.step('extrude its largest region, with a new name made on the way', async () => {
    await page.keyboard.press('x');
    const field = page.getByLabel('Extrude 1: distance');
    await field.fill('plate_thk');
    await field.press('Enter');
    await page.getByRole('button', { name: 'Make a dimension “plate_thk”' }).click();
    await page.keyboard.press('Enter');
    await expect(w.caption()).toContainText('80 × 50 × 10 mm');
    await expect(w.row('plate_thk')).toContainText('10 mm');
  });

  await test.step('the same number from ledger, sentence and stage', async () => {
    await w.setInLedger('plate_thk', '2 1/8 in');
    await expect(w.caption()).toContainText('80 × 50 × 53.98 mm');
    await w
      .step('Extrude 1')
      .getByRole('button', { name: /distance/ })
      .click();
    await page.getByLabel('Extrude 1: distance').fill('plate_thk / 2 - 1 mm');
    await page.getByLabel('Extrude 1: distance').press('Enter');
    await expect(w.caption()).toContainText('80 × 50 × 25.99 mm');
    await w
      .step('Sketch 1')
      .getByRole('button', { name: /dimensions/ })
      .click();
    await page.locator('[data-dimension="width"]').click();
    await page.getByRole('combobox', { name: 'Dimension width', exact: true }).fill('100');
    await page.getByRole('combobox', { name: 'Dimension width', exact: true }).press('Enter');
    await expect(w.row('part_1.sketch_1.width')).toContainText('100 mm');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Enter');
    await expect(w.caption()).toContainText('100 × 50 × 25.99 mm');
  });

  await test.step('a reload gives back the design and its undo history', async () => {
    await w.allSaved();
    await page.reload();
    await expect(w.caption()).toContainText('100 × 50 × 25.99 mm');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.row('part_1.sketch_1.width')).toContainText('80 mm');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(w.row('part_1.sketch_1.width')).toContainText('100 mm');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.caption()).toContainText('80 × 50 × 53.98 mm');
  });

  await test.step('the server killed between two edits loses nothing', async () => {
    await w.setInLedger('plate_thk', '6 mm');
    await w.allSaved();
    await helb.kill();
    await w.setInLedger('plate_thk', '9 mm');
    await expect(w.saved()).toContainText('Offline');
    await expect(w.caption()).toContainText('80 × 50 × 9 mm');
    await helb.start();
    await w.allSaved();
    await page.reload();
    await expect(w.caption()).toContainText('80 × 50 × 9 mm');
  });

  await test.step('an edit made offline survives a closed tab', async () => {
    await helb.kill();
    await w.setInLedger('plate_thk', '7 mm');
    await expect(w.saved()).toContainText('Offline');
    const address = page.url();
    await page.goto('about:blank');
    await helb.start();
    await page.goto(address);
    await expect(w.row('plate_thk')).toContainText('7 mm');
    await w.allSaved();
  });
});

test('rename, suppress, delete, move a sketch, and go back to any step', async ({ page, workplace: w }) => {
  await w.openDemo();
  await expect(w.caption()).toContainText('96 × 34 × 136 mm');

  await test.step('a dial renamed keeps everything that uses it', async () => {
    const name = w.row('plate_thk').getByText('plate_thk', { exact: true });
    await name.dblclick();
    await page.getByLabel('Name of the dimension').fill('wall_plate_thk');
    await page.keyboard.press('Enter');
    await expect(w.row('wall_bracket.edge_margin')).toContainText('2 * wall_plate_thk + 2 mm');
    await expect(w.step('Plate')).toContainText('wall_plate_thk');
  });

  await test.step('a step suppressed, brought back, deleted, and undone', async () => {
    await w.step('Boss').getByRole('button', { name: 'More for Boss' }).click();
    await page.getByRole('menuitem', { name: 'Suppress' }).click();
    await expect(w.caption()).toContainText('96 × 6 × 136 mm');
    await w.step('Boss').getByRole('button', { name: 'More for Boss' }).click();
    await page.getByRole('menuitem', { name: 'Bring back' }).click();
    await expect(w.caption()).toContainText('96 × 34 × 136 mm');
    await w.step('Boss ring').getByRole('button', { name: 'More for Boss ring' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(page.getByRole('alert').first()).toContainText('Boss, Shaft bore used Boss ring');
    await expect(w.step('Boss')).toContainText('The sketch this step uses was deleted; choose another.');
    await page.keyboard.press('Control+z');
    await expect(w.step('Boss')).not.toContainText('deleted');
    await expect(w.caption()).toContainText('96 × 34 × 136 mm');
  });

  await test.step('an early sketch opens as it was at its step', async () => {
    await w
      .step('Outline')
      .getByRole('button', { name: /dimensions/ })
      .click();
    await w.viewSettled();
    await expect(page.locator('[data-dimension="height"]')).toHaveText('136');
    await page.getByRole('button', { name: /^Finish/ }).click();
  });

  await test.step('dials drive the whole part', async () => {
    await w.setInLedger('vent_length', '800 mm');
    await expect(w.caption()).toContainText('96 × 34 × 172 mm');
    await w.setInLedger('wall_offset', '40');
    await expect(w.caption()).toContainText('96 × 40 × 172 mm');
  });

  await test.step('the other parts are one click away, and the extrude can change its way', async () => {
    await page.locator('[data-part="Spacer washer"]').click();
    await expect(w.caption()).toContainText('22 × 22 × 1.5 mm');
    await w.step('Disc').getByRole('button', { name: 'one way' }).click();
    await page.getByRole('menuitem', { name: 'symmetric' }).click();
    await expect(w.step('Disc')).toContainText('symmetric');
    await expect(w.caption()).toContainText('22 × 22 × 1.5 mm');
  });
});

test('a sketch on a picked face, regions picked on the stage, joined and cut', async ({ page, workplace: w }) => {
  await w.newDesign('Boss');
  await page.getByRole('button', { name: 'floor plane' }).click();
  await w.viewSettled();
  await page.keyboard.press('r');
  await w.click(-30, -20);
  await w.click(30, 20);
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.getByLabel('Extrude 1: distance').press('Enter');
  await page.keyboard.press('Enter');
  await expect(w.caption()).toContainText('× 10 mm');

  await page.getByRole('button', { name: 'Look from top' }).click();
  await page.waitForTimeout(600);
  await w.clickStage(0.5, 0.5);
  await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('flat face of Extrude 1');
  await page.keyboard.press('k');
  await w.viewSettled();
  await page.keyboard.press('c');
  await w.click(0, 0);
  await w.click(9, 0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Enter');
  await expect(w.step('Sketch 2')).toContainText('a face');

  await page.getByRole('button', { name: 'Look from top' }).click();
  await page.waitForTimeout(600);
  await w.clickStage(0.5, 0.5);
  await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('1 region');
  await w.verb(/^Extrude/).click();
  await page.getByLabel('Extrude 2: distance').fill('5');
  await page.getByLabel('Extrude 2: distance').press('Enter');
  await expect(w.step('Extrude 2')).toContainText('joined to');
  await expect(w.caption()).toContainText('× 15 mm');

  await w.step('Extrude 2').getByRole('button', { name: 'joined to' }).click();
  await page.getByRole('menuitem', { name: 'cut from' }).click();
  await expect(w.step('Extrude 2')).toContainText('This cuts nothing: Extrude 2 does not reach Extrude 1.');
  await w.step('Extrude 2').getByRole('button', { name: 'forward' }).click();
  await page.getByRole('menuitem', { name: 'reversed' }).click();
  await expect(w.step('Extrude 2')).not.toContainText('cuts nothing');
  await expect(w.caption()).toContainText('× 10 mm');

  await page.keyboard.press('Escape');
  await w.verb('Sketch on wall').click();
  await page.keyboard.press('Escape');
  await expect(w.step('Sketch 3')).toContainText('empty');
});

test('files: STEP and STL with their content, and the design file there and back', async ({
  page,
  workplace: w,
}, info) => {
  await w.openDemo();
  const take = async (item: string) => {
    await page.getByRole('button', { name: 'Files' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: item, exact: true }).click(),
    ]);
    const path = info.outputPath(download.suggestedFilename());
    await download.saveAs(path);
    return { name: download.suggestedFilename(), path };
  };
  const step = await take('All parts as STEP');
  expect(step.name).toBe('Roof-vent opener.step');
  const text = await readFile(step.path, 'utf8');
  for (const part of ['Wall bracket', 'Spacer washer', 'Hinge pin']) expect(text).toContain(`PRODUCT('${part}'`);
  const stl = await take('Wall bracket as STL');
  const bytes = await readFile(stl.path);
  expect(bytes.length).toBe(84 + 50 * bytes.readUInt32LE(80));

  const file = await take('Design file');
  await page.getByRole('link', { name: 'Glasshouse' }).click();
  await page.getByLabel('Design file').setInputFiles(file.path);
  await expect(w.caption()).toContainText('kg');
  await expect(page.getByRole('navigation', { name: 'Where I am' })).toContainText('Roof-vent opener');
});
