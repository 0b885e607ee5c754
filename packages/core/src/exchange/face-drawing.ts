/** The outline of a flat face as a drawing to cut by. */
import type { Body } from '../names/body.ts';
import { centripetal, type Vec2 } from '../sketch/curves/spline.ts';
import type { SketchOutcome } from '../slots/resolving.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { flatten } from '../slots/regions/flatten.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { frameOfFace } from '../space/planes.ts';
import { engravingOf, liesOn } from './engraving.ts';
import { ExportFailure } from './export-failure.ts';

/** A closed run of pieces, one after the other; `forward` where a piece runs as it is stored. */
export type DrawnLoop = readonly { readonly piece: FlatPiece; readonly forward: boolean }[];

export interface FaceDrawing {
  /** x and y along the face's own directions, mm, moved so that all of it lies right above the origin. */
  readonly outline: DrawnLoop;
  readonly holes: readonly DrawnLoop[];
  /** What is engraved, piece by piece, as it is. */
  readonly engraved: readonly FlatPiece[];
  readonly size: readonly [width: number, height: number];
  /** How many free curves are drawn through places on them. */
  readonly free: number;
  /** How many holes close up, as it grows. */
  readonly closed: number;
}

/** Ends nearer than this, mm, are one. */
const SAME = 1e-5;

/**
 * @param grown mm by which the area is larger than the face on every side, as for half the width of a cut
 * @param engraving a sketch on the face; null where nothing is engraved
 * @throws ExportFailure where the face is not flat, or it is to shrink, or the sketch lies elsewhere; KernelError
 */
export function drawingOfFace(
  body: Body,
  face: number,
  grown: number,
  engraving: SketchOutcome | null,
  kernel: SolidKernel,
): FaceDrawing {
  const { normal, center } = body.facts.faces[face]!;
  if (!normal) throw new ExportFailure('Only a flat face has an outline to cut by; pick a flat one.');
  if (!(grown >= 0)) throw new ExportFailure('The width of a cut is 0 or more; give one that is.');
  const frame = frameOfFace(center, normal);
  if (engraving && !liesOn(frame, engraving.frame)) throw new ExportFailure('The sketch to engrave does not lie on this face; choose one that does.'); // prettier-ignore
  const engraved = engraving ? engravingOf(frame, engraving).filter((p) => p.kind !== 'point') : [];
  const loops = kernel
    .faceOutline(body.solid, face, grown)
    .map((curves) => chained(curves.map((c) => flatten(frame, c))));
  const boxes = loops.map(boxOf);
  const outer = boxes.reduce((best, b, i) => (area(b) > area(boxes[best]!) ? i : best), 0);
  const [x0, y0, x1, y1] = boxes[outer]!;
  const placed = loops.map((loop) => loop.map(({ piece, forward }) => ({ piece: moved(piece, -x0, -y0), forward })));
  return {
    outline: placed[outer]!,
    holes: placed.filter((_, i) => i !== outer),
    engraved: engraved.map((piece) => moved(piece, -x0, -y0)),
    size: [x1 - x0, y1 - y0],
    closed: grown === 0 ? 0 : Math.max(0, kernel.faceOutline(body.solid, face, 0).length - loops.length),
    free: [...loops.flat().map(({ piece }) => piece), ...engraved].filter(({ kind }) => kind === 'spline').length,
  };
}

/** Where a piece begins and ends; nowhere where it closes on itself. */
function endsOf(piece: FlatPiece): readonly [Vec2, Vec2] | null {
  if (piece.kind === 'line') return piece.points;
  if (piece.kind === 'arc') return [piece.points[1], piece.points[2]];
  if (piece.kind === 'elliptical_arc') return [piece.points[2], piece.points[3]];
  return piece.kind === 'spline' ? [piece.points[0]!, piece.points.at(-1)!] : null;
}

/** One piece after the other, each from where the one before ended. @throws ExportFailure where they do not close */
function chained(pieces: readonly FlatPiece[]): DrawnLoop {
  const waiting = pieces.filter((p) => p.kind !== 'point');
  const [first] = waiting.splice(0, 1);
  if (!first) throw new ExportFailure('This face has no outline.');
  const loop: { piece: FlatPiece; forward: boolean }[] = [{ piece: first, forward: true }];
  let at = endsOf(first)?.[1];
  while (at && waiting.length > 0) {
    const here = at;
    const near = (p: Vec2) => Math.hypot(p[0] - here[0], p[1] - here[1]) < SAME;
    const next = waiting.findIndex((p) => endsOf(p)?.some(near));
    if (next < 0) throw new ExportFailure('The outline of this face does not close.');
    const [piece] = waiting.splice(next, 1);
    const [from, to] = endsOf(piece!)!;
    const forward = near(from);
    loop.push({ piece: piece!, forward });
    at = forward ? to : from;
  }
  return loop;
}

type Box = readonly [x0: number, y0: number, x1: number, y1: number];
const area = ([x0, y0, x1, y1]: Box) => (x1 - x0) * (y1 - y0);

const PLACES = 64;
const TURN = 2 * Math.PI;

/** A little beyond its highest places never, short of them by a thousandth of a radius at most. */
function boxOf(loop: DrawnLoop): Box {
  const all = loop.flatMap(({ piece }) => placesOn(piece));
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** Of an arc or ellipse: its centre, half axes as vectors, and the parameters between which it runs, rising. */
export function ovalOf(piece: Exclude<FlatPiece, { kind: 'point' | 'line' | 'spline' }>) {
  const [center] = piece.points;
  const off = (p: Vec2): Vec2 => [p[0] - center[0], p[1] - center[1]];
  const round = piece.kind === 'circle' || piece.kind === 'arc';
  const radius = piece.kind === 'circle' ? piece.radius : piece.kind === 'arc' ? Math.hypot(...off(piece.points[1])) : 0; // prettier-ignore
  const major: Vec2 = round ? [radius, 0] : off(piece.points[1]);
  const long = Math.hypot(...major);
  const short = round ? radius : piece.minor;
  const minor: Vec2 = [(-major[1] / long) * short, (major[0] / long) * short];
  const parameter = (p: Vec2) => {
    const d = off(p);
    return Math.atan2((d[0] * minor[0] + d[1] * minor[1]) / short ** 2, (d[0] * major[0] + d[1] * major[1]) / long ** 2); // prettier-ignore
  };
  const whole = piece.kind === 'circle' || piece.kind === 'ellipse';
  const [from, to] = whole ? [0, TURN] : (endsOf(piece)!.map(parameter) as [number, number]);
  const sweep = whole ? TURN : (((to - from) % TURN) + TURN) % TURN || TURN;
  return { center, major, minor, long, short, from, to: from + sweep, whole };
}

/** Where an arc or ellipse is at a parameter. @param oval as `ovalOf` tells it */
export const onOval = ({ center, major, minor }: Pick<ReturnType<typeof ovalOf>, 'center' | 'major' | 'minor'>, t: number): Vec2 => [center[0] + major[0] * Math.cos(t) + minor[0] * Math.sin(t), center[1] + major[1] * Math.cos(t) + minor[1] * Math.sin(t)]; // prettier-ignore

function placesOn(piece: FlatPiece): readonly Vec2[] {
  if (piece.kind === 'point' || piece.kind === 'line' || piece.kind === 'spline') return piece.points;
  const oval = ovalOf(piece);
  const { major, minor, from, to } = oval;
  // Besides even places those where it reaches farthest.
  const reaches = [0, 1].map((i) => Math.atan2(minor[i]!, major[i]!)).flatMap((t) => [t, t + Math.PI, t + TURN, t + Math.PI + TURN]); // prettier-ignore
  const even = Array.from({ length: PLACES + 1 }, (_, i) => from + ((to - from) * i) / PLACES);
  return [...even, ...reaches.filter((t) => t > from && t < to)].map((t) => onOval(oval, t));
}

function moved(piece: FlatPiece, dx: number, dy: number): FlatPiece {
  const points = piece.points.map(([x, y]) => [x + dx, y + dy] as const);
  const own = { ...piece, points } as FlatPiece;
  return own.kind === 'spline' ? { ...own, parameters: centripetal(own.points) } : own;
}
