/** What of an assembly does not fit: parts in each other, too close, or with bores out of line. Exact, by the kernel. */
import {
  KernelError,
  type Box,
  type MadeSolid,
  type SolidBulk,
  type SolidHandle,
  type SolidKernel,
} from '../solid/kernel.ts';
import type { Body } from '../names/body.ts';
import { transformOf } from '../space/pose.ts';
import { opposite, type Vec3 } from '../space/vector.ts';
import { freeingOf, type Freeing } from './freeing.ts';
import { outOfLine, type Round } from './lining-up.ts';
import { notMirrored } from './opposite-hands.ts';
import { endingShort, stickingOut } from './reaching.ts';
import { bottomingOut, NEARLY_FLUSH, nearlyFlush } from './standing-faces.ts';
import { standingBox, type Standing } from './standing.ts';
import { facesOf, isMeantGap, isMeantOverlap, type StandingFaces } from './wanted.ts';

export interface PieceOnStage {
  readonly member: string;
  /** Place among the member’s bodies. */
  readonly body: number;
  readonly face: number;
}

export type FitFinding =
  | {
      readonly kind: 'overlap';
      readonly members: readonly [string, string];
      /** mm³ */ readonly volume: number;
      readonly at: Vec3;
      /** No more than a press fit means. */
      readonly wanted?: true;
      /**
       * How the second comes free by the shortest way: so far, mm, and which way; or, with no way, by so much too large
       * is a shank for its bore. Null where no faces tell.
       */
      readonly free: { readonly by: number; readonly towards: Vec3 | null } | null;
      /** The faces that should at most meet then. */
      readonly pieces: readonly [PieceOnStage, PieceOnStage] | null;
    }
  | {
      readonly kind: 'close';
      readonly members: readonly [string, string];
      /** mm */ readonly gap: number;
      /** As a fit means it. */
      readonly wanted?: true;
    }
  | {
      readonly kind: 'out_of_line';
      readonly members: readonly [string, string];
      readonly by: number;
      readonly towards: Vec3;
      readonly pieces: readonly [PieceOnStage, PieceOnStage];
      readonly radii: readonly [number, number];
    }
  | {
      /**
       * flush: faces a little out of one plane. bottoms: shoulders stay open as something touches the bottom of a
       * recess. short: the first ends within the last bore of its stack. long: it sticks out of that bore by more than it
       * is thick.
       */
      readonly kind: 'flush' | 'bottoms' | 'short' | 'long';
      readonly members: readonly [string, string];
      /** mm, and from the first to the second which way. */
      readonly by: number;
      readonly towards: Vec3;
      /** The faces that should meet; none where there is no flat one. */
      readonly pieces: readonly [PieceOnStage, PieceOnStage] | null;
    }
  | {
      /** Two parts that stand opposite each other and are nearly each other’s mirror. */
      readonly kind: 'not_mirrored';
      readonly members: readonly [string, string];
      /** In which they differ, mm³, and where most of that is. */
      readonly volume: number;
      readonly at: Vec3;
    }
  /** It could not be found out, and why. */
  | { readonly kind: 'unknown'; readonly members: readonly [string, string]; readonly why: string };

export interface FitHooks {
  progress?(done: number, total: number): void;
  breathe?(): Promise<void>;
}

/** Less than this in common, mm³ a mm² of the smaller’s surface, is the kernel’s rounding where faces touch. */
const TOUCH_DEPTH = 1e-5;
/** Nearer than this, mm, is touching: solved sketches are rounded. */
export const LEAST_GAP = 1e-6;

/**
 * @param clearance gaps below this are told, mm; 0 for none
 */
export async function checkFit(
  standing: readonly Standing[],
  clearance: number,
  kernel: SolidKernel,
  hooks: FitHooks = {},
): Promise<FitFinding[]> {
  const solids = new Map<string, SolidHandle>();
  const findings: FitFinding[] = [];
  const boxes = standing.map(standingBox);
  const piece = ({ member, body, face }: Pick<Round, 'member' | 'body' | 'face'>): PieceOnStage => ({ member: standing[member]!.member.key, body, face }); // prettier-ignore
  const pairs = closePairs(standing, boxes, clearance);
  const faces = standing.map(facesOf);
  try {
    for (const [done, [i, j]] of pairs.entries()) {
      hooks.progress?.(done, pairs.length);
      await hooks.breathe?.();
      const found = between(standing[i]!, standing[j]!, clearance, kernel, (s, nth) => solidOf(s, nth, solids, kernel));
      if (!found) continue;
      const meant = isMeant(found, faces[i]!, faces[j]!);
      if (found.kind === 'overlap' && !meant) {
        const way = freeingOf(faces[i]!, faces[j]!);
        const free = way && isCure(way, boxes[i]!, boxes[j]!) ? way : null;
        const pieces = free && ([piece(free.one), piece(free.other)] as const);
        findings.push({ ...found, free: free && { by: free.by, towards: free.towards }, pieces });
      } else findings.push(meant ? { ...(found as Extract<FitFinding, { wanted?: true }>), wanted: true } : found);
    }
  } finally {
    for (const solid of solids.values()) kernel.free(solid);
  }
  const flats = faces.map((f) => f.flats);
  for (const [i, j] of closePairs(standing, boxes, Math.max(clearance, NEARLY_FLUSH)))
    for (const kind of ['flush', 'bottoms'] as const)
      for (const { one, other, by } of (kind === 'flush' ? nearlyFlush : bottomingOut)(flats[i]!, flats[j]!))
        findings.push({
          kind,
          members: [standing[i]!.member.key, standing[j]!.member.key],
          by: Math.abs(by),
          towards: by > 0 ? one.normal : opposite(one.normal),
          pieces: [piece(one), piece(other)],
        });
  const rounds = faces.flatMap((f) => f.rounds);
  const asOne = (a: number, b: number) => standing[a]!.member.link === standing[b]!.member.link;
  for (const { one, other, by, towards } of outOfLine(rounds, asOne))
    findings.push({
      kind: 'out_of_line',
      members: [standing[one.member]!.member.key, standing[other.member]!.member.key],
      by,
      towards,
      pieces: [piece(one), piece(other)],
      radii: [one.radius, other.radius],
    });
  const bodyOf = ({ member, body }: Round) => ({ body: standing[member]!.bodies[body]!, pose: standing[member]!.pose });
  const along = [endingShort, stickingOut].flatMap((amiss) => amiss(rounds, flats.flat(), bodyOf));
  for (const { kind, shank, bore, by, towards, ends } of along)
    findings.push({
      kind,
      members: [standing[shank.member]!.member.key, standing[bore.member]!.member.key],
      by,
      towards,
      pieces: ends && [piece(ends[0]), piece(ends[1])],
    });
  for (const { i, j, volume, at } of await notMirrored(standing, kernel, hooks.breathe))
    findings.push({ kind: 'not_mirrored', members: [standing[i]!.member.key, standing[j]!.member.key], volume, at });
  return findings;
}

/** A part that would have to go by more than this share of its own or the other’s length is taken away, not freed. */
const MOST_FREED = 0.8;

function isCure({ by, towards }: Freeing, ...boxes: readonly Box[]): boolean {
  const long = ({ min, max }: Box) => towards!.reduce((sum, n, k) => sum + Math.abs(n) * (max[k]! - min[k]!), 0);
  return towards === null || by <= MOST_FREED * Math.min(...boxes.map(long));
}

function solidOf(
  { member, bodies, pose }: Standing,
  nth: number,
  known: Map<string, SolidHandle>,
  kernel: SolidKernel,
): SolidHandle {
  const key = `${member.key} ${nth}`;
  const own = known.get(key) ?? kernel.placed(bodies[nth]!.solid, transformOf(pose)).solid;
  known.set(key, own);
  return own;
}

const isMeant = (found: FitFinding, one: StandingFaces, other: StandingFaces): boolean =>
  found.kind === 'overlap'
    ? isMeantOverlap(one, other, found.volume)
    : found.kind === 'close' && isMeantGap(one, other, found.gap);

type Solid = (of: Standing, nth: number) => SolidHandle;

function between(a: Standing, b: Standing, clearance: number, kernel: SolidKernel, solid: Solid): FitFinding | null {
  const members = [a.member.key, b.member.key] as const;
  try {
    let volume = 0;
    const at: [number, number, number] = [0, 0, 0];
    let gap = Infinity;
    for (const [i, one] of a.bodies.entries())
      for (const [j, other] of b.bodies.entries()) {
        const away = kernel.distance(
          { solid: solid(a, i), kind: 'whole', index: 0 },
          { solid: solid(b, j), kind: 'whole', index: 0 },
        );
        gap = Math.min(gap, away);
        // Touching is told from overlapping by what they have in common; one wholly inside the other has no distance either.
        if (away > LEAST_GAP) continue;
        const bulk = overlapOf({ ...one, solid: solid(a, i) }, { ...other, solid: solid(b, j) }, kernel);
        if (!bulk) continue;
        for (let k = 0; k < 3; k++) at[k]! += bulk.center[k]! * bulk.volume;
        volume += bulk.volume;
      }
    const amid = at.map((n) => n / volume) as unknown as Vec3;
    if (volume > 0) return { kind: 'overlap', members, volume, at: amid, free: null, pieces: null };
    return gap > LEAST_GAP && gap < clearance - LEAST_GAP ? { kind: 'close', members, gap } : null;
  } catch (error) {
    if (!(error instanceof KernelError)) throw error;
    return { kind: 'unknown', members, why: error.message };
  }
}

/** Do these two stand in each other? Yes, where it cannot be found out. */
export function standIn(a: Standing, b: Standing, kernel: SolidKernel): boolean {
  const solids = new Map<string, SolidHandle>();
  try {
    const found = between(a, b, 0, kernel, (s, nth) => solidOf(s, nth, solids, kernel));
    return found !== null && found.kind !== 'close';
  } finally {
    for (const solid of solids.values()) kernel.free(solid);
  }
}

/** What two bodies have in common; null where they only touch. @throws KernelError where that cannot be found out */
export function overlapOf(one: Body, other: Body, kernel: SolidKernel): SolidBulk | null {
  const shared = bulkOf(kernel.combine('common', [one.solid], [other.solid]), kernel) ?? leftOver(one, other, kernel);
  return shared.volume > TOUCH_DEPTH * Math.min(one.facts.area, other.facts.area) ? shared : null;
}

/** Of all together, which are let go of; null where one is not sound. */
function bulkOf(made: readonly MadeSolid[], kernel: SolidKernel): SolidBulk | null {
  try {
    if (!made.every(({ solid }) => kernel.isValid(solid))) return null;
    return sumOf(made.map(({ solid }) => kernel.bulk(solid)));
  } finally {
    for (const { solid } of made) kernel.free(solid);
  }
}

/** Where the kernel finds no sound solid that they have in common: what each loses where the other is cut from it. */
function leftOver(one: Body, other: Body, kernel: SolidKernel): SolidBulk {
  for (const [whole, tool] of [[one, other], [other, one]] as const) {
    const rest = bulkOf(kernel.combine('cut', [whole.solid], [tool.solid]), kernel);
    const own = rest && kernel.bulk(whole.solid);
    if (own) return sumOf([own, { volume: -rest.volume, center: rest.center }]);
  } // prettier-ignore
  throw new KernelError('The kernel could not find out what they have in common.');
}

function sumOf(parts: readonly SolidBulk[]): SolidBulk {
  const volume = parts.reduce((sum, p) => sum + p.volume, 0);
  const at = (k: 0 | 1 | 2) => (volume === 0 ? 0 : parts.reduce((sum, p) => sum + p.center[k] * p.volume, 0) / volume);
  return { volume, center: [at(0), at(1), at(2)] };
}

/** Pairs whose boxes come within the clearance, found by sweeping along x. */
function closePairs(standing: readonly Standing[], boxes: readonly Box[], clearance: number): [number, number][] {
  const order = [...boxes.keys()].sort((a, b) => boxes[a]!.min[0] - boxes[b]!.min[0]);
  const pairs: [number, number][] = [];
  for (const [at, i] of order.entries())
    for (const j of order.slice(at + 1)) {
      if (boxes[j]!.min[0] > boxes[i]!.max[0] + clearance) break;
      if (standing[i]!.member.link === standing[j]!.member.link) continue;
      const near = [1, 2].every(
        (k) => boxes[j]!.min[k]! <= boxes[i]!.max[k]! + clearance && boxes[i]!.min[k]! <= boxes[j]!.max[k]! + clearance,
      );
      if (near) pairs.push(i < j ? [i, j] : [j, i]);
    }
  return pairs;
}
