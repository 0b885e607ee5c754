/** Where parts of an assembly come near each other: by their pictures’ triangles. Exact fits are for the fit check. */
import type { Contact, Nearness } from '../mechanism/contact-step.ts';
import type { Placed } from '../mechanism/posture.ts';
import type { SolidMesh } from '../solid/kernel.ts';
import { meshGap, treeOf } from '../solid/mesh-gap.ts';
import { placedAt, poseFrom, poseWithin, type Pose } from '../space/pose.ts';
import type { Assembled } from './assembled.ts';
import type { Member } from './members.ts';

/** Which parts push each other: all, those of these instances, or none. */
export type Contacts = 'none' | 'all' | { readonly among: ReadonlySet<string> };

type Mesh = Pick<SolidMesh, 'positions' | 'triangles'>;
type Near = Pick<Contact, 'onA' | 'onB' | 'gap'>;

export class Touching {
  private readonly pairs: (readonly [Member, Member])[] = [];
  /** Names of pairs that meet at home already: they go through each other. */
  readonly met: (readonly [string, string])[] = [];
  /** Which triangles of two meshes were nearest when last looked at. */
  private readonly last = new Map<Mesh, Map<Mesh, readonly [number, number]>>();

  /** Of all: pairs that are apart at home, and that no joint holds together. */
  constructor(
    it: Assembled,
    private readonly meshesOf: (part: string) => readonly Mesh[],
    which: Exclude<Contacts, 'none'>,
  ) {
    const joined = new Set(
      it.mechanism.pairs.flatMap(({ id, a, b }) => (id === '' ? [] : [`${a.link} ${b.link}`, `${b.link} ${a.link}`])),
    );
    const members = it.members.filter((m) => which === 'all' || which.among.has(m.path[0]!));
    for (const [i, one] of members.entries())
      for (const other of members.slice(i + 1)) {
        if (one.link === other.link) continue;
        if (which === 'all' && joined.has(`${one.link} ${other.link}`)) continue;
        if (it.links[one.link]!.held && it.links[other.link]!.held) continue;
        if (this.nearest(one, other, it.home, MEETS)) this.met.push([one.name, other.name]);
        else this.pairs.push([one, other]);
      }
  }

  /** Where watched pairs come nearest, of those nearer than so many mm. */
  readonly nearness: Nearness = (now, within) => {
    const found: Contact[] = [];
    for (const [i, [one, other]] of this.pairs.entries()) {
      const near = this.nearest(one, other, now, within);
      if (near) found.push({ id: String(i), a: one.link, b: other.link, ...near });
    }
    return found;
  };

  namesOf({ id }: Contact): readonly [string, string] {
    const [one, other] = this.pairs[Number(id)]!;
    return [one.name, other.name];
  }

  private nearest(one: Member, other: Member, now: Placed, within: number): Near | null {
    const [a, b] = [one, other].map((m): Pose => poseWithin(now.poses[m.link]!, m.within)) as [Pose, Pose];
    const apart = poseFrom(a, b);
    let best: Near | null = null;
    for (const p of this.meshesOf(one.part))
      for (const q of this.meshesOf(other.part)) {
        const near = meshGap(treeOf(p), treeOf(q), apart, best?.gap ?? within, this.last.get(p)?.get(q));
        if (!near) continue;
        if (!this.last.has(p)) this.last.set(p, new Map());
        this.last.get(p)!.set(q, near.last);
        best = { onA: placedAt(a, near.on[0]), onB: placedAt(a, near.on[1]), gap: near.gap };
      }
    return best;
  }
}

/** Nearer than this, mm, is met. */
const MEETS = 1e-6;
