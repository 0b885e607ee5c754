/** Each main view, from the demo data, as docs/screenshots shows it. */
import { expect, Hands, test } from '../tests/hands.ts';
import { enter, invite, linkTo, test as house } from '../tests/house.ts';
import { Workplace } from '../tests/workplace.ts';

const DIRECTORY = `${import.meta.dirname}/../../docs/screenshots`;

/** With all computed, and the pointer out of the way unless it shows something. */
async function take(w: Workplace, name: string, pointer = false): Promise<void> {
  if (!pointer) await w.page.mouse.move(640, 20);
  await allComputed(w);
  await w.page.screenshot({ path: `${DIRECTORY}/${name}.png` });
}
/** In the tray too. */
async function allComputed(w: Workplace): Promise<void> {
  await expect(w.page.getByText('computing', { exact: true })).toHaveCount(0, { timeout: 60_000 });
  await new Hands(w).computed();
}
const partOf = async (w: Workplace, part: string) => {
  await w.page.getByRole('button', { name: `Work on ${part}` }).click();
  await new Hands(w).computed();
};
/** A T drawn without numbers but two. */
async function stopBracket(w: Workplace): Promise<void> {
  await w.newSketch('Stop bracket');
  await w.draw('Line', [-40, -20], [40, -20], [40, -4], [8, -4], [8, 30], [-18, 30], [-18, -4], [-40, -4], [-40, -20]);
  await w.dimension('80', [0, -20]);
  await w.dimension('16', [40, -12]);
  await w.page.getByRole('button', { name: 'Show freedoms' }).click();
}

test.beforeEach(({ page }) => page.setDefaultTimeout(10_000));

// First, while the projects are as they come.
test('a sheet and its audit', async ({ page, workplace: w }) => {
  await w.openDemo('post-foot');
  await page.getByRole('button', { name: 'Work on Post foot sheet' }).click();
  const audit = page.getByRole('region', { name: 'Audit' });
  await expect(audit).toContainText('Everything is settled.');
  const words = page.getByTestId('sheet').locator('[data-size] text');
  for (const size of ['Ø26', '54']) {
    await words.filter({ hasText: new RegExp(`^${size}$`) }).click();
    await page.keyboard.press('Delete');
  }
  await expect(audit.locator('[data-finding="missing"]')).toHaveCount(2);
  await take(w, 'sheet');
});

test('part', async ({ workplace: w }) => {
  await w.openDemo();
  await take(w, 'part');
});

test('steps', async ({ workplace: w }) => {
  await w.openDemo();
  await partOf(w, 'Knob');
  await w.recipe().getByText('Grooves', { exact: true }).scrollIntoViewIfNeeded();
  await take(w, 'steps');
});

/** The demo’s drive, as it stands together. */
async function openDrive({ page, helb }: Workplace): Promise<void> {
  await page.goto(helb.url);
  await page.getByRole('link', { name: 'Glasshouse' }).click();
  await page.getByRole('link', { name: 'Vent drive' }).first().click();
  await page.locator('[data-assembly="Vent drive"]').click();
  await expect(page.getByTestId('together-state')).toHaveText('1 freedom', { timeout: 60_000 });
}

test('together', async ({ page, workplace: w }) => {
  await openDrive(w);
  await page.getByLabel('Gaps under').fill('0.05');
  await page.getByRole('button', { name: 'Check the fit' }).click();
  await expect(page.getByText('all bores line up')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('list', { name: 'What stands here' }).scrollIntoViewIfNeeded();
  await page.getByRole('toolbar', { name: 'Verbs' }).getByRole('button', { name: 'Parts list' }).click();
  await page.mouse.move(640, 20);
  await page.screenshot({ path: `${DIRECTORY}/together.png` });
});

test('motion', async ({ page, workplace: w }) => {
  await openDrive(w);
  await page.getByRole('button', { name: 'Chart Shaft in frame, turn' }).click();
  await page.getByLabel('What is charted').selectOption({ label: 'Arm on frame, turn' });
  await page.getByRole('slider', { name: 'Shaft in frame, turn' }).fill('-20');
  await expect(page.getByText('Moved, only to be looked at')).toBeVisible();
  await page.mouse.move(640, 20);
  await expect(page.getByText('computing', { exact: true })).toHaveCount(0, { timeout: 60_000 });
  await page.screenshot({ path: `${DIRECTORY}/motion.png` });
});

test('section', async ({ page, workplace: w }) => {
  await w.openDemo();
  await partOf(w, 'Gear cover');
  await w.verb('Section').click();
  const bar = page.getByRole('form', { name: 'Section' });
  await bar.getByRole('button', { name: /^And across/ }).click();
  await take(w, 'section');
});

house('signing in, and who may do what', async ({ page, browser, house: helb }) => {
  await page.goto(helb.url);
  await page.getByLabel('Mail address').fill('ida@vents.example');
  await page.screenshot({ path: `${DIRECTORY}/signing-in.png` });
  await enter(page, /http\S+welcome#\S+/.exec(helb.said)![0], 'Ida Holm', 'Begin', 'ida@vents.example');
  await page.getByRole('link', { name: /Glasshouse/ }).click();
  for (const [name, address, role] of [
    ['Ben Okoro', 'ben@vents.example', 'works'],
    ['Cas Lind', 'cas@vents.example', 'looks'],
  ] as const) {
    await invite(page, address, role);
    const own = await (await browser.newContext()).newPage();
    await enter(own, await linkTo(helb, address), name, 'Join');
    await expect(own.getByRole('link', { name: /Roof-vent opener/ })).toBeVisible();
  }
  await invite(page, 'dov@vents.example', 'works');
  await page.reload();
  await expect(page.getByText('Cas Lind')).toBeVisible();
  await page.waitForTimeout(3000);
  await page.getByRole('region', { name: 'Who may do what' }).evaluate((own) => own.scrollIntoView({ block: 'end' }));
  await page.screenshot({ path: `${DIRECTORY}/who-may.png` });
});

test('history', async ({ page, browser, workplace: w, helb }) => {
  await w.openDemo();
  await w.setInLedger('plate_thk', '8 mm');
  await w.allSaved();
  const elsewhere = await browser.newContext({ viewport: page.viewportSize() });
  const other = new Workplace(await elsewhere.newPage(), helb);
  await other.page.goto(page.url());
  await expect(other.caption()).toContainText('kg');
  await other.setInLedger('pin_dia', '12 mm');
  await other.setInLedger('plate_thk', '10 mm');
  await other
    .step('Plate')
    .getByRole('button', { name: /^Plate, distance/ })
    .click();
  await w.reveal('plate_thk');
  await expect(w.row('plate_thk')).toContainText('10 mm');
  await expect(w.caption()).toContainText('0.376 kg');
  await expect(w.row('bracket_mass')).toContainText('0.376');
  await page.getByRole('button', { name: 'History', exact: true }).click();
  await page.getByRole('button', { name: 'Set plate_thk to 8 mm' }).click();
  await expect(page.getByRole('region', { name: 'Compared' })).toContainText('mass of Wall bracket', {
    timeout: 60_000,
  });
  // What was is not saved, so that is not waited for.
  await expect(page.getByText('computing', { exact: true })).toHaveCount(0, { timeout: 60_000 });
  await w.reveal('bracket_mass');
  await expect(w.row('bracket_mass')).toContainText('0.307');
  await page.screenshot({ path: `${DIRECTORY}/history.png` });
  await elsewhere.close();
});

test('ledger', async ({ page, workplace: w }) => {
  await w.openDemo();
  await allComputed(w);
  const dial = (name: string) => w.row(name).getByRole('slider');
  await dial('plate_thk').fill('8.5');
  await dial('vent_length').fill('700');
  await expect(page.getByText('Trying')).toBeVisible();
  await take(w, 'ledger');
});

test('trace', async ({ page, workplace: w }) => {
  await w.openDemo();
  await w.row('plate_thk').hover();
  await page.getByRole('button', { name: 'More for plate_thk' }).click();
  await page.getByRole('menuitem', { name: 'Trace it' }).click();
  await take(w, 'trace');
});

test('variants', async ({ page, workplace: w }) => {
  await w.openDemo();
  await page.getByRole('button', { name: /^Variants/ }).click();
  const table = page.getByRole('region', { name: 'Variants' });
  await table.getByRole('button', { name: 'Compute all' }).click();
  await expect(table.getByRole('status')).toHaveCount(0, { timeout: 90_000 });
  await take(w, 'variants');
});

test('flex', async ({ page, workplace: w }) => {
  await w.openDemo();
  await page.getByRole('button', { name: 'Flex' }).click();
  const flex = page.getByRole('region', { name: 'Flex' });
  await flex.getByRole('button', { name: 'Move every dial' }).click();
  await expect(flex.getByText('each dial alone, then in pairs', { exact: true })).toBeVisible({ timeout: 170_000 });
  await take(w, 'flex');
});

test('guide', async ({ page, workplace: w }) => {
  await page.goto(w.helb.url);
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(w.stage().getByRole('button', { name: 'floor plane' })).toBeVisible();
  await take(w, 'guide');
});

test('sketch', async ({ page, workplace: w }) => {
  await w.openDemo();
  await new Hands(w).more('Wall holes', 'Open the sketch');
  await w.viewSettled();
  await page.waitForTimeout(500);
  await take(w, 'sketch');
});

test('sketch-loose', async ({ page, workplace: w }) => {
  await stopBracket(w);
  await page
    .getByRole('button', { name: /can still slide up and down\.$/ })
    .first()
    .hover();
  await take(w, 'sketch-loose', true);
});

test('sketch-clashing', async ({ page, workplace: w }) => {
  await stopBracket(w);
  await w.click(40, -12);
  await w.click(20, -20);
  await w.verb(/^Parallel/).click();
  await expect(page.getByRole('group', { name: 'What disagrees' })).toBeVisible();
  await take(w, 'sketch-clashing');
});

test('outlines on their boards', async ({ page, workplace: w }) => {
  await w.openDemo('potting-tray');
  await page.getByRole('button', { name: 'Work on Ply boards' }).click();
  await expect(page.getByTestId('totals')).toContainText('5 pieces on 2 boards');
  await expect(page.getByText('Looking for a better layout')).toHaveCount(0);
  await take(w, 'outlines');
});

test('a brief', async ({ page, workplace: w }, info) => {
  await w.openDemo('post-foot');
  await page.getByRole('button', { name: 'Work on Post foot sheet' }).click();
  await expect(page.getByText('Everything is settled.')).toBeVisible();
  const waiting = page.waitForEvent('download');
  await w.verb('Write PDF').click();
  const path = info.outputPath('foot.pdf');
  await (await waiting).saveAs(path);
  await page.getByRole('button', { name: 'Work on Post foot', exact: true }).click();
  await page.getByRole('button', { name: /^Brief/ }).click();
  const asking = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a picture or PDF' }).click();
  await (await asking).setFiles(path);
  await expect(page.getByTestId('brief-state')).toContainText('9');
  await page.waitForTimeout(1500);
  await take(w, 'brief');
});
