/**
 * Which number, and of which value, would bring two round faces in line, or two flat ones into one plane, or free two
 * parts that stand in each other: found by nudging each, and tried before it is told.
 */
import { assembled } from '../assembly/assembled.ts';
import { lookOfOutcome, type PartLook } from '../assembly/look.ts';
import { nudged } from '../commands/nudge.ts';
import { setDimension } from '../commands/dimensions.ts';
import { applyEdit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { reachedFrom } from '../ledger/changed.ts';
import { findFace } from '../names/find-face.ts';
import { evaluateAsMade } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import type { FaceRef } from '../references/references.ts';
import { movedAxis } from '../space/transform.ts';
import { poseWithin, transformOf } from '../space/pose.ts';
import { dot, minus, type Vec3 } from '../space/vector.ts';
import { expressionOf, kindOfPowers } from '../units/units.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { standIn, type FitHooks } from './check-fit.ts';

export interface FaceOf {
  /** The member’s key. */
  readonly member: string;
  readonly face: FaceRef;
}

export interface FitCure {
  readonly ref: string;
  /** Its name with its surroundings. */
  readonly path: string;
  readonly from: string;
  readonly to: string;
  /** It follows other numbers now, and would not any more. */
  readonly unlinks: boolean;
}

/** Axes or planes closer than this are one, mm. */
const MET = 1e-4;
const MOST_TRIED = 80;
const MOST_CURES = 4;
/** A number that moves them by less a unit of its own has nothing to do with them. */
const LEAST_SLOPE = 1e-5;

/**
 * @param wanted the faces are to be level or in line; or their members are to be free of each other, where the faces
 * meet at most
 * @returns the most natural first: plain numbers before those that follow others
 */
export async function curesOf(
  design: Design,
  assembly: string,
  faces: readonly [FaceOf, FaceOf],
  wanted: 'level' | { readonly freeBy: SolidKernel },
  evaluator: PartEvaluator,
  hooks: FitHooks = {},
): Promise<FitCure[]> {
  const ledger = Ledger.of(design);
  const now = await offset(design, assembly, faces, evaluator);
  if (!now) return [];
  const isCured = async (it: Stood | null) =>
    it !== null && Math.hypot(...it.off) <= MET && (wanted === 'level' || (await it.areFree(wanted.freeBy)));
  const standing = new Set(now.parts.values());
  const parts = new Set(faces.map((r) => now.parts.get(r.member)!));
  const moves = (ref: string) =>
    [...reachedFrom([ref], (r) => ledger.usersOf(r))].some((r) => {
      const owner = ledger.index.byReference(r)?.owner;
      return owner !== undefined && (('part' in owner && parts.has(owner.part)) || 'joint' in owner);
    });
  const candidates = ledger.entries
    .filter((e) => !e.measured && e.owner.level !== 'project' && moves(e.ref))
    .slice(0, MOST_TRIED);
  const found: (FitCure & { rank: number })[] = [];
  for (const [done, entry] of candidates.entries()) {
    hooks.progress?.(done, candidates.length);
    await hooks.breathe?.();
    const value = ledger.valueOfEntry(entry);
    if (!value.ok) continue;
    const kind = kindOfPowers(value.quantity.powers);
    const other = kind ? nudged(design, entry.ref) : null;
    if (!other || !kind) continue;
    const step = Ledger.of(other).number(entry.ref) - value.quantity.value;
    const after = await offset(other, assembly, faces, evaluator, standing, now.across);
    if (!after) continue;
    // How the offset changes along its own direction: the value at which it is gone, were it to go on so.
    const size = dot(now.off, now.off);
    const slope = dot(minus(after.off, now.off), now.off) / size / step;
    if (Math.abs(slope) * Math.sqrt(size) < LEAST_SLOPE) continue;
    const to = expressionOf(Number((value.quantity.value - 1 / slope).toPrecision(9)), kind, design.units);
    const tried = applyEdit(design, setDimension(entry.ref, to));
    if (!tried.ok) continue;
    if (!(await isCured(await offset(tried.design, assembly, faces, evaluator, standing, now.across)))) continue;
    const unlinks = ledger.dependenciesOf(entry).length > 0;
    found.push({
      ref: entry.ref,
      path: entry.path.join('.'),
      from: ledger.shown(entry),
      to,
      unlinks,
      rank: (unlinks ? 10 : 0) + to.length,
    });
  }
  return found
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST_CURES)
    .map(({ rank: _, ...cure }) => cure);
}

interface Stood {
  /** By member. */
  readonly parts: ReadonlyMap<string, string>;
  readonly off: Vec3;
  /** It is the diameters of two rounds in line that are off. */
  readonly across: boolean;
  /** As they are made. */
  areFree(kernel: SolidKernel): Promise<boolean>;
}

/**
 * From the one axis to the other, square to it, or from plane to plane along its normal, where the assembly stands at
 * home; of rounds in line, by how much they differ across, along their axis for want of another way. Null where either
 * is not there.
 * @param among parts that are evaluated; all, where they are not told
 * @param across what is measured of rounds; as they stand, where it is not told
 */
async function offset(
  design: Design,
  assembly: string,
  faces: readonly [FaceOf, FaceOf],
  evaluator: PartEvaluator,
  among?: ReadonlySet<string>,
  across?: boolean,
): Promise<Stood | null> {
  const ledger = Ledger.of(design);
  const looks = new Map<string, PartLook>();
  for (const part of among ?? design.partOrder)
    looks.set(part, lookOfOutcome(await evaluator.evaluate(design, ledger, part)));
  const it = assembled(design, ledger, assembly, (part) => looks.get(part) ?? null);
  const parts = new Map(it.members.map((m) => [m.key, m.part]));
  const found = faces.map(({ member: key, face }) => {
    const member = it.members.find((m) => m.key === key);
    const finding = member ? findFace(face, looks.get(member.part)!.bodies) : null;
    if (!member || finding?.how !== 'one') return null;
    const { axis, normal, center, radius } = finding.found.body.facts.faces[finding.found.face]!;
    const pose = poseWithin(it.home.poses[member.link]!, member.within);
    const line = axis ?? (normal && { origin: center, direction: normal });
    return line && { ...movedAxis(transformOf(pose), line), flat: axis === null, radius, member, pose };
  });
  const [one, other] = found;
  if (!one || !other || one.flat !== other.flat || !it.closed) return null;
  const d = minus(other.origin, one.origin);
  const lift = dot(d, one.direction);
  const apart = [0, 1, 2].map((k) => (one.flat ? lift * one.direction[k]! : d[k]! - lift * one.direction[k]!)) as unknown as Vec3; // prettier-ignore
  const isAcross = across ?? (!one.flat && Math.hypot(...apart) <= MET);
  const wider = 2 * ((other.radius ?? 0) - (one.radius ?? 0));
  // Out of line as well, they would not be cured.
  const off = isAcross ? one.direction.map((n, k) => n * wider + apart[k]!) : apart;
  const areFree = async (kernel: SolidKernel) => {
    const made = async ({ member, pose }: typeof one) => ({ member, pose, bodies: (await evaluateAsMade(design, member.part, evaluator)).outcome.bodies }); // prettier-ignore
    return !standIn(await made(one), await made(other), kernel);
  };
  return { parts, off: off as unknown as Vec3, across: isAcross, areFree };
}
