/**
 * Parts on the other side of a plane. With M the reflection of the assembly and S one of the part, an instance that
 * stands at T has its image at M·T·S, which turns and moves but does not reflect: of the same part, where S leaves that
 * as it is, and else of its opposite hand, which is the part reflected by S.
 *
 * A frame has its image M·F·K, with K = diag(1, −1, 1), so that it is a frame again: turns about z, and slides along y,
 * run the other way there.
 */
import type { Assembly, Coupling, Instance, Joint, JointEnd, Spot } from '../document/assembly.ts';
import { borrowedName } from '../names/borrowed.ts';
import { refOfEdge } from '../names/find-edge.ts';
import { refOfFace } from '../names/find-face.ts';
import { refOfVertex } from '../names/find-vertex.ts';
import { isTurn, JOINT_KINDS, PAIRINGS } from '../mechanism/kinds.ts';
import { angleOf } from '../mechanism/posture.ts';
import { HERE, placedAt, poseFrom, poseOfFrame, poseWithin, turned, type Pose } from '../space/pose.ts';
import type { Step } from '../steps/schema.ts';
import { mirrorIn, movedDirection, movedPoint, type Transform } from '../space/transform.ts';
import { apart, dot, type Frame, type Vec3 } from '../space/vector.ts';
import type { PartLook } from './look.ts';
import { frameOn, frameOrNull, poseOfEdge, poseOfFace } from './spot.ts';

export type MirrorPlane = Pick<Frame, 'origin' | 'normal'>;

/** The plane in which an opposite hand is made of a part. */
export const OPPOSITE_IN: MirrorPlane = { origin: [0, 0, 0], normal: [1, 0, 0] };

const NEAR = 1e-5;
const near = (p: Vec3, q: Vec3) => apart(p, q) < NEAR * (1 + Math.hypot(...p));

/**
 * A plane in which a part is its own mirror image; null where none is found. Told by its faces, edges and corners, of
 * parts of planes and round faces alone: of others nothing is said.
 */
export function ownMirror({ bodies }: PartLook): MirrorPlane | null {
  const faces = bodies.flatMap((b) => b.facts.faces);
  const edges = bodies.flatMap((b) => b.facts.edges);
  const corners = bodies.flatMap((b) => b.facts.corners as readonly Vec3[]);
  const isPlain = faces.every((f) => ['plane', 'cylinder', 'cone', 'sphere', 'torus'].includes(f.kind)) && edges.every((e) => ['line', 'circle'].includes(e.kind)); // prettier-ignore
  if (!isPlain || faces.length === 0) return null;
  const area = faces.reduce((sum, f) => sum + f.area, 0);
  const middle = [0, 1, 2].map((k) => faces.reduce((sum, f) => sum + f.area * f.center[k]!, 0) / area) as unknown as Vec3; // prettier-ignore
  const ways: Vec3[] = [[1, 0, 0], [0, 1, 0], [0, 0, 1], ...faces.flatMap((f) => (f.normal ? [f.normal] : f.axis ? [f.axis.direction] : []))]; // prettier-ignore
  return ways.map((normal) => ({ origin: middle, normal })).find((plane) => {
    const m = mirrorIn(plane);
    const isSame = <T>(all: readonly T[], at: (t: T) => Vec3, alike: (a: T, b: T) => boolean) =>
      all.every((one) => {
        const image = movedPoint(m, at(one));
        return all.some((other) => near(at(other), image) && alike(one, other));
      });
    return (
      isSame(corners, (c) => c, () => true) &&
      isSame(faces, (f) => f.center, (a, b) => a.kind === b.kind && Math.abs(a.area - b.area) < NEAR * a.area && (!a.normal || dot(movedDirection(m, a.normal), b.normal!) > 1 - NEAR)) &&
      isSame(edges, (e) => e.middle, (a, b) => a.kind === b.kind && Math.abs(a.length - b.length) < NEAR * a.length)
    );
  }) ?? null; // prettier-ignore
}

/** The steps of a part that is another’s opposite hand: it borrows that and reflects it, and so follows it. */
export function oppositeSteps(part: string, name: string, { bodies }: PartLook, borrowing: string): Step[] {
  const refs = bodies.map((b) => ({ name: borrowedName(borrowing, b.name).text }));
  return [
    { kind: 'borrow', name: `Borrow ${name}`.slice(0, 80), from: { part } } as Step,
    { kind: 'mirror', name: 'Opposite hand', what: 'bodies', bodies: refs, plane: { datum: 'side' } } as Step,
  ];
}

/** M·T·S as a pose. */
export function mirroredPose(m: Transform, pose: Pose, s: Transform): Pose {
  const image = (p: Vec3): Vec3 => movedPoint(m, placedAt(pose, movedPoint(s, p)));
  const way = (d: Vec3): Vec3 => movedDirection(m, turned(pose.turn, movedDirection(s, d)));
  return poseOfFrame({ origin: image([0, 0, 0]), x: way([1, 0, 0]), y: way([0, 1, 0]), normal: way([0, 0, 1]) });
}

/** M·F·K as a pose. */
export function mirroredFrame(m: Transform, frame: Pose): Pose {
  const way = (d: Vec3): Vec3 => movedDirection(m, turned(frame.turn, d));
  const [x, y, z] = [way([1, 0, 0]), way([0, 1, 0]), way([0, 0, 1])];
  return poseOfFrame({ origin: movedPoint(m, frame.at), x, y: [-y[0], -y[1], -y[2]], normal: z });
}

export interface MirroredSpot {
  readonly spot: Spot;
  /** About its z, rad, from the frame of the spot to the image: the x axes of faces are chosen by a rule of their own. */
  readonly turn: number;
}

/** The face or edge of a part on which a frame stands; where it has none, the frame itself, which follows nothing. */
export function spotAt(frame: Pose, like: Spot, look: PartLook): MirroredSpot {
  const z = turned(frame.turn, [0, 0, 1]);
  const isThere = (pose: Pose | null): pose is Pose => pose !== null && near(pose.at, frame.at) && dot(turned(pose.turn, [0, 0, 1]), z) > 1 - NEAR; // prettier-ignore
  const found = (spot: Spot, pose: Pose): MirroredSpot => ({ spot, turn: angleOf(poseFrom(pose, frame).turn) });
  for (const body of look.bodies) {
    if ('face' in like)
      for (const i of body.facts.faces.keys()) {
        const pose = frameOrNull(() => poseOfFace(body, i));
        if (isThere(pose)) return found({ face: refOfFace(body, i, look.bodies) }, pose);
      }
    if ('vertex' in like)
      for (const i of body.facts.corners.keys()) {
        const spot: Spot = { vertex: refOfVertex(body, i, look.bodies) };
        const pose = frameOrNull(() => frameOn(spot, look).frame);
        if (isThere(pose)) return found(spot, pose);
      }
    if ('edge' in like)
      for (const i of body.facts.edges.keys())
        for (const end of like.end ? (['one', 'other'] as const) : [undefined]) {
          const pose = frameOrNull(() => poseOfEdge(body, i, end));
          if (isThere(pose)) return found({ edge: refOfEdge(body, i, look.bodies), ...(end ? { end } : {}) }, pose);
        }
  }
  return { spot: { stands: { at: [...frame.at], turn: [...frame.turn] } }, turn: 0 };
}

export interface MirrorImage {
  /** What stands as the image: the same part, or an opposite hand. */
  readonly of: Instance['of'];
  /** S. */
  readonly plane: MirrorPlane;
}

/** What an end of a joint sits on. */
export interface StandsThere {
  /** At home in the assembly. */
  readonly pose: Pose;
  /** Null of an assembly that stands there. */
  readonly part: string | null;
  /** The path of what is moved with it: its own, or of an assembly that moves within, of what is fixed in that. */
  readonly carrier: readonly string[];
}

interface Sides {
  readonly standing: (path: readonly string[]) => StandsThere | null;
  readonly look: (part: string) => PartLook | null;
  /** Where the image of what stands at a path stands; null of what is not mirrored. */
  readonly image: (path: readonly string[]) => { readonly path: readonly string[]; readonly image: MirrorImage } | null;
}

/** An instance on the other side of a plane. @param home where it stands */
export function mirroredInstance(
  { home: _, of: __, ...marks }: Instance,
  home: Pose,
  image: MirrorImage,
  plane: MirrorPlane,
): Instance {
  const { at, turn } = mirroredPose(mirrorIn(plane), home, mirrorIn(image.plane));
  return { ...marks, of: image.of, home: { at: [...at], turn: [...turn] } };
}

/**
 * A joint on the other side: on the images of what it joins, and where it joins something that has none, on the image of
 * its frame there. Null where a side cannot be found.
 */
export function mirroredJoint(joint: Joint, plane: MirrorPlane, { standing, look, image }: Sides): Joint | null {
  const m = mirrorIn(plane);
  const still = (frame: Pose): Spot => ({ stands: { at: [...frame.at], turn: [...frame.turn] } });
  const side = (end: JointEnd): (MirroredSpot & { end: JointEnd }) | null => {
    const kept = 'stands' in end.on ? end.on.stands : HERE;
    if (end.instance.length === 0) {
      const on = still(mirroredFrame(m, kept));
      return { end: { instance: [], on }, spot: on, turn: 0 };
    }
    const stands = standing(end.instance);
    if (!stands) return null;
    const own = stands.part === null ? null : look(stands.part);
    const frame = stands.part === null ? kept : own && frameOrNull(() => frameOn(end.on, own).frame);
    if (!frame) return null;
    const there = mirroredFrame(m, poseWithin(stands.pose, frame));
    const other = image(stands.carrier)?.image;
    const others = other ? mirroredPose(m, stands.pose, mirrorIn(other.plane)) : stands.pose;
    const instance = [...(image(end.instance)?.path ?? end.instance)];
    const within = poseFrom(others, there);
    if (stands.part === null) return { spot: still(within), turn: 0, end: { instance, on: still(within) } };
    const looked = look(other && 'part' in other.of ? other.of.part : stands.part);
    if (!looked) return null;
    const found = spotAt(within, end.on, looked);
    return { ...found, end: { instance, on: found.spot } };
  };
  const [a, b] = [side(joint.a), side(joint.b)];
  if (!a || !b) return null;
  const turn = a.turn + (joint.flip ? -b.turn : b.turn);
  return { ...joint, a: a.end, b: b.end, numbers: mirroredNumbers(joint, turn) };
}

const TURNS_ROUND: readonly (readonly [string, string])[] = [
  ['rest_turn', 'rest_turn'], ['least_turn', 'most_turn'], ['most_turn', 'least_turn'],
  ['rest_across', 'rest_across'], ['least_across', 'most_across'], ['most_across', 'least_across'], ['pitch', 'pitch'],
]; // prettier-ignore

/** Turns and slides across run the other way; the rest stays. @param turn added to the angle, rad */
function mirroredNumbers({ kind, numbers }: Joint, turn: number): Joint['numbers'] {
  const from = numbers as Readonly<Record<string, string | undefined>>;
  const fresh: Record<string, string> = {};
  for (const key of ['offset', 'rest_slide', 'least_slide', 'most_slide']) if (from[key] !== undefined) fresh[key] = from[key]; // prettier-ignore
  for (const [was, is] of TURNS_ROUND) if (from[was] !== undefined) fresh[is] = `-(${from[was]})`;
  if (!isJoint(kind))
    return { ...fresh, ...(from.angle === undefined ? {} : { angle: from.angle }) } as Joint['numbers'];
  // Where it turns freely and nothing tells of its turn, where that begins does not matter.
  const isFree = PAIRINGS[kind].motions!.some(isTurn) && !['angle', 'rest_turn', 'least_turn', 'most_turn'].some((key) => from[key] !== undefined); // prettier-ignore
  const isStill = isFree || Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) < 1e-9;
  if (from.angle !== undefined || !isStill)
    fresh.angle = [...(isStill ? [] : [`${Number(((turn * 180) / Math.PI).toFixed(9))} deg`]), ...(from.angle === undefined ? [] : [`-(${from.angle})`])].join(' '); // prettier-ignore
  return fresh as Joint['numbers'];
}

const isJoint = (kind: Joint['kind']) => (JOINT_KINDS as readonly string[]).includes(kind);

/** A coupling of mirrored joints: slides run there as they do here, all else the other way round. */
export function mirroredCoupling({ kind, a, b, numbers }: Coupling): Coupling['numbers'] {
  if ((a.motion === 'slide') === (b.motion === 'slide')) return { ...numbers };
  if (kind === 'rack') return numbers.lead === undefined ? {} : { lead: `-(${numbers.lead})` };
  return { ...numbers, second: `-(${numbers.second ?? '1'})` };
}

/** Joints of which at least one side is mirrored. */
export const jointsToMirror = (own: Assembly, ids: ReadonlySet<string>): string[] =>
  own.jointOrder.filter((id) => [own.joints[id]!.a, own.joints[id]!.b].some((end) => ids.has(end.instance[0] ?? '')));
