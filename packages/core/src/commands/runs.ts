/** Edits of runs: motions driven over time, kept by name. */
import { z } from 'zod';
import type { Assembly } from '../document/assembly.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { MOST_POINTS, pointKeys, Run, RunDrive } from '../document/run.ts';
import type { Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { assemblyIn, refuseIfUsed } from './assembly.ts';
import { freeName } from './free-name.ts';
import { giveNumber } from './joints.ts';

const runIn = (own: Assembly, id: string): Run => {
  const run = own.runs?.[id];
  if (!run) throw new EditRefused('This run no longer exists.');
  return run;
};

const addRunCommand = declareCommand({
  name: 'add-run',
  args: z.strictObject({ assembly: Id, id: Id, name: z.string().max(500) }),
  label: ({ name }) => `Add the run ${name}`,
  run(draft, { assembly, id, name }) {
    const own = assemblyIn(draft, assembly);
    if (own.runs?.[id]) throw new EditRefused('A run of this id is there already.');
    (own.runs ??= {})[id] = { name: freeName(name, Object.values(own.runs)), drives: {} };
  },
});
export const addRun = (assembly: string, id: string, name: string): Edit => addRunCommand({ assembly, id, name });

const removeRunCommand = declareCommand({
  name: 'remove-run',
  args: z.strictObject({ assembly: Id, id: Id }),
  label: () => 'Remove a run',
  run(draft, { assembly, id }) {
    const own = assemblyIn(draft, assembly);
    refuseIfUsed(draft, Object.keys(runIn(own, id).drives));
    delete own.runs![id];
  },
});
export const removeRun = (assembly: string, id: string): Edit => removeRunCommand({ assembly, id });

const Changed = z.strictObject({
  name: z.string().max(500).optional(),
  push: z.boolean().optional(),
  sprung: z.boolean().optional(),
});
const changeRunCommand = declareCommand({
  name: 'change-run',
  args: z.strictObject({ assembly: Id, id: Id, to: Changed }),
  label: ({ to }) => (to.name === undefined ? 'Change a run' : `Rename a run to ${to.name}`),
  run(draft, { assembly, id, to }) {
    const run = runIn(assemblyIn(draft, assembly), id);
    if (to.name !== undefined) {
      if (!to.name.trim()) throw new EditRefused('A run needs a name.');
      run.name = to.name.trim().slice(0, 80);
    }
    for (const key of ['push', 'sprung'] as const) {
      if (to[key] === true) run[key] = true;
      else if (to[key] === false) delete run[key];
    }
  },
});
export const changeRun = (assembly: string, id: string, to: z.infer<typeof Changed>): Edit =>
  changeRunCommand({ assembly, id, to });

const driveCommand = declareCommand({
  name: 'drive-in-run',
  args: z.strictObject({ assembly: Id, run: Id, id: Id, drive: RunDrive.nullable() }),
  label: ({ drive }) => (drive ? `Drive ${drive.name} in a run` : 'Drive one motion less in a run'),
  run(draft, { assembly, run, id, drive }) {
    const own = assemblyIn(draft, assembly);
    const { drives } = runIn(own, run);
    if (!drive) {
      if (!drives[id]) throw new EditRefused('This run drives that motion no longer.');
      refuseIfUsed(draft, [id]);
      delete drives[id];
      return;
    }
    const twin = Object.entries(drives).find(([k, d]) => k !== id && d.joint === drive.joint && d.motion === drive.motion); // prettier-ignore
    if (twin) throw new EditRefused(`This run drives ${drive.name} already; give that more points.`);
    const before = drives[id]?.numbers ?? {};
    drives[id] = { ...structuredClone(drive), numbers: before };
    for (const [key, text] of Object.entries(drive.numbers))
      if (text !== undefined && before[key] !== text) giveNumber(draft, assembly, id, key, text);
  },
});

/** Drive a motion in a run, or change how; null drives it no longer. Numbers are as typed, or as stored already. */
export const driveInRun = (assembly: string, run: string, id: string, drive: RunDrive | null): Edit =>
  driveCommand({ assembly, run, id, drive });

const pointCommand = declareCommand({
  name: 'point-in-run',
  args: z.strictObject({ assembly: Id, run: Id, drive: Id, at: z.string().max(2000), to: z.string().max(2000) }),
  label: () => 'Add a point to a run',
  run(draft, { assembly, run, drive, at, to }) {
    const own = runIn(assemblyIn(draft, assembly), run).drives[drive];
    if (!own) throw new EditRefused('This run drives that motion no longer.');
    const free = Array.from({ length: MOST_POINTS }, (_, i) => pointKeys(i + 1)).find((keys) => keys.every((k) => own.numbers[k] === undefined)); // prettier-ignore
    if (!free) throw new EditRefused(`A motion goes through at most ${MOST_POINTS} points in a run.`);
    giveNumber(draft, assembly, drive, free[0], at);
    giveNumber(draft, assembly, drive, free[1], to);
  },
});
/** One more point of a motion’s way: seconds, and where it is then, as typed. */
export const addPointToRun = (assembly: string, run: string, drive: string, at: string, to: string): Edit =>
  pointCommand({ assembly, run, drive, at, to });

const dropPointCommand = declareCommand({
  name: 'drop-point-in-run',
  args: z.strictObject({ assembly: Id, run: Id, drive: Id, point: z.int().min(1).max(MOST_POINTS) }),
  label: () => 'Take a point from a run',
  run(draft: Design, { assembly, run, drive, point }) {
    if (!runIn(assemblyIn(draft, assembly), run).drives[drive])
      throw new EditRefused('This run drives that motion no longer.');
    for (const key of pointKeys(point)) giveNumber(draft, assembly, drive, key, null);
  },
});
export const dropPointFromRun = (assembly: string, run: string, drive: string, point: number): Edit =>
  dropPointCommand({ assembly, run, drive, point });
