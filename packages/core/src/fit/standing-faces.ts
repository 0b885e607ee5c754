/** Flat faces where they stand, and which of them nearly match those of other parts. */
import type { CorneredBody } from '../names/find-vertex.ts';
import { frameAlong, turned, transformOf, type Pose } from '../space/pose.ts';
import { movedPoint } from '../space/transform.ts';
import { dot, minus, type Vec3 } from '../space/vector.ts';

/** A flat face standing in space. */
export interface Flat {
  readonly member: number;
  readonly body: number;
  readonly face: number;
  /** Outward. */
  readonly normal: Vec3;
  /** Along its normal, mm from the origin. */
  readonly height: number;
  /** Places round it. */
  readonly spots: readonly Vec3[];
  /** Walls rise round it, as round a groove’s bottom. */
  readonly recessed: boolean;
}

/** Places on an edge: its ends and middle; round a circle, four. */
export function spotsOfEdge({ edges, corners }: CorneredBody['facts'], edge: number): Vec3[] {
  const { axis, radius, middle, ends } = edges[edge]!;
  const on = [middle, ...ends.map((v) => corners[v]!)];
  if (!axis || radius === null || ends.length > 0) return on;
  const { x, y } = frameAlong(axis.origin, axis.direction);
  const out = (u: Vec3, by: number): Vec3 => [0, 1, 2].map((k) => axis.origin[k]! + u[k]! * by) as unknown as Vec3;
  return [...on, out(x, radius), out(x, -radius), out(y, radius), out(y, -radius)];
}

/** mm: what rises less is rounding. */
const RISES = 1e-6;

export function flatsOf(body: CorneredBody, pose: Pose, member: number, nth: number): Flat[] {
  const { faces, edges } = body.facts;
  const to = transformOf(pose);
  return faces.flatMap(({ normal, center }, face): Flat[] => {
    if (!normal) return [];
    const own = edges.flatMap((e, i) => (e.faces.includes(face) ? [i] : []));
    const beside = new Set(own.flatMap((i) => edges[i]!.faces.filter((f) => f !== face)));
    const rising = [...beside].filter((f) => dot(minus(faces[f]!.center, center), normal) > RISES).length;
    const way = turned(pose.turn, normal);
    return [{ member, body: nth, face, normal: way, height: dot(way, movedPoint(to, center)), spots: own.flatMap((i) => spotsOfEdge(body.facts, i)).map((p) => movedPoint(to, p)), recessed: rising >= 2 }]; // prettier-ignore
  });
}

export interface FlatPair {
  readonly one: Flat;
  readonly other: Flat;
  /** From the one to the other along the one’s normal, mm. */
  readonly by: number;
}

/** Normals of which the cosine lacks less of 1 are parallel. */
const PARALLEL = 1e-6;
/** Farther from flush, mm, two faces are a step that is meant. */
export const NEARLY_FLUSH = 0.5;
/** Farther apart, mm, two facing shoulders are not meant to meet. */
const NEARLY_CLOSED = 1;
/** Nearer, mm, is the same plane: solved sketches are rounded. */
const SAME_PLANE = 1e-4;

/** How far two faces lie over each other in their common plane, mm: negative for as much beside each other. */
function over(one: Flat, other: Flat): number {
  const { x, y } = frameAlong([0, 0, 0], one.normal);
  const reach = (spots: readonly Vec3[], along: Vec3) => {
    const all = spots.map((p) => dot(p, along));
    return [Math.min(...all), Math.max(...all)] as const;
  };
  return Math.min(
    ...[x, y].map((along) => {
      const [a, b] = [reach(one.spots, along), reach(other.spots, along)];
      return Math.min(a[1], b[1]) - Math.max(a[0], b[0]);
    }),
  );
}

/** Faces that look the same way, side by side, a little out of one plane. */
export function nearlyFlush(ones: readonly Flat[], others: readonly Flat[]): FlatPair[] {
  return pairs(ones, others, 1).filter(
    ({ one, other, by }) =>
      Math.abs(by) > SAME_PLANE && Math.abs(by) <= NEARLY_FLUSH && Math.abs(over(one, other)) <= NEARLY_FLUSH,
  );
}

/** Faces that look at each other and lie over each other; `by` is negative where one is behind the other. */
export const facing = (ones: readonly Flat[], others: readonly Flat[]): FlatPair[] =>
  pairs(ones, others, -1).filter(({ one, other }) => over(one, other) > SAME_PLANE);

/** Shoulders that stay open because something touches the bottom of a recess first. */
export function bottomingOut(ones: readonly Flat[], others: readonly Flat[]): FlatPair[] {
  const all = facing(ones, others);
  const bottoms = all.filter((p) => Math.abs(p.by) <= SAME_PLANE && (p.one.recessed || p.other.recessed));
  const open = all.filter((p) => p.by > SAME_PLANE && p.by <= NEARLY_CLOSED && !p.one.recessed && !p.other.recessed);
  return open.filter(({ one }) => bottoms.some((b) => dot(b.one.normal, one.normal) > 1 - PARALLEL));
}

/** @param sense 1 for normals alike, -1 for normals against each other */
function pairs(ones: readonly Flat[], others: readonly Flat[], sense: 1 | -1): FlatPair[] {
  return ones.flatMap((one) =>
    others.flatMap((other) =>
      sense * dot(one.normal, other.normal) > 1 - PARALLEL
        ? [{ one, other, by: sense * other.height - one.height }]
        : [],
    ),
  );
}
