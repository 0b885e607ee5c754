/** Faces worked on: rounded into each other, brought into a plane, and written on. */
import { expect, test } from './hands.ts';

test('a bevel rounded over from face to face, and the far face brought to a plane above', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newPlate('Plate');
  await hands.look('upper right front');
  await page.keyboard.press('f');
  await w.choose('Chamfer');
  await w.pick([0, -20, 10]);
  await hands.give('Chamfer 1: distance', '2 mm');
  await w.keep('Chamfer 1');
  await w.pick([0, 5, 10]);
  await w.pick([0, -20, 3], { modifiers: ['Shift'] });
  await w.choose('Face fillet');
  await hands.give('Face fillet 1: radius', '1 mm');
  await w.step('Face fillet 1').getByRole('button', { name: 'Make it 2 mm' }).click();
  await expect(w.step('Face fillet 1').getByRole('alert')).toHaveCount(0);
  await hands.number('Face fillet 1', 'radius', '6 mm');
  await w.keep('Face fillet 1');
  await w.choose('Datum plane');
  await w.stage().getByRole('button', { name: 'side plane' }).click();
  await hands.number('Plane 1', 'distance', '42 mm');
  await w.keep('Plane 1');
  await w.choose('Replace face');
  await w.pick([30, 5, 5], { modifiers: ['Shift'] });
  await w.stage().getByRole('button', { name: 'Plane 1' }).click();
  await w.keep('Replace face 1');
  await expect(w.caption()).toContainText('72 × 40 × 10 mm');
});

test('lettering wound round a drum', { tag: '@long' }, async ({ workplace: w, hands }) => {
  await hands.letteredDrum('VENT 7', '30 mm');
  await w.keep('Emboss 1');
  await expect(w.step('Emboss 1')).toContainText('Sketch 2, all regions, holes open');
  await expect(w.caption()).toContainText('36.5 × 30 mm');
  await hands.turn('Emboss 1', 'raised', 'sunk in');
  await expect(w.caption()).toContainText('36 × 36 × 30 mm');
});

test('a frame set up at a corner: the part is weighed in its axes, and drawn on from its origin', async ({
  page,
  workplace: w,
  hands,
}) => {
  await w.newPlate('Weighed');
  await hands.look('upper right front');
  await w.pick([30, -20, 10]);
  await w.choose('Datum frame');
  await hands.number('Frame 1', 'turn', '90 deg');
  await w.keep('Frame 1');
  await page.keyboard.press('Escape');
  await w.stage().getByRole('button', { name: 'Frame 1' }).click();
  await w.choose('Weigh');
  const weight = page.getByRole('region', { name: 'Weight' });
  // The middle of the plate lies 30 mm to its left and 20 mm behind the corner, 5 mm under it.
  await expect(weight.getByRole('row', { name: 'Centre from Frame 1' })).toContainText('20, 30, -5');
  await weight.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('k');
  await w.viewSettled();
  await hands.circle([0, 0], '6');
  await page.keyboard.press('x');
  await w.keep('Extrude 2');
  await expect(w.caption()).toContainText('63 × 43 × 20 mm');
});
