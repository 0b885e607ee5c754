/** An assembly as plain data: where its parts stand, whether its joints are met, and what can still move. */
import { assembled, type LookAt } from '../assembly/assembled.ts';
import { freedomsOfAssembly } from '../assembly/freedoms.ts';
import type { Design } from '../document/schema.ts';
import { unmetIn, type Unmet } from '../evaluation/unmet.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { poseWithin, type Quat } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';

export interface InspectedAssembly {
  readonly id: string;
  readonly name: string;
  /** All joints are met at once. */
  readonly closed: boolean;
  /** In how many ways it can move as a whole; null where its joints are not met. */
  readonly freedoms: number | null;
  readonly faults: readonly string[];
  /** Of parts that stand elsewhere than where what they borrow was taken, as sentences. */
  readonly doubts: readonly string[];
  readonly members: readonly {
    /** Ids of instances from the outermost in, joined with /. */
    readonly key: string;
    readonly name: string;
    readonly part: string;
    readonly at_mm: Vec3;
    /** Unit quaternion: x, y, z, and the real part. */
    readonly turn: Quat;
    readonly fixed: boolean;
    /** In how many ways what it moves with can move. */
    readonly freedoms: number | null;
  }[];
  readonly joints: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: string;
    readonly between: readonly [string, string];
    readonly status: 'met' | 'misses' | 'failed';
    readonly message: string | null;
    /** mm; null when it is met. */
    readonly misses: number | null;
    /** What it leaves free and where that is at home, mm or rad. */
    readonly motions: readonly { readonly motion: string; readonly at: number; readonly least: number | null; readonly most: number | null }[]; // prettier-ignore
  }[];
}

export function inspectAssembly(design: Design, ledger: Ledger, id: string, lookAt: LookAt): InspectedAssembly {
  const it = assembled(design, ledger, id, lookAt);
  const freedoms = it.closed ? freedomsOfAssembly(it) : null;
  // Of a joint it is said with that joint.
  const unmet = unmetIn(design, ledger, it, lookAt).filter((u) => u.joint === null);
  const ofWhole = (how: Unmet['how']) => unmet.flatMap((u) => (u.how === how ? [u.name === null ? u.message : `${u.name}: ${u.message}`] : [])); // prettier-ignore
  return {
    id,
    name: design.assemblies![id]!.name,
    closed: it.closed,
    freedoms: freedoms?.whole.freedoms ?? null,
    faults: ofWhole('unmet'),
    doubts: ofWhole('doubt'),
    members: it.members.map(({ key, name, part, link, within }) => {
      const { at, turn } = poseWithin(it.home.poses[link]!, within);
      return { key, name, part: design.parts[part]!.name, at_mm: at, turn, fixed: it.links[link]!.held, freedoms: freedoms?.links[link]?.freedoms ?? null }; // prettier-ignore
    }),
    joints: it.joints.map(({ id: own, joint, names, fault, misses, reversed, doubts, motions }) => ({
      id: own,
      name: joint.name,
      kind: joint.kind,
      between: names,
      status: fault !== null ? 'failed' : misses !== null || reversed ? 'misses' : 'met',
      message: fault ?? (reversed ? 'It would be met the other way round.' : (doubts[0]?.says ?? null)),
      misses,
      motions: motions.map(({ key, home, least, most }) => ({ motion: key, at: home, least, most })),
    })),
  };
}
