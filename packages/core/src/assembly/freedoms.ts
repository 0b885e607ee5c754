/** What of an assembly can still move, in words and as motions that can be shown. */
import { Mechanism } from '../mechanism/mechanism.ts';
import { mobility, type Mobility } from '../mechanism/mobility.ts';
import { speedAt } from '../mechanism/rows.ts';
import type { JointKind, PairKind } from '../mechanism/kinds.ts';
import type { Assembled, JointState, MotionKey } from './assembled.ts';

export interface LinkFreedom {
  readonly link: number;
  /** In how many ways it can move. */
  readonly freedoms: number;
  /** “can still turn in Bracket”; “is held by nothing”. */
  readonly says: string;
  /** Joints that would take a way to move from it, were they of another kind. */
  readonly held: readonly { readonly joint: string; readonly kind: JointKind }[];
}

export interface Freedoms {
  readonly whole: Mobility;
  readonly links: readonly LinkFreedom[];
}

/** What freedoms are found from: the mechanism, where it stands, and what its links and joints are called. */
export type Jointed = Pick<Assembled, 'links' | 'joints' | 'mechanism' | 'home'>;

/** The same as plain data, to be sent to where it is worked on. */
export interface JointedData extends Omit<Jointed, 'mechanism'> {
  readonly mechanism: Pick<Mechanism, 'links' | 'given' | 'couplings' | 'size'>;
}

export function jointedData({ links, joints, home, mechanism }: Jointed): JointedData {
  const { links: moved, given, couplings, size } = mechanism;
  return { links, joints, home, mechanism: { links: moved, given, couplings, size } };
}

export function jointedFrom({ mechanism: { links, given, couplings, size }, ...rest }: JointedData): Jointed {
  return { ...rest, mechanism: new Mechanism(links, given, couplings, size) };
}

export function freedomsOfAssembly(it: Jointed): Freedoms {
  const whole = mobility(it.mechanism, it.home.posture);
  const units = it.mechanism.units;
  const loose = new Set(whole.loose);
  const links = it.links.map((_, link): LinkFreedom => {
    const path = it.mechanism.paths[link]!;
    // How each free motion moves the link: its turn, and the speed of its origin.
    const p = whole.at.poses[link]!.at;
    const add = (twist: Float64Array, k: number, f: number): Float64Array => {
      if (f === 0) return twist;
      const v = speedAt(whole.at.twists, k, p);
      for (let i = 0; i < 3; i++) {
        twist[i]! += f * whole.at.twists[k * 6 + i]!;
        twist[3 + i]! += (f * v[i]!) / it.mechanism.size;
      }
      return twist;
    };
    const basis: Float64Array[] = [];
    // Six ways say all; a long chain has many more.
    for (const k of path) if (basis.length < 6 && loose.has(k)) widen(basis, add(new Float64Array(6), k, units[k]!));
    for (const motion of whole.motions) {
      if (basis.length === 6) break;
      const twist = new Float64Array(6);
      for (const k of path) add(twist, k, motion[k]! * units[k]!);
      widen(basis, twist);
    }
    const freedoms = basis.length;
    return { link, freedoms, says: wordsFor(it, link, freedoms, whole), held: heldBy(it, link, freedoms, whole) };
  });
  return { whole, links };
}

/** What of a motion is left beside those before it, of its own size, below which it is none of its own. */
const RANK = 1e-7;

/** Put a motion to those that say others, made square to them, where it says something new. */
function widen(basis: Float64Array[], twist: Float64Array): void {
  const size = Math.hypot(...twist);
  if (size < RANK) return;
  const rest = twist.map((x) => x / size);
  for (let twice = 0; twice < 2; twice++)
    for (const b of basis) {
      const f = rest.reduce((sum, x, i) => sum + x * b[i]!, 0);
      for (let i = 0; i < 6; i++) rest[i]! -= f * b[i]!;
    }
  const left = Math.hypot(...rest);
  if (left > RANK) basis.push(rest.map((x) => x / left));
}

/** A joint without one of its motions. */
const WITHOUT: Readonly<Partial<Record<PairKind, Partial<Record<MotionKey, JointKind>>>>> = {
  revolute: { turn: 'rigid' },
  prismatic: { slide: 'rigid' },
  cylindrical: { turn: 'prismatic', slide: 'revolute' },
  planar: { across: 'pin_in_slot' },
  pin_in_slot: { slide: 'revolute' },
  screw: { turn: 'rigid' },
};

const byLink = new WeakMap<Jointed, ReadonlyMap<number, readonly JointState[]>>();

/** Joints that leave a motion, by each link they join. */
function jointsByLink(it: Jointed): ReadonlyMap<number, readonly JointState[]> {
  const known = byLink.get(it);
  if (known) return known;
  const found = new Map<number, JointState[]>();
  for (const joint of it.joints) {
    const [first] = joint.motions;
    if (!first) continue;
    const { a, b } = it.mechanism.pairs[first.pair]!;
    for (const { link } of [a, b]) {
      const on = found.get(link);
      if (on) on.push(joint);
      else found.set(link, [joint]);
    }
  }
  byLink.set(it, found);
  return found;
}

/** Motions of joints on a link that are really free. */
function freeMotions(it: Jointed, link: number, whole: Mobility) {
  return (jointsByLink(it).get(link) ?? []).flatMap((joint) =>
    joint.motions.flatMap((motion) => {
      const pair = it.mechanism.pairs[motion.pair]!;
      const column = it.mechanism.columnOf(motion);
      const isFree =
        column < 0 || whole.loose.includes(column) || whole.motions.some((v) => Math.abs(v[column]!) > 1e-7);
      return isFree ? [{ joint, motion, pair }] : [];
    }),
  );
}

function heldBy(it: Jointed, link: number, freedoms: number, whole: Mobility): LinkFreedom['held'] {
  if (freedoms === 0) return [];
  return freeMotions(it, link, whole).flatMap(({ joint, motion, pair }) => {
    const kind = WITHOUT[pair.kind]?.[motion.key];
    return kind ? [{ joint: joint.key, kind }] : [];
  });
}

const DOES = { turn: 'turn', slide: 'slide', across: 'slide across' } as const;

function wordsFor(it: Jointed, link: number, freedoms: number, whole: Mobility): string {
  if (freedoms === 0) return 'stands still';
  const on = jointsByLink(it).get(link) ?? [];
  if (freedoms === 6 && on.length === 0) return 'is held by nothing';
  const ways = freeMotions(it, link, whole).map(({ joint, motion, pair }) => {
    const other = pair.a.link === link ? joint.names[1] : joint.names[0];
    return `${DOES[motion.key]} ${motion.key === 'turn' ? 'about its joint with' : 'along'} ${other}`;
  });
  const [one, ...more] = [...new Set(ways)];
  if (one === undefined) return `can still move in ${freedoms} way${freedoms === 1 ? '' : 's'}`;
  return `can still ${one}${more.length > 0 ? `, and ${more.slice(0, 2).join(', ')}` : ''}`;
}
