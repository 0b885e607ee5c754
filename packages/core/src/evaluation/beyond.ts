/**
 * What a part takes from other parts of its design: what they are, and where they stand to it.
 *
 * The borrowing part stands at its stored home; the others where joints that do not touch it bring them. So its
 * own shape never decides where it is drawn, and no circle comes of joining what was drawn in place. Where its own
 * joints would have it elsewhere, `strayed` tells.
 */
import { assembled, type Assembled, type JointState } from '../assembly/assembled.ts';
import { lookOfOutcome, type PartLook } from '../assembly/look.ts';
import type { Design } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { StepFailure } from '../names/body.ts';
import type { PartOutcome } from '../part/outcome.ts';
import { HERE, poseFrom, poseWithin, type Pose } from '../space/pose.ts';
import { hashText } from '../ids/hash.ts';
import type { BorrowedPart } from '../slots/resolving.ts';
import type { Outside } from '../slots/slot.ts';
import { outsideOfPart, partsIn } from '../document/outside.ts';
import type { Source } from '../references/source.ts';

/** Solved places are rounded so far, mm or parts of a turn, that the same solved again is the same. */
const DIGITS = 9;

export type At = Extract<Source['at'], { assembly: string }>;

export class Beyond {
  private readonly outcomes = new Map<string, PartOutcome>();
  private readonly standing = new Map<string, Assembled>();

  /**
   * @param chain the part that borrows, last, and before it those for which it is evaluated
   * @param evaluate another part; not asked for those in the chain
   */
  constructor(
    private readonly design: Design,
    private readonly ledger: Ledger,
    private readonly chain: readonly string[],
    private readonly evaluate: (part: string) => Promise<PartOutcome>,
  ) {}

  /** Evaluate what these rest on, so that it is at hand. */
  async gather(outside: readonly Outside[]): Promise<void> {
    const parts = new Set<string>();
    for (const { part, assembly } of outside) {
      parts.add(part);
      if (assembly) partsIn(this.design, assembly, parts);
    }
    for (const part of parts)
      if (!this.outcomes.has(part) && !this.chain.includes(part) && this.design.parts[part])
        this.outcomes.set(part, await this.evaluate(part));
  }

  /** @throws StepFailure */
  borrowed(source: Source): BorrowedPart {
    const { part, sketch: sketchId } = source;
    const name = this.design.parts[part]?.name;
    if (name === undefined) throw new StepFailure('The part this borrows from was deleted; choose another.');
    const own = this.chain.at(-1)!;
    const round = circleFrom(this.design, own, part);
    if (round) throw new StepFailure(this.circle(round));
    if (this.chain.includes(part)) throw new StepFailure(`Where ${this.design.parts[own]!.name} stands rests on ${name}, which it borrows from; hold it at a fixed place.`); // prettier-ignore
    const outcome = this.outcomes.get(part)!;
    const faulty = outcome.steps.find((s) => s.status === 'failed');
    if (faulty)
      throw new StepFailure(`${name} has a fault of its own, in ${this.design.parts[part]!.steps[faulty.id]!.name}; mend that first.`); // prettier-ignore
    const pose = rounded(this.place(source));
    if (sketchId === undefined) {
      const { bodies } = outcome;
      return { name, bodies, sketch: null, pose, digest: hashText(JSON.stringify([bodies.map((b) => b.key), pose])) };
    }
    const step = outcome.steps.find((s) => s.id === sketchId);
    if (!step?.sketch)
      throw new StepFailure(`The sketch this borrows from ${name} is not there any more; choose another.`);
    return { name, bodies: [], sketch: step.sketch, pose, digest: hashText(JSON.stringify([step.key, pose])) };
  }

  /** “Rod from Plate, Plate from Rod”. @param ids in the order of borrowing, the first of them not again at the end */
  private circle(ids: readonly string[]): string {
    const name = (id: string) => this.design.parts[id]?.name ?? 'a deleted part';
    if (ids.length === 1) return `${name(ids[0]!)} cannot borrow from itself; choose another part.`;
    const links = ids.map((id, i) => `${name(id)} from ${name(ids[(i + 1) % ids.length]!)}`);
    return `Borrowing goes round in a circle: ${links.join(', ')}; take one of these steps away, or type a number in its place.`;
  }

  /** @throws StepFailure */
  private place({ at, part }: Source): Pose {
    if (!at) return HERE;
    if ('stands' in at) return at.stands;
    const own = this.chain.at(-1)!;
    const known = this.standing.get(at.assembly);
    const it = known ?? placedWithout(this.design, this.ledger, at.assembly, own, (p) => lookOf(this.outcomes.get(p)));
    this.standing.set(at.assembly, it);
    const waiting = it.waiting.find((p) => p !== own && this.chain.includes(p));
    if (waiting !== undefined)
      throw new StepFailure(`Where it stands rests on ${this.design.parts[waiting]!.name}, which borrows from this part itself; hold it at a fixed place.`); // prettier-ignore
    return between(this.design, it, at, part, own);
  }
}

const looks = new WeakMap<PartOutcome, PartLook>();
function lookOf(outcome: PartOutcome | undefined): PartLook | null {
  if (!outcome) return null;
  const known = looks.get(outcome) ?? lookOfOutcome(outcome);
  looks.set(outcome, known);
  return known;
}

/** An assembly as the borrowing part sees it: its own joints are left out. */
export const placedWithout = (
  design: Design,
  ledger: Ledger,
  assembly: string,
  own: string,
  lookAt: (part: string) => PartLook | null,
): Assembled => assembled(design, ledger, assembly, (part) => (part === own ? null : lookAt(part)));

/** Parts in the order of borrowing, from one through another and back; null where it does not come back. */
function circleFrom(design: Design, own: string, through: string): string[] | null {
  if (own === through) return [own];
  const came = new Map<string, string>([[through, own]]);
  for (const part of came.keys())
    for (const { part: next } of outsideOfPart(design, part)) {
      if (next === own) {
        const round = [part];
        while (round[0] !== own) round.unshift(came.get(round[0]!)!);
        return round;
      }
      if (!came.has(next)) came.set(next, part);
    }
  return null;
}

/** Where the other instance stands in the own one’s space. @throws StepFailure */
export function between(design: Design, it: Assembled, { own, other, assembly }: At, part: string, self: string): Pose {
  const name = design.assemblies?.[assembly]?.name;
  if (name === undefined)
    throw new StepFailure('The assembly that says where it stands was deleted; choose another place.');
  const found = [own, other].map((path) => it.members.find((m) => m.key === path.join('/')));
  const [mine, theirs] = found;
  if (!mine || !theirs || theirs.part !== part)
    throw new StepFailure(`${design.parts[(mine ? part : self)]!.name} no longer stands in ${name} where it did; choose another place.`); // prettier-ignore
  // What is not met anywhere may leave all of it unsettled; what cannot be had leaves only what hangs on it so.
  const rests = joinedTo(it, [mine.link, theirs.link]);
  const fault = it.joints.find((j) => j.misses !== null || (j.fault !== null && linksOf(it, j).some((l) => rests.has(l)))); // prettier-ignore
  if (!it.closed || fault)
    throw new StepFailure(`Where ${theirs.name} stands in ${name} is not known: ${fault ? `${fault.joint.name} is not met` : 'its joints cannot be met'}; mend that first.`); // prettier-ignore
  const [here, there] = [mine, theirs].map((m) => poseWithin(it.home.poses[m.link]!, m.within)) as [Pose, Pose];
  return poseFrom(here, there);
}

/** Links that a joint lies between, whether it can be had or not. */
const linksOf = (it: Assembled, { key, joint }: JointState): number[] => {
  const path = key.split('/').slice(0, -1);
  return [joint.a, joint.b].flatMap(({ instance }) => {
    const at = [...path, ...instance].join('/');
    return it.members.find((m) => m.key === at)?.link ?? it.linkOf.get(at) ?? [];
  });
};

/** Links on whose place joints make these rest: all that hang together with them. */
function joinedTo(it: Assembled, links: readonly number[]): ReadonlySet<number> {
  const found = new Set(links);
  const groups = [...it.joints.map((j) => linksOf(it, j)), ...it.welds];
  for (let grew = true; grew;) {
    grew = false;
    for (const group of groups)
      if (group.some((l) => found.has(l)))
        for (const l of group) if (!found.has(l) && !it.links[l]!.held) grew = !!found.add(l);
  }
  return found;
}

function rounded({ at, turn }: Pose): Pose {
  const own = (n: number) => Number(n.toFixed(DIGITS)) + 0;
  return { at: at.map(own) as unknown as Pose['at'], turn: turn.map(own) as unknown as Pose['turn'] };
}
