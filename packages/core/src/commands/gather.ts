/** Parts gathered into an assembly of their own, an assembly dissolved into its parts, and parts copied with what joins them. */
import { z } from 'zod';
import { emptyAssembly, MAX_INSTANCES, MAX_JOINTS, type Assembly, type Coupling, type Joint, type JointEnd } from '../document/assembly.ts'; // prettier-ignore
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { plain } from '../document/plain.ts';
import { Id } from '../ids/ids.ts';
import { StoredPose } from '../references/stored-pose.ts';
import { poseWithin, type Pose } from '../space/pose.ts';
import { assemblyIn } from './assembly.ts';
import { freeName } from './free-name.ts';
import { reroute, type Rerouted } from './ways.ts';

const stored = ({ at, turn }: Pose): z.infer<typeof StoredPose> => ({ at: [...at], turn: [...turn] });
const first = ({ instance }: JointEnd) => instance[0] ?? '';

const gatherCommand = declareCommand({
  name: 'gather-instances',
  args: z.strictObject({
    assembly: Id,
    instances: z.array(Id).min(1).max(MAX_INSTANCES),
    into: Id,
    as: Id,
    name: z.string().max(500),
  }),
  label: ({ name }) => `Gather parts into ${name}`,
  run(draft, { assembly, instances, into, as, name }) {
    const own = assemblyIn(draft, assembly);
    if (draft.assemblies![into] || own.instances[as]) throw new EditRefused('An assembly of this id is there already.');
    const inside = new Set(instances);
    for (const id of instances) if (!own.instances[id]) throw new EditRefused('This instance no longer exists.');
    const group: Assembly = emptyAssembly(freeName(name.trim() || 'Group', Object.values(draft.assemblies!)));
    const isFixed = instances.some((id) => own.instances[id]!.fixed);
    for (const id of own.instanceOrder.filter((i) => inside.has(i))) {
      group.instances[id] = structuredClone(plain(own.instances[id]!));
      group.instanceOrder.push(id);
      delete own.instances[id];
    }
    // Something in it stands still, or it could not be said where it is.
    if (!isFixed) group.instances[group.instanceOrder[0]!]!.fixed = true;
    own.instanceOrder = own.instanceOrder.filter((id) => !inside.has(id));
    for (const id of [...own.jointOrder]) {
      const joint = own.joints[id]!;
      const ends = [joint.a, joint.b].map((end) => inside.has(first(end)));
      if (ends[0] && ends[1]) {
        group.joints[id] = structuredClone(plain(joint));
        group.jointOrder.push(id);
        delete own.joints[id];
      } else for (const end of [joint.a, joint.b]) if (inside.has(first(end))) end.instance = [as, ...end.instance];
    }
    own.jointOrder = own.jointOrder.filter((id) => own.joints[id]);
    splitCouplings(own, group);
    own.instances[as] = { of: { assembly: into }, home: { at: [0, 0, 0], turn: [0, 0, 0, 1] }, moves: true, ...(isFixed ? { fixed: true } : {}) }; // prettier-ignore
    own.instanceOrder.push(as);
    draft.assemblies![into] = group;
    draft.assemblyOrder!.push(into);
    const inwards: Rerouted = (rest) => (inside.has(rest[0] ?? '') ? [as, ...rest] : null);
    reroute(draft, assembly, inwards, (rest) => (rest.length === 1 && group.joints[rest[0]!] ? [as, ...rest] : inwards(rest))); // prettier-ignore
  },
});

/** Couplings go with their joints; one between a joint inside and one outside cannot be kept. */
function splitCouplings(own: Assembly, group: Assembly): void {
  for (const [id, c] of Object.entries(own.couplings ?? {})) {
    const inside = [c.a.joint, c.b.joint].filter((j) => group.joints[j]).length;
    if (inside === 1) throw new EditRefused(`${c.name} couples a joint inside with one outside; gather both, or remove it first.`); // prettier-ignore
    if (inside === 0) continue;
    (group.couplings ??= {})[id] = structuredClone(plain(c));
    delete own.couplings![id];
  }
}

/** Make these instances an assembly `into`, standing as `as` where they stand, their joints with them. */
export const gatherInstances = (
  assembly: string,
  instances: readonly string[],
  into: string,
  as: string,
  name: string,
): Edit => gatherCommand({ assembly, instances: [...instances], into, as, name });

const Ids = z.array(z.tuple([Id, Id])).max(MAX_JOINTS);

const dissolveCommand = declareCommand({
  name: 'dissolve-instance',
  args: z.strictObject({ assembly: Id, instance: Id, instances: Ids, joints: Ids }),
  label: () => 'Dissolve an assembly into its parts',
  run(draft, { assembly, instance, instances, joints }) {
    const own = assemblyIn(draft, assembly);
    const standing = own.instances[instance];
    if (!standing || !('assembly' in standing.of)) throw new EditRefused('Only an assembly can be dissolved.');
    const inner = assemblyIn(draft, standing.of.assembly);
    const names = new Map(instances);
    const jointNames = new Map(joints);
    if (inner.instanceOrder.some((id) => !names.has(id)) || inner.jointOrder.some((id) => !jointNames.has(id)))
      throw new EditRefused('The assembly has changed meanwhile; try again.');
    for (const id of inner.instanceOrder) {
      const { fixed, ...rest } = structuredClone(plain(inner.instances[id]!));
      const as = names.get(id)!;
      if (own.instances[as]) throw new EditRefused('An instance of this id is there already.');
      own.instances[as] = {
        ...rest,
        home: stored(poseWithin(standing.home, rest.home)),
        ...(fixed && standing.fixed ? { fixed } : {}),
      };
      own.instanceOrder.push(as);
    }
    const outward = (end: JointEnd): JointEnd => ({
      ...end,
      instance: [names.get(first(end)) ?? first(end), ...end.instance.slice(1)],
    });
    for (const id of inner.jointOrder) {
      const joint: Joint = structuredClone(plain(inner.joints[id]!));
      own.joints[jointNames.get(id)!] = { ...joint, a: outward(joint.a), b: outward(joint.b) };
      own.jointOrder.push(jointNames.get(id)!);
    }
    for (const c of Object.values(inner.couplings ?? {})) {
      const own_: Coupling = structuredClone(plain(c));
      const id = `${jointNames.get(c.a.joint)!}c`.slice(0, 40);
      (own.couplings ??= {})[id] = { ...own_, a: { ...c.a, joint: jointNames.get(c.a.joint)! }, b: { ...c.b, joint: jointNames.get(c.b.joint)! } }; // prettier-ignore
    }
    for (const id of own.jointOrder)
      for (const end of [own.joints[id]!.a, own.joints[id]!.b])
        if (end.instance[0] === instance) {
          const rest = end.instance.slice(1);
          if (rest.length === 0) throw new EditRefused('A joint sits on the assembly as a whole; pick it anew on a part first.'); // prettier-ignore
          end.instance = [names.get(rest[0]!)!, ...rest.slice(1)];
        }
    for (const pose of Object.values(own.poses ?? {})) {
      // Where it stood as one, what it was made of stands within.
      const whole = pose.at[instance];
      if (whole) for (const id of inner.instanceOrder) pose.at[names.get(id)!] = stored(poseWithin(whole, inner.instances[id]!.home)); // prettier-ignore
      delete pose.at[instance];
    }
    const outwards: Rerouted = ([way, next, ...rest]) => (way === instance && next !== undefined && names.has(next) ? [names.get(next)!, ...rest] : null); // prettier-ignore
    reroute(draft, assembly, outwards, (rest) => (rest.length === 2 && rest[0] === instance && jointNames.has(rest[1]!) ? [jointNames.get(rest[1]!)!] : outwards(rest))); // prettier-ignore
    delete own.instances[instance];
    own.instanceOrder = own.instanceOrder.filter((id) => id !== instance);
  },
});

/** @param instances new ids of what stands in it, by their ids there @param joints likewise */
export const dissolveInstance = (
  assembly: string,
  instance: string,
  instances: readonly (readonly [string, string])[],
  joints: readonly (readonly [string, string])[],
): Edit =>
  dissolveCommand({
    assembly,
    instance,
    instances: instances.map(([a, b]) => [a, b]),
    joints: joints.map(([a, b]) => [a, b]),
  });

const copyCommand = declareCommand({
  name: 'copy-instances',
  args: z.strictObject({ assembly: Id, instances: Ids.min(1), joints: Ids, by: StoredPose }),
  label: ({ instances }) => (instances.length === 1 ? 'Copy a part' : `Copy ${instances.length} parts`),
  reads: ({ assembly, instances }) => instances.map(([id]) => ['assemblies', assembly, 'instances', id]),
  run(draft, { assembly, instances, joints, by }) {
    const own = assemblyIn(draft, assembly);
    const names = new Map(instances);
    for (const [id, as] of instances) {
      const from = own.instances[id];
      if (!from) throw new EditRefused('This instance no longer exists.');
      if (own.instances[as]) throw new EditRefused('An instance of this id is there already.');
      const { fixed: _, name: __, ...rest } = structuredClone(plain(from));
      own.instances[as] = { ...rest, home: stored(poseWithin(by, rest.home)) };
      own.instanceOrder.push(as);
    }
    for (const [id, as] of joints) {
      const from = own.joints[id];
      if (!from || own.joints[as]) throw new EditRefused('A joint to be copied is no longer there.');
      const copy: Joint = structuredClone(plain(from));
      const to = (end: JointEnd): JointEnd => ({
        ...end,
        instance: [names.get(first(end)) ?? first(end), ...end.instance.slice(1)],
      });
      own.joints[as] = { ...copy, name: freeName(copy.name, Object.values(own.joints)), a: to(copy.a), b: to(copy.b) };
      own.jointOrder.push(as);
    }
  },
});

/** Copies that stand moved by `by`; joints that are named go with them, on the copies where they were on what is copied. */
export const copyInstances = (
  assembly: string,
  instances: readonly (readonly [string, string])[],
  joints: readonly (readonly [string, string])[],
  by: Pose,
): Edit =>
  copyCommand({
    assembly,
    instances: instances.map(([a, b]) => [a, b]),
    joints: joints.map(([a, b]) => [a, b]),
    by: stored(by),
  });
