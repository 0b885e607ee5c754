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
