/** Finding in a view what something of the model is drawn as: an edge along a line, a corner at a place, a round. */
import type { SheetSpot } from '../../document/sheet.ts';
import type { Body } from '../../names/body.ts';
import { onOval, ovalOf } from '../../exchange/face-drawing.ts';
import type { FlatPiece } from '../../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import type { Frame } from '../../space/vector.ts';
import type { DrawnView, ViewSpot } from '../drawn-view.ts';
import { awayFromPiece } from '../piece-places.ts';

/** Places nearer than this, mm, are the same. */
export const SAME_PLACE = 1e-5;

/** A view in which sizes can be seen true. */
export interface StraightView {
  readonly id: string;
  readonly frame: Frame;
  readonly view: DrawnView;
}

/** Something of the model as it lies in a view, mm. */
export type Thing =
  | { readonly is: 'point'; readonly at: Vec2 }
  /** `endless`: an axis, which reaches on both ways. */
  | { readonly is: 'line'; readonly ends: readonly [Vec2, Vec2]; readonly endless: boolean }
  | { readonly is: 'round'; readonly center: Vec2; readonly radius: number };

const near = (a: Vec2, b: Vec2): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < SAME_PLACE;

/** How far a place lies beside a line. */
function beside(p: Vec2, [a, b]: readonly [Vec2, Vec2]): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  return Math.abs(dx * (p[1] - a[1]) - dy * (p[0] - a[0])) / (Math.hypot(dx, dy) || 1);
}

const linesIn = ({ spots }: Pick<DrawnView, 'spots'>) => spots.flatMap((spot) => (spot.piece.kind === 'line' ? [{ spot, ends: spot.piece.points }] : [])); // prettier-ignore
const roundsIn = ({ spots }: Pick<DrawnView, 'spots'>) => spots.flatMap((spot) => (spot.what === 'round' && (spot.piece.kind === 'circle' || spot.piece.kind === 'arc') ? [{ spot, center: spot.piece.points[0] }] : [])); // prettier-ignore

/** Edges that run along a line, the one that covers most of it first. */
function alongLine(view: DrawnView, { ends, endless }: Extract<Thing, { is: 'line' }>): SheetSpot[] {
  const long = Math.hypot(ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]);
  const u: Vec2 = [(ends[1][0] - ends[0][0]) / long, (ends[1][1] - ends[0][1]) / long];
  const at = (p: Vec2) => (p[0] - ends[0][0]) * u[0] + (p[1] - ends[0][1]) * u[1];
  return linesIn(view)
    .filter((l) => l.ends.every((p) => beside(p, ends) < SAME_PLACE))
    .map((l) => {
      const [from, to] = l.ends.map(at).sort((a, b) => a - b) as [number, number];
      return { spot: l.spot.spot, covers: endless ? to - from : Math.min(to, long) - Math.max(from, 0) };
    })
    .filter((l) => l.covers > SAME_PLACE)
    .sort((a, b) => b.covers - a.covers)
    .map((l) => l.spot);
}

/** Edges square to a direction that pass where a place lies along it, the nearest first. */
function levelWith(view: DrawnView, at: Vec2, along: Vec2): SheetSpot[] {
  const level = (p: Vec2) => p[0] * along[0] + p[1] * along[1];
  const away = ([a, b]: readonly [Vec2, Vec2]) => Math.min(Math.hypot(a[0] - at[0], a[1] - at[1]), Math.hypot(b[0] - at[0], b[1] - at[1])); // prettier-ignore
  return linesIn(view)
    .filter(({ ends }) => ends.every((p) => Math.abs(level(p) - level(at)) < SAME_PLACE))
    .sort((a, b) => away(a.ends) - away(b.ends))
    .map((l) => l.spot.spot);
}

/** What a length along a direction can be taken at, for one of its ends; the best first. */
export function endsFor(view: DrawnView, thing: Thing, along: Vec2): SheetSpot[] {
  if (thing.is === 'round') return roundsIn(view).filter((r) => near(r.center, thing.center)).map((r) => r.spot.spot); // prettier-ignore
  if (thing.is === 'line') return alongLine(view, thing).slice(0, 1);
  const corner = view.spots.find((s) => s.piece.kind === 'point' && near(s.piece.points[0], thing.at));
  const round = roundsIn(view).find((r) => near(r.center, thing.at));
  return [...(round ? [round.spot.spot] : []), ...levelWith(view, thing.at, along).slice(0, 1), ...(corner ? [corner.spot] : [])]; // prettier-ignore
}

/** Edges along a line. */
export const edgesAlong = (view: DrawnView, thing: Thing): SheetSpot[] => (thing.is === 'line' ? alongLine(view, thing) : []); // prettier-ignore

/** Rounds that a circle or arc is drawn as. */
export const roundsAs = (view: DrawnView, { center, radius }: Extract<Thing, { is: 'round' }>): ViewSpot[] => roundsIn(view).filter((r) => near(r.center, center) && Math.abs(radiusOf(r.spot) - radius) < SAME_PLACE).map((r) => r.spot); // prettier-ignore

export const radiusOf = ({ piece }: ViewSpot): number => {
  if (piece.kind === 'circle') return piece.radius;
  if (piece.kind !== 'arc') return NaN;
  const [center, from] = piece.points;
  return Math.hypot(from[0] - center[0], from[1] - center[1]);
};

/** Rounds seen from the side whose diameter ends at a place, or at a line. */
export const sidesAt = (view: DrawnView, thing: Thing): SheetSpot[] =>
  linesIn(view)
    .filter(
      ({ spot, ends }) =>
        spot.what === 'side' &&
        ends.some((p) =>
          thing.is === 'point' ? near(p, thing.at) : thing.is === 'line' && beside(p, thing.ends) < SAME_PLACE,
        ),
    ) // prettier-ignore
    .map((l) => l.spot.spot);

/** Outlines of curved faces are drawn so exactly, mm. */
const OUTLINE = 1e-3;

function middleOfArc(piece: FlatPiece): Vec2 | null {
  if (piece.kind !== 'arc') return null;
  const oval = ovalOf(piece);
  return onOval(oval, (oval.from + oval.to) / 2);
}

/** Of what is seen of bodies only what no part of them hides. */
export function seenOnly(view: DrawnView): DrawnView {
  const seen = new Set(view.lines.flatMap(({ style, edge }) => (edge && style === 'visible' ? [`${edge.body} ${edge.edge}`] : []))); // prettier-ignore
  const outlined = (arc: FlatPiece): boolean => {
    const middle = middleOfArc(arc);
    return middle !== null && view.lines.some(({ style, piece }) => style === 'visible' && awayFromPiece(middle, piece) < OUTLINE); // prettier-ignore
  };
  return { ...view, spots: view.spots.filter(({ what, at, piece }) => what === 'corner' || (what === 'rounding' ? outlined(piece) : seen.has(`${at.body} ${at.index}`))) }; // prettier-ignore
}

/** Was one of the faces at an edge made by this step? */
export const madeBy = ({ what, at }: ViewSpot, step: string, bodies: readonly Body[]): boolean =>
  what !== 'corner' && bodies[at.body]!.facts.edges[at.index]!.faces.some((face) => bodies[at.body]!.faceNames[face]?.some((n) => n.step === step)); // prettier-ignore
