/** Looking further for a solution of a drawing far from any: from other starts, read afresh. */
import type { SketchGeometry } from './schema.ts';
import { sketchSize, type Settled } from './settle.ts';
import type { Group } from './solver/groups.ts';
import { readGeometry, type System } from './system.ts';

interface Stand extends Settled {
  /** What it was solved from. */
  readonly sketch: SketchGeometry;
  readonly system: System;
}

/** How far what is stuck is moved, as shares of the sketch's size, by turns. */
const SHARES = [0.02, 0.1, 0.2, 0.05, 0.3];
const MOST_TRIES = 200;
/** Tries in a row that end alike: it will not get better. */
const ENOUGH = 20;
/** Tries times unknowns squared: a clash in a large sketch is to be told at once. */
const MOST_WORK = 450_000;

/**
 * Where the drawing leads into a hollow, or its sides contradict each other
 * (a tangency drawn backwards), start again from where it got stuck, with the
 * stuck parts moved about and their sides read anew. What came out right stays.
 * @returns a solution, or null when none was found
 */
export function shakeLoose<T extends Stand>(first: T, solveFrom: (sketch: SketchGeometry) => T): T | null {
  const size = sketchSize(first.sketch);
  const gentle = solveFrom(first.sketch);
  if (gentle.ok) return gentle;
  let best = gentle;
  let same = 0;
  const tries = Math.min(MOST_TRIES, MOST_WORK / first.system.values.length ** 2);
  for (let turn = 0; turn < tries && same < ENOUGH; turn++) {
    const from = turn % 3 === 0 ? best : gentle;
    const again = solveFrom(shaken(from, size, size * SHARES[turn % SHARES.length]!, turn));
    if (again.ok) return again;
    const [found, least] = [unmet(again), unmet(best)];
    same = Math.abs(found - least) < 1e-6 * least ? same + 1 : 0;
    if (found < least) best = again;
  }
  return null;
}

/** Sum of squared residuals of what is stuck, mm². */
const unmet = ({ stuck }: Stand) =>
  stuck.reduce((sum, { rows }) => rows.residual.reduce((total, r) => total + r * r, sum), 0);

/** Slots in the equations furthest from being met. */
function slotsUnmet({ slots, rows }: Group): number[] {
  const worst = Math.max(...rows.residual.map(Math.abs));
  const found: number[] = [];
  rows.residual.forEach((r, i) => {
    if (Math.abs(r) < worst / 4) return;
    for (let k = rows.start[i]!; k < rows.start[i + 1]!; k++) found.push(slots[rows.unknown[k]!]!);
  });
  return found;
}

/**
 * Where it got stuck or, every third turn, where it was drawn, with points and
 * circles of the stuck groups moved by up to `reach`; repeatable.
 */
function shaken({ sketch, stuck, system }: Stand, size: number, reach: number, turn: number): SketchGeometry {
  const moving = new Set(turn % 2 === 0 ? stuck.flatMap(slotsUnmet) : stuck.flatMap((group) => group.slots));
  const reached = turn % 3 === 1 ? sketch : readGeometry(sketch, system);
  const shift = (slot: number) =>
    moving.has(slot) ? reach * Math.sin(12.9898 * (slot + 1) * (1 + 0.618034 * turn)) : 0;
  // Some run off without end; those start from where they stood.
  const start = (from: number, to: number) => (Math.abs(to) < 4 * size ? to : from);
  const radius = (was: number, is: number, slot: number) => Math.abs(start(was, is) + shift(slot)) || reach;
  return {
    ...reached,
    points: Object.fromEntries(
      Object.entries(reached.points).map(([id, [x, y]]) => {
        const [p, was] = [system.points.get(id)!, sketch.points[id]!];
        return [id, [start(was[0], x) + shift(p.x), start(was[1], y) + shift(p.y)]];
      }),
    ),
    curves: Object.fromEntries(
      Object.entries(reached.curves).map(([id, c]) => {
        const was = sketch.curves[id]!;
        if (c.kind === 'circle' && was.kind === 'circle')
          return [id, { ...c, radius: radius(was.radius, c.radius, system.rounds.get(id)!.radius) }];
        if ((c.kind === 'ellipse' || c.kind === 'elliptical_arc') && 'minor' in was)
          return [id, { ...c, minor: radius(was.minor, c.minor, system.ellipses.get(id)!.minor) }];
        return [id, c];
      }),
    ),
  };
}
