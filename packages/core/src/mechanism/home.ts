/** Where a mechanism stands at home: as its links were placed, its rest values met, loops closed by least steps. */
import { close, type Closing } from './close.ts';
import type { Mechanism } from './mechanism.ts';
import { postureFrom, stepped, type Placed } from './posture.ts';
import { driveRow, type Rows } from './rows.ts';

/** Far starts are brought in by many short steps. */
const MOST_STEPS = 80;
const FARTHEST = 0.3;
const OTHER_STARTS = 6;

export function atHome(mechanism: Mechanism): Closing {
  const start = postureFrom(
    mechanism,
    mechanism.links.map((l) => l.home),
  );
  const options = { most: MOST_STEPS, farthest: FARTHEST, further: restRows(mechanism) };
  const first = close(mechanism, start, options);
  if (first.closed) return first;
  // Axes that look right against each other satisfy every row but stand the wrong way: they are begun from elsewhere.
  for (let turn = 1; turn <= OTHER_STARTS; turn++) {
    const step = Float64Array.from(mechanism.columns, ({ turns }, k) => (turns ? 1.3 * Math.sin(turn * (k + 1)) : 0));
    const again = close(mechanism, stepped(mechanism, start, step), options);
    if (again.closed) return again;
  }
  return first;
}

/** Rows for values that are told; undefined where there are none. */
export function restRows(mechanism: Mechanism) {
  const told = mechanism.pairs.flatMap(({ id, rest }, pair) =>
    (rest ?? []).flatMap((to, motion) => (to === null ? [] : [{ id, pair, motion, to }])),
  );
  if (told.length === 0) return undefined;
  return (now: Placed, rows: Rows) =>
    told.forEach(({ id, to, ...coordinate }) => rows.add(...driveRow(mechanism, now, coordinate, to), id));
}
