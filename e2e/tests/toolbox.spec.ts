import { expect, test, type Workplace } from './workplace.ts';

const lastEdit = (w: Workplace) => w.page.getByRole('button', { name: 'Undo' });

test('every drawing tool draws, by its clicks alone', async ({ page, workplace: w }) => {
  test.setTimeout(120_000);
  await w.newSketch('Tools');
  const strokes: [string, ...[number, number][]][] = [
    ['Line', [-70, 50], [-55, 52]],
    ['Arc', [-50, 50], [-35, 50], [-42, 56]],
    ['Arc about a centre', [-25, 50], [-17, 50], [-25, 58]],
    ['Rectangle', [-10, 48], [5, 58]],
    ['Centred rectangle', [18, 52], [25, 57]],
    ['Slanted rectangle', [35, 48], [48, 51], [46, 58]],
    ['Circle', [-62, 32], [-56, 32]],
    ['Circle by two points', [-48, 32], [-36, 32]],
    ['Circle by three points', [-28, 32], [-16, 32], [-22, 38]],
    ['Slot', [-6, 32], [6, 34], [0, 37]],
    ['Centred slot', [22, 32], [28, 33], [24, 36]],
    ['Arc slot', [42, 26], [54, 26], [42, 38], [50, 39]],
    ['Polygon', [-62, 12], [-55, 14]],
    ['Polygon round a circle', [-42, 12], [-36, 13]],
    ['Ellipse', [-22, 12], [-13, 13], [-22, 17]],
    ['Elliptical arc', [3, 14], [12, 15], [3, 19], [11, 17], [-5, 16]],
    ['Text', [24, 10], [44, 11]],
    ['Point', [56, 12]],
  ];
  for (const [tool, ...clicks] of strokes) {
    await w.draw(tool, ...clicks);
    await expect(lastEdit(w)).toHaveAttribute('title', new RegExp(`^Undo: Draw a ${tool}$`, 'i'));
  }
  await w.draw('Spline', [-68, -10], [-60, -4], [-52, -12], [-44, -6]);
  await page.keyboard.press('Enter');
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Draw a spline');
  await w.draw('Spline by control points', [-36, -10], [-30, 0], [-22, -14], [-14, -6]);
  await page.keyboard.press('Enter');
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Draw a spline by control points');
  await w.draw('Line', [0, -20], [30, -20], [12, 0], [0, -20]);
  await w.putDown();
  await w.draw('Circle tangent to three', [14, -20], [22, -11], [5, -12]);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Draw a circle tangent to three');
  await w.draw('Tangent arc', [-44, -6], [-38, -14]);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Draw a tangent arc');
  await expect(w.step('Sketch 1')).toContainText('freedoms left');
});

test('every change of a sketch is made where it is asked for', async ({ page, workplace: w }) => {
  test.setTimeout(120_000);
  await w.newSketch('Changes');
  await w.draw('Rectangle', [-50, 10], [-20, 40]);
  await w.putDown();
  await w.change('Bevel corners');
  await page.keyboard.type('4');
  await page.keyboard.press('Enter');
  await w.click(-20, 40);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Bevel a corner');
  await page.getByRole('button', { name: 'Done' }).click();

  await w.draw('Line', [-10, 20], [10, 24]);
  await w.putDown();
  await w.draw('Line', [24, 10], [24, 45]);
  await w.putDown();
  await w.change('Extend');
  await w.click(8, 23.6);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Extend a curve');
  await page.getByRole('button', { name: 'Done' }).click();
  await w.change('Split');
  await w.click(-2, 21.6);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Split a curve');
  await page.getByRole('button', { name: 'Done' }).click();

  await test.step('a row of slots, its spacing and number in the ledger', async () => {
    await w.draw('Slot', [-50, -20], [-40, -20], [-45, -17]);
    await w.putDown();
    await w.click(-45, -17);
    await w.change('Pick the whole chain');
    await w.change('Repeat along a line');
    await page.keyboard.type('4');
    await page.getByLabel('spacing', { exact: true }).fill('18');
    await page.keyboard.press('Enter');
    await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Repeat along a line');
    await expect(w.row('part_1.sketch_1.spacing')).toContainText('18 mm');
    await w.setInLedger('part_1.sketch_1.spacing', '20');
    await expect(w.row('part_1.sketch_1.spacing')).toContainText('20 mm');
  });

  await test.step('moved and turned by numbers', async () => {
    await w.draw('Polygon', [45, -20], [55, -20]);
    await w.putDown();
    await w.click(44, -20 + 10 * Math.sin(Math.PI / 3));
    await w.change('Pick the whole chain');
    await w.change('Move, turn, scale');
    await page.getByLabel('turn').fill('20');
    await page.getByLabel('scale').fill('1.2');
    await page.keyboard.press('Enter');
    await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Move in the sketch');
  });

  await test.step('evenly spaced circles, and an arc’s length', async () => {
    for (const u of [-60, -48, -39]) await w.draw('Circle', [u, 55], [u + 3, 55]);
    await w.putDown();
    for (const u of [-60, -48, -39]) await w.click(u, 58);
    await w.verb(/^Equal spacing/).click();
    await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Add equal spacing');
    await w.draw('Arc', [0, 50], [20, 50], [10, 56]);
    await w.putDown();
    await w.click(10, 56);
    await w.verb('Measure').click();
    await page.getByRole('menuitem', { name: 'Arc length' }).click();
    const field = w.stage().getByRole('combobox');
    await field.fill('30');
    await field.press('Enter');
    await expect(w.row('part_1.sketch_1.arc_length')).toContainText('30 mm');
  });
});

test('a section and an outline of a body are borrowed', async ({ page, workplace: w }) => {
  await w.openDemo();
  await page.keyboard.press('Escape');
  await w.verb('Sketch on side').click();
  await w.viewSettled();
  await w.change('Borrow a section');
  await w.clickStage(0.5, 0.5);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Borrow from the part');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.keyboard.press('Control+z');
  await w.change('Borrow an outline');
  await w.clickStage(0.5, 0.5);
  await expect(lastEdit(w)).toHaveAttribute('title', 'Undo: Borrow from the part');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(w.step('Sketch 1')).toContainText('settled');
});
