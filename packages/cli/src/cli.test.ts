import { newSheet, placeInstances,
  addAssembly, addDimension, addPart, addRequirement, addStep, applyEdit, emptyDesign, faultSentence, inspectDesign, Ledger, readDesign, setDimension,
  writeDesign, type Design, type DialFlex, type Inspection,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from '@helb/kernel';
import { describe, expect, test } from '@jest/globals';
import DxfParser from 'dxf-parser';
import { unzipSync } from 'fflate';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkDesign, isSound } from './check.ts';
import { exportOutlines } from './export-outlines.ts';
import { exportSheet } from './export-sheet.ts';
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

describe('helb check', () => {
  const file = join(directory, 'strip.json');
  const corners = { a: [0, 0], b: [50, 0], c: [50, 12], d: [0, 12] } as const;
  const side = (from: string, to: string) => ({ kind: 'line', from, to });
  const strip = [
    addDimension('thk', { name: 'thk', value: '4 mm', dial: { min: '1 mm', max: '9 mm', step: '0.5 mm' } }),
    addPart('p', 'Strip'),
    addStep('p', 's', { kind: 'sketch', name: 'Outline', plane: { datum: 'floor' }, points: corners, curves: { l1: side('a', 'b'), l2: side('b', 'c'), l3: side('c', 'd'), l4: side('d', 'a') }, constraints: {} }), // prettier-ignore
    addStep('p', 'e', { kind: 'extrude', name: 'Blade', profile: { sketch: 's', regions: 'all' }, way: 'one_way', distance: 'thk', result: 'new_body' }), // prettier-ignore
    addRequirement('r', 'thk >= 2.5'),
  ].reduce((now, edit) => {
    const made = applyEdit(now, edit);
    if (!made.ok) throw new Error(made.message);
    return made.design;
  }, emptyDesign('Strip'));
  writeFileSync(file, writeDesign(strip));
  const check = (...args: string[]) => spawnSync(process.execPath, ['tooling/run.mjs', 'packages/cli/src/main.ts', 'check', file, ...args], { encoding: 'utf8' }); // prettier-ignore

  test('gives up in a sentence on what does not come to an end', () => {
    // So little time that no call of the kernel can keep to it.
    const env = { ...process.env, HELB_CALL_LIMIT_S: '0.05' };
    const ran = spawnSync(process.execPath, ['tooling/run.mjs', 'packages/cli/src/main.ts', 'check', file, '--flex'], { encoding: 'utf8', env }); // prettier-ignore
    expect(ran.status).toBe(1);
    expect(ran.stderr).toMatch(/at one thing for over 0.05 s and gave up; make the design simpler/);
  });

  test('says what is required and how it stands; its exit code tells whether all is kept', () => {
    const sound = check();
    expect(sound.stdout).toContain('✓ thk >= 2.5 mm  (4 mm >= 2.5 mm)');
    expect(sound.status).toBe(0);
    const thin = check('--set', 'thk=2 mm');
    expect(thin.stdout).toContain('✗ thk >= 2.5 mm  (2 mm >= 2.5 mm)');
    expect(thin.status).toBe(2);
  });

  test('with --flex, also how far each dial may go', () => {
    const flexed = check('--flex');
    expect(flexed.stdout).toContain('✗ thk (1 mm to 9 mm): stands from 2.5 mm to 9 mm');
    expect(flexed.stdout).toContain('at 2 mm: thk >= 2.5 mm is not kept: 2 mm >= 2.5 mm');
    expect(flexed.status).toBe(2);
  });

  test('a step that fails is named with its part', async () => {
    const flat = applyEdit(strip, setDimension('e.distance', '0 mm'));
    if (!flat.ok) throw new Error(flat.message);
    const report = await checkDesign(flat.design, { flexed: false, fit: null }, () => {});
    expect(report.faults.map((f) => faultSentence(flat.design, f))).toEqual([
      'Strip, Blade: An extrude of zero makes nothing; give it a distance.',
    ]);
    expect(isSound(report)).toBe(false);
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

describe('assemblies', () => {
  const DRIVE = 'demo/vent-drive.helb.json';
  /** With a rod that does not reach, outside its allowed range. */
  async function tooShort(): Promise<Design> {
    const design = await openDesign(DRIVE, []);
    const [id, { name }] = Object.entries(design.dimensions).find(([, d]) => d.name === 'rod_len')!;
    return { ...design, dimensions: { ...design.dimensions, [id]: { name, value: '45 mm' } } };
  }

  const others = ({ dimensions }: Design, ref: string) => Object.fromEntries(Object.entries(dimensions).filter(([id]) => id !== ref)); // prettier-ignore

  test('are inspected: where each part stands, which joint misses and by how much', async () => {
    const kernel = await loadKernel();
    const { assemblies } = await inspectDesign(await openDesign(DRIVE, []), kernel);
    const drive = assemblies.find((a) => a.name === 'Vent drive')!;
    expect([drive.closed, drive.freedoms, drive.joints.every((j) => j.status === 'met')]).toEqual([true, 1, true]);
    // The crank's far end lies on its circle, wherever the loop has closed.
    const rod = drive.members.find((m) => m.name === 'Push rod')!;
    expect(Math.hypot(rod.at_mm[0], rod.at_mm[1])).toBeCloseTo(32, 6);
    // A rod too short to reach leaves the loop open.
    const short = await inspectDesign(await tooShort(), kernel);
    const open = short.assemblies.find((a) => a.name === 'Vent drive')!;
    expect([open.closed, open.freedoms]).toEqual([false, null]);
    expect(open.joints.some((j) => j.status === 'misses' && j.misses! > 1)).toBe(true);
  });

  test('are checked and exported as they stand; what cannot stand is refused in a sentence', async () => {
    const sound = await openDesign(DRIVE, []);
    expect(isSound(await checkDesign(sound, { flexed: false, fit: null }, () => {}))).toBe(true);
    const file = new TextDecoder().decode(
      (await exportDesign(sound, 'step', undefined, 0, 'Vent drive')) as Uint8Array,
    );
    expect(file.match(/MANIFOLD_SOLID_BREP/g)).toHaveLength(14);
    const open = await tooShort();
    const report = await checkDesign(open, { flexed: false, fit: null }, () => {});
    expect(isSound(report)).toBe(false);
    expect(report.faults.map((f) => faultSentence(open, f))[0]).toMatch(/^Vent drive, .*: It misses by \d/);
    // Flexed, the loop opens where the four lengths no longer close.
    const [ref, rod] = Object.entries(sound.dimensions).find(([, d]) => d.name === 'rod_len')!;
    const wide = { ...sound, dimensions: { [ref]: { ...rod, dial: { min: '40 mm', max: '190 mm' } }, ...others(sound, ref) } }; // prettier-ignore
    const flexed = await checkDesign(wide, { flexed: true, fit: null }, () => {});
    const [{ below, above }] = flexed.flex!.dials.filter((d) => d.dial.ref === ref) as [DialFlex];
    const length = (name: string) => Ledger.of(wide).entries.find((e) => e.name === name)!;
    const at = (name: string) => (Ledger.of(wide).valueOfEntry(length(name)) as { quantity: { value: number } }).quantity.value; // prettier-ignore
    const least = at('base_len') - at('crank_len') - at('arm_len');
    expect([above, isSound(flexed)]).toEqual([null, false]);
    expect(below!.fails).toBeLessThan(least);
    expect(below!.stands).toBeGreaterThan(least);
    expect(below!.stands - below!.fails).toBeLessThanOrEqual(150 / 200);
    expect(below!.faults.every((f) => f.how === 'unmet' && f.assembly !== undefined)).toBe(true);
    await expect(exportDesign(open, 'step', undefined, 0, 'Vent drive')).rejects.toThrow(/cannot all be met/);
    await expect(exportDesign(sound, 'dxf', undefined, 0, 'Vent drive')).rejects.toThrow(/of one part/);
    await expect(exportDesign(sound, 'stl', undefined, 0, 'Gate')).rejects.toThrow(/No assembly is called “Gate”/);
  });
});

describe('sheets', () => {
  test('are written as PDF, SVG or DXF; an assembly is drawn where it stands', async () => {
    const design = await openDesign('demo/vent-drive.helb.json', []);
    const [assembly] = Object.entries(design.assemblies!).find(([, a]) => a.name === 'Vent drive')!;
    const sheet = newSheet('Whole', { assembly }, null);
    const own: Design = { ...design, sheets: { h: sheet }, sheetOrder: ['h'] };
    const pdf = await exportSheet(own, 'pdf', 'Whole');
    expect(new TextDecoder().decode(pdf.slice(0, 5))).toBe('%PDF-');
    const svg = new TextDecoder().decode(await exportSheet(own, 'svg', 'h'));
    expect(svg).toContain('>Vent drive</text>');
    await expect(exportSheet(own, 'step', 'Whole')).rejects.toThrow(
      'A sheet is written as pdf, svg, dxf; not as step.',
    );
    await expect(exportSheet(own, 'pdf', 'Gone')).rejects.toThrow('No sheet is called “Gone” in this design.');
    const gone: Design = { ...own, sheets: { h: { ...sheet, of: { part: 'nothing' } } } };
    await expect(exportSheet(gone, 'pdf', 'h')).rejects.toThrow(/The part that was drawn here is no longer there/);
  });
});

describe('fits', () => {
  const check = (design: Design, fit: number | null) => checkDesign(design, { flexed: false, fit }, () => {});

  test('of every assembly are looked at where they are asked for, gaps below a size too', async () => {
    const design = await openDesign('demo/potting-tray.helb.json', []);
    const sound = await check(design, 0);
    expect(sound.fits).toEqual([]);
    expect(isSound(sound)).toBe(true);
    // The floor lies between them with half its play each side, a little nearer the front, as it lies slanted in its slots.
    expect((await check(design, 0.1)).fits).toEqual(['Tray: Back and Floor are 0.085 mm apart.', 'Tray: Front and Floor are 0.065 mm apart.']); // prettier-ignore
    // A floor as long as the box between front and back is wide: square at its ends, it leans into the front.
    const long = await openDesign('demo/potting-tray.helb.json', [
      { name: 'run', expression: '(depth - 6 * ply - 2 * slot_gap) / cos(tilt)' },
      { name: 'tray_side_outline.c7', expression: '3 * ply + slot_gap' },
    ]);
    const leaning = await check(long, 0);
    expect(leaning.fits).toEqual(['Tray: Front and Floor stand in each other, 879 mm³.']);
    expect(isSound(leaning)).toBe(false);
    // Standing in another assembly as it is, it is told of the tray alone.
    const [tray] = Object.entries(long.assemblies!).find(([, a]) => a.name === 'Tray')!;
    const outer = [addAssembly('outer', 'Bench'), placeInstances('outer', [['i1', { of: { assembly: tray }, home: { at: [500, 0, 0], turn: [0, 0, 0, 1] } }]])]; // prettier-ignore
    const bench = outer.reduce((now, edit) => (applyEdit(now, edit) as { design: Design }).design, long);
    expect((await check(bench, 0)).fits).toEqual(leaning.fits);
  });
});

describe('outlines', () => {
  test('are written board by board; a kept layout that no longer holds is refused', async () => {
    const design = await openDesign('demo/potting-tray.helb.json', []);
    const boards = unzipSync(await exportOutlines(design, 'dxf', 'Ply boards'));
    expect(Object.keys(boards)).toEqual(['board-1.dxf', 'board-2.dxf']);
    const layers = (bytes: Uint8Array) => new Set(new DxfParser().parseSync(new TextDecoder().decode(bytes))!.entities.map((e) => e.layer)); // prettier-ignore
    expect(layers(boards['board-1.dxf']!)).toEqual(new Set(['engraving', 'holes', 'outline', 'board']));
    const kept = (x: number): Design => {
      const own = design.outlines!.tray_boards!;
      return { ...design, outlines: { tray_boards: { ...own, pieces: { cut_front: own.pieces.cut_front! }, pieceOrder: ['cut_front'], laid: [{ piece: 'cut_front', board: 0, turn: 0, x, y: 20 }] } } }; // prettier-ignore
    };
    expect(new TextDecoder().decode(await exportOutlines(kept(20), 'svg', 'tray_boards'))).toContain('<g id="outline"');
    await expect(exportOutlines(kept(500), 'svg', 'tray_boards')).rejects.toThrow(/kept layout of Ply boards does not hold/); // prettier-ignore
    await expect(exportOutlines(design, 'step', 'tray_boards')).rejects.toThrow('Outlines are written as dxf, svg, pdf; not as step.'); // prettier-ignore
    await expect(exportOutlines(design, 'pdf', 'Gone')).rejects.toThrow('No outlines are called “Gone” in this design.'); // prettier-ignore
  });
});
