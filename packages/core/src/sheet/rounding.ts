/** Round edges of turned shapes: quarters of a torus that run smoothly from a flat face into a cylinder about an axis square to it. */
import type { Body } from '../names/body.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { flatPoint } from '../slots/regions/flatten.ts';
import type { SolidFacts } from '../solid/kernel.ts';
import { cross, dot, minus, type Axis, type Frame, type Vec3 } from '../space/vector.ts';

export interface Rounding {
  /** Of its section, mm. */
  readonly radius: number;
  /** The face itself, the flat one and the cylinder it runs between. */
  readonly face: number;
  readonly flat: number;
  readonly wall: number;
  /** Its two edges, whole circles: where it leaves the flat face, and where the cylinder begins. */
  readonly rim: number;
  readonly seam: number;
  /** How the radius of the rim and that of the cylinder differ, and how far along the cylinder's axis the seam is from the rim: both ± the radius. */
  readonly outwards: number;
  readonly along: number;
}

/** Shares of the radius, or rad, that are rounding. */
const SAME = 1e-6;

/** Null of a face that is none. */
export function roundingOf({ faces, edges, bends }: SolidFacts, face: number): Rounding | null {
  if (faces[face]!.kind !== 'torus') return null;
  const own = edges.flatMap((e, edge) => {
    const other = e.faces.find((f) => f !== face);
    const joins = e.faces.includes(face) && other !== undefined && e.kind === 'circle' && e.axis && new Set(e.ends).size < 2;
    return joins && Math.abs(bends[edge]!) < SAME ? [{ edge, other, axis: e.axis, radius: e.radius! }] : [];
  }); // prettier-ignore
  const seam = own.find((o) => faces[o.other]!.kind === 'cylinder');
  const rim = own.find((o) => faces[o.other]!.kind === 'plane');
  const { axis } = seam ? faces[seam.other]! : {};
  if (!seam || !rim || !axis) return null;
  const [outwards, along] = [rim.radius - seam.radius, dot(minus(seam.axis.origin, rim.axis.origin), axis.direction)];
  const radius = Math.abs(outwards);
  if (radius < SAME || Math.abs(Math.abs(along) - radius) > SAME * Math.max(1, radius)) return null;
  return { radius, face, flat: rim.other, wall: seam.other, rim: rim.edge, seam: seam.edge, outwards, along };
}

/** The one of which an edge is the rim. */
export function roundingAt({ facts }: Body, edge: number): Rounding | null {
  for (const face of new Set(facts.edges[edge]!.faces)) {
    const own = roundingOf(facts, face);
    if (own?.rim === edge) return own;
  }
  return null;
}

/** Seen from the side: its two arcs, the one farther right, or up, first. Null where it is seen otherwise. */
export function arcsOfRounding({ facts }: Body, own: Rounding, frame: Frame): readonly [FlatPiece, FlatPiece] | null {
  const [rim, seam] = [facts.edges[own.rim]!, facts.edges[own.seam]!];
  const { direction } = facts.faces[own.wall]!.axis as Axis;
  if (Math.abs(dot(direction, frame.normal)) > SAME) return null;
  const across = cross(direction, frame.normal);
  const [u, v] = [dot(across, frame.x), dot(across, frame.y)];
  const right = u > SAME || (u > -SAME && v > 0) ? 1 : -1;
  const arc = (side: number): FlatPiece => {
    const at = (origin: Vec3, radius: number): Vec2 => flatPoint(frame, origin.map((o, k) => o + side * radius * across[k]!) as unknown as Vec3); // prettier-ignore
    const [center, from, to] = [at(seam.axis!.origin, rim.radius!), at(rim.axis!.origin, rim.radius!), at(seam.axis!.origin, seam.radius!)]; // prettier-ignore
    const turn = (from[0] - center[0]) * (to[1] - center[1]) - (from[1] - center[1]) * (to[0] - center[0]);
    return { kind: 'arc', points: turn > 0 ? [center, from, to] : [center, to, from] };
  };
  return [arc(right), arc(-right)];
}
