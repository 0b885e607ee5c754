/** Makes edits that solve sketches too large for the page's thread, and tells what is still loose in them. */
import { applyCommand, solveSketch, withDifferences, type Applied, type Design, type SketchGeometry, type SketchSolution } from '@helb/core'; // prettier-ignore
import * as Comlink from 'comlink';

type Made = Extract<Applied, { ok: true }>;
/** What an edit came to, as it can be told between threads. */
export type Solved =
  | { readonly ok: true; readonly touches: Made['touches']; readonly command: string; readonly args: unknown }
  | { readonly ok: false; readonly message: string };

/** The design that edits are made on, as the page last told it. */
let held: Design | null = null;

const api = {
  hold(design: Design): void {
    held = design;
  },

  follow(patches: Parameters<typeof withDifferences>[1]): void {
    if (held) held = withDifferences(held, patches);
  },

  edit(command: string, args: unknown): Solved {
    const outcome = applyCommand(held!, command, args);
    if (!outcome.ok) return outcome;
    const { touches, edit } = outcome;
    return { ok: true, touches, command: edit.command, args: edit.args };
  },

  /** @param numbers value of each dimension by id, mm or rad */
  solve: (sketch: SketchGeometry, numbers: ReadonlyMap<string, number>): SketchSolution =>
    solveSketch(sketch, (id) => numbers.get(id)!),
};
export type SolvingWorker = typeof api;

Comlink.expose(api);
