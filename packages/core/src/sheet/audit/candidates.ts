/** Sizes that could stand on the views there are, in the order in which a draughtsman would give them. */
import { isJudged, wordOfView } from '../view-kinds.ts';
import type { Design } from '../../document/schema.ts';
import type { Sheet, SheetSize } from '../../document/sheet.ts';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { dot, minus, type Frame } from '../../space/vector.ts';
import { formatQuantity } from '../../units/units.ts';
import type { DrawnView } from '../drawn-view.ts';
import type { OfferedSpot } from '../offered-spot.ts';
import { edgeOfSpot, foundSpot, pitchRow, roundingSeen, roundOf, rowOfSize, type Found } from './said.ts';
import { chamferOfCone } from '../chamfer.ts';
import { kindOfRound } from '../seen-through.ts';
import { conesAlike, rimAt } from './rims.ts';
import type { RoundFreedom, Shape, TorusFreedom } from './shape.ts';
import { ringsIn } from './spread-round.ts';
import { levelsAlong, pairsOf, type Spots } from './levels.ts';

export interface Candidate {
  readonly size: SheetSize;
  /** What it says; of what is alike and counted with it, too. */
  readonly rows: readonly Float64Array[];
  /** What it is of, as words that follow “is missing:”. */
  readonly says: string;
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
