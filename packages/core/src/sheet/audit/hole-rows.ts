/** What the call-out of a hole says: of each that is alike its width, its depth, and those of what is bored at its mouth. */
import type { SheetSize } from '../../document/sheet.ts';
import { findEdge } from '../../names/find-edge.ts';
import { dot } from '../../space/vector.ts';
import { holeAt, holesAlike, type Hole } from '../hole.ts';
import { rimAt } from './rims.ts';
import type { RoundFreedom, Shape } from './shape.ts';

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
  const rimBetween = (one: number, other: number) => {
    const edge = body.facts.edges.findIndex(({ faces }) => faces.includes(one) && faces.includes(other));
    return edge < 0 ? null : rimAt(shape, at, edge);
  };
  /** A drilled one as deep as its wall. */
  const toTip = ({ drill, tip, mouth }: Hole) => {
    const end = tip === null ? null : (rimBetween(drill, tip)?.along ?? null);
    const [edge, begins] = [mouth, mouth === null ? null : shape.face(at, mouth)];
    if (!end || edge === null || begins?.is !== 'plane') return [];
    const along = shape.face(at, drill)?.is === 'round' ? (shape.face(at, drill) as RoundFreedom).axis.direction : null;
    if (!along) return [];
    const sign = Math.sign(dot(begins.normal, along));
    return [shape.offsetOf(begins).map((x, i) => x * sign - end[i]!)];
  };
  /** Widened at its mouth: as wide as that, at the angle it says. */
  const sunk = ({ sink, mouth }: Hole) => {
    const cone = sink === null ? null : shape.face(at, sink);
    if (sink === null || cone?.is !== 'cone') return [];
    const wide = mouth === null ? null : (rimBetween(sink, mouth)?.radius ?? null);
    return [shape.only(cone.unknowns[1]), ...(wide ? [wide] : [])];
  };
  return holesAlike(body, hole).flatMap((h) => [
    ...round(h.drill),
    ...between(h.bottom, h.mouth),
    ...toTip(h),
    ...sunk(h),
    ...(h.bore ? [...round(h.bore.face), ...between(h.bore.floor, h.mouth)] : []),
  ]);
}
