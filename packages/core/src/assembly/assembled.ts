/** An assembly put together: where everything stands at home, which joints are met, and the mechanism that moves it. */
import { instanceName, type Coupling, type Joint, type JointEnd, type Spot } from '../document/assembly.ts';
import type { Design } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { contradictionAt } from '../mechanism/contradiction.ts';
import { atHome } from '../mechanism/home.ts';
import { drivable, type Motion, type PairKind } from '../mechanism/kinds.ts';
import { Mechanism, type Coupling as Coupled, type End, type Pair } from '../mechanism/mechanism.ts';
import { valueAt, type Placed } from '../mechanism/posture.ts';
import { HERE, poseFrom, poseWithin, turnOf, type Pose } from '../space/pose.ts';
import { reachOf, type PartLook } from './look.ts';
import { membersOf, type Members } from './members.ts';
import { frameOn, SpotLost } from './spot.ts';

export type MotionKey = 'slide' | 'across' | 'turn';

/** A motion a joint leaves free. */
export interface JointMotion {
  readonly key: MotionKey;
  /** Where the mechanism has it. */
  readonly pair: number;
  readonly motion: number;
  /** At home, mm or rad. */
  readonly home: number;
  readonly least: number | null;
  readonly most: number | null;
}

export interface JointState {
  /** Its key among all joints that move here: ids of the assemblies’ instances and its own, joined with /. */
  readonly key: string;
  readonly id: string;
  /** The assembly that holds it. */
  readonly assembly: string;
  readonly joint: Joint;
  /** Names of what it joins. */
  readonly names: readonly [string, string];
  /** Why it cannot be had, as a sentence. */
  readonly fault: string | null;
  readonly doubts: readonly { readonly side: 'a' | 'b'; readonly says: string; readonly proposed: Spot | null }[];
  /** How far it misses, mm; null when it is met. */
  readonly misses: number | null;
  /** It would be met the other way round. */
  readonly reversed: boolean;
  /** Without it all the others would be met. */
  readonly inTheWay: boolean;
  readonly motions: readonly JointMotion[];
}

export interface CouplingState {
  readonly id: string;
  readonly coupling: Coupling;
  readonly fault: string | null;
}

export interface Assembled extends Members {
  readonly assembly: string;
  readonly mechanism: Mechanism;
  readonly home: Placed;
  readonly closed: boolean;
  readonly joints: readonly JointState[];
  readonly couplings: readonly CouplingState[];
  /** Parts that are not known yet: what sits on them is left out. */
  readonly waiting: readonly string[];
}

/** How a part looks; null while it is not known yet. */
export type LookAt = (part: string) => PartLook | null;

/** Put an assembly together. Nothing is thrown for faults of the design: each is told where it stands. */
export function assembled(design: Design, ledger: Ledger, assembly: string, lookAt: LookAt): Assembled {
  return assembledIn(design, ledger, assembly, lookAt, new Map());
}

type Homes = Map<string, ReadonlyMap<string, Pose>>;

function assembledIn(design: Design, ledger: Ledger, assembly: string, lookAt: LookAt, homes: Homes): Assembled {
  /** What is wrong within assemblies that move as one: their own joints are not listed here. */
  const inside: string[] = [];
  const homeOf = (id: string): ReadonlyMap<string, Pose> => {
    const known = homes.get(id);
    if (known) return known;
    homes.set(id, new Map());
    const own = assembledIn(design, ledger, id, lookAt, homes);
    if (!own.closed || own.joints.some((j) => j.fault !== null) || own.couplings.some((c) => c.fault !== null))
      inside.push(
        `${design.assemblies?.[id]?.name ?? 'An assembly'} does not hold together in itself; open it to see why.`,
      );
    inside.push(...own.faults);
    const at = new Map(own.links.map(({ key }, i) => [key, own.home.poses[i]!]));
    homes.set(id, at);
    return at;
  };
  const members = membersOf(design, assembly, homeOf);
  const links = members.links.map(({ key, home, held }) => ({ id: key, home, held }));
  const build = new Builder(design, ledger, members, lookAt);
  for (const { path, assembly: inner } of members.inner) build.joints(inner, path);
  for (const [one, other] of members.welds)
    build.pairs.push({ id: '', kind: 'rigid', a: { link: one, frame: poseFrom(members.links[one]!.home, members.links[other]!.home) }, b: { link: other, frame: HERE } }); // prettier-ignore
  const size = sizeOf(members, lookAt);
  const uncoupled = new Mechanism(links, build.pairs, [], size);
  const found = atHome(uncoupled);
  const home = found.placed;
  for (const { path, assembly: inner } of members.inner) build.couplings(inner, path, uncoupled, home);
  const wrong = found.closed ? { misfits: [], either: [] } : contradictionAt(uncoupled, home);
  const misfits = new Map(wrong.misfits.map((m) => [m.id, m]));
  return {
    ...members,
    faults: [...new Set([...members.faults, ...inside])],
    assembly,
    mechanism: build.coupled.length > 0 ? new Mechanism(links, build.pairs, build.coupled, size) : uncoupled,
    home,
    closed: found.closed,
    joints: build.found.map((f) => ({
      ...f.state,
      misses: misfits.get(f.state.key)?.by ?? null,
      reversed: misfits.get(f.state.key)?.reversed ?? false,
      inTheWay: wrong.either.includes(f.state.key),
      motions: f.pair < 0 ? [] : motionsOf(uncoupled, home, f.pair),
    })),
    couplings: build.coupledStates,
    waiting: [...build.waiting],
  };
}

function motionsOf(mechanism: Mechanism, home: Placed, pair: number): JointMotion[] {
  const { kind, limits } = mechanism.pairs[pair]!;
  return drivable(kind).map((m, motion) => ({
    key: keyOfMotion(kind, m),
    pair,
    motion,
    home: valueAt(mechanism, home, { pair, motion }),
    least: limits?.[motion]?.min ?? null,
    most: limits?.[motion]?.max ?? null,
  }));
}

const keyOfMotion = (kind: PairKind, motion: Motion): MotionKey =>
  motion === 'about_z' || motion === 'screw' ? 'turn' : kind === 'planar' && motion === 'y' ? 'across' : 'slide';

/** What is small is told by how far the parts reach. */
const sizeOf = ({ members }: Members, lookAt: LookAt): number =>
  Math.max(1, ...[...new Set(members.map((m) => m.part))].map((part) => reachOf(lookAt(part))));

class Builder {
  readonly pairs: Pair[] = [];
  readonly coupled: Coupled[] = [];
  readonly coupledStates: CouplingState[] = [];
  readonly waiting = new Set<string>();
  private readonly byKey: ReadonlyMap<string, Members['members'][number]>;
  readonly found: { state: Omit<JointState, 'misses' | 'reversed' | 'inTheWay' | 'motions'>; pair: number }[] = [];

  constructor(
    private readonly design: Design,
    private readonly ledger: Ledger,
    private readonly members: Members,
    private readonly lookAt: LookAt,
  ) {
    this.byKey = new Map(members.members.map((m) => [m.key, m]));
  }

  /** The pairs of an assembly’s joints. @param path where the assembly stands */
  joints(assembly: string, path: readonly string[]): void {
    const own = this.design.assemblies![assembly]!;
    for (const id of own.jointOrder) {
      const joint = own.joints[id];
      if (!joint || joint.suppressed) continue;
      if ([joint.a, joint.b].some((end) => own.instances[end.instance[0] ?? '']?.suppressed)) continue;
      const key = [...path, id].join('/');
      const name = (end: JointEnd) => (end.instance[0] === undefined ? own.name : instanceName(this.design, own, end.instance[0])); // prettier-ignore
      const names = [name(joint.a), name(joint.b)] as const;
      const doubts: JointState['doubts'][number][] = [];
      const state = { key, id, assembly, joint, names, doubts };
      try {
        const pair = this.pair(key, id, joint, path, doubts);
        this.found.push({ state: { ...state, fault: null }, pair: pair ? this.pairs.push(pair) - 1 : -1 });
      } catch (error) {
        if (!(error instanceof JointFault)) throw error;
        this.found.push({ state: { ...state, fault: error.message }, pair: -1 });
      }
    }
  }

  /** Null while a part is not known yet. @throws JointFault */
  private pair(
    key: string,
    id: string,
    joint: Joint,
    path: readonly string[],
    doubts: JointState['doubts'][number][],
  ): Pair | null {
    const a = this.end('a', joint.a, path, doubts);
    const b = this.end('b', joint.b, path, doubts);
    if (!a || !b) return null;
    if (a.end.link === b.end.link)
      throw new JointFault('Both sides of this joint move as one already; remove it, or pick another part.');
    const number = (name: string): number | null => {
      const value = this.ledger.index.byReference(`${id}.${name}`) ? this.ledger.valueOf(`${id}.${name}`) : null;
      if (value && !value.ok)
        throw new JointFault(`The ${name.replace('_', ' ')} of this joint has no value: ${value.message}`);
      return value ? value.quantity.value : null;
    };
    const { kind } = joint;
    const isAngled = kind === 'angled' || kind === 'square' || kind === 'tangent';
    const offset = number('offset') ?? (kind === 'tangent' ? (b.radius ?? a.radius ?? 0) : 0);
    const lifted: Pose = { at: [0, 0, offset], turn: turnOf([0, 0, 1], isAngled ? 0 : (number('angle') ?? 0)) };
    const pitch = number('pitch');
    if (kind === 'screw' && !pitch) throw new JointFault('A screw needs a pitch other than nought; give it one.');
    const keys = drivable(kind).map((m) => keyOfMotion(kind, m));
    const limits = keys.map((k) => ({ min: number(`least_${k}`), max: number(`most_${k}`) }));
    for (const { min, max } of limits)
      if (min !== null && max !== null && min > max) throw new JointFault('The least of this joint is more than its most; change one of them.'); // prettier-ignore
    return {
      id: key,
      kind,
      a: { ...a.end, frame: poseWithin(a.end.frame, lifted) },
      b: joint.flip || isAngled ? b.end : { ...b.end, frame: poseWithin(b.end.frame, TURNED) },
      rest: keys.map((k) => number(`rest_${k}`)),
      limits,
      ...(pitch === null ? {} : { pitch }),
      angle: kind === 'angled' ? (number('angle') ?? Math.PI / 2) : Math.PI / 2,
    };
  }

  private end(
    side: 'a' | 'b',
    { instance, on }: JointEnd,
    path: readonly string[],
    doubts: JointState['doubts'][number][],
  ): { end: End; radius: number | null } | null {
    if (instance.length === 0 && path.length === 0)
      return { end: { link: -1, frame: 'stands' in on ? on.stands : HERE }, radius: null };
    const key = [...path, ...instance].join('/');
    const member = this.byKey.get(key);
    if (!member) {
      const link = this.members.linkOf.get(key);
      if (link === undefined) throw new JointFault(`Its side ${side === 'a' ? 'one' : 'two'} is on a part that is no longer there; pick it again or remove the joint.`); // prettier-ignore
      return { end: { link, frame: 'stands' in on ? on.stands : HERE }, radius: null };
    }
    const look = this.lookAt(member.part);
    if (!look) {
      this.waiting.add(member.part);
      return null;
    }
    try {
      const { frame, radius, doubt } = frameOn(on, look);
      if (doubt) doubts.push({ side, says: `On ${member.name} ${doubt.says}.`, proposed: doubt.proposed });
      return { end: { link: member.link, frame: poseWithin(member.within, frame) }, radius };
    } catch (error) {
      if (!(error instanceof SpotLost)) throw error;
      if (error.nearest)
        doubts.push({ side, says: `On ${member.name} the nearest is offered.`, proposed: error.nearest });
      throw new JointFault(`Its side on ${member.name} ${error.message}.`);
    }
  }

  couplings(assembly: string, path: readonly string[], mechanism: Mechanism, home: Placed): void {
    const own = this.design.assemblies![assembly]!;
    for (const [id, coupling] of Object.entries(own.couplings ?? {})) {
      if (coupling.suppressed) continue;
      try {
        const terms = this.terms(id, coupling, path, mechanism);
        const sum = terms.reduce((total, t) => total + t.by * valueAt(mechanism, home, t), 0);
        this.coupled.push({ id: [...path, id].join('/'), sum, terms });
        this.coupledStates.push({ id, coupling, fault: null });
      } catch (error) {
        if (!(error instanceof JointFault)) throw error;
        this.coupledStates.push({ id, coupling, fault: error.message });
      }
    }
  }

  /** @throws JointFault */
  private terms(id: string, { kind, a, b }: Coupling, path: readonly string[], mechanism: Mechanism): Coupled['terms'] {
    const number = (name: string, otherwise: number): number => {
      const value = this.ledger.index.byReference(`${id}.${name}`) ? this.ledger.valueOf(`${id}.${name}`) : null;
      if (value && !value.ok) throw new JointFault(`This coupling’s ${name} has no value: ${value.message}`);
      return value ? value.quantity.value : otherwise;
    };
    const coordinate = ({ joint, motion }: Coupling['a']) => {
      const state = this.found.find((f) => f.state.key === [...path, joint].join('/'));
      if (!state || state.pair < 0)
        throw new JointFault('A joint that this couples is not there, or has a fault of its own; mend that first.');
      const own = mechanism.pairs[state.pair]!;
      const at = drivable(own.kind).findIndex((m) => keyOfMotion(own.kind, m) === motion);
      if (at < 0)
        throw new JointFault(
          `${state.state.joint.name} has no ${motion === 'turn' ? 'turn' : 'slide'} to couple; pick another joint.`,
        );
      return { pair: state.pair, motion: at };
    };
    const [one, other] = [coordinate(a), coordinate(b)];
    if (kind === 'rack') {
      const lead = number('lead', 0);
      if (lead === 0) throw new JointFault('A rack needs how far it goes in one turn; give it a lead.');
      return [
        { ...one, by: -lead / (2 * Math.PI) },
        { ...other, by: 1 },
      ];
    }
    const [first, second] = [number('first', 1), number('second', 1)];
    if (first === 0 || second === 0)
      throw new JointFault('A wheel without teeth or size couples nothing; give both a number.');
    return [
      { ...one, by: first },
      { ...other, by: kind === 'gear' ? second : -second },
    ];
  }
}

/** Half a turn about x: what looks outward is laid against what looks outward. */
const TURNED: Pose = { at: [0, 0, 0], turn: [1, 0, 0, 0] };

/** A joint cannot be had; the message is a sentence for the user. */
class JointFault extends Error {}
