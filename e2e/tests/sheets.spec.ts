/** Sheets: drawn from the model, audited, sized, and written to files that others read. */
import DxfParser from 'dxf-parser';
import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, test } from './workplace.ts';

test('a bracket is drawn, what its sheet lacks is found and added, it follows a dial, and is read back from PDF and DXF', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  const sheet = page.getByTestId('sheet');
  const audit = page.getByRole('region', { name: 'Audit' });
  const missing = audit.locator('[data-finding="missing"]');
  const words = sheet.locator('[data-size] text');
  const boxOf = async (what: string) => (await sheet.locator(what).boundingBox())!;

  await test.step('views are laid out by themselves, and all sizes are missing', async () => {
    await page.getByRole('button', { name: 'New sheet' }).click();
    await expect(sheet.locator('[data-view]')).toHaveCount(4);
    await expect(missing).toHaveCount(10);
    await expect(audit).toContainText('0 of 13 freedoms of the shape are settled by 0 sizes.');
  });

  await test.step('a size of two picked edges, and all that is missing then', async () => {
    const front = await boxOf('[data-view="front"]');
    await page.mouse.click(front.x + 1, front.y + front.height * 0.4);
    await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('edge');
    await page.keyboard.down('Shift');
    await page.mouse.click(front.x + front.width - 1, front.y + front.height * 0.4);
    await page.keyboard.up('Shift');
    await w.verb('Length across').click();
    await expect(words).toHaveText(['96']);
    await expect(missing).toHaveCount(9);
    await audit.getByRole('button', { name: 'Add all 9' }).click();
    await expect(audit).toContainText('Everything is settled.');
    await expect(words).toHaveCount(10);
  });

  await test.step('one taken off is named and added again; what is said twice is told', async () => {
    await words.filter({ hasText: 'Ø26' }).click();
    await page.keyboard.press('Delete');
    await expect(missing).toHaveText(/The diameter of Boss, in the front view: 26 mm\./);
    await missing.hover();
    await expect(sheet.locator('path[stroke="#C8401A"]')).toHaveCount(1);
    await missing.getByRole('button', { name: /^Add: The diameter of Boss/ }).click();
    await expect(words).toHaveCount(10);
    const front = await boxOf('[data-view="front"]');
    await page.mouse.click(front.x + 1, front.y + front.height * 0.4);
    await w.verb('Length').click();
    await expect(audit.locator('[data-finding="twice"]')).toContainText(
      'This size in the front view follows already from',
    );
    await page.keyboard.press('Delete');
    await expect(audit.locator('[data-finding="twice"]')).toHaveCount(0);
  });

  await test.step('sizes and views are moved, what stands in line goes along, and undo brings them back', async () => {
    const [before, rightBefore] = [await boxOf('[data-view="front"]'), await boxOf('[data-view="right"]')];
    const at = { x: before.x + before.width * 0.35, y: before.y + before.height * 0.72 };
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.move(at.x + 10, at.y - 20, { steps: 4 });
    await page.mouse.up();
    await expect.poll(async () => (await boxOf('[data-view="front"]')).y - before.y).toBeCloseTo(-20, 0);
    expect((await boxOf('[data-view="right"]')).y - rightBefore.y).toBeCloseTo(-20, 0);
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await boxOf('[data-view="front"]')).y - before.y).toBeCloseTo(0, 0);
  });

  await test.step('cut open through a picked round, marked where it is cut, and whole again', async () => {
    const front = await boxOf('[data-view="front"]');
    const letters = sheet.locator('[data-view="right"] text');
    // The rim of the boss, left of its middle: 13 of 96 wide.
    await page.mouse.click(front.x + front.width * (0.5 - 13 / 96), front.y + front.height / 2);
    await w.verb('Section from the right').click();
    await expect(letters).toHaveText(['A–A']);
    await expect(sheet.locator('[data-view="front"] text')).toHaveText(['A', 'A']);
    await expect(audit).toContainText('Everything is settled.');
    const above = (await letters.boundingBox())!;
    await page.mouse.click(above.x + above.width / 2, above.y + above.height / 2);
    await w.verb('Whole again').click();
    await expect(letters).toHaveCount(0);
  });

  await test.step('issued, it follows a dial and says what changed since', async () => {
    await audit.getByLabel('What the issue is for').fill('For the first castings');
    await audit.getByRole('button', { name: 'Issue', exact: true }).click();
    await expect(sheet.getByText('For the first castings')).toBeVisible();
    await w.setInLedger('wall_offset', '41 mm');
    await expect(words.filter({ hasText: /^41$/ })).toHaveCount(1);
    await expect(audit).toContainText('Everything is settled.');
    await expect(audit.getByTestId('changed')).toHaveText('Since issue A: 34 is 41 now; 28 is 35 now.');
  });

  await test.step('the PDF and the DXF hold what is on the screen', async () => {
    const written = async (format: string) => {
      const download = page.waitForEvent('download');
      await w.verb(`Write ${format}`).click();
      return readFile(await (await download).path());
    };
    await page.keyboard.press('Escape');
    const pdf = await getDocument({ data: new Uint8Array(await written('PDF')), verbosity: 0 }).promise;
    const text = (await (await pdf.getPage(1)).getTextContent()).items.map((i) => ('str' in i ? i.str : ''));
    expect(text).toEqual(expect.arrayContaining(['Wall bracket', '4× Ø6.6', 'Ø26', '41', '96', '136']));
    const dxf = new DxfParser().parseSync((await written('DXF')).toString())!;
    const texts = dxf.entities.filter((e) => e.type === 'TEXT') as unknown as { text: string }[];
    expect(texts.map((t) => t.text)).toEqual(expect.arrayContaining(['Wall bracket', '4× R9', '41']));
  });

  await test.step('what a size was taken at is suppressed: it is told lost, and the rest stands', async () => {
    await w.allSaved();
    await page.getByRole('button', { name: 'Work on Wall bracket' }).click();
    await w.step('Boss').getByRole('button', { name: 'More for Boss' }).click();
    await page.getByRole('menuitem', { name: 'Suppress' }).click();
    await page.getByRole('button', { name: 'Work on Sheet' }).click();
    const lost = audit.locator('[data-finding="lost"]');
    await expect(lost.getByText('The diameter in the front view: what it was taken at is gone')).toHaveCount(1);
    await expect(words.filter({ hasText: /^136$/ })).toHaveCount(1);
    await expect(lost).toHaveCount(3);
    await lost.first().getByRole('button', { name: 'remove' }).click();
    await expect(lost).toHaveCount(2);
  });

  await test.step('a sheet of nothing says so, and cannot be written', async () => {
    await page.getByRole('button', { name: 'New part' }).click();
    await page.getByRole('button', { name: 'New sheet' }).click();
    await expect(sheet.getByRole('alert')).toHaveText('Nothing solid is there to be drawn yet; make a body first.');
    await w.verb('Write PDF').click();
    await expect(page.getByText('Nothing solid is there to be drawn yet; make a body first.')).toHaveCount(2);
  });
});

test('an assembly’s sheet lists its parts, and balloons with their numbers are moved and stay', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo('vent-drive');
  await page.getByRole('button', { name: 'Work on Vent drive' }).click();
  await page.getByRole('button', { name: 'New sheet' }).click();
  const sheet = page.getByTestId('sheet');
  await expect(sheet.locator('[data-view]')).toHaveCount(4);
  await w.verb('Parts list').click();
  const balloons = sheet.locator('[data-size^="balloon "]');
  await expect(balloons.first()).toBeVisible();
  const numbers = async () => (await balloons.locator('text').allTextContents()).map(Number).sort((a, b) => a - b);
  const rows = (await sheet.locator('svg > g').first().locator('text').allTextContents()).filter((t) => /^\d+$/.test(t.trim())); // prettier-ignore
  expect(rows.map(Number)).toEqual(expect.arrayContaining(await numbers()));
  const first = balloons.filter({ hasText: /^\s*1\s*$/ });
  const text = (await first.locator('text').boundingBox())!;
  await page.mouse.move(text.x + text.width / 2, text.y + text.height / 2);
  await page.mouse.down();
  await page.mouse.move(text.x + 40, text.y + 25, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Math.round((await first.locator('text').boundingBox())!.y - text.y)).toBeGreaterThan(10); // prettier-ignore
  const moved = (await first.locator('text').boundingBox())!;
  await w.allSaved();
  await page.reload();
  await expect.poll(async () => Math.round((await first.locator('text').boundingBox())?.y ?? 0)).toBe(Math.round(moved.y)); // prettier-ignore
  await w.verb('Without parts list').click();
  await expect(balloons).toHaveCount(0);
});

test('a bore is called out with its fit, enlarged, and the sheet is given away as a template', async ({
  page,
  workplace: w,
}, info) => {
  await w.openDemo();
  await page.getByRole('button', { name: 'New sheet' }).click();
  const sheet = page.getByTestId('sheet');
  const panel = page.getByRole('region', { name: 'Audit' });
  await expect(sheet.locator('[data-view]')).toHaveCount(4);
  const words = sheet.locator('[data-size] text');
  const front = (await sheet.locator('[data-view="front"]').boundingBox())!;
  // The plate is 96 wide, the bore in its middle 10.2.
  const onBore = () => page.mouse.click(front.x + front.width * (0.5 + 5.1 / 96), front.y + front.height / 2);

  await onBore();
  await w.verb('Hole').click();
  await expect(words).toHaveText(['Ø10.2 THRU']);
  await panel.getByLabel('Tolerance or fit').fill('H7');
  await panel.getByLabel('Tolerance or fit').press('Enter');
  await expect(words).toHaveText(['Ø10.2 H7 THRU']);
  await panel.getByLabel('Tolerance or fit').fill('tight');
  await panel.getByLabel('Tolerance or fit').press('Enter');
  await expect(page.getByText('“tight” is no tolerance; type ±0.1, +0.2/-0.1 or a class such as H7.')).toBeVisible();
  await page.keyboard.press('Escape');

  await page.mouse.click(front.x - 60, front.y - 20);
  await onBore();
  await w.verb('Enlarge here').click();
  const detail = sheet.locator('[data-view="enlarged"]');
  await expect(detail.locator('text')).toHaveText([/^Z {2}\d+ : \d+$/]);
  await panel.getByLabel('Shows round it').fill('8');
  await panel.getByLabel('Shows round it').press('Enter');
  await panel.getByRole('region', { name: 'Detail' }).getByLabel('Scale').selectOption('5:1');
  await expect(detail.locator('text')).toHaveText(['Z  5 : 1']);
  // 16 mm across at 5 : 1, where the plate of 96 is at 1 : 1; its circle is round.
  await expect.poll(async () => (await detail.locator('path').last().boundingBox())!.width / front.width).toBeCloseTo(80 / 96, 1); // prettier-ignore

  const waiting = page.waitForEvent('download');
  await panel.getByLabel('Drawn by').fill('M. Oak');
  await panel.getByLabel('Drawn by').press('Enter');
  await panel.getByRole('button', { name: 'Write as template' }).click();
  const path = info.outputPath('template.json');
  await (await waiting).saveAs(path);
  await page.getByRole('button', { name: 'Work on Sector arm' }).click();
  await page.getByRole('button', { name: 'New sheet' }).click();
  for (const [file, told] of [['demo/vent-drive.helb.json', /is no template of sheets/], [path, null]] as const) {
    const asking = page.waitForEvent('filechooser');
    await panel.getByRole('button', { name: 'Use a template' }).click();
    await (await asking).setFiles(file);
    if (told) await expect(page.getByText(told)).toBeVisible();
  } // prettier-ignore
  await expect(panel.getByLabel('Drawn by')).toHaveValue('M. Oak');
});

test('the model’s sizes are brought; a stepped section, an issue shown as it was, and a print at its size', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  const sheet = page.getByTestId('sheet');
  const audit = page.getByRole('region', { name: 'Audit' });
  const words = sheet.locator('[data-size] text');
  await page.getByRole('button', { name: 'New sheet' }).click();
  await expect(sheet.locator('[data-view]')).toHaveCount(4);

  await test.step('the recipe’s own dimensions settle all of it, and what no view shows is named', async () => {
    await w.verb('Bring the model’s sizes').click();
    await expect(page.getByText('10 dimensions of the model stand on the sheet now.')).toContainText('No view shows drill.distance'); // prettier-ignore
    await expect(audit).toContainText('Everything is settled.');
    await w.setInLedger('pin_dia', '12 mm');
    await expect(words.filter({ hasText: 'Ø12.2' })).toHaveCount(1);
  });

  const front = (await sheet.locator('[data-view="front"]').boundingBox())!;
  const pick = (x: number, y: number) => page.mouse.click(front.x + (front.width * x) / 96, front.y + (front.height * (136 - y)) / 136); // prettier-ignore
  await test.step('three rounds are cut through in steps, and marked so', async () => {
    for (const [i, at] of (
      [
        [14 + 3.3, 14],
        [82 - 3.3, 122],
        [48 + 13, 68],
      ] as const
    ).entries()) {
      if (i > 0) await page.keyboard.down('Shift');
      await pick(at[0], at[1]);
      await page.keyboard.up('Shift');
    }
    await expect(page.getByRole('toolbar', { name: 'Verbs' })).toContainText('3 places');
    await w.verb('Stepped section from the right').click();
    await expect(sheet.locator('[data-view="right"] text')).toHaveText(['A–A']);
    await expect(sheet.locator('[data-view="front"] text')).toHaveText(['A', 'A']);
  });

  await test.step('given away, changed, and shown as it was', async () => {
    await audit.getByLabel('What the issue is for').fill('For the shop');
    await audit.getByRole('button', { name: 'Issue', exact: true }).click();
    await expect(audit.getByText('For the shop')).toBeVisible();
    await w.setInLedger('plate_thk', '9 mm');
    await expect(audit.getByTestId('changed')).toContainText('6 is 9 now');
    await audit.getByRole('button', { name: 'Show issue A as it was' }).click();
    await expect(words.filter({ hasText: /^6$/ })).toHaveCount(1);
    await audit.getByRole('button', { name: 'Back to the present' }).click();
    await expect(words.filter({ hasText: /^9$/ })).toHaveCount(1);
    // The very file that was given away, with its own row above the title block.
    const waiting = page.waitForEvent('download');
    await audit.getByRole('button', { name: 'PDF of issue A as it was given away' }).click();
    const bytes = await readFile(await (await waiting).path());
    const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    const said = (await (await pdf.getPage(1)).getTextContent()).items.map((i) => ('str' in i ? i.str : ''));
    expect(said).toEqual(expect.arrayContaining(['6', 'For the shop', 'Wall bracket']));
    expect(said).not.toContain('9');
  });

  await test.step('printed on paper of its own size', async () => {
    await page.evaluate(() => (window.print = () => undefined));
    await w.verb('Print').click();
    const bytes = await page.pdf({ preferCSSPageSize: true });
    const paper = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    expect(paper.numPages).toBe(1);
    const printed = await paper.getPage(1);
    expect(printed.view.map((x) => Math.round((x * 25.4) / 72))).toEqual([0, 0, 420, 297]);
    const text = (await printed.getTextContent()).items.map((i) => ('str' in i ? i.str : '')).join(' ');
    expect(text).toContain('Wall bracket');
    expect(text).not.toContain('Ledger');
    await page.evaluate(() => void window.dispatchEvent(new Event('afterprint')));
    await expect(page.locator('.printed-sheet')).toHaveCount(0);
  });
});
