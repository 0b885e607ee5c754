/** Outlines: a tab-and-slot tray laid on two boards, moved by hand, and written to files that others read. */
import DxfParser from 'dxf-parser';
import { unzipSync } from 'fflate';
import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, test } from './workplace.ts';

test('a tilted ply tray is laid on two boards, follows its numbers, is moved by hand, and is read back from DXF and PDF', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo('potting-tray');
  const boards = page.getByTestId('boards');
  const panel = page.getByRole('region', { name: 'Outlines' });
  const totals = panel.getByTestId('totals');
  const written = async (format: string) => {
    const waiting = page.waitForEvent('download');
    await w.verb(`Write ${format}`).click();
    const file = await waiting;
    return { name: file.suggestedFilename(), bytes: new Uint8Array(await readFile(await file.path())) };
  };

  await test.step('all parts are added anew, each as often as it is needed', async () => {
    await page.getByRole('button', { name: 'New outlines' }).click();
    for (const part of ['Front', 'Back', 'Side']) await panel.getByLabel('Add a part').selectOption(part);
    await panel.getByLabel('How many of Side').fill('2');
    await panel.getByLabel('How many of Side').press('Enter');
    await panel.getByLabel('Width', { exact: true }).fill('60 cm');
    await panel.getByLabel('Width', { exact: true }).press('Enter');
    await panel.getByLabel('Height', { exact: true }).fill('length - 20 mm');
    await panel.getByLabel('Height', { exact: true }).press('Enter');
    await expect(totals).toContainText('5 pieces on 2 boards');
    await expect(panel.getByRole('article', { name: 'Floor' })).toContainText('420 × 225.06 × 6');
  });

  await test.step('another thickness of ply is followed by slots and tabs; a wide cut closes nothing', async () => {
    await w.setInLedger('ply', '8 mm');
    await expect(panel.getByRole('article', { name: 'Floor' })).toContainText('× 8');
    await panel.getByLabel('Width of the cut').fill('0.5');
    await panel.getByLabel('Width of the cut').press('Enter');
    await expect(panel.getByRole('article', { name: 'Side' })).toContainText('260.5 × 140.5 × 8');
    await panel.getByLabel('Width of the cut').fill('thick');
    await panel.getByLabel('Width of the cut').press('Enter');
    await expect(panel.getByRole('alert')).toContainText('thick');
    await expect(totals).toContainText('5 pieces on 2 boards');
  });

  await test.step('both boards are read back: slots as they are, the board on a layer of its own', async () => {
    const { name, bytes } = await written('DXF');
    expect(name).toBe('Outlines dxf.zip');
    const files = unzipSync(bytes);
    expect(Object.keys(files)).toHaveLength(2);
    const entities = Object.values(files).flatMap((file) => new DxfParser().parseSync(new TextDecoder().decode(file))!.entities); // prettier-ignore
    const on = (layer: string) => entities.filter((e) => e.layer === layer);
    // Of each side four slots of four lines, three drains, two bores to hang it by.
    expect(on('holes').filter((e) => e.type === 'LINE')).toHaveLength(32);
    expect(on('holes').filter((e) => e.type === 'CIRCLE')).toHaveLength(5);
    expect(on('board')).toHaveLength(8);
  });

  await test.step('a piece laid over another is lit, said and not written; all is laid anew', async () => {
    const box = (await boards.locator('[data-laid]').first().boundingBox())!;
    const other = (await boards.locator('[data-laid]').nth(1).boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.6);
    await page.mouse.down();
    await page.mouse.move(other.x + other.width / 2 + 20, other.y + other.height * 0.6 + 5, { steps: 4 });
    await page.mouse.up();
    await expect(panel).toContainText('lie over each other, too near, or off their board');
    await expect(boards.locator('.piece-bad').first()).toBeVisible();
    await page.keyboard.press('Escape');
    await w.verb('Write PDF').click();
    await expect(page.getByText('Pieces lie over each other or off their board; move them apart, or lay all anew.')).toBeVisible(); // prettier-ignore
    await w.verb('Lay all anew').click();
    await expect(boards.locator('.piece-bad')).toHaveCount(0);
    await expect(totals).toContainText('5 pieces on 2 boards');
  });

  await test.step('kept, it stays over a reload; a piece more is told missing', async () => {
    await w.verb('Keep this layout').click();
    await expect(panel).toContainText('This layout is kept as it is.');
    await w.allSaved();
    await page.reload();
    await expect(panel).toContainText('This layout is kept as it is.');
    await panel.getByLabel('How many of Side').fill('3');
    await panel.getByLabel('How many of Side').press('Enter');
    await expect(panel.getByRole('article', { name: 'Side' })).toContainText('1 of it lies on no board.');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(panel.getByRole('article', { name: 'Side' })).not.toContainText('on no board');
  });

  await test.step('a PDF of a page a board, at 1:1', async () => {
    const { bytes } = await written('PDF');
    const pdf = await getDocument({ data: bytes }).promise;
    expect(pdf.numPages).toBe(2);
    const { width, height } = (await pdf.getPage(2)).getViewport({ scale: 25.4 / 72 });
    expect([width, height].map(Math.round)).toEqual([600, 400]);
  });
});
