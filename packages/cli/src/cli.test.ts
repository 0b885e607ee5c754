import { inspectDesign, readDesign, type Inspection } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { exportDesign } from './export.ts';
import { openDesign } from './open.ts';

const DEMO = 'demo/roof-vent-opener.helb.json';
const directory = mkdtempSync(join(tmpdir(), 'helb-cli-'));

/** The example of docs/format/README.md, with its comments taken out. */
async function documentedExample(): Promise<string> {
  const page = await readFile('docs/format/README.md', 'utf8');
  const block = /```jsonc\n([\s\S]*?)```/.exec(page)![1]!;
  return block.replace(/\s\/\/.*$/gm, '');
}

describe('helb', () => {
  test('the example of the format’s page opens, settles, and has the volume it says', async () => {
    const read = readDesign(await documentedExample());
    if (!read.ok) throw new Error(read.message);
    const { parts } = await inspectDesign(read.design, await loadKernel());
    expect(parts[0]!.sketches[0]).toMatchObject({ settled: true, freedoms: 0 });
    expect(parts[0]!.bodies[0]!.volume_mm3).toBeCloseTo((80 * 50 - Math.PI * 36) * 6, 6);
  });

  test('--set changes a dimension by name, and everything follows', async () => {
    const kernel = await loadKernel();
    const volume = async (expression: string): Promise<number> => {
      const inspection: Inspection = await inspectDesign(
        await openDesign(DEMO, [{ name: 'pin_dia', expression }]),
        kernel,
      );
      return inspection.parts.find((p) => p.name === 'Spacer washer')!.bodies[0]!.volume_mm3;
    };
    const ring = (pin: number) => (Math.PI / 4) * ((2 * pin + 2) ** 2 - (pin + 0.4) ** 2) * 1.5;
    expect(await volume('10 mm')).toBeCloseTo(ring(10), 6);
    expect(await volume('1/2 in')).toBeCloseTo(ring(12.7), 6);
  });

  test.each([
    [
      'a name that is not there',
      [{ name: 'nothing', expression: '1' }],
      'No dimension is called “nothing” in this design.',
    ],
    [
      'a name of several',
      [{ name: 'bore', expression: '1' }],
      '“bore” could mean wall_bracket.boss_ring.bore or spacer_washer.ring.bore or sector_arm.bore_round.bore; write it in full.',
    ],
    [
      'an expression that clashes',
      [{ name: 'pin_dia', expression: '3 deg + 1 mm' }],
      '--set pin_dia: An angle cannot be added to a length.',
    ],
  ])('--set with %s is refused in a sentence', async (_, set, message) => {
    await expect(openDesign(DEMO, set)).rejects.toThrow(message);
  });

  test('a file that is missing or broken is refused in a sentence', async () => {
    await expect(openDesign(join(directory, 'none.json'), [])).rejects.toThrow('cannot be read; check its name.');
    const broken = join(directory, 'broken.json');
    writeFileSync(broken, '{');
    await expect(openDesign(broken, [])).rejects.toThrow(
      'broken.json: This is not a design file: it is not JSON, or it was cut short.',
    );
  });

  test('exports one part or all, and says when a step fails', async () => {
    const design = await openDesign(DEMO, []);
    const step = new TextDecoder().decode((await exportDesign(design, 'step', 'Hinge pin')) as Uint8Array);
    expect(step).toContain("PRODUCT('Hinge pin'");
    expect(step).not.toContain("PRODUCT('Wall bracket'");
    const back = readDesign((await exportDesign(design, 'helb', undefined)) as string);
    expect(back.ok && back.design).toEqual(design);
    await expect(exportDesign(design, 'stl', 'Wheel')).rejects.toThrow('No part is called “Wheel” in this design.');
    const flat = await openDesign(DEMO, [{ name: 'wall_bracket.plate.distance', expression: '0' }]);
    await expect(exportDesign(flat, 'stl', undefined)).rejects.toThrow(
      'Wall bracket has a step that fails (Plate: An extrude of zero makes nothing; give it a distance.); mend it before exporting.',
    );
  });
});

describe('a file that cannot be written', () => {
  test.each([
    ['in a folder that is not there', join(directory, 'nowhere', 'x.step'), /its folder is not there; make it first/],
    ['that is a folder', directory, /that is a folder/],
  ])('%s is told in a sentence, with no stack', (_, file, message) => {
    const ran = spawnSync(process.execPath, ['tooling/run.mjs', 'packages/cli/src/main.ts', 'export', DEMO, '--as', 'helb', '-o', file], { encoding: 'utf8' }); // prettier-ignore
    expect(ran.status).toBe(1);
    expect(ran.stderr).toMatch(message);
    expect(ran.stderr).not.toMatch(/\n\s+at /);
  });
});
