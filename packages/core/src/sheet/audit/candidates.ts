/** Sizes that could stand on the views there are, in the order in which a draughtsman would give them. */
import { isJudged, wordOfView } from '../view-kinds.ts';
import type { Design } from '../../document/schema.ts';
import type { Sheet, SheetSize } from '../../document/sheet.ts';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { dot, minus, type Frame, type Vec3 } from '../../space/vector.ts';
import { formatQuantity } from '../../units/units.ts';
import type { DrawnView, ViewSpot } from '../drawn-view.ts';
import type { OfferedSpot } from '../offered-spot.ts';
import {
  along,
  edgeOfSpot,
  foundSpot,
  motionsAt,
  pitchRow,
  roundingSeen,
  roundOf,
  rowOfSize,
  type Found,
} from './said.ts';
import { chamferOfCone } from '../chamfer.ts';
import { kindOfRound } from '../seen-through.ts';
import { conesAlike, rimAt } from './rims.ts';
import type { RoundFreedom, Shape, TorusFreedom } from './shape.ts';
import { ringsIn } from './spread-round.ts';

export interface Candidate {
  readonly size: SheetSize;
  /** What it says; of what is alike and counted with it, too. */
  readonly rows: readonly Float64Array[];
  /** What it is of, as words that follow “is missing:”. */
  readonly says: string;
}

/** Something in a view that lies at one place along a direction. */
interface Level {
  readonly spot: ViewSpot;
  readonly at: number;
  readonly row: Float64Array;
  readonly step: string;
  readonly isRound: boolean;
  /** On a flat face square to the direction; all over is told between such, or ends of the whole. */
  readonly isFlat: boolean;
  readonly bounds: boolean;
  /** An arc, whose centre nobody measures from before all else is told. */
  readonly isArc: boolean;
  readonly reach: number;
}

const PLACE = 1e-5;

export function candidates(
  shape: Shape,
  design: Design,
  sheet: Sheet,
  views: ReadonlyMap<string, DrawnView>,
): Candidate[] {
  const straight = sheet.viewOrder.filter((id) => isJudged(sheet.views[id]!) && views.has(id));
  const looks = straight.map((id): Looked => ({ id, view: views.get(id)!, frame: views.get(id)!.frame, word: wordOfView(sheet.views[id]!) })); // prettier-ignore
  const spots = looks.map(({ view, frame }) =>
    view.spots.map((spot) => ({ spot, found: edgeOfSpot(spot, shape.bodies, frame) })),
  );
  const stepOf = (body: number, face: number): string => {
    const id = shape.bodies[body]!.faceNames[face]?.[0]?.step;
    const part = 'part' in sheet.of ? design.parts[sheet.of.part] : undefined;
    return (id && part?.steps[id]?.name) ?? 'a face';
  };

  const length = (mm: number) => formatQuantity(Math.abs(mm), 'length', design.units);
  const lengths: { order: number; of: Candidate }[] = [];
  looks.forEach(({ id, frame, word }, v) => {
    for (const [kind, u, axis] of [
      ['across', frame.x, 0],
      ['up', frame.y, 1],
    ] as const) {
      const levels = levelsAlong(u, axis, spots[v]!, shape, stepOf);
      for (const { order, a, b } of pairsOf(levels)) {
        if (Math.abs(b.at - a.at) < PLACE) continue;
        const row = b.row.map((x, i) => x - a.row[i]!);
        const says = a.step === b.step ? `${a.step}, ${kind}` : `how far ${b.step} is from ${a.step}, ${kind}`;
        lengths.push({ order, of: { size: { kind, view: id, of: [a.spot.spot, b.spot.spot] }, rows: [row], says: `${says} in the ${word} view: ${length(b.at - a.at)}` } }); // prettier-ignore
      }
    }
  });

  const { rounds, tapers } = roundsOf(shape, looks, spots, stepOf, length);
  // What stands at a slant is told by its angle before its corners are.
  const upTo = (least: number, most: number) => lengths.filter((l) => l.order >= least && l.order <= most).sort((a, b) => a.order - b.order).map((l) => l.of); // prettier-ignore
  return [...rounds, ...pitchesOf(shape, looks, spots, stepOf, length), ...chamfersOf(shape, looks, spots, stepOf), ...upTo(0, 1), ...anglesOf(shape, looks, spots), ...tapers, ...upTo(2, 5)]; // prettier-ignore
}

/** Diameters and radii: where they are seen face on, else from the side, else between the walls that a section cuts. */
function roundsOf(
  shape: Shape,
  looks: readonly Looked[],
  spots: readonly Spots[],
  stepOf: (body: number, face: number) => string,
  length: (mm: number) => string,
): { rounds: Candidate[]; /** Of cones, where they are met by a flat face. */ tapers: Candidate[] } {
  const rounds: Candidate[] = [];
  const tapers: Candidate[] = [];
  const seen = new Set<RoundFreedom>();
  const tell = ({ id, word }: Looked, spot: OfferedSpot, found: Found, whole: boolean): void => {
    const round = roundOf(shape, found);
    const kind = whole ? 'diameter' : 'radius';
    const { facts } = shape.bodies[found.body]!;
    const says = (face: number, radius: number) => `the ${kind} of ${stepOf(found.body, face)}, in the ${word} view: ${length(whole ? 2 * radius : radius)}`; // prettier-ignore
    if (!round) {
      const rim = found.edge === null ? null : rimAt(shape, found.body, found.edge);
      const radius = found.edge === null ? null : facts.edges[found.edge]!.radius;
      if (rim?.radius && radius !== null) tapers.push({ size: { kind, view: id, of: [spot.spot] }, rows: [rim.radius], says: says(found.faces[0]!, radius) }); // prettier-ignore
      return;
    }
    if (seen.has(round)) return;
    const alike = alikeRounds(shape, round);
    alike.forEach((r) => seen.add(r));
    const face = found.faces.find((f) => shape.face(found.body, f) === round)!;
    const counted = alike.length > 1 ? { text: `${alike.length}× <>` } : {};
    rounds.push({ size: { kind, view: id, of: [spot.spot], ...counted }, rows: alike.map((r) => shape.only(r.unknown)), says: says(face, round.radius) }); // prettier-ignore
  };
  looks.forEach((look, v) => {
    // Of rounds alike the one farthest up and right: words stand there.
    const upRight = ({ spot }: Spots[number]) => spot.piece.points[0]![0] + spot.piece.points[0]![1];
    for (const { spot, found } of [...spots[v]!].sort((a, b) => upRight(b) - upRight(a)))
      if (found && spot.what === 'round') tell(look, spot, found, kindOfRound(spot.piece) === 'diameter');
  });
  looks.forEach((look, v) => {
    for (const { spot, found } of spots[v]!)
      if (found && spot.what === 'side' && new Set(shape.bodies[found.body]!.facts.edges[found.edge!]!.ends).size < 2)
        tell(look, spot, found, true);
  });
  for (const look of looks)
    for (const spot of look.view.cutSpots) {
      const found = spot.across ? foundSpot(spot.spot, shape.bodies, look.view) : null;
      if (found) tell(look, spot, found, true);
    }
  const told = new Set<TorusFreedom>();
  looks.forEach(({ id, frame, word }, v) => {
    for (const { spot, found } of spots[v]!) {
      const own = spot.what === 'rounding' && found ? roundingSeen(shape, found, frame) : null;
      if (!own || !found || told.has(own)) continue;
      const alike = alikeRoundings(shape, own);
      alike.forEach((r) => told.add(r));
      const counted = alike.length > 1 ? { text: `${alike.length}× <>` } : {};
      rounds.push({ size: { kind: 'radius', view: id, of: [spot.spot], ...counted }, rows: alike.map((r) => shape.only(r.unknown)), says: `the radius of ${stepOf(found.body, own.of.face)}, in the ${word} view: ${length(own.of.radius)}` }); // prettier-ignore
    }
  });
  return { rounds, tapers };
}

/** Of rounds that are spread evenly about another, how wide their circle is. */
function pitchesOf(
  shape: Shape,
  looks: readonly Looked[],
  spots: readonly Spots[],
  stepOf: (body: number, face: number) => string,
  length: (mm: number) => string,
): Candidate[] {
  const rings = ringsIn(shape, shape.square).filter((r) => r.center !== null && r.members[0]?.is === 'axis');
  return rings.flatMap(({ members, center, away }) =>
    looks.flatMap(({ id, word }, v): Candidate[] => {
      const about = (axes: readonly unknown[]) =>
        spots[v]!.filter(({ spot, found }) => spot.what === 'round' && found && axes.includes(roundOf(shape, found)?.axis))
          .sort((a, b) => a.spot.piece.points[0]![0] - b.spot.piece.points[0]![0])
          .at(-1); // prettier-ignore
      const [one, middle] = [about(members.map((m) => m.of)), about([center])];
      const row = one?.found && middle?.found ? pitchRow(shape, one.found, middle.found) : null;
      if (!row) return [];
      const face = one!.found!.faces.find((f) => shape.face(one!.found!.body, f)?.is === 'round')!;
      return [{ size: { kind: 'pitch', view: id, of: [one!.spot.spot, middle!.spot.spot] }, rows: [row], says: `the pitch circle of ${stepOf(one!.found!.body, face)}, in the ${word} view: ${length(2 * away)}` }]; // prettier-ignore
    }),
  );
}

/** Of the same radius, hollow or not, about axes that run alike. */
export const alikeRounds = (shape: Shape, round: RoundFreedom): RoundFreedom[] =>
  shape.rounds.filter((r) => r.hollow === round.hollow && Math.abs(r.radius - round.radius) < PLACE && Math.abs(dot(r.axis.direction, round.axis.direction)) > 1 - 1e-9); // prettier-ignore

/** Of the same radius, about axes that run alike. */
export const alikeRoundings = (shape: Shape, { axis, of }: TorusFreedom): TorusFreedom[] =>
  shape.tori.filter((t) => Math.abs(t.of.radius - of.radius) < PLACE && Math.abs(dot(t.axis.direction, axis.direction)) > 1 - 1e-9); // prettier-ignore

type Spots = readonly { readonly spot: ViewSpot; readonly found: Found | null }[];

/** Of all that lies at one place the best to take it at. */
function levelsAlong(
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
  const bounds = (found: Found, at: number): boolean => {
    const { body, faces } = found;
    return isFlat(found) || ((at < low + PLACE || at > high - PLACE) && !faces.some((f) => shape.face(body, f)?.is === 'round')); // prettier-ignore
  };
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
    const own: Level = {
      spot,
      at,
      row,
      step: stepOf(found.body, face),
      isRound,
      isArc,
      isFlat: isFlat(found),
      bounds: bounds(found, at),
      reach,
    };
    const known = levels.findIndex((l) => Math.abs(l.at - at) < PLACE && l.isRound === isRound && l.isArc === isArc);
    if (known < 0) levels.push(own);
    else if (isBetter(own, levels[known]!, axis))
      levels[known] = {
        ...own,
        isFlat: own.isFlat || levels[known]!.isFlat,
        bounds: own.bounds || levels[known]!.bounds,
      };
    else if (own.bounds)
      levels[known] = { ...levels[known]!, isFlat: own.isFlat || levels[known]!.isFlat, bounds: true };
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
function pairsOf(all: readonly Level[]): { order: number; a: Level; b: Level }[] {
  const levels = all.filter((l) => !l.isArc);
  const arcs = all.filter((l) => l.isArc);
  const flats = levels.filter((l) => !l.isRound && l.bounds);
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

interface Looked {
  readonly id: string;
  readonly view: DrawnView;
  readonly frame: Frame;
  readonly word: string;
}

/** A cone longer or deeper than this share of the shape is a taper: its ends are told, not a chamfer. */
const CHAMFER = 0.2;

/** Of short cones one call-out, where they are seen from the side, with their count. */
function chamfersOf(shape: Shape, looks: readonly Looked[], spots: readonly Spots[], stepOf: (body: number, face: number) => string): Candidate[] {
  const told = new Set<string>();
  return looks.flatMap(({ id, word }, v) =>
    spots[v]!.flatMap(({ spot, found }): Candidate[] => {
      if (!found || found.edge === null || spot.what !== 'side') return [];
      const body = shape.bodies[found.body]!;
      const cone = chamferOfCone(body, found.edge);
      const whole = Math.hypot(...minus(body.facts.box.max, body.facts.box.min));
      const alike = conesAlike(shape, found);
      const key = alike.map((a) => `${found.body} ${a.edge}`).join();
      if (!cone || alike.length === 0 || told.has(key) || Math.max(cone.along, cone.aside) > CHAMFER * whole) return [];
      told.add(key);
      const face = found.faces.find((f) => shape.face(found.body, f)?.is === 'cone')!;
      return [{ size: { kind: 'chamfer', view: id, of: [spot.spot], ...(alike.length > 1 ? { text: `${alike.length}× <>` } : {}) }, rows: alike.flatMap((a) => a.rows), says: `the chamfer of ${stepOf(found.body, face)}, in the ${word} view` }];
    }),
  );
} // prettier-ignore

/** Of planes that stand at a slant: their angle to a straight edge they meet, where they are seen edge-on. */
function anglesOf(shape: Shape, looks: readonly Looked[], spots: readonly Spots[]): Candidate[] {
  return looks.flatMap(({ id, frame, word }, v) => {
    const lines = spots[v]!.flatMap(({ spot, found }) => {
      if (!found || spot.what !== 'line' || spot.piece.kind !== 'line') return [];
      const edgeOn = found.faces.map((f) => shape.face(found.body, f)).find((f) => f?.is === 'plane' && Math.abs(dot(f.normal, frame.normal)) < 1e-6); // prettier-ignore
      const { facts } = shape.bodies[found.body]!;
      const [from, to] = facts.edges[found.edge!]!.ends.map((e) => dot(facts.corners[e]!, frame.normal));
      // Only what lies in the plane of the paper is seen true.
      if (from === undefined || to === undefined || Math.abs(to - from) > PLACE) return [];
      return edgeOn?.is === 'plane' ? [{ spot, found, plane: edgeOn, ends: spot.piece.points }] : [];
    });
    return lines
      .filter((l) => l.plane.tilts.length > 0)
      .flatMap((slanted) => {
        const meets = (p: Vec2) => slanted.ends.some((e) => Math.hypot(e[0] - p[0], e[1] - p[1]) < PLACE);
        const other =
          lines.find((l) => l.plane.tilts.length === 0 && l.ends.some(meets)) ??
          lines.find((l) => l.plane.tilts.length === 0);
        if (!other) return [];
        const size: SheetSize = { kind: 'angle', view: id, of: [other.spot.spot, slanted.spot.spot] };
        const row = rowOfSize(
          shape,
          size,
          { is: 'angle', apex: [0, 0], from: 0, value: 1, true: true },
          { frame, cutLines: [] },
        );
        return row ? [{ size, rows: [row], says: `the angle of a slanted face in the ${word} view` }] : [];
      });
  });
}
