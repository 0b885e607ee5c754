/** Where a mechanism stands at home: as its links were placed, its rest values met, loops closed by least steps. */
import { close, type Closing } from './close.ts';
import type { Mechanism } from './mechanism.ts';
import { postureFrom, type Placed } from './posture.ts';
import { driveRow, type Rows } from './rows.ts';

/** Far starts are brought in by many short steps. */
const MOST_STEPS = 80;
const FARTHEST = 0.3;

export function atHome(mechanism: Mechanism): Closing {
  const start = postureFrom(
    mechanism,
    mechanism.links.map((l) => l.home),
  );
  return close(mechanism, start, { most: MOST_STEPS, farthest: FARTHEST, further: restRows(mechanism) });
}

/** Rows for values that are told; undefined where there are none. */
function restRows(mechanism: Mechanism) {
  const told = mechanism.pairs.flatMap(({ id, rest }, pair) =>
    (rest ?? []).flatMap((to, motion) => (to === null ? [] : [{ id, pair, motion, to }])),
  );
  if (told.length === 0) return undefined;
  return (now: Placed, rows: Rows) =>
    told.forEach(({ id, to, ...coordinate }) => rows.add(...driveRow(mechanism, now, coordinate, to), id));
}
