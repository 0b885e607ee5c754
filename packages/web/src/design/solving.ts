/** The worker that solves large sketches; started when first needed. */
import { differences, type Design, type SketchGeometry, type SketchSolution } from '@helb/core';
import * as Comlink from 'comlink';
import { answersOrFails } from '../evaluation/answers-or-fails.ts';
import type { Solved, SolvingWorker } from './solving.worker.ts';

/** Sketches of more constraints take longer than a moment to solve, the first time above all. */
export const SOON_SOLVED = 250;

let remote: Comlink.Remote<SolvingWorker> | null = null;
/** The design that the worker holds. */
let handed: Design | null = null;

function started(): Comlink.Remote<SolvingWorker> {
  if (remote) return remote;
  const worker = new Worker(new URL('./solving.worker.ts', import.meta.url), { type: 'module', name: 'solving' });
  const { asked, end } = answersOrFails(Comlink.wrap<SolvingWorker>(worker));
  worker.onerror = (event) => {
    event.preventDefault();
    worker.terminate();
    remote = handed = null;
    end('The solver failed and was started again; try once more.');
  };
  return (remote = asked);
}

/** What the edit comes to on this design. @throws Error when the worker fails */
export async function solvedEdit(design: Design, command: string, args: unknown): Promise<Solved> {
  const own = started();
  // What it could not follow is handed over whole the next time.
  const forget = (): void => void (remote === own && (handed = null));
  if (handed !== design) (handed ? own.follow(differences(handed, design)) : own.hold(design)).catch(forget);
  handed = design;
  return own.edit(command, args);
}

/** @param numbers value of each dimension by id, mm or rad. @throws Error when the worker fails, or the sketch cannot be solved at all */
export const solvedSketch = async (
  sketch: SketchGeometry,
  numbers: ReadonlyMap<string, number>,
): Promise<SketchSolution> => started().solve(sketch, numbers);
