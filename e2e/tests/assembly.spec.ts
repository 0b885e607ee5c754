/** Parts put together: placed, joined by picked frames, moved without being edited, checked for their fit. */
import { AssemblyHands } from './assembly-hands.ts';
import { expect, test } from './workplace.ts';

test('a pin is joined in a bored plate, driven, dragged, brought home; a misfit is found and cured by its number', async ({
  page,
  workplace: w,
}) => {
  const hands = new AssemblyHands(w);
  await hands.openDesign();
  await test.step('placed: the first is held fast, the others stand beside it', async () => {
    await page.getByRole('button', { name: 'New assembly' }).click();
    for (const part of ['Base', 'Pin', 'Cap'])
      await page.getByRole('button', { name: `Place ${part}`, exact: true }).click();
    await expect(hands.instance('Base')).toContainText('fixed');
    await expect(hands.instance('Pin')).toContainText('is held by nothing');
    await expect(hands.state).toHaveText('12 freedoms');
  });

  await test.step('frames of one face alone, one of two edges, and what lies behind, are picked', async () => {
    const subject = page.getByRole('toolbar', { name: 'Verbs' });
    await hands.click('Base', [40, 14, 10]);
    await expect(subject).toContainText('Base, face');
    await page.keyboard.press('k');
    await expect(subject).toContainText('Pick one of the frames of this face');
    await hands.click('Base', [78, 2, 10]);
    await expect(subject).toContainText('Base, corner');
    await page.keyboard.press('Escape');
    await hands.click('Base', [40, 0, 10]);
    await hands.click('Base', [80, 20, 10], 'Shift');
    await expect(subject).toContainText('Base, crossing of its edges');
    await hands.click('Base', [40, 14, 10]);
    await page.keyboard.press('u');
    await page.getByRole('option', { name: 'Base, origin' }).click();
    await expect(subject).toContainText('Base, origin');
    await page.keyboard.press('Escape');
    await expect(subject).not.toContainText('Base');
  });

  await test.step('a rim on a rim: previewed, then kept with Enter', async () => {
    await hands.pickRim('Pin', [0, 0, 40], 5);
    await hands.pickRim('Base', [20, 20, 10], 5);
    await w.verb('Revolute').click();
    await expect(page.locator('[data-joint="Pin on Base"]')).toContainText('new · Enter keeps');
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-joint="Pin on Base"]')).toContainText('met');
    await expect.poll(() => hands.placeOf('Pin')).toEqual([20, 20, -30]);
    await expect(hands.state).toHaveText('7 freedoms');
    await w.allSaved();
  });

  await test.step('flipped it stands the other way up; undone it is as before', async () => {
    await page.getByRole('button', { name: 'More for Pin on Base' }).click();
    await page.locator('[data-joint="Pin on Base"]').getByRole('button', { name: 'Flip' }).click();
    await expect.poll(() => hands.placeOf('Pin')).toEqual([20, 20, 50]);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(() => hands.placeOf('Pin')).toEqual([20, 20, -30]);
  });

  await test.step('an offset is an expression in its sentence, and follows a number of the design', async () => {
    const joint = page.locator('[data-joint="Pin on Base"]');
    await joint.getByRole('button', { name: 'Add a number' }).click();
    await joint.getByRole('button', { name: 'an offset' }).click();
    await joint.getByRole('combobox', { name: 'offset' }).fill('plate_thk / 4');
    await page.keyboard.press('Enter');
    await expect.poll(() => hands.placeOf('Pin')).toEqual([20, 20, -27.5]);
    await w.setInLedger('plate_thk', '16 mm');
    await expect.poll(() => hands.placeOf('Pin')).toEqual([20, 20, -20]);
    await w.setInLedger('plate_thk', '10 mm');
  });

  await test.step('dragged it moves, the design does not, and one key goes home', async () => {
    await page.waitForTimeout(300);
    const before = await hands.placeOf('Cap');
    const revision = await w.saved().textContent();
    await hands.dragPart('Cap', [60, 40]);
    await expect.poll(() => hands.placeOf('Cap')).not.toEqual(before);
    await expect(page.getByText('Moved, only to be looked at')).toBeVisible();
    await expect(w.saved()).toHaveText(revision!);
    await page.keyboard.press('h');
    await expect.poll(() => hands.placeOf('Cap')).toEqual(before);
  });

  await test.step('with touch minded, a part pushed against another stops there', async () => {
    await page.getByRole('button', { name: 'Look from front', exact: true }).click();
    await w.choose('Push at touch');
    await hands.dragPart('Cap', [-400, 0], [40, 0, 3]);
    await expect(page.getByText(/^(Base|Pin) touches Cap\.$/)).toBeVisible();
    // The plate ends at 80: the cap comes to it, or to the pin before it, and no farther.
    const [x] = await hands.placeOf('Cap');
    expect(x).toBeGreaterThan(79.9);
    await page.keyboard.press('h');
    await w.choose('Push at touch');
    await page.getByRole('button', { name: 'Look from upper right front' }).click();
  });

  await test.step('a freedom is shown moving, and the joint driven to an angle', async () => {
    await page.getByRole('button', { name: 'Show how Pin can still move' }).click();
    await expect(page.getByText('Moved, only to be looked at')).toBeVisible();
    await page.keyboard.press('h');
    const slider = page.getByRole('slider', { name: 'Pin on Base, turn' });
    await slider.fill('90');
    await expect(page.locator('[data-motion="Pin on Base turn"]')).toContainText('90°');
    await page.keyboard.press('h');
  });

  await test.step('a cap held by one bore: the other is out of line, and the number that cures it is found', async () => {
    await hands.pickRim('Cap', [20, 20, 6], 5);
    await hands.pickRim('Base', [20, 20, 10], 5);
    await w.verb('Rigid').click();
    await page.locator('[data-joint="Cap on Base"]').getByRole('button', { name: 'Add a number' }).click();
    await page.getByRole('button', { name: 'an offset' }).click();
    await page.getByRole('combobox', { name: 'offset' }).fill('6 mm');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-joint="Cap on Base"]')).toContainText('met');
    await expect.poll(() => hands.placeOf('Cap')).toEqual([0, 0, 10]);
    await page.getByRole('button', { name: 'Check the fit' }).click();
    const finding = page.getByTestId('finding').filter({ hasText: 'out of line' });
    await expect(finding).toContainText('Base Ø10 mm and Cap Ø10 mm are 1.5 mm out of line');
    await finding.getByRole('button', { name: 'Which number cures it?' }).click();
    await finding.getByRole('button', { name: 'cap_pitch = 40 mm' }).click();
    await expect(page.getByText('Something has changed or moved since')).toBeVisible();
    await page.getByRole('button', { name: 'Check the fit' }).click();
    await expect(page.getByTestId('finding').filter({ hasText: 'out of line' })).toHaveCount(0);
    await expect(page.getByTestId('finding').filter({ hasText: 'stand in each other' })).toHaveCount(0);
  });

  await test.step('on the way of a motion and with the dials at their ends it is checked as well', async () => {
    const where = page.getByLabel('Where the fit is checked');
    await where.selectOption({ label: 'on the way of Pin on Base, turn' });
    await page.getByRole('button', { name: 'Check the fit' }).click();
    await expect(
      page.getByText(
        'Nothing runs into anything in 49 positions on the way, where what touches at rest was looked at in every third.',
      ),
    ).toBeVisible();
    await where.selectOption({ label: 'with each dial at its ends' });
    await page.getByRole('button', { name: 'Check the fit' }).click();
    await expect(page.getByText('No number of this design is a dial yet')).toBeVisible();
  });

  await test.step('reopened by its address, it stands as it was left', async () => {
    await w.allSaved();
    await page.reload();
    await expect.poll(() => hands.placeOf('Cap')).toEqual([0, 0, 10]);
    await expect(page.locator('[data-joint]')).toHaveCount(2);
  });
});

test('a row held by one expression, gathered and dissolved; motions coupled, a pose kept, the parts counted', async ({
  page,
  workplace: w,
}) => {
  const hands = new AssemblyHands(w);
  await hands.openDesign();
  await page.getByRole('button', { name: 'New assembly' }).click();
  for (const part of ['Base', 'Pin', 'Pin'])
    await page.getByRole('button', { name: `Place ${part}`, exact: true }).click();
  await expect(hands.instance('Pin 2')).toBeVisible();

  await test.step('two pins in two bores, coupled as gears of 20 and 40', async () => {
    for (const [pin, bore] of [
      ['Pin 1', 20],
      ['Pin 2', 60],
    ] as const) {
      // prettier-ignore
      await hands.pickRim(pin, [0, 0, 40], 5);
      await hands.pickRim('Base', [bore, 20, 10], 5);
      await w.verb('Revolute').click();
      await page.keyboard.press('Enter');
      await expect.poll(() => hands.placeOf(pin)).toEqual([bore, 20, -30]);
    }
    await expect(hands.state).toHaveText('2 freedoms');
    await page.getByRole('button', { name: 'Couple two motions' }).click();
    await page.getByRole('button', { name: 'Couple', exact: true }).click();
    await expect(hands.state).toHaveText('1 freedom');
    await page.getByRole('slider', { name: 'Pin 1 on Base, turn' }).fill('90');
    await expect(page.locator('[data-motion="Pin 2 on Base turn"]')).toContainText('-45°');
  });

  await test.step('the pose is kept, left, and looked at again', async () => {
    await w.choose('Keep this pose');
    await page.keyboard.press('h');
    await expect(page.locator('[data-motion="Pin 1 on Base turn"]')).toContainText('0°');
    await page.getByRole('button', { name: 'Pose', exact: true }).click();
    await expect(page.locator('[data-motion="Pin 1 on Base turn"]')).toContainText('90°');
    await page.keyboard.press('h');
  });

  await test.step('a shank is allowed a printed sliding fit; the check knows what it leaves', async () => {
    await hands.click('Pin 1', [3, -4, 8]);
    await w.choose('Allow a fit');
    const step = w.step('Allowance');
    await expect(step).toContainText('Allow 1 face a sliding fit as milled or turned and take it in exports only');
    await expect(step).toContainText('0.009 mm off the face by H7/g6; the sizes here stay nominal');
    await step.getByRole('button', { name: 'milled or turned' }).click();
    await page.getByRole('menuitem', { name: 'printed' }).click();
    await expect(step).toContainText('0.4 mm across, 0.2 mm off the face');
    await page.getByRole('button', { name: 'Work on Assembly' }).click();
    await page.getByLabel('Gaps under').fill('0.5');
    await page.getByRole('button', { name: 'Check the fit' }).click();
    await expect(page.getByTestId('finding').first()).toContainText('0.2 mm apart, as their fit means it');
    await expect(page.getByTestId('finding')).toHaveCount(2);
    await expect(page.getByText('Sizes are as made, with their allowances.')).toBeVisible();
  });

  await test.step('taken apart to be seen, kept so, put together as it was', async () => {
    await w.verb('Take apart').click();
    await expect.poll(() => hands.placeOf('Pin 1')).not.toEqual([20, 20, -30]);
    await w.verb('Keep this view').click();
    await page.getByRole('button', { name: 'Put together' }).first().click();
    await expect.poll(() => hands.placeOf('Pin 1')).toEqual([20, 20, -30]);
    await page.getByRole('button', { name: 'Taken apart', exact: true }).click();
    await expect.poll(() => hands.placeOf('Pin 1')).not.toEqual([20, 20, -30]);
    await page.getByRole('button', { name: 'Put together' }).first().click();
    await expect(hands.state).toHaveText('1 freedom');
  });

  await test.step('a row of three by one expression follows its number', async () => {
    await page.getByRole('button', { name: 'Pick Base', exact: true }).click();
    await w.verb('Row or ring').click();
    await page.getByRole('textbox', { name: 'Step from one to the next' }).fill('base_pitch * 2 + plate_thk');
    await page.getByRole('button', { name: 'Arrange', exact: true }).click();
    await expect.poll(() => hands.placeOf('Base 3')).toEqual([180, 0, 0]);
    await w.setInLedger('plate_thk', '20 mm');
    await expect.poll(() => hands.placeOf('Base 3')).toEqual([200, 0, 0]);
  });

  await test.step('gathered they move as before; moved as one all is held; let move within, the pins turn again; dissolved they stand as before', async () => {
    await page.getByRole('button', { name: 'Pick Base 1', exact: true }).click();
    for (const other of ['Base 2', 'Base 3', 'Pin 1', 'Pin 2'])
      await page.getByRole('button', { name: `Pick ${other}`, exact: true }).click({ modifiers: ['Shift'] });
    await w.verb('Gather').click();
    await expect(hands.instance('Group')).toBeVisible();
    await expect(page.locator('[data-instance]')).toHaveCount(1);
    await expect(hands.state).toHaveText('1 freedom');
    await page.getByRole('button', { name: 'Pick Group', exact: true }).click();
    await w.verb('Move as one').click();
    await expect(hands.state).toHaveText('all held');
    await w.verb('Let move within').click();
    await expect(hands.state).toHaveText('1 freedom');
    await page.getByRole('slider', { name: 'Pin 1 on Base, turn' }).fill('60');
    await expect(page.locator('[data-motion="Pin 2 on Base turn"]')).toContainText('-30°');
    await page.keyboard.press('h');
    await w.verb('Dissolve').click();
    await expect(page.locator('[data-instance]')).toHaveCount(5);
    await expect(hands.state).toHaveText('1 freedom');
  });

  await test.step('counted in the parts list', async () => {
    await w.choose('Parts list');
    await expect(page.getByRole('row').filter({ hasText: 'Base' })).toContainText('3');
    await expect(page.getByRole('row').filter({ hasText: 'Pin' })).toContainText('2');
    await page.getByLabel('Listed by').selectOption('cuts');
    await expect(page.getByRole('row').filter({ hasText: 'steel' })).toHaveText('steel10 mm10 mm40 mm2Pin');
    await page.getByRole('button', { name: 'Pick Pin 1', exact: true }).click();
    await w.verb('Weigh').click();
    const weight = page.getByRole('region', { name: 'Weight' });
    await expect(weight.getByRole('row', { name: 'Mass, kg, of one part' })).toContainText('0.0246');
    await expect(weight.getByRole('row', { name: 'Centre from the origin, mm' })).toContainText('20, 20, 0');
    await expect(weight.getByRole('row', { name: /^Largest moment/ })).toContainText('3.4');
  });

  await test.step('of a crowd the list holds what is in sight, and its last is reached', async () => {
    await page.getByRole('button', { name: 'Pick Pin 2', exact: true }).click();
    await w.verb('Row or ring').click();
    await page.getByRole('spinbutton', { name: 'How many' }).fill('120');
    await page.getByRole('textbox', { name: 'Step from one to the next' }).fill('15 mm');
    await page.getByRole('button', { name: 'Arrange', exact: true }).click();
    await expect.poll(() => hands.placeOf('Pin 121')).not.toEqual([]);
    expect(await page.locator('[data-instance]').count()).toBeLessThan(70);
    await expect(hands.instance('Pin 121')).toBeHidden();
    const list = page.getByRole('list', { name: 'What stands here' });
    await list.hover();
    await expect(async () => {
      await page.mouse.wheel(0, 600);
      await expect(hands.instance('Pin 121')).toBeVisible({ timeout: 100 });
    }).toPass();
    await page.getByRole('button', { name: 'Pick Pin 121', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Pick Pin 121', exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    await w.allSaved();
  });
});
