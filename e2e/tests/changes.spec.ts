import { expect, test } from './workplace.ts';

test('copied into another sketch; lettering changed; what goes along with a deletion is named', async ({
  page,
  workplace: w,
}) => {
  await w.newSketch('Copies');
  await w.draw('Rectangle', [0, 0]);
  await w.point(30, 20);
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await w.putDown();
  await w.draw('Text', [-40, -20], [-10, -20]);
  await w.putDown();

  await test.step('the whole chain is picked by a double click and copied', async () => {
    const [x, y] = await w.at(15, 20);
    await page.mouse.move(x - 3, y);
    await page.mouse.move(x, y);
    await page.mouse.dblclick(x, y);
    await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('4 picked');
    await page.keyboard.press('Control+c');
    await expect(page.getByText('Copied 4 curves')).toBeVisible();
    await page.keyboard.press('Escape');
  });

  await test.step('lettering says something else', async () => {
    await w.click(-40, -16);
    await w.change('Change the lettering');
    await page.getByRole('form', { name: 'lettering' }).getByLabel('text').fill('VENT');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Change the lettering');
  });

  await test.step('pasted into a sketch on another plane, its width comes along', async () => {
    await page.keyboard.press('Enter');
    await w.verb('Sketch on wall').click();
    await w.viewSettled();
    await page.keyboard.press('Control+v');
    await expect(w.row('part_1.sketch_2.length')).toContainText('30');
    await expect(w.step('Sketch 2')).toContainText('freedoms left');
  });

  await test.step('deleting a line names what was on it', async () => {
    await page.keyboard.press('Escape');
    await w.click(25, 10);
    await page.keyboard.press('Delete');
    await expect(page.getByText(/went along with what (it was|they were) on/)).toBeVisible();
  });
});

test('a sketch is copied to another plane, and one that lost its face is put on another', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Planes');

  await test.step('a sketch on the top loses it when the body is suppressed, and is put on the floor', async () => {
    await w.clickStage(0.5, 0.42);
    await page.keyboard.press('k');
    await w.viewSettled();
    await w.draw('Circle', [0, 0], [8, 0]);
    await w.putDown();
    await page.keyboard.press('Enter');
    await w.step('Extrude 1').getByRole('button', { name: 'More for Extrude 1' }).click();
    await page.getByRole('menuitem', { name: 'Suppress' }).click();
    await expect(w.step('Sketch 2')).toContainText('no longer there');
    await w.step('Sketch 2').getByRole('button', { name: 'a face' }).click();
    await w.verb('Put it on the floor').click();
    await expect(w.step('Sketch 2')).toContainText('the floor plane');
    await expect(w.step('Sketch 2')).not.toContainText('no longer there');
  });

  await test.step('copied to the wall', async () => {
    await w.step('Sketch 1').getByRole('button', { name: 'More for Sketch 1' }).click();
    await page.getByRole('menuitem', { name: 'Copy to another plane' }).click();
    await w.verb('Put it on the wall').click();
    await expect(w.step('Sketch 3')).toContainText('the wall plane');
    await expect(w.row('part_1.sketch_3.width')).toContainText('60');
  });
});

test('a gap is marked and closed; a diameter is measured across a centre line, with its tolerance', async ({
  page,
  workplace: w,
}) => {
  await w.newSketch('Turned');
  await page.keyboard.press('l');
  await page.keyboard.down('Alt');
  for (const [u, v] of [[10, 4], [40, 4], [40, 16], [10, 16], [10.6, 4.5]] as const) await w.click(u, v); // prettier-ignore
  await page.keyboard.up('Alt');
  await w.putDown();
  await page.keyboard.press('Space');
  await page.getByLabel('Find a verb').fill('Close');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Closed 1 gap.')).toBeVisible();

  await w.click(25, 16);
  await w.verb(/^Horizontal/).click();
  await w.click(25, 16);
  await w.click(-30, 0);
  await w.verb('Measure').click();
  await page.getByRole('menuitem', { name: 'Diameter across' }).click();
  const field = w.stage().getByRole('combobox');
  await field.fill('36');
  await field.press('Enter');
  await expect(page.getByRole('button', { name: /Dimension across, Ø36/ })).toBeVisible();
  await page.getByRole('button', { name: /Dimension across/ }).click();
  await page.keyboard.press('Escape');
  await w.verb('Tolerance').click();
  await page.getByLabel('Tolerance of across').fill('h7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Dimension across, Ø36 h7' })).toBeVisible();
});

test('an outline divided afterwards stays whole and says so; one click takes it for good', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Divided');
  await expect(page).toHaveURL(/\/part\//);
  await w.step('Sketch 1').getByRole('button', { name: '2 dimensions' }).click();
  await w.viewSettled();
  await page.keyboard.press('l');
  await w.click(5, -30);
  await w.click(5, 30);
  await page.keyboard.press('Escape');
  await w.putDown();
  // With nothing in hand the sketch stays open; Enter leaves it.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('Finish');
  await page.keyboard.press('Enter');
  await expect(w.step('Extrude 1')).toContainText('a line now divides it, and all its 2 parts are taken');
  await expect(page.getByTestId('findings')).toContainText('1 finding');
  await expect(w.caption()).toContainText('60 × 40 × 10 mm');
  await w.step('Extrude 1').getByRole('button', { name: 'Keep it' }).click();
  await expect(w.step('Extrude 1')).toContainText('Sketch 1, 2 regions');
  await expect(page.getByTestId('findings')).toHaveCount(0);
  await expect(w.caption()).toContainText('60 × 40 × 10 mm');
});

test('a profile is turned about a construction line that is proposed, and about an axis picked instead', async ({
  page,
  workplace: w,
}) => {
  await w.newSketch('Turned');
  await w.draw('Rectangle', [12, 0], [30, 25]);
  await w.putDown();
  await page.keyboard.press('v');
  await expect(w.step('Revolve 1')).toContainText('Sketch 1, y axis');
  await expect(w.caption()).toContainText('60 × 25 × 60 mm');
  await w.step('Revolve 1').getByRole('button', { name: 'all round' }).click();
  await page.getByRole('menuitem', { name: 'by an angle' }).click();
  await expect(w.caption()).toContainText('30 × 25 × 30 mm');
  await page.keyboard.press('Escape');
  // Only tried so far: nothing of it is left.
  await expect(w.step('Revolve 1')).toHaveCount(0);
  await w.clickStage(0.55, 0.4);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', /rectangle/i);
});
