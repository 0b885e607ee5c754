/** `helb`: looks into, makes and exports design files without a page. */
import { emptyDesign, emptyPart, inspectDesign, ReadingsAdrift, writeDesign, type Design } from '@helb/core';
import { Command } from 'commander';
import { existsSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { isMainThread } from 'node:worker_threads';
import { exportOutlines } from './export-outlines.ts';
import { exportSheet } from './export-sheet.ts';
import { exportDesign, EXPORT_FORMATS, variantOf, type ExportFormat } from './export.ts';
import { openDesign, type SetOption } from './open.ts';
import { checkDesign, isSound, printCheck } from './check.ts';
import { printInspection } from './print.ts';
import { CliError } from './cli-error.ts';
import { runWatched, watchedKernel } from './watched.ts';

const collect = (value: string, before: SetOption[]): SetOption[] => {
  const at = value.indexOf('=');
  if (at < 1)
    throw new CliError(`--set takes name=expression, such as --set "plate_thk=8 mm"; “${value}” has no name.`);
  return [...before, { name: value.slice(0, at).trim(), expression: value.slice(at + 1).trim() }];
};

async function openWanted(file: string, { set, variant }: { set: SetOption[]; variant?: string }): Promise<Design> {
  const design = await openDesign(file, set);
  return variant === undefined ? design : variantOf(design, variant);
}

/** @throws CliError when the file cannot be written */
async function writeTo(file: string, content: Uint8Array | string): Promise<void> {
  try {
    await writeFile(file, content);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const why =
      code === 'ENOENT'
        ? 'its folder is not there; make it first'
        : code === 'EACCES'
          ? 'you may not write there'
          : code === 'EISDIR'
            ? 'that is a folder; give a file’s name'
            : `${code ?? 'the disk refused'}`;
    throw new CliError(`${file} cannot be written: ${why}.`);
  }
}

const program = new Command('helb').description('Look into, make and export design files.');

program
  .command('inspect')
  .description(
    'Print dimensions, sketches, steps, bodies and joints of a design; exit code 2 when a number has no value, or a step or a joint fails.',
  )
  .argument('<file>', 'a design file')
  .option('--json', 'print data instead of text')
  .option('--variant <name>', 'as this variant of the design')
  .option('--set <name=expression>', 'change a dimension first; may be given several times', collect, [])
  .action(async (file: string, options: { json?: boolean; variant?: string; set: SetOption[] }) => {
    const design = await openWanted(file, options);
    const inspection = await inspectDesign(design, await watchedKernel());
    if (options.json) console.log(JSON.stringify(inspection, null, 2));
    else printInspection(inspection);
    const failed =
      inspection.dimensions.some((d) => d.error !== null) ||
      inspection.parts.some((p) => p.steps.some((s) => s.status === 'failed')) ||
      inspection.assemblies.some((a) => a.faults.length > 0 || a.joints.some((j) => j.status !== 'met'));
    if (failed) process.exitCode = 2;
  });

program
  .command('check')
  .description('Say whether a design stands and keeps its requirements; exit code 2 when it does not.')
  .argument('<file>', 'a design file')
  .option('--flex', 'also move every dial through its range, and pairs of them')
  .option('--fit', 'also look for what does not fit where parts stand in assemblies')
  .option('--gap <mm>', 'the same, and tell gaps smaller than this as well')
  .option('--json', 'print data instead of text')
  .option('--variant <name>', 'as this variant of the design')
  .option('--set <name=expression>', 'change a dimension first; may be given several times', collect, [])
  .action(
    async (
      file: string,
      options: { flex?: boolean; fit?: boolean; gap?: string; json?: boolean; variant?: string; set: SetOption[] },
    ) => {
      const gap = Number(options.gap ?? 0);
      if (!(gap >= 0 && Number.isFinite(gap))) throw new CliError(`--gap takes a length in mm, not “${options.gap}”.`);
      const design = await openWanted(file, options);
      const report = await checkDesign(
        design,
        { flexed: options.flex ?? false, fit: options.fit || options.gap !== undefined ? gap : null },
        (what) => console.error(`moving ${what} …`),
      );
      if (options.json) console.log(JSON.stringify(report, null, 2));
      else printCheck(design, report);
      if (!isSound(report)) process.exitCode = 2;
    },
  );

program
  .command('export')
  .description('Write the solids of a design, or the design itself, to a file.')
  .argument('<file>', 'a design file')
  .requiredOption('--as <format>', `one of ${EXPORT_FORMATS.join(', ')}`)
  .requiredOption('-o, --output <file>', 'where to write')
  .option('--part <name>', 'this part only, by name or id')
  .option('--assembly <name>', 'this assembly as it stands, by name or id')
  .option('--sheet <name>', 'this sheet, by name or id, as pdf, svg or dxf')
  .option('--outlines <name>', 'these outlines on their boards, by name or id, as pdf, svg or dxf')
  .option('--cut <mm>', 'with dxf and svg: how wide the cut is, so that the part keeps its size', '0')
  .option('--variant <name>', 'as this variant of the design')
  .option('--set <name=expression>', 'change a dimension first; may be given several times', collect, [])
  .action(
    async (
      file: string,
      options: {
        as: string;
        output: string;
        part?: string;
        assembly?: string;
        sheet?: string;
        outlines?: string;
        cut: string;
        variant?: string;
        set: SetOption[];
      },
    ) => {
      if (!EXPORT_FORMATS.includes(options.as as ExportFormat)) {
        throw new CliError(`“${options.as}” is not a format Helb writes; use ${EXPORT_FORMATS.join(' or ')}.`);
      }
      const design = await openWanted(file, options);
      const cut = Number(options.cut);
      if (!Number.isFinite(cut)) throw new CliError(`--cut takes a number of mm; “${options.cut}” is none.`);
      const { sheet, outlines, part, assembly } = options;
      if ([sheet, outlines, part ?? assembly].filter((wanted) => wanted !== undefined).length > 1)
        throw new CliError('Give --sheet, --outlines, --part or --assembly, one of them.');
      await writeTo(
        options.output,
        sheet !== undefined
          ? await exportSheet(design, options.as, sheet)
          : outlines !== undefined
            ? await exportOutlines(design, options.as, outlines)
            : await exportDesign(design, options.as as ExportFormat, part, cut, assembly),
      );
    },
  );

program
  .command('new')
  .description('Make an empty design file.')
  .argument('<file>', 'where to write')
  .option('--name <name>', 'name of the design', 'New design')
  .option('--force', 'write over an existing file')
  .action(async (file: string, options: { name: string; force?: boolean }) => {
    if (existsSync(file) && !options.force)
      throw new CliError(`${file} is there already; give --force to write over it.`);
    const design: Design = {
      ...emptyDesign(options.name),
      parts: { part1: emptyPart('Part 1') },
      partOrder: ['part1'],
    };
    await writeTo(file, writeDesign(design));
  });

// Whoever reads what is printed may have seen enough (`helb inspect … | head`).
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE')
    console.error(`What helb prints could not be written (${error.code}); look whether the disk is full.`);
  process.exit(error.code === 'EPIPE' ? 0 : 1);
});

if (isMainThread) await runWatched(new URL(import.meta.url));
else await run();

async function run(): Promise<void> {
  try {
    await program.parseAsync();
  } catch (error) {
    if (process.env.HELB_DEBUG) throw error;
    const { message } = error as Error;
    // What is no refusal of ours is a fault of the program or of its kernel; its stack helps no designer.
    console.error(error instanceof CliError || error instanceof ReadingsAdrift ? message : `helb failed (${message.split('\n')[0]}); try with fewer or simpler steps, and set HELB_DEBUG=1 to see where.`); // prettier-ignore
    process.exitCode = 1;
  }
}
