/** Where what is seen in a view lies along a direction, and between which of such places a draughtsman tells lengths. */
import { dot, type Vec3 } from '../../space/vector.ts';
import type { ViewSpot } from '../drawn-view.ts';
import { kindOfRound } from '../seen-through.ts';
import { rimAt } from './rims.ts';
import { along, motionsAt, roundOf, type Found } from './said.ts';
import type { Shape } from './shape.ts';

export type Spots = readonly { readonly spot: ViewSpot; readonly found: Found | null }[];

/** Something in a view that lies at one place along a direction. */
interface Level {
  readonly spot: ViewSpot;
  readonly at: number;
  readonly row: Float64Array;
  readonly step: string;
  readonly isRound: boolean;
  /** On a flat face square to the direction, or an end of the whole: all over is told between such, flat ones first. */
  readonly isFlat: boolean;
  readonly isEnd: boolean;
  /** An arc, whose centre nobody measures from before all else is told. */
  readonly isArc: boolean;
  readonly reach: number;
}

/** Nearer alike than this, mm, is the same. */
const PLACE = 1e-5;

/** Of all that lies at one place the best to take it at. */
export function levelsAlong(
  u: Vec3,
  axis: 0 | 1,
  spots: Spots,
  shape: Shape,
  stepOf: (body: number, face: number) => string,
): Level[] {
  const levels: Level[] = [];
  const ends = shape.bodies.flatMap(({ facts: { corners } }) => corners.map((c) => dot(c, u)));
  const [low, high] = [Math.min(...ends), Math.max(...ends)];
  const isFlat = ({ body, faces }: Found): boolean =>
    faces.some((face) => {
      const own = shape.face(body, face);
      return own?.is === 'plane' && Math.abs(dot(own.normal, u)) > 1 - 1e-9;
    });
  const isEnd = ({ body, faces }: Found, at: number): boolean =>
    (at < low + PLACE || at > high - PLACE) && !faces.some((f) => shape.face(body, f)?.is === 'round');
  for (const { spot, found } of spots) {
    if (!found || spot.what === 'corner' || spot.what === 'rounding') continue;
    const body = shape.bodies[found.body]!;
    const isRound = spot.what === 'round';
    if (isRound && found.through === undefined && !rimAt(shape, found.body, found.edge!)) continue;
    const isArc = isRound && kindOfRound(spot.piece) === 'radius';
    // A straight edge says where it lies only square to itself.
    const { kind, axis: turned } = body.facts.edges[found.edge!]!;
    const place =
      found.through !== undefined
        ? roundOf(shape, found)!.axis.at
        : kind === 'circle' && turned
          ? turned.origin
          : found.at;
    if (spot.piece.kind === 'line') {
      const [p, q] = spot.piece.points;
      if (Math.abs(q[axis] - p[axis]) > PLACE) continue;
    }
    const row = along(u, motionsAt(shape, found));
    if (!row) continue;
    const face =
      found.faces.find((f) => shape.face(found.body, f)?.is === (isRound ? 'round' : 'plane')) ?? found.faces[0]!;
    const reach = body.facts.edges[found.edge!]!.length;
    const at = dot(place, u);
    const own: Level = { spot, at, row, step: stepOf(found.body, face), isRound, isArc, isFlat: isFlat(found), isEnd: isEnd(found, at), reach }; // prettier-ignore
    const known = levels.findIndex((l) => Math.abs(l.at - at) < PLACE && l.isRound === isRound && l.isArc === isArc);
    const other = levels[known];
    if (!other) levels.push(own);
    else levels[known] = { ...(isBetter(own, other, axis) ? own : other), isFlat: own.isFlat || other.isFlat, isEnd: own.isEnd || other.isEnd }; // prettier-ignore
  }
  return levels.sort((a, b) => a.at - b.at);
}

/** Rounds near the side on which lengths stand, below or on the left: their lines cross less. Edges by how far they reach, then so. */
function isBetter(one: Level, other: Level, axis: 0 | 1): boolean {
  const aside = ({ spot }: Level) => spot.piece.points[0]![1 - axis]!;
  const longer = one.isRound ? 0 : one.reach - other.reach;
  return longer > PLACE || (longer > -PLACE && aside(one) < aside(other) - PLACE);
}

/** All over first, then pairs that lie alike about the middle, then each from the first, then from its neighbour; arcs last, from each other first. */
export function pairsOf(all: readonly Level[]): { order: number; a: Level; b: Level }[] {
  const levels = all.filter((l) => !l.isArc);
  const arcs = all.filter((l) => l.isArc);
  const flats = levels.filter((l) => !l.isRound && (l.isFlat || l.isEnd));
  const [low, high] = [flats[0], flats.at(-1)];
  const pairs: { order: number; a: Level; b: Level }[] = [];
  if (low && high && low !== high) {
    pairs.push({ order: low.isFlat && high.isFlat ? 0 : 0.5, a: low, b: high });
    const middle = low.at + high.at;
    for (const l of levels) {
      const other = levels.find(
        (o) => o.at > l.at && o.isRound === l.isRound && Math.abs(o.at + l.at - middle) < PLACE,
      );
      if (other && l !== low) pairs.push({ order: 1, a: l, b: other });
    }
  }
  const base = low ?? levels[0];
  const nearest = (some: readonly Level[]) => (base ? [...some].sort((a, b) => Math.abs(a.at - base.at) - Math.abs(b.at - base.at)) : []); // prettier-ignore
  for (const l of nearest(levels)) if (l !== base) pairs.push({ order: 2, a: base!, b: l });
  levels.forEach((l, i) => i > 0 && pairs.push({ order: 3, a: levels[i - 1]!, b: l }));
  arcs.forEach((l, i) => i > 0 && pairs.push({ order: 4, a: arcs[i - 1]!, b: l }));
  for (const l of nearest(arcs)) pairs.push({ order: 5, a: base!, b: l });
  return pairs;
}
