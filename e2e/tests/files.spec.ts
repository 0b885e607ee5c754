import DxfParser from 'dxf-parser';
import { unzipSync } from 'fflate';
import { readFile } from 'node:fs/promises';
import { expect, test } from './workplace.ts';

test('a bore and a side are offset, the bore is threaded; the top is written to cut by, the part to print', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Gland');
  await w.pick([0, 0, 10]);
  await w.choose('Hole');
  await page.keyboard.type('20 mm');
  await w.keep('Hole 1');

  await test.step('a side is pulled, the bore made narrower, and a thread marked that fits it', async () => {
    await w.pick([30, 0, 5]);
    await w.choose('Offset');
    await page.keyboard.type('7 mm');
    await w.keep('Offset 1');
    await expect(w.caption()).toContainText('67 × 40 × 10 mm');
    await w.pick([0, 10, 7]);
    await w.choose('Offset');
    await page.keyboard.type('0.25 mm');
    await w.keep('Offset 2');
    await w.pick([0, 9.75, 7]);
    await w.choose('Thread');
    await expect(w.step('Thread 1')).toContainText('M22: marked, not modelled.');
    await w.keep('Thread 1');
  });

  await test.step('cut open, what lay hidden can be seen and picked', async () => {
    const deepInTheBore: [number, number, number] = [2, 9.54, 3];
    await w.pick(deepInTheBore);
    await expect(w.verb('Thread')).toHaveCount(0);
    await page.keyboard.press('Escape');
    await w.choose('Section');
    await expect(page.getByRole('form', { name: 'Section' }).getByLabel('Distance')).toHaveValue('0');
    await w.pick(deepInTheBore);
    await expect(w.verb('Thread')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByRole('form', { name: 'Section' }).getByRole('button', { name: 'Close' }).click();
    await w.pick(deepInTheBore);
    await expect(w.verb('Thread')).toHaveCount(0);
    await page.keyboard.press('Escape');
  });

  await test.step('its top as DXF, for a cut 0.3 mm wide', async () => {
    await w.pick([25, -15, 10]);
    await w.choose('Write outline');
    const form = page.getByRole('form', { name: 'Write the outline of this face' });
    await form.getByLabel('for a cut').fill('0.3');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      form.getByRole('button', { name: 'Write' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('Part 1.dxf');
    const drawing = new DxfParser().parseSync(await readFile(await download.path(), 'utf8'))!;
    const all = drawing.entities as unknown as {
      type: string;
      layer: string;
      radius?: number;
      vertices?: { x: number }[];
    }[];
    expect(drawing.header.$INSUNITS).toBe(4);
    const xs = all.filter((e) => e.layer === 'outline').flatMap((e) => e.vertices?.map((v) => v.x) ?? []);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(67.3, 6);
    const [bore, ...others] = all.filter((e) => e.layer === 'holes');
    expect(others).toEqual([]);
    expect(bore!.type).toBe('CIRCLE');
    expect(bore!.radius).toBeCloseTo(9.75 - 0.15, 6);
  });

  await test.step('a cut wider than the hole leaves it out, and says so', async () => {
    await w.choose('Write outline');
    await page.getByRole('form').getByLabel('for a cut').fill('20');
    await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Write', exact: true }).click(),
    ]);
    await expect(page.getByText('1 hole is narrower than the cut')).toBeVisible();
  });

  await test.step('the part as 3MF', async () => {
    await page.getByRole('button', { name: 'Files' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Part 1 as 3MF' }).click(),
    ]);
    const files = unzipSync(new Uint8Array(await readFile(await download.path())));
    expect(new TextDecoder().decode(files['3D/3dmodel.model'])).toContain('<base name="Part 1"');
  });

  await test.step('the part as glTF', async () => {
    await page.getByRole('button', { name: 'Files' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Part 1 as glTF' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('Part 1.glb');
    const bytes = await readFile(await download.path());
    expect(bytes.subarray(0, 4).toString('latin1')).toBe('glTF');
    expect(bytes.toString('latin1')).toContain('"name":"Part 1"');
  });

  await test.step('the part as STEP, brought into another and built upon; a file that is none is said to be', async () => {
    await page.getByRole('button', { name: 'Files' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Part 1 as STEP' }).click(),
    ]);
    const file = await readFile(await download.path());
    const volume = /Volume ([\d.]+)/.exec((await w.caption().textContent()) ?? '')?.[1];
    await page.keyboard.press('Escape');
    await w.choose('New part');
    await page.getByRole('button', { name: 'Files' }).click();
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('menuitem', { name: 'Bring in a STEP file' }).click(),
    ]);
    await chooser.setFiles({ name: 'gland.step', mimeType: 'model/step', buffer: file });
    await expect(w.step('Import 1')).toContainText('gland.step');
    await expect(w.caption()).toContainText('67 × 40 × 10 mm');
    if (volume) await expect(w.caption()).toContainText(volume);
    const [again] = await Promise.all([
      page.waitForEvent('filechooser'),
      w.step('Import 1').getByRole('button', { name: 'gland.step' }).click(),
    ]);
    await again.setFiles({ name: 'notes.step', mimeType: 'model/step', buffer: Buffer.from('no solid at all') });
    await expect(w.step('Import 1')).toContainText('This is no STEP file; choose one that ends in .step or .stp.');
    await page.getByRole('button', { name: 'Undo' }).click();
    await w.keep('Import 1');
  });
});
