/** A bore through a round wall ends in an edge that is no circle, but is seen as one along the bore. */
import type { Body } from '../names/body.ts';
import { ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { flatPoint } from '../slots/regions/flatten.ts';
import { dot, type Frame, type Vec3 } from '../space/vector.ts';

const ALONG = 1 - 1e-9;

export interface SeenThrough {
  readonly face: number;
  readonly center: Vec3;
  readonly radius: number;
  readonly piece: FlatPiece;
}

/** The cylinder at an edge, seen along its axis; null where the edge is a circle itself, or is seen otherwise. */
export function seenThrough({ facts }: Body, edge: number, frame: Frame): SeenThrough | null {
  const { kind, faces, ends, middle } = facts.edges[edge]!;
  if (kind === 'circle' || kind === 'line') return null;
  const face = faces.find((f) => facts.faces[f]!.kind === 'cylinder' && Math.abs(dot(facts.faces[f]!.axis!.direction, frame.normal)) > ALONG); // prettier-ignore
  if (face === undefined) return null;
  const { axis, radius } = facts.faces[face]!;
  const at = flatPoint(frame, axis!.origin);
  const [p, q] = ends.map((e) => flatPoint(frame, facts.corners[e]!));
  // A bore that goes all the way round has a seam, and its mouth may be parted by that of the wall.
  const hasSeam = facts.edges.some((e) => e.faces[0] === face && e.faces[1] === face);
  const isWhole = hasSeam || !p || !q || Math.hypot(p[0] - q[0], p[1] - q[1]) < 1e-6 * radius!;
  const m = flatPoint(frame, middle);
  const turnTo = (a: readonly [number, number]) => Math.atan2(a[1] - at[1], a[0] - at[0]);
  const past = (a: number, from: number) => (((a - from) % TURN) + TURN) % TURN;
  // Arcs run counter-clockwise: by its middle it is told which of the two ways round it goes.
  const forward = !isWhole && past(turnTo(m), turnTo(p)) < past(turnTo(q), turnTo(p));
  const piece: FlatPiece = isWhole ? { kind: 'circle', points: [at], radius: radius! } : { kind: 'arc', points: forward ? [at, p, q] : [at, q!, p!] }; // prettier-ignore
  return { face, center: axis!.origin, radius: radius!, piece };
}
const TURN = 2 * Math.PI;

/** How wide a round is told: of an arc that goes more than halfway round the diameter, as of a circle. */
export function kindOfRound(piece: FlatPiece): 'diameter' | 'radius' {
  if (piece.kind === 'circle' || piece.kind === 'ellipse') return 'diameter';
  if (piece.kind !== 'arc' && piece.kind !== 'elliptical_arc') return 'radius';
  const { from, to } = ovalOf(piece);
  return to - from > Math.PI * (1 + 1e-6) ? 'diameter' : 'radius';
}
