/** What does not fit on the way: parts that run into each other or come too close, and sliders that leave their guide. */
import type { Assembled } from '../assembly/assembled.ts';
import { KernelError, type SolidHandle, type SolidKernel } from '../solid/kernel.ts';
import type { AllowedFace } from '../evaluation/as-made.ts';
import type { Body } from '../names/body.ts';
import type { CorneredBody } from '../names/find-vertex.ts';
import { HERE, placedAt, poseFrom, posesApart, poseWithin, transformOf, turned, type Pose } from '../space/pose.ts';
import { dot, minus, type Vec3 } from '../space/vector.ts';
import { LEAST_GAP, overlapOf, type FitHooks } from './check-fit.ts';
import { standingBox } from './standing.ts';
import { spotsOfEdge } from './standing-faces.ts';
import { facesOf, isMeantGap, isMeantOverlap } from './wanted.ts';

/** One position on the way. */
export interface Station {
  /** Of the driver, mm or rad. */
  readonly value: number;
  /** Of the links. */
  readonly poses: readonly Pose[];
}

export interface Traveller {
  readonly key: string;
  readonly link: number;
  /** In its link. */
  readonly within: Pose;
  readonly bodies: readonly Body[];
  /** Faces that have given way for a fit. */
  readonly allowed?: readonly AllowedFace[];
}

export type MotionFinding = {
  readonly members: readonly [string, string];
  /** Of the driver where it is worst, mm or rad. */
  readonly at: number;
} & (
  | { readonly kind: 'runs_into'; /** mm³ */ readonly volume: number }
  | { readonly kind: 'comes_close'; /** mm */ readonly gap: number }
  /** How much of the first is still on the second along the slide, mm; below nothing when it is off. */
  | { readonly kind: 'leaves'; readonly engaged: number }
  | { readonly kind: 'unknown'; readonly why: string }
);

/** Poses that differ by less, mm and rad, are the same. */
const STAYS = 1e-9;
/** What touches at home is looked at in every so many positions: it mostly runs in its bearing. */
const STRIDE_TOUCHING = 3;
/** Less of a slider than this share of what it had at home is nearly off. */
const NEARLY_OFF = 0.1;

/**
 * Exact in each position. What is farther apart than it can move to the next positions is not asked of the kernel again
 * before it may come near.
 * @param home the position of which the check at rest already tells
 * @param clearance gaps below this are told, mm; 0 for none
 */
export async function checkThroughMotion(
  travellers: readonly Traveller[],
  home: readonly Pose[],
  stations: readonly Station[],
  clearance: number,
  kernel: SolidKernel,
  hooks: FitHooks = {},
): Promise<MotionFinding[]> {
  const found: MotionFinding[] = [];
  const pairs = travellers.flatMap((a, i) => travellers.slice(i + 1).map((b) => [a, b] as const)).filter(([a, b]) => a.link !== b.link && moves(a, b, home, stations)); // prettier-ignore
  for (const [done, [a, b]] of pairs.entries()) {
    hooks.progress?.(done, pairs.length);
    await hooks.breathe?.();
    const one = await alongTheWay(a, b, home, stations, clearance, kernel, hooks);
    if (one) found.push(one);
  }
  return found;
}

export const relative = (a: Traveller, b: Traveller, poses: readonly Pose[]): Pose =>
  poseFrom(poseWithin(poses[a.link]!, a.within), poseWithin(poses[b.link]!, b.within));

function moves(a: Traveller, b: Traveller, home: readonly Pose[], stations: readonly Station[]): boolean {
  const first = relative(a, b, home);
  return stations.some(({ poses }) => {
    const { by, turn } = posesApart(first, relative(a, b, poses));
    return by > STAYS || turn > STAYS;
  });
}

/** The worst of one pair. */
async function alongTheWay(
  a: Traveller,
  b: Traveller,
  home: readonly Pose[],
  stations: readonly Station[],
  clearance: number,
  kernel: SolidKernel,
  { breathe }: FitHooks,
): Promise<MotionFinding | null> {
  const members = [a.key, b.key] as const;
  let into: { at: number; volume: number } | null = null;
  let near: { at: number; gap: number } | null = null;
  const still = standingBox({ bodies: a.bodies, pose: HERE });
  let restGap = Infinity;
  let free = 0;
  let lookedAt: Pose | null = null;
  const gives = [a, b].some(({ allowed }) => allowed?.length);
  const own = gives ? facesOf({ ...a, pose: HERE }, 0) : null;
  const meant = (pose: Pose, asFitMeans: typeof isMeantGap, found: number) => own !== null && asFitMeans(own, facesOf({ ...b, pose }, 1), found); // prettier-ignore
  try {
    restGap = gapAt(a, b, relative(a, b, home), kernel);
    for (const [i, { value, poses }] of stations.entries()) {
      const pose = relative(a, b, poses);
      // It has not gone far enough since the last look to have come near.
      if (lookedAt && free - wentAtMost(b, lookedAt, pose) > clearance) continue;
      const box = standingBox({ bodies: b.bodies, pose });
      const apart = Math.max(...[0, 1, 2].map((k) => Math.max(box.min[k]! - still.max[k]!, still.min[k]! - box.max[k]!))); // prettier-ignore
      if (apart > clearance + LEAST_GAP) {
        [free, lookedAt] = [apart, pose];
        continue;
      }
      if (restGap <= LEAST_GAP && i % STRIDE_TOUCHING > 0) continue;
      await breathe?.();
      const gap = gapAt(a, b, pose, kernel);
      [free, lookedAt] = [gap, pose];
      if (gap <= LEAST_GAP) {
        const volume = common(a, b, pose, kernel);
        if (volume > (into?.volume ?? 0) && !meant(pose, isMeantOverlap, volume)) into = { at: value, volume };
      } else if (gap < clearance - LEAST_GAP && gap < (near?.gap ?? Infinity) && !meant(pose, isMeantGap, gap))
        near = { at: value, gap };
    }
  } catch (error) {
    if (!(error instanceof KernelError)) throw error;
    return { kind: 'unknown', members, at: stations[0]?.value ?? 0, why: error.message };
  }
  if (into) return { kind: 'runs_into', members, ...into };
  // As close as at rest is told there.
  return near && near.gap < restGap - LEAST_GAP ? { kind: 'comes_close', members, ...near } : null;
}

/** No point of it has gone farther between two poses, mm: how far a rigid thing’s points go is greatest at a corner of its box. */
function wentAtMost({ bodies }: Traveller, from: Pose, to: Pose): number {
  let most = 0;
  for (const { facts: { box } } of bodies)
    for (let corner = 0; corner < 8; corner++) {
      const p = [0, 1, 2].map((k) => (corner & (1 << k) ? box.max : box.min)[k]!) as unknown as Vec3;
      most = Math.max(most, Math.hypot(...minus(placedAt(from, p), placedAt(to, p))));
    } // prettier-ignore
  return most;
}

function withPlaced<T>(b: Traveller, pose: Pose, kernel: SolidKernel, work: (solids: readonly SolidHandle[]) => T): T {
  const solids = b.bodies.map((body) => kernel.placed(body.solid, transformOf(pose)).solid);
  try {
    return work(solids);
  } finally {
    for (const solid of solids) kernel.free(solid);
  }
}

/** How far two are apart where the second stands so to the first, mm; 0 where they meet. Exact. */
export const gapAt = (a: Traveller, b: Traveller, pose: Pose, kernel: SolidKernel): number =>
  withPlaced(b, pose, kernel, (solids) =>
    Math.min(
      ...a.bodies.flatMap((one) =>
        solids.map((other) =>
          kernel.distance({ solid: one.solid, kind: 'whole', index: 0 }, { solid: other, kind: 'whole', index: 0 }),
        ),
      ),
    ),
  );

const common = (a: Traveller, b: Traveller, pose: Pose, kernel: SolidKernel): number =>
  withPlaced(b, pose, kernel, (solids) =>
    a.bodies.reduce(
      (sum, one) =>
        sum +
        solids.reduce(
          (own, other, j) => own + (overlapOf(one, { ...b.bodies[j]!, solid: other }, kernel)?.volume ?? 0),
          0,
        ),
      0,
    ),
  );

/** A part as it is seen on its way: what stands on it is enough. */
export type Seen = Pick<Traveller, 'key' | 'link' | 'within'> & { readonly bodies: readonly CorneredBody[] };

/** Sliders of which little is left on their guide at some place of the way. */
export function leavingGuides(it: Assembled, seen: readonly Seen[], stations: readonly Station[]): MotionFinding[] {
  return it.joints.flatMap((joint): MotionFinding[] => {
    const slide = joint.motions.find((m) => m.key === 'slide' && ['prismatic', 'cylindrical', 'pin_in_slot'].includes(joint.joint.kind)); // prettier-ignore
    const pair = slide && it.mechanism.pairs[slide.pair];
    const [guide, slider] = [pair?.a, pair?.b].map((end) => end && seen.filter((t) => t.link === end.link));
    if (!pair || !guide?.length || !slider?.length) return [];
    const engagedAt = (poses: readonly Pose[]): number => {
      const base: Pose = pair.a.link < 0 ? HERE : poses[pair.a.link]!;
      const along = turned(poseWithin(base, pair.a.frame).turn, [0, 0, 1]);
      const [one, other] = [guide, slider].map((own) => reachAlong(own, poses, along));
      return Math.min(one![1], other![1]) - Math.max(one![0], other![0]);
    };
    const atHome = engagedAt(it.home.poses);
    const worst = stations.map(({ value, poses }) => ({ value, engaged: engagedAt(poses) })).sort((a, b) => a.engaged - b.engaged)[0]; // prettier-ignore
    if (!worst || !(atHome > 0) || worst.engaged > NEARLY_OFF * atHome) return [];
    return [{ kind: 'leaves', members: [slider[0]!.key, guide[0]!.key], at: worst.value, engaged: worst.engaged }];
  });
}

function reachAlong(own: readonly Seen[], poses: readonly Pose[], along: Vec3): [number, number] {
  const all = own.flatMap(({ link, within, bodies }) => {
    const pose = poseWithin(poses[link]!, within);
    return bodies.flatMap(({ facts }) => facts.edges.flatMap((_, e) => spotsOfEdge(facts, e)).map((p) => dot(placedAt(pose, p), along))); // prettier-ignore
  });
  return [Math.min(...all), Math.max(...all)];
}
