import { readFile } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import { expect, test } from './workplace.ts';

const field = (name: string) => ({ role: 'combobox' as const, options: { name: `Expression of ${name}` } });

test('a part with five dials: traced, tried, kept, measured', async ({ page, workplace: w }) => {
  await w.newPlate('Dials');

  await test.step('five dials drive it, made where a name is missing or from the number itself', async () => {
    for (const [row, dial] of [
      ['part_1.sketch_1.width', 'wide'],
      ['part_1.sketch_1.height', 'high'],
      ['part_1.extrude_1.distance', 'thk'],
    ] as const) {
      await w.row(row).getByRole('button', { name: /mm$/ }).first().click();
      const at = field(row);
      await page.getByRole(at.role, at.options).fill(dial);
      await page.keyboard.press('Enter');
      await page.getByRole('button', { name: `Make a dimension “${dial}”` }).click();
      await expect(w.row(dial)).toBeVisible();
    }
    for (const [name, value] of [
      ['margin', '4 mm'],
      ['tilt', '30 deg'],
    ] as const) {
      await w.ledger().getByRole('button', { name: 'New', exact: true }).click();
      await page.getByRole('menuitem', { name: 'Dial' }).click();
      await page.keyboard.type(name);
      await page.keyboard.press('Enter');
      await w.setInLedger(name, value);
    }
    await w.setInLedger('high', 'wide / 2 + margin * 2');
    await expect(w.caption()).toContainText('60 × 38 × 10 mm');
  });

  await test.step('a range is given, and a number beyond it is refused in words', async () => {
    await w.row('thk').hover();
    await page.getByRole('button', { name: 'More for thk' }).click();
    await page.getByRole('menuitem', { name: 'Range, heading, note' }).click();
    for (const [label, value] of [
      ['least', '4'],
      ['most', '20'],
      ['by steps of', '1'],
      ['heading', 'Stock'],
    ] as const) {
      await w.row('thk').getByLabel(label).fill(value);
      await w.row('thk').getByLabel(label).press('Tab');
    }
    await expect(w.row('thk').getByLabel('most')).toHaveValue('20 mm');
    await w.row('thk').getByRole('button', { name: 'Close' }).click();
    await expect(w.ledger().getByRole('heading', { name: 'Stock' })).toBeVisible();
    await w.row('thk').getByRole('button', { name: 'thk: 10 mm' }).click();
    await page.getByRole('combobox', { name: 'Expression of thk' }).fill('25');
    await page.keyboard.press('Enter');
    await expect(w.row('thk').getByRole('alert')).toContainText('25 mm is above 20 mm, the most allowed for thk');
    await page.keyboard.press('Escape');
  });

  await test.step('names are suggested, faults marked, and a picked number puts in its name', async () => {
    await w.row('high').getByRole('button', { name: 'high: 38 mm' }).click();
    const high = page.getByRole('combobox', { name: 'Expression of high' });
    await high.fill('wi');
    await page.keyboard.press('Tab');
    await expect(high).toHaveValue('wide');
    await page.keyboard.type(' - 2 * ');
    await w.row('thk').getByRole('button', { name: 'thk: 10 mm' }).click();
    await expect(high).toHaveValue('wide - 2 * thk');
    await expect(page.getByTestId('comes-to')).toHaveText('= 40 mm');
    await expect(w.caption()).toContainText('60 × 40 × 10 mm');
    await high.fill('');
    await page.getByRole('button', { name: 'Use width 60 mm' }).click();
    await expect(high).toHaveValue('sketch_1.width');
    await page.keyboard.type(' + 3 deg');
    await expect(w.row('high')).toContainText('cannot be added to');
    await page.keyboard.press('Escape');
    await expect(w.caption()).toContainText('60 × 38 × 10 mm');
    await expect(w.saved()).toContainText('Saved');
  });

  await test.step('a dial is moved, another beside it: seen, watched, dropped, then kept as one', async () => {
    await w.row('thk').getByRole('slider').focus();
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    const trial = page.getByRole('region', { name: 'Trial' });
    await expect(trial).toContainText('thk');
    await expect(w.caption()).toContainText('60 × 38 × 13 mm');
    await expect(trial).toContainText('60 × 38 × 10 mm');
    await page.keyboard.press('Escape');
    await expect(trial).toHaveCount(0);
    await expect(w.caption()).toContainText('60 × 38 × 10 mm');
    await w.row('thk').getByRole('slider').focus();
    await page.keyboard.press('ArrowLeft');
    await w.setInLedger('wide', '70');
    await expect(w.caption()).toContainText('70 × 43 × 9 mm');
    await expect(trial).toContainText('wide');
    await trial.getByRole('button', { name: /Keep/ }).click();
    await expect(trial).toHaveCount(0);
    await expect(w.row('wide')).toContainText('70 mm');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(w.caption()).toContainText('60 × 38 × 10 mm');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(w.caption()).toContainText('70 × 43 × 9 mm');
  });

  await test.step('a number is traced both ways, down to faces', async () => {
    await w.row('wide').hover();
    await page.getByRole('button', { name: 'More for wide' }).click();
    await page.getByRole('menuitem', { name: 'Trace it' }).click();
    const trace = page.getByRole('region', { name: 'Trace' });
    await expect(trace).toContainText('Part 1: 4 faces moved, 2 reshaped');
    await expect(page.getByTestId('trace-graph')).toContainText('high');
    await trace.getByRole('button', { name: /^high/ }).click();
    await expect(trace).toContainText('high = 43 mm');
    await expect(trace.getByRole('button', { name: /^margin/ })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(trace).toHaveCount(0);
    await w.ledger().getByLabel('Show').selectOption('unused');
    await expect(w.row('tilt')).toBeVisible();
    await expect(w.row('wide')).toHaveCount(0);
    await w.ledger().getByLabel('Show').selectOption('all');
  });

  await test.step('what the part measures is named and used, and cannot drive itself', async () => {
    await w.make('Volume of Part 1', 'bulk');
    await expect(w.row('bulk')).toContainText('27090 mm³');
    await w.setInLedger('wide', '60');
    await expect(w.row('bulk')).toContainText('20520 mm³');
    await w.row('margin').getByRole('button', { name: /4 mm/ }).click();
    await page.getByRole('combobox', { name: 'Expression of margin' }).fill('bulk / 1000 mm^2');
    await page.keyboard.press('Enter');
    await expect(w.row('margin').getByRole('alert')).toContainText('goes in a circle');
    await page.keyboard.press('Escape');
  });

  await test.step('units and precision change; the geometry does not', async () => {
    await page.getByRole('button', { name: /^Units/ }).click();
    await page.getByLabel('Unit of lengths').selectOption('in');
    await page.getByLabel('Number of decimals').selectOption('4');
    await expect(w.row('wide')).toContainText('2.3622 in');
    await page.getByLabel('Smallest fraction').selectOption('16');
    await page.keyboard.press('Escape');
    await w.setInLedger('wide', '2 3/8');
    await expect(w.row('wide')).toContainText('2 3/8 in');
    await w.ledger().getByLabel('Find a name or a value').fill('60.325 mm');
    await expect(w.row('wide')).toBeVisible();
    await expect(w.row('margin')).toHaveCount(0);
  });
});

test('four variants: looked at, computed, written each, and a table brought with two bad cells', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  await page.getByRole('button', { name: /^Variants/ }).click();
  const table = page.getByRole('region', { name: 'Variants' });
  await expect(table.locator('tr[data-variant]')).toHaveCount(4);

  await test.step('one is looked at, and left', async () => {
    await table.getByRole('button', { name: 'Look at Long ridge' }).click();
    await expect(w.caption()).toContainText('96 × 34 × 188 mm');
    await w.row('pin_dia').getByRole('button', { name: /14 mm/ }).click();
    await page.getByRole('combobox', { name: 'Expression of pin_dia' }).fill('9');
    await page.keyboard.press('Enter');
    await expect(w.row('pin_dia').getByRole('alert')).toContainText('You are looking at the variant “Long ridge”');
    await page.keyboard.press('Escape');
    await table.getByRole('button', { name: 'Look at Long ridge' }).click();
    await expect(w.caption()).toContainText('96 × 34 × 136 mm');
  });

  await test.step('a cell that cannot be is refused where it stands; one that fails says at which step', async () => {
    await table.getByRole('button', { name: /^Cold frame, plate_thk/ }).click();
    await page.keyboard.type('99');
    await page.keyboard.press('Enter');
    await expect(table.getByRole('alert')).toContainText('99 mm is above 12 mm');
    await page.keyboard.press('Escape');
    await table.getByRole('button', { name: 'New column' }).click();
    await page.getByLabel('What the column sets').fill('hinge_pin.head.distance');
    await page.keyboard.press('Enter');
    await table.getByRole('button', { name: 'Done' }).click();
    await table.getByRole('button', { name: /^Cold frame, hinge_pin.head.distance/ }).click();
    await page.keyboard.type('0');
    await page.keyboard.press('Enter');
    await table.getByRole('button', { name: 'Compute all' }).click();
    await expect(table.locator('tr[data-variant="Cold frame"]')).toContainText('does not stand: Hinge pin, Head');
    await expect(table.locator('tr[data-variant="Standard"]')).toContainText('stands, 0.431 kg');
    await table.getByRole('button', { name: /^Cold frame, hinge_pin.head.distance/ }).click();
    await page.keyboard.press('Control+A');
    await page.keyboard.type('3');
    await page.keyboard.press('Enter');
  });

  await test.step('each is written', async () => {
    await table.getByRole('button', { name: 'Write each' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: 'Each as STEP' }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe('Roof-vent opener - variants, STEP.zip');
    const files = unzipSync(new Uint8Array(await readFile((await file.path())!)));
    expect(Object.keys(files).sort()).toEqual(
      ['Blank to drill', 'Cold frame', 'Long ridge', 'Standard'].map((v) => `Roof-vent opener - ${v}.step`),
    );
    for (const bytes of Object.values(files)) expect(new TextDecoder().decode(bytes)).toContain("PRODUCT('Hinge pin'");
  });

  await test.step('a table from a spreadsheet: two cells at fault are named, the sound rows taken', async () => {
    const pasted = [
      'variant\tvent_length (cm)\tplate_thk\tmaterial of Sector arm',
      'Tall house\t70\t1/4 in\tbrass',
      'Odd one\tlong\t6\tcheese',
      'Cold frame\t45\t5 mm\t',
    ].join('\n');
    await table.evaluate((el, text) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      el.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    }, pasted);
    const faults = table.getByRole('table', { name: 'Cells at fault' });
    await expect(faults.getByRole('row')).toHaveCount(3);
    await expect(faults).toContainText('No dimension is called “long”');
    await expect(faults).toContainText('There is no material “cheese”');
    await table.getByRole('button', { name: 'Take the 2 sound rows' }).click();
    await expect(table.locator('tr[data-variant]')).toHaveCount(5);
    await expect(table.locator('tr[data-variant="Tall house"]')).toContainText('70 cm');
    await expect(table.locator('tr[data-variant="Cold frame"]')).toContainText('45 cm');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(table.locator('tr[data-variant]')).toHaveCount(4);
  });

  await test.step('as a CSV file and back it is the same', async () => {
    await table.getByRole('button', { name: 'Table' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: 'Write a CSV file' }).click();
    const path = (await (await download).path())!;
    expect(await readFile(path, 'utf8')).toContain('Long ridge,880,50,8,14,,steel');
    await table.getByLabel('CSV file').setInputFiles(path);
    await expect(table.getByRole('button', { name: 'Take all 4 sound rows' })).toBeVisible();
    await table.getByRole('button', { name: 'Take all 4 sound rows' }).click();
    await expect(table.locator('tr[data-variant]')).toHaveCount(4);
  });
});

test('numbers typed twice become one; a number shared by the project reaches its designs', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Same');
  await w.setInLedger('part_1.extrude_1.distance', '40');
  await w.ledger().getByLabel('Show').selectOption('twice');
  await expect(w.ledger()).toContainText('40 mm stands 2 times');
  await w.ledger().getByRole('button', { name: 'Link them' }).click();
  await w.ledger().getByLabel('Show').selectOption('all');
  await w.setInLedger('part_1.sketch_1.height', '45');
  await expect(w.caption()).toContainText('60 × 45 × 45 mm');

  await w.make('Shared by the project', 'sheet');
  await expect(w.row('project.sheet')).toBeVisible();
  await w.setInLedger('part_1.sketch_1.height', 'sheet * 3');
  await expect(w.caption()).toContainText('60 × 30 × 30 mm');
  await expect(w.saved()).toContainText('Saved');
  const back = page.url();
  await page.getByRole('link', { name: 'Project of Same' }).click();
  const shared = page.getByRole('region', { name: 'Shared dimensions' });
  await shared.getByLabel('Value of sheet').fill('12 mm');
  await shared.getByLabel('Value of sheet').press('Tab');
  await expect(shared.getByLabel('Value of sheet')).toHaveValue('12 mm');
  await page.goto(back);
  await expect(w.caption()).toContainText('60 × 36 × 36 mm');
});
