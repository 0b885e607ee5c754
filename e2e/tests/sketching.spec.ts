import { expect, test } from './workplace.ts';

test('a rectangle about the origin, settled by two typed sizes, with a loose circle dragged and put back', async ({
  page,
  workplace: w,
}) => {
  await w.newDesign('Centred');
  await page.getByRole('button', { name: 'side plane' }).click();
  await w.viewSettled();
  await page.keyboard.press('Shift+R');
  await w.click(0, 0);
  await w.point(25, 15);
  await page.keyboard.type('60');
  await page.keyboard.press('Tab');
  await page.keyboard.type('40');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(w.step('Sketch 1')).toContainText('settled');

  await test.step('a circle is loose until it is held; dragging its centre is one edit, undone as one', async () => {
    await page.keyboard.press('c');
    await w.click(12, -8);
    await w.click(17, -8);
    await page.keyboard.press('Escape');
    await expect(w.step('Sketch 1')).toContainText('3 freedoms left');
    await w.point(12, -8);
    await page.mouse.down();
    for (const [u, v] of [[10, -4], [4, 0], [-10, 4]] as const) await page.mouse.move(...(await w.at(u, v))); // prettier-ignore
    await page.mouse.up();
    await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Drag in the sketch');
    await expect(w.step('Sketch 1')).toContainText('3 freedoms left');
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Draw a circle');
  });

  await test.step('made construction, it bounds nothing any more', async () => {
    await w.click(17, -8);
    await w.change('Construction');
    await page.keyboard.press('Escape');
    await page.keyboard.press('x');
    await page.getByLabel('Extrude 1: distance').press('Enter');
    await page.keyboard.press('Enter');
    await expect(w.caption()).toContainText('10 × 60 × 40 mm');
    await w.allSaved();
    const { parts } = await page.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      const opened = (await (await fetch(`/api/designs/${id}`)).json()) as { document: { parts: object } };
      return opened.document;
    });
    expect(JSON.stringify(parts)).toContain('"construction":true');
  });
});

test('what is drawn is seen: the pixels on a line change', async ({ page, workplace: w }) => {
  await w.newSketch('Seen');
  const [x, y] = await w.at(22, 12);
  const look = async () => {
    await page.mouse.move(700, 20);
    await page.waitForTimeout(400);
    return page.screenshot({ clip: { x: x - 16, y: y - 16, width: 32, height: 32 } });
  };
  const before = await look();
  await w.draw('Line', [2, 12], [34, 12]);
  await page.keyboard.press('Escape');
  await w.putDown();
  expect(Buffer.compare(before, await look())).not.toBe(0);
});

test('while something is dragged, both it and what stands still are seen', async ({ page, workplace: w }) => {
  await w.newSketch('Dragged');
  await w.draw('Rectangle', [-30, -20], [-10, 20]);
  await page.keyboard.press('Escape');
  await w.draw('Line', [10, -20], [30, 6]);
  await page.keyboard.press('Escape');
  await w.putDown();
  const look = async (u: number, v: number) => {
    const [x, y] = await w.at(u, v);
    return page.screenshot({ clip: { x: x - 9, y: y - 9, width: 18, height: 18 } });
  };
  // What was drawn last is painted.
  await page.waitForTimeout(400);
  const [edge, ground, line] = [await look(-20, 20), await look(23, 5), await look(20, -7)];
  await w.point(30, 6);
  await page.mouse.down();
  for (const v of [5, 10, 20, 30]) await page.mouse.move(...(await w.at(36, v)));
  await page.waitForTimeout(400);
  // The ground's gradient is rounded anew now and then on a busy machine, so it is asked again.
  await expect.poll(async () => Buffer.compare(await look(-20, 20), edge)).toBe(0);
  // The line has left its old place and runs through a new one.
  expect(Buffer.compare(await look(20, -7), line)).not.toBe(0);
  expect(Buffer.compare(await look(23, 5), ground)).not.toBe(0);
  await page.mouse.up();
  await w.putDown();
  await page.waitForTimeout(400);
  expect(Buffer.compare(await look(23, 5), ground)).not.toBe(0);
});
