/** Edits of assemblies: what stands in them, and where. */
import { z } from 'zod';
import { assembliesWith, emptyAssembly, Instance, MAX_INSTANCES, type Assembly } from '../document/assembly.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { numberedIn } from '../document/numbered.ts';
import { plain } from '../document/plain.ts';
import type { Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { StoredPose } from '../references/stored-pose.ts';
import { Ledger } from '../ledger/ledger.ts';
import { MATERIAL_KEYS } from '../standards/materials.ts';
import { forgetGuest } from './forget-guest.ts';
import { freeName } from './free-name.ts';

const Typed = z.string().max(500);

export function assemblyIn(draft: Design, id: string): Assembly {
  const own = draft.assemblies?.[id];
  if (!own) throw new EditRefused('This assembly no longer exists.');
  return own;
}

function instanceIn(assembly: Assembly, id: string): Instance {
  const own = assembly.instances[id];
  if (!own) throw new EditRefused('This instance no longer exists.');
  return own;
}

const addAssemblyCommand = declareCommand({
  name: 'add-assembly',
  args: z.strictObject({ id: Id, name: Typed }),
  label: ({ name }) => `Add assembly ${name}`,
  run(draft, { id, name }) {
    draft.assemblies ??= {};
    if (draft.assemblies[id]) throw new EditRefused('An assembly of this id is there already.');
    draft.assemblies[id] = emptyAssembly(freeName(name, Object.values(draft.assemblies)));
    (draft.assemblyOrder ??= []).push(id);
  },
});
export const addAssembly = (id: string, name: string): Edit => addAssemblyCommand({ id, name });

const renameAssemblyCommand = declareCommand({
  name: 'rename-assembly',
  args: z.strictObject({ id: Id, name: Typed }),
  label: ({ name }) => `Rename an assembly to ${name}`,
  run(draft, { id, name }) {
    if (!name.trim()) throw new EditRefused('An assembly needs a name.');
    assemblyIn(draft, id).name = name.trim().slice(0, 80);
  },
});
export const renameAssembly = (id: string, name: string): Edit => renameAssemblyCommand({ id, name });

const deleteAssemblyCommand = declareCommand({
  name: 'delete-assembly',
  args: z.strictObject({ id: Id }),
  label: () => 'Delete an assembly',
  run(draft, { id }) {
    const own = assemblyIn(draft, id);
    const around = Object.values(draft.assemblies!).find((a) => Object.values(a.instances).some((i) => 'assembly' in i.of && i.of.assembly === id)); // prettier-ignore
    if (around) throw new EditRefused(`${own.name} stands in ${around.name}; remove it there first.`);
    refuseIfUsed(
      draft,
      numberedIn(own).map((n) => n.id),
    );
    delete draft.assemblies![id];
    forgetGuest(draft, own.guest, id);
    draft.assemblyOrder = draft.assemblyOrder!.filter((other) => other !== id);
  },
});
export const deleteAssembly = (id: string): Edit => deleteAssemblyCommand({ id });

/** Numbers of joints that others use stay where they are. */
export function refuseIfUsed(draft: Design, joints: readonly string[]): void {
  const ledger = Ledger.of(plain(draft));
  const going = new Set(
    ledger.entries.filter((e) => 'joint' in e.owner && joints.includes(e.owner.joint)).map((e) => e.ref),
  );
  const user = ledger.entries.find((e) => !going.has(e.ref) && ledger.dependenciesOf(e).some((ref) => going.has(ref)));
  if (user) throw new EditRefused(`${user.path.join('.')} uses a number of this; change that first.`);
}

const placeCommand = declareCommand({
  name: 'place-instances',
  args: z.strictObject({
    assembly: Id,
    places: z
      .array(z.tuple([Id, Instance]))
      .min(1)
      .max(MAX_INSTANCES),
  }),
  label: ({ places }) => (places.length === 1 ? 'Place a part' : `Place ${places.length} parts`),
  run(draft, { assembly, places }) {
    const own = assemblyIn(draft, assembly);
    for (const [id, instance] of places) {
      if (own.instances[id]) throw new EditRefused('An instance of this id is there already.');
      refuseUnfit(draft, assembly, instance.of);
      own.instances[id] = structuredClone(instance);
      own.instanceOrder.push(id);
    }
  },
});

function refuseUnfit(draft: Design, assembly: string, of: Instance['of']): void {
  if ('part' in of) {
    if (!draft.parts[of.part]) throw new EditRefused('The part to be placed no longer exists.');
    return;
  }
  const inner = assemblyIn(draft, of.assembly);
  if (assembliesWith(plain(draft), assembly).has(of.assembly))
    throw new EditRefused(
      `${inner.name} has ${draft.assemblies![assembly]!.name} in it, or is it; an assembly cannot stand in itself.`,
    );
}

/** New instances. @param places id and what stands there, each */
export const placeInstances = (assembly: string, places: readonly (readonly [string, Instance])[]): Edit =>
  placeCommand({ assembly, places: places.map(([id, i]): [string, Instance] => [id, i]) });

const moveCommand = declareCommand({
  name: 'move-instances',
  args: z.strictObject({ assembly: Id, homes: z.record(Id, StoredPose) }),
  label: ({ homes }) => (Object.keys(homes).length === 1 ? 'Move a part’s home' : 'Move the homes of parts'),
  run(draft, { assembly, homes }) {
    const own = assemblyIn(draft, assembly);
    for (const [id, home] of Object.entries(homes)) instanceIn(own, id).home = structuredClone(home);
  },
});

/** Give instances other homes. */
export const moveInstances = (assembly: string, homes: Readonly<Record<string, Instance['home']>>): Edit =>
  moveCommand({ assembly, homes: { ...homes } });

const Marks = z.strictObject({
  fixed: z.boolean().optional(),
  hidden: z.boolean().optional(),
  suppressed: z.boolean().optional(),
  moves: z.boolean().optional(),
  name: Typed.nullable().optional(),
  material: z.enum(MATERIAL_KEYS).nullable().optional(),
  of: Instance.shape.of.optional(),
});
export type InstanceMarks = z.infer<typeof Marks>;

const WORDS: Readonly<Record<string, readonly [string, string]>> = {
  fixed: ['Fix', 'Free'],
  hidden: ['Hide', 'Show'],
  suppressed: ['Suppress', 'Bring back'],
  moves: ['Let move within', 'Move as one'],
};

const markCommand = declareCommand({
  name: 'mark-instances',
  args: z.strictObject({ assembly: Id, instances: z.array(Id).min(1).max(MAX_INSTANCES), marks: Marks }),
  label({ instances, marks }) {
    const what = instances.length === 1 ? 'a part' : `${instances.length} parts`;
    const [key, value] = Object.entries(marks)[0] ?? ['', null];
    const words = WORDS[key];
    return words ? `${words[value ? 0 : 1]} ${what}` : key === 'of' ? `Replace ${what}` : `Change ${what}`;
  },
  run(draft, { assembly, instances, marks }) {
    const own = assemblyIn(draft, assembly);
    for (const id of instances) {
      const instance = instanceIn(own, id);
      for (const key of ['fixed', 'hidden', 'suppressed', 'moves'] as const) {
        if (marks[key] === true) instance[key] = true;
        else if (marks[key] === false) delete instance[key];
      }
      if (marks.name !== undefined) {
        if (marks.name?.trim()) instance.name = marks.name.trim().slice(0, 80);
        else delete instance.name;
      }
      if (marks.material) instance.material = marks.material;
      else if (marks.material === null) delete instance.material;
      if (marks.of) {
        refuseUnfit(draft, assembly, marks.of);
        instance.of = { ...marks.of };
      }
    }
  },
});

/** Fix, hide, suppress, rename, replace. */
export const markInstances = (assembly: string, instances: readonly string[], marks: InstanceMarks): Edit =>
  markCommand({ assembly, instances: [...instances], marks });

const removeCommand = declareCommand({
  name: 'remove-instances',
  args: z.strictObject({ assembly: Id, instances: z.array(Id).min(1).max(MAX_INSTANCES) }),
  label: ({ instances }) => (instances.length === 1 ? 'Remove a part' : `Remove ${instances.length} parts`),
  run(draft, { assembly, instances }) {
    const own = assemblyIn(draft, assembly);
    const going = new Set(instances);
    instances.forEach((id) => void instanceIn(own, id));
    const joints = own.jointOrder.filter((id) =>
      [own.joints[id]!.a, own.joints[id]!.b].some((end) => going.has(end.instance[0] ?? '')),
    );
    dropJoints(draft, own, joints);
    for (const id of going) delete own.instances[id];
    own.instanceOrder = own.instanceOrder.filter((id) => !going.has(id));
  },
});

/** Instances with the joints on them. */
export const removeInstances = (assembly: string, instances: readonly string[]): Edit =>
  removeCommand({ assembly, instances: [...instances] });

/** Joints, with the couplings that name them. @throws EditRefused where their numbers are used */
export function dropJoints(draft: Design, own: Assembly, joints: readonly string[]): void {
  if (joints.length === 0) return;
  const gone = new Set(joints);
  const couplings = Object.entries(own.couplings ?? {}).flatMap(([id, c]) =>
    gone.has(c.a.joint) || gone.has(c.b.joint) ? [id] : [],
  );
  refuseIfUsed(draft, [...joints, ...couplings]);
  for (const id of joints) delete own.joints[id];
  for (const id of couplings) delete own.couplings![id];
  own.jointOrder = own.jointOrder.filter((id) => !gone.has(id));
}
