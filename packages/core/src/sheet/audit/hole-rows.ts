/** What the call-out of a hole says: of each that is alike its width, its depth, and those of what is bored at its mouth. */
import type { SheetSize } from '../../document/sheet.ts';
import { findEdge } from '../../names/find-edge.ts';
import { holeAt, holesAlike } from '../hole.ts';
import type { Shape } from './shape.ts';

/** Null where it is none, or lost. */
export function rowsOfHole(shape: Shape, size: SheetSize): Float64Array[] | null {
  const spot = size.of[0]!;
  const finding = 'edge' in spot ? findEdge(spot.edge, shape.bodies) : null;
  if (!finding || finding.how === 'lost') return null;
  const { body, edge } = finding.found;
  const at = shape.bodies.indexOf(body);
  const hole = holeAt(body, edge);
  if (typeof hole === 'string') return null;
  const round = (face: number) => {
    const own = shape.face(at, face);
    return own?.is === 'round' ? [shape.only(own.unknown)] : [];
  };
  const between = (one: number | null, other: number | null) => {
    const [a, b] = [one, other].map((f) => (f === null ? null : shape.face(at, f)));
    if (a?.is !== 'plane' || b?.is !== 'plane') return [];
    const [p, q] = [shape.offsetOf(a), shape.offsetOf(b)];
    return [p.map((x, i) => x - q[i]!)];
  };
  return holesAlike(body, hole).flatMap((h) => [
    ...round(h.drill),
    ...between(h.bottom, h.mouth),
    ...(h.bore ? [...round(h.bore.face), ...between(h.bore.floor, h.mouth)] : []),
  ]);
}
