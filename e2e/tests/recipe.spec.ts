import { expect, test } from './workplace.ts';

test('a recipe is arranged: one stands at a step, groups, finds, copies to another part, and uses another sketch', async ({
  page,
  workplace: w,
}) => {
  await w.newPlate('Latch');
  await w.pick([0, 0, 10]);
  await w.choose('Hole');
  await page.keyboard.type('12 mm');
  await w.keep('Hole 1');
  await w.pick([30, 0, 5]);
  await w.choose('Offset');
  await page.keyboard.type('5 mm');
  await w.keep('Offset 1');
  await test.step('weighed from a picked corner', async () => {
    await w.pick([-30, -20, 10]);
    await w.verb('Weigh').click();
    const sheet = page.getByRole('region', { name: 'Weight' });
    // The hole lies in the middle of 60, the plate is 65 long.
    const whole = 65 * 40 * 10;
    const hole = Math.PI * 36 * 10;
    const x = (whole * 32.5 - hole * 30) / (whole - hole);
    await expect(sheet.getByRole('row', { name: 'Centre from the corner' })).toContainText(x.toFixed(3).replace(/0+$/, '')); // prettier-ignore
    await sheet.getByRole('button', { name: 'Close' }).click();
    await page.keyboard.press('Escape');
  });
  const more = async (step: string, action: string) => {
    await page.getByRole('button', { name: `More for ${step}` }).click();
    await page.getByRole('menuitem', { name: action, exact: true }).click();
  };
  const order = () =>
    w
      .recipe()
      .locator('[data-step]')
      .evaluateAll((all) => all.map((e) => e.getAttribute('data-step')));

  await test.step('standing at the plate, a chamfer goes before the hole', async () => {
    await more('Extrude 1', 'Stand here');
    await expect(w.caption()).toContainText('60 × 40 × 10 mm');
    await w.pick([-10, -20, 10]);
    await w.choose('Chamfer');
    await page.keyboard.type('2 mm');
    await w.keep('Chamfer 1');
    expect(await order()).toEqual(['Sketch 1', 'Extrude 1', 'Chamfer 1', 'Hole 1', 'Offset 1']);
    await page.getByRole('button', { name: 'Go to the end' }).click();
    await expect(w.caption()).toContainText('65 × 40 × 10 mm');
  });

  await test.step('what rests on another cannot be moved before it, in words', async () => {
    await more('Hole 1', 'Move up');
    await more('Hole 1', 'Move up');
    await expect(page.getByText('Hole 1 rests on Extrude 1, so it cannot stand before it.')).toBeVisible();
    expect(await order()).toEqual(['Sketch 1', 'Extrude 1', 'Hole 1', 'Chamfer 1', 'Offset 1']);
  });

  await test.step('steps are grouped, the group named and closed; a number is found', async () => {
    await more('Chamfer 1', 'Group with the step above');
    await page.getByText('Group 1', { exact: true }).dblclick();
    await page.getByLabel('Name of the group').fill('Bore and edge');
    await page.keyboard.press('Enter');
    await more('Offset 1', 'Group with the step above');
    await page.getByRole('button', { name: 'Hide the steps of Bore and edge' }).click();
    expect(await order()).toEqual(['Sketch 1', 'Extrude 1']);
    await page.getByRole('button', { name: 'Show the steps of Bore and edge' }).click();
    await more('Offset 1', 'Take out of its group');
    await more('Offset 1', 'Duplicate');
    await page.getByLabel('Find a step by its name, kind or number').fill('12 mm');
    expect(await order()).toEqual(['Hole 1']);
    await page.getByLabel('Find a step by its name, kind or number').fill('');
    await page.getByRole('button', { name: 'Undo' }).click();
  });

  await test.step('a step goes to another part with all it rests on, and follows numbers of its own there', async () => {
    await w.verb('New part').click();
    await page.getByRole('button', { name: 'Work on Part 1' }).click();
    await more('Hole 1', 'Copy to Part 2');
    await expect(page.getByText('Hole 1 is at the end of Part 2, with the 2 steps it rests on.')).toBeVisible();
    await page.getByRole('button', { name: 'Work on Part 2' }).click();
    await expect(w.caption()).toContainText('60 × 40 × 10 mm');
    expect(await order()).toEqual(['Sketch 1', 'Extrude 1', 'Hole 1']);
  });

  await test.step('a copy of the sketch is redrawn and used in its place', async () => {
    await more('Sketch 1', 'Copy to another plane');
    await page.getByRole('button', { name: 'Put it on the wall' }).click();
    await more('Sketch 1', 'Use Sketch 2 in its place');
    await expect(w.caption()).toContainText('60 × 10 × 40 mm');
  });

  await test.step('of two bodies one is hidden; what lies behind is picked from a list', async () => {
    await page.getByRole('button', { name: 'Work on Part 1' }).click();
    await more('Extrude 1', 'Copy to Part 2');
    await page.getByRole('button', { name: 'Work on Part 2' }).click();
    await expect(page.getByLabel('Parts')).toContainText('2 bodies');
    await w.pick([-25, -5, 20]);
    await expect(w.verb('Offset')).toBeVisible();
    await w.verb('Hide').click();
    await expect(page.getByRole('button', { name: 'How bodies are shown' })).toContainText('1 hidden');
    const [x, y] = await w.inSpace(-20, -15, 10);
    await page.mouse.move(x, y);
    await page.keyboard.press('u');
    const under = page.getByRole('listbox', { name: 'Under the pointer' });
    await expect(under.getByRole('option')).toHaveText([/^1 +flat face/, /^2 +flat face/, /^3 +edge/]);
    await under.getByRole('option').nth(1).click();
    await expect(under).toHaveCount(0);
    await w.choose('Offset');
    await page.keyboard.type('3 mm');
    await w.keep('Offset 1');
    await w.verb('Show all bodies').click();
    await expect(page.getByRole('button', { name: 'How bodies are shown' })).not.toContainText('hidden');
  });
});
