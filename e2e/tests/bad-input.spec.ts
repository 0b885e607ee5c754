import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { AssemblyHands } from './assembly-hands.ts';
import { expect, test } from './workplace.ts';

test('expressions that cannot be: each a sentence where the designer is looking, the old value kept', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  for (const [typed, sentence] of [
    ['6 mm +', 'The expression stops too early'],
    ['6 mm + 3 deg', 'A length cannot be added to an angle.'],
    ['edge_margin', 'did you mean “wall_bracket.edge_margin”?'],
    ['wall_bracket.edge_margin', 'goes in a circle'],
    ['1/0', 'This divides by zero.'],
  ] as const) {
    await w.setInLedger('plate_thk', typed);
    await expect(page.getByRole('alert')).toContainText(sentence);
    await page.keyboard.press('Escape');
    await expect(w.row('plate_thk')).toContainText('6 mm');
  }
  await w.setInLedger('wall_bracket.plate.distance', '0');
  await expect(w.step('Plate')).toContainText('An extrude of zero makes nothing; give it a distance.');
  await expect(page.getByTestId('findings')).toContainText('finding');
  await page.getByTestId('findings').getByRole('button').click();
  await expect(page.getByRole('menuitem', { name: /Wall bracket, Plate: An extrude of zero/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(w.step('Plate')).not.toContainText('makes nothing');
});

test('an open profile and a deleted line say what is missing', async ({ page, workplace: w }) => {
  await w.newDesign('Open');
  await page.getByRole('button', { name: 'wall plane' }).click();
  await w.viewSettled();
  await page.keyboard.press('l');
  await w.click(-20, 0);
  await w.click(20, 0);
  await w.click(20, 15);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await expect(page.getByRole('alert')).toContainText(
    'There is no closed region, so this is a wall along the open outline; join its ends for a solid.',
  );
  await expect(w.step('Extrude 1')).toContainText('open outline as a wall of');
  await page.getByRole('button', { name: 'Drop' }).click();
  await expect(w.step('Extrude 1')).toHaveCount(0);
});

test('broken, foreign and oversized files are refused in words', async ({ page, workplace: w }, info) => {
  await page.goto(w.helb.url);
  await page.getByRole('link', { name: /Glasshouse/ }).click();
  const offer = async (name: string, content: string) => {
    const path = info.outputPath(name);
    await writeFile(path, content);
    await page.getByLabel('Design file').setInputFiles(path);
  };
  await offer('cut.json', '{"format": "helb-design", "ver');
  await expect(page.getByRole('alert')).toContainText(
    'cut.json: This is not a design file: it is not JSON, or it was cut short.',
  );
  await offer('other.json', '{"a": 1}');
  await expect(page.getByRole('alert')).toContainText('its “format” is not “helb-design”');
  await offer('huge.json', 'x'.repeat(17 * 1024 * 1024));
  await expect(page.getByRole('alert')).toContainText('is larger than 16 MB');
});

test('a kernel that crashes or hangs is started again and says so; the design is untouched', async ({
  page,
  workplace: w,
}) => {
  await w.openDemo();
  const evaluation = () => page.workers().find((worker) => worker.url().includes('evaluation'))!;

  await evaluation().evaluate(
    () =>
      void setTimeout(() => {
        throw new Error('crash');
      }),
  );
  await expect(page.getByRole('alert')).toContainText('The geometry kernel failed and was started again');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await w.setInLedger('vent_length', '700 mm');
  await expect(w.caption()).toContainText('96 × 34 × 152 mm');

  // From here on the page's clock can be set forward.
  await page.clock.install();
  void evaluation()
    .evaluate(() => {
      for (;;) Math.sqrt(2);
    })
    .catch(() => {});
  await w.setInLedger('vent_length', '720 mm');
  await page.clock.fastForward(15_000);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.clock.fastForward(6_000);
  await expect(page.getByRole('alert')).toContainText('took longer than 20 s and was stopped');
  await expect(w.row('vent_length')).toContainText('720 mm');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(w.caption()).toContainText('96 × 34 × 156 mm', { timeout: 30_000 });
});

test('a joint that a number opens is found from any part, and mended there', async ({ page, workplace: w }) => {
  const drive = JSON.parse(readFileSync('demo/vent-drive.helb.json', 'utf8')) as { name: string; dimensions: Record<string, { name: string; dial?: unknown }> }; // prettier-ignore
  drive.name = 'Short rod';
  Object.values(drive.dimensions).find((d) => d.name === 'rod_len')!.dial = { min: '40 mm', max: '190 mm' };
  await new AssemblyHands(w).openDesign(JSON.stringify(drive));
  await expect(page.getByTestId('findings')).toHaveCount(0);
  await w.setInLedger('rod_len', '47 mm');
  const findings = page.getByTestId('findings');
  await expect(findings).toContainText('1 finding');
  await findings.getByRole('button').click();
  await page.getByRole('menuitem', { name: /^Vent drive, .*misses by \d.*change a number/ }).click();
  await expect(page.getByTestId('together-state')).toHaveText('cannot be met');
  await w.setInLedger('rod_len', '150 mm');
  await expect(findings).toHaveCount(0);
  await expect(page.getByTestId('together-state')).toHaveText('1 freedom');
  // Only tried, it is told beside what else it changes.
  await w.row('rod_len').getByRole('slider').focus();
  await page.keyboard.press('Home');
  const row = page.getByRole('region', { name: 'Trial' }).getByRole('row', { name: /joints not met/ });
  await expect(row).toHaveText(/none\s*[1-9]/);
});
