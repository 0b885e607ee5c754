/** A drawing one was given: laid under a sketch to scale, its numbers ticked off, a radius for a diameter caught. */
import { writeFile } from 'node:fs/promises';
import PDFDocument from 'pdfkit';
import { expect, test } from './hands.ts';

/** A shaft with a collar on an A4 page, half as large as it is, with a title page before it. */
async function drawnShaft(path: string): Promise<void> {
  const doc = new PDFDocument({ size: 'A4' });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise((resolve) => doc.on('end', resolve));
  const mm = 72 / 25.4;
  doc.text('Shaft with collar', 60, 60).addPage();
  const at = (x: number, y: number, w: number, h: number) => doc.rect(x * mm, y * mm, w * mm, h * mm).stroke();
  doc.circle(100 * mm, 60 * mm, 10.5 * mm).stroke();
  doc.circle(100 * mm, 60 * mm, 7.5 * mm).stroke();
  at(40, 110, 12.5, 21);
  at(52.5, 113, 20, 15);
  doc.fontSize(9).text('Ø42', 30 * mm, 118 * mm).text('Ø30', 75 * mm, 118 * mm).text('25', 44 * mm, 134 * mm).text('40', 60 * mm, 134 * mm); // prettier-ignore
  doc.end();
  await done;
  await writeFile(path, Buffer.concat(chunks));
}

test('a shaft after a PDF: page, scale, square and origin; numbers pasted, a diameter used as a radius caught and mended', async ({
  page,
  workplace: w,
  hands,
}, info) => {
  await w.newDesign('Shaft');
  const brief = page.getByRole('region', { name: 'Brief' });
  const drawing = brief.getByTestId('drawing');
  const underlay = page.getByTestId('underlay');
  const state = brief.getByTestId('brief-state');
  const row = (value: string) => brief.locator('[data-given]').filter({ has: page.locator(`input[value="${value}"]`) });
  const choose = async (path: string) => {
    const asking = page.waitForEvent('filechooser');
    await brief.getByRole('button', { name: /Choose a picture or PDF|Another/ }).click();
    await (await asking).setFiles(path);
  };

  await test.step('a file that is no picture is refused in a sentence; a page of a PDF is taken', async () => {
    await page.getByRole('button', { name: 'Brief', exact: true }).click();
    const odd = info.outputPath('odd.png');
    await writeFile(odd, 'not a picture');
    await choose(odd);
    await expect(brief.getByRole('alert')).toHaveText('odd.png is no picture that can be read; use PNG, JPEG, WebP or PDF.'); // prettier-ignore
    const path = info.outputPath('shaft.pdf');
    await drawnShaft(path);
    await choose(path);
    await brief.getByLabel('Which page').selectOption('2');
    await expect(drawing.getByRole('img', { name: 'The drawing shaft.pdf, page 2' })).toBeVisible();
  });

  await test.step('numbers are pasted as they stand there; what cannot be read is told by its line', async () => {
    const field = brief.getByLabel('A given number');
    await field.evaluate((input) => {
      const data = new DataTransfer();
      data.setData('text', 'Ø42 collar\nØ30\nabout right\n25\n40 mm journal');
      input.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    });
    await expect(brief.getByRole('alert')).toHaveText('Line 3, “about right”, says no number that could be read.');
    await expect(state).toHaveText('0 of 4 as given');
    await field.fill('65 overall');
    await field.press('Enter');
    await expect(state).toHaveText('0 of 5 as given');
  });

  await test.step('laid under a sketch, to scale by two points, its collar on the origin', async () => {
    await w.verb('Sketch on floor').click();
    await brief.getByRole('button', { name: 'Lay it under this sketch' }).click();
    await expect(underlay).toBeVisible();
    await expect(brief.getByText('Set it to scale, square it, and put it in its place.')).toBeVisible();
    const box = (await drawing.boundingBox())!;
    const image = (await drawing.getByRole('img').boundingBox())!;
    const on = (x: number, y: number) => [image.x + (x / 210) * image.width, image.y + (y / 297) * image.height] as const; // prettier-ignore
    expect(image.height).toBeLessThanOrEqual(box.height + 1);
    await brief.getByRole('button', { name: 'Scale' }).click();
    await page.mouse.click(...on(40, 110));
    await page.mouse.click(...on(72.5, 110));
    await brief.getByLabel('Their distance').fill('65');
    await brief.getByRole('button', { name: 'Set', exact: true }).click();
    await brief.getByRole('button', { name: 'Origin' }).click();
    await page.mouse.click(...on(100, 60));
    await expect(underlay).toHaveCSS('opacity', '0.5');
    // Twice as large as on paper, and the centre of the collar on the origin.
    const [ox, oy, perMm] = (await w.stage().getAttribute('data-plane'))!.split(' ').map(Number) as [number, number, number]; // prettier-ignore
    const [stage, seen] = [(await w.stage().boundingBox())!, (await underlay.boundingBox())!];
    expect(seen.width / perMm / 420).toBeCloseTo(1, 1);
    expect((stage.x + ox - seen.x) / seen.width).toBeCloseTo(100 / 210, 2);
    expect((stage.y + oy - seen.y) / seen.height).toBeCloseTo(60 / 297, 2);
  });

  await test.step('a collar drawn with 42 as its radius is told, and right once it is mended', async () => {
    await hands.circle([0, 0], '84');
    await page.keyboard.press('x');
    await hands.number('Extrude 1', 'distance', '25');
    await w.keep('Extrude 1');
    await expect(row('42 mm')).toContainText('Given as a diameter, but the part has it as a radius.');
    await expect(row('25 mm')).toHaveAttribute('data-given', 'right');
    await expect(row('40 mm')).toHaveAttribute('data-given', 'unused');
    await expect(state).toHaveText('1 of 5 as given, 1 not');
    await w.setInLedger('part_1.sketch_1.diameter', '42 mm');
    await expect(row('42 mm')).toHaveAttribute('data-given', 'right');
  });

  await test.step('all is as given when the journal stands on it; drawings and numbers are kept', async () => {
    await hands.sketchOnFace([0, 0, 25]);
    await hands.circle([0, 0], '30');
    await page.keyboard.press('x');
    await hands.number('Extrude 2', 'distance', '40');
    await w.keep('Extrude 2');
    await expect(row('65 mm')).toContainText('No number of the recipe is this, though the part measures so.');
    await expect(state).toHaveText('4 of 5 as given');
    await w.allSaved();
    await page.reload();
    await expect(state).toHaveText('4 of 5 as given');
    await expect(drawing.getByRole('img')).toBeVisible();
    await page.screenshot({ path: '/tmp/b2.png' });
  });
});
