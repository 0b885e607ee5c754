/** From what a joint’s frame sits on to the frame, in its part’s space. */
import type { Spot } from '../document/assembly.ts';
import { findEdge, refOfEdge } from '../names/find-edge.ts';
import { findFace, refOfFace } from '../names/find-face.ts';
import { findVertex, refOfVertex } from '../names/find-vertex.ts';
import type { CorneredBody } from '../names/find-vertex.ts';
import type { Finding } from '../references/references.ts';
import { frameOfFace, toSpace } from '../space/planes.ts';
import { frameAlong, HERE, poseOfFrame, turned, type Pose } from '../space/pose.ts';
import { cross, dot, further, minus, opposite, unit, type Vec3 } from '../space/vector.ts';
import type { PartLook } from './look.ts';

/** A frame, and in whose words to doubt it. */
export interface SpotFound {
  readonly frame: Pose;
  /** Of a round face or edge, mm. */
  readonly radius: number | null;
  /** Why it may be another one than was meant, and what would be stored if it is meant. */
  readonly doubt: { readonly says: string; readonly proposed: Spot } | null;
}

/** A spot cannot be had; the message goes on from “Its side on …”. */
export class SpotLost extends Error {
  constructor(
    message: string,
    readonly nearest: Spot | null = null,
  ) {
    super(message);
  }
}

/** @throws SpotLost */
export function frameOn(spot: Spot, look: PartLook): SpotFound {
  const sure = (frame: Pose): SpotFound => ({ frame, radius: null, doubt: null });
  if ('origin' in spot) return sure(HERE);
  if ('stands' in spot) return sure(spot.stands);
  if ('sketch' in spot) {
    const found = look.sketchPoint(spot.sketch, spot.point);
    if (!found) throw new SpotLost('sits on a point of a sketch that is gone; pick it again');
    return sure(poseOfFrame({ ...found.frame, origin: toSpace(found.frame, ...found.at) }));
  }
  if ('step' in spot) {
    const datum = look.datum(spot.step);
    if (datum?.kind === 'plane') return sure(poseOfFrame(datum.frame));
    if (datum?.kind === 'axis') return sure(poseOfFrame(frameAlong(datum.axis.origin, datum.axis.direction)));
    if (datum?.kind === 'point')
      return sure(poseOfFrame(frameAlong(datum.at, datum.into ? opposite(datum.into) : [0, 0, 1])));
    throw new SpotLost('sits on a datum that is gone; pick it again');
  }
  const { bodies } = look;
  if ('vertex' in spot)
    return taken(findVertex(spot.vertex, bodies), 'corner', ({ body, vertex }) => ({
      frame: { at: body.facts.corners[vertex]!, turn: HERE.turn },
      spot: { vertex: refOfVertex(body, vertex, bodies) },
    }));
  if ('edge' in spot)
    return taken(findEdge(spot.edge, bodies), 'edge', ({ body, edge }) => ({
      frame: poseOfEdge(body, edge, spot.end),
      radius: body.facts.edges[edge]!.radius,
      spot: { ...spot, edge: refOfEdge(body, edge, bodies) },
    }));
  if ('face' in spot)
    return taken(findFace(spot.face, bodies), 'face', ({ body, face }) => ({
      frame: poseOfFace(body, face),
      radius: body.facts.faces[face]!.radius,
      spot: { face: refOfFace(body, face, bodies) },
    }));
  const [one, other] =
    'between' in spot
      ? spot.between.map((ref) => taken(findFace(ref, bodies), 'face', ({ body, face }) => ({ frame: poseOfFace(body, face), spot }))) // prettier-ignore
      : spot.crossing.map((ref) => taken(findEdge(ref, bodies), 'edge', ({ body, edge }) => ({ frame: poseOfEdge(body, edge), spot }))); // prettier-ignore
  const frame = 'between' in spot ? midway(one!.frame, other!.frame) : crossing(one!.frame, other!.frame);
  return { frame, radius: null, doubt: one!.doubt ?? other!.doubt };
}

/** Sine of the angle within which two directions are one, and beyond which they cross. */
const PARALLEL = 1e-6;
const up = ({ turn }: Pose): Vec3 => turned(turn, [0, 0, 1]);

/** Of two faces, or axes: in the middle between them, looking as the first does. @throws SpotLost */
export function midway(one: Pose, other: Pose): Pose {
  if (Math.hypot(...cross(up(one), up(other))) > PARALLEL)
    throw new SpotLost('sits midway between two faces that are not parallel; pick others');
  return { at: [0, 1, 2].map((i) => (one.at[i]! + other.at[i]!) / 2) as unknown as Vec3, turn: one.turn };
}

/** Where two lines along z come nearest to each other, halfway; z square to both. @throws SpotLost */
export function crossing(one: Pose, other: Pose): Pose {
  const [d, e] = [up(one), up(other)];
  const normal = cross(d, e);
  const sine2 = dot(normal, normal);
  if (sine2 < PARALLEL ** 2) throw new SpotLost('sits where two edges cross that are parallel; pick others');
  const apart = minus(other.at, one.at);
  const [s, t] = [dot(cross(apart, e), normal) / sine2, dot(cross(apart, d), normal) / sine2];
  const [p, q] = [further(one.at, d, s), further(other.at, e, t)];
  return poseOfFrame(frameAlong([0, 1, 2].map((i) => (p[i]! + q[i]!) / 2) as unknown as Vec3, unit(normal)!));
}

function taken<T>(
  finding: Finding<T>,
  what: string,
  of: (found: T) => { frame: Pose; radius?: number | null; spot: Spot },
): SpotFound {
  if (finding.how === 'lost') {
    const [nearest] = finding.candidates;
    let proposed: Spot | null = null;
    try {
      proposed = nearest === undefined ? null : of(nearest).spot;
    } catch {
      // What lies nearest is no place for a frame.
    }
    throw new SpotLost(`sits on ${what === 'edge' ? 'an' : 'a'} ${what} that is no longer found: ${finding.why}; pick it again`, proposed); // prettier-ignore
  }
  const { frame, radius = null, spot } = of(finding.found);
  if (finding.how === 'one') return { frame, radius, doubt: null };
  return { frame, radius, doubt: { says: `its ${what} is probably the right one: ${finding.why}; look, and keep it or pick again`, proposed: spot } }; // prettier-ignore
}

/** Flat: at its centre, z outward. Round: in the middle of its axis, z along that. @throws SpotLost for other faces */
export function poseOfFace({ facts }: CorneredBody, face: number): Pose {
  const { normal, axis, center, kind } = facts.faces[face]!;
  if (normal) return poseOfFrame({ ...frameOfFace(center, normal), origin: center });
  if (axis) {
    const on = further(axis.origin, axis.direction, dot(minus(center, axis.origin), axis.direction));
    return poseOfFrame(frameAlong(on, axis.direction));
  }
  throw new SpotLost(`sits on a face that is neither flat nor a cylinder (${kind}); pick its edge or an axis instead`);
}

/** Round: at its centre, z out of the flat face beside it where there is one. Straight: z along it. @throws SpotLost */
export function poseOfEdge({ facts }: CorneredBody, edge: number, end?: 'one' | 'other'): Pose {
  const { kind, axis, middle, ends, faces } = facts.edges[edge]!;
  if (axis) {
    const flat = faces.map((f) => facts.faces[f]!.normal).find((n) => n && Math.abs(dot(n, axis.direction)) > 0.999);
    return poseOfFrame(frameAlong(axis.origin, flat ?? axis.direction));
  }
  const [from, to] = ends.map((v) => facts.corners[v]!);
  const direction = kind === 'line' && from && to ? unit(minus(to, from)) : null;
  if (!direction) throw new SpotLost('sits on an edge that is neither straight nor round; pick another');
  return poseOfFrame(frameAlong(end === 'one' ? from! : end === 'other' ? to! : middle, direction));
}

/** What a frame is taken from may be nothing a frame can sit on: null then. */
export function frameOrNull<T>(of: () => T): T | null {
  try {
    return of();
  } catch (error) {
    if (error instanceof SpotLost) return null;
    throw error;
  }
}
