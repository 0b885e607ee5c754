import { expect, test } from './workplace.ts';

test('numbers are put in order, changed several at once, and shared with the project', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Ordered');
  const order = () =>
    w
      .ledger()
      .locator('[data-ledger]')
      .evaluateAll((rows) => rows.map((r) => r.dataset.ledger!));
  for (const name of ['first', 'second', 'third']) {
    await w.make('Number of the design', name);
    await expect(w.row(name)).toBeVisible();
  }

  await test.step('one is dragged before another', async () => {
    expect((await order()).slice(0, 3)).toEqual(['first', 'second', 'third']);
    await w.row('third').hover();
    const [grip, first] = [w.row('third').getByTitle('Drag to another place'), w.row('first')];
    const [from, to] = [(await grip.boundingBox())!, (await first.boundingBox())!];
    await page.mouse.move(from.x + 6, from.y + 12);
    await page.mouse.down();
    await page.mouse.move(from.x + 4, from.y, { steps: 4 });
    await page.mouse.move(to.x + 60, to.y + 14, { steps: 6 });
    await page.mouse.up();
    await expect.poll(async () => (await order()).slice(0, 3)).toEqual(['third', 'first', 'second']);
    await w.row('third').hover();
    await page.getByRole('button', { name: 'More for third' }).click();
    await page.getByRole('menuitem', { name: 'Move down' }).click();
    await expect.poll(async () => (await order()).slice(0, 3)).toEqual(['first', 'third', 'second']);
  });

  const picked = w.ledger().getByRole('group', { name: 'Picked dimensions' });
  const pick = async (name: string, modifiers: 'Shift'[] = []) => {
    await w.row(name).hover();
    await w.row(name).getByRole('checkbox').click({ modifiers });
  };

  await test.step('several are set, put under a heading, linked, and deleted, each as one edit', async () => {
    await pick('first');
    await pick('second', ['Shift']);
    await expect(picked).toContainText('3 picked');
    for (const name of ['first', 'second', 'third']) await expect(w.row(name).getByRole('checkbox')).toBeChecked();
    await picked.getByLabel('Set all picked to').fill('7');
    await page.keyboard.press('Enter');
    for (const name of ['first', 'second', 'third']) await expect(w.row(name)).toContainText('7 mm');
    await picked.getByLabel('Heading for all picked').fill('Stock');
    await page.keyboard.press('Enter');
    await expect(w.ledger().getByRole('heading', { name: 'Stock' })).toBeVisible();
    await picked.getByRole('button', { name: 'Link them' }).click();
    await w.setInLedger('first', '9');
    await expect(w.row('third')).toContainText('9 mm');
    await expect(w.row('second')).toContainText('9 mm');
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.row('second')).toContainText('7 mm');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.ledger().getByRole('heading', { name: 'Stock' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.row('second')).toContainText('10 mm');
    await picked.getByRole('button', { name: 'Let go' }).click();
    await expect(picked).toHaveCount(0);
    await pick('second');
    await pick('third');
    await picked.getByRole('button', { name: 'Delete' }).click();
    await expect(w.row('third')).toHaveCount(0);
    await expect(picked).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.row('second')).toBeVisible();
    await expect(w.row('third')).toBeVisible();
  });

  await test.step('what uses a deleted one keeps it from going, in words', async () => {
    await w.setInLedger('part_1.extrude_1.distance', 'second * 2');
    await expect(w.caption()).toContainText('60 × 40 × 20 mm');
    await pick('second');
    await pick('third');
    await picked.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByRole('alert')).toContainText('second');
    await expect(w.row('third')).toBeVisible();
    await picked.getByRole('button', { name: 'Let go' }).click();
  });

  await test.step('one is given to the project; what hung on it follows there', async () => {
    await w.row('second').hover();
    await page.getByRole('button', { name: 'More for second' }).click();
    await page.getByRole('menuitem', { name: 'Share with the project' }).click();
    await expect(w.row('project.second')).toContainText('10 mm');
    await expect(w.row('second')).toHaveCount(0);
    await expect(w.caption()).toContainText('60 × 40 × 20 mm');
    await w.setInLedger('project.second', '15');
    await expect(w.caption()).toContainText('60 × 40 × 30 mm');
    // It reaches other designs too, so it is tried first.
    const trial = page.getByRole('region', { name: 'Trial' });
    await trial.getByRole('button', { name: /Keep/ }).click();
    await expect(trial).toHaveCount(0);
    await expect(w.caption()).toContainText('60 × 40 × 30 mm');
    await w.allSaved();
    await page.getByRole('link', { name: 'Project of Ordered' }).click();
    const shared = page.getByRole('region', { name: 'Shared dimensions' });
    await expect(shared.getByLabel('Value of second')).toHaveValue('15 mm');
  });
});

test('what lies between two picked faces is named and used', async ({ page, workplace: w }) => {
  await w.newPlate('Between');
  const face = async (x: number, y: number, modifiers: 'Shift'[] = []) => {
    const box = (await w.stage().boundingBox())!;
    for (const key of modifiers) await page.keyboard.down(key);
    await page.mouse.move(box.x + box.width * x - 3, box.y + box.height * y);
    await page.mouse.move(box.x + box.width * x, box.y + box.height * y);
    await page.mouse.down();
    await page.mouse.up();
    for (const key of modifiers) await page.keyboard.up(key);
  };

  await test.step('the angle of the top and a side', async () => {
    await face(0.5, 0.45);
    await face(0.35, 0.62, ['Shift']);
    await w.verb('Name the angle').click();
    await page.getByLabel('Name of the dimension').fill('corner');
    await page.keyboard.press('Enter');
    await expect(w.row('corner')).toContainText('90°');
  });

  await test.step('the distance of top and bottom follows the part, and what uses it follows too', async () => {
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Look from top' }).click();
    await page.waitForTimeout(800);
    await face(0.5, 0.5);
    await page.getByRole('button', { name: 'Look from under' }).click();
    await page.waitForTimeout(800);
    await face(0.5, 0.5, ['Shift']);
    await w.verb('Name the distance').click();
    await page.getByLabel('Name of the dimension').fill('gap');
    await page.keyboard.press('Enter');
    await expect(w.row('gap')).toContainText('10 mm');
    await w.make('Number of the design', 'middle');
    await w.setInLedger('middle', 'gap / 2');
    await w.setInLedger('part_1.extrude_1.distance', '14');
    await expect(w.row('gap')).toContainText('14 mm');
    await expect(w.row('middle')).toContainText('7 mm');
    await w.row('part_1.extrude_1.distance').getByRole('button', { name: /14 mm/ }).click();
    await page.getByRole('combobox', { name: 'Expression of part_1.extrude_1.distance' }).fill('middle');
    await page.keyboard.press('Enter');
    await expect(w.row('part_1.extrude_1.distance').getByRole('alert')).toContainText('goes in a circle');
    await page.keyboard.press('Escape');
  });
});

test('a survey of variants is stopped; what was computed stays', async ({ page, workplace: w }) => {
  await w.openDemo();
  await page.getByRole('button', { name: /^Variants/ }).click();
  const table = page.getByRole('region', { name: 'Variants' });
  const rows = Array.from({ length: 16 }, (_, i) => `Row ${i + 1}\t${420 + 20 * i} mm`);
  await table.evaluate(
    (el, text) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      el.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    },
    ['variant\tvent_length', ...rows].join('\n'),
  );
  await table.getByRole('button', { name: 'Take all 16 sound rows' }).click();
  await table.getByRole('button', { name: 'Compute all' }).click();
  await expect(table.getByRole('status')).toContainText('of 20');
  await table.getByRole('button', { name: 'Stop' }).click();
  await expect(table.getByRole('status')).toHaveCount(0);
  const survey = (name: string) => table.locator(`tr[data-variant="${name}"]`);
  // The last is in sight when the table is scrolled to its end.
  await survey('Standard').evaluate((row) => row.closest('.overflow-auto')!.scrollTo(0, 1e6));
  await expect(survey('Row 16')).toBeVisible();
  await expect(survey('Row 16')).not.toContainText('stands');
  // The design can be changed at once, and all computed later.
  await w.setInLedger('plate_thk', '7');
  await table.getByRole('button', { name: 'Compute all' }).click();
  await expect(survey('Row 16')).toContainText('stands', { timeout: 60_000 });
});
