/** Edits of joints, couplings and kept poses. */
import { z } from 'zod';
import { ExpressionError } from '../dimensions/lexer.ts';
import { Coupling, Joint, JointEnd, KeptPose, type Assembly } from '../document/assembly.ts'; // prettier-ignore
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { numberedOf } from '../document/numbered.ts';
import { plain } from '../document/plain.ts';
import type { Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { StoredPose } from '../references/stored-pose.ts';
import { Ledger } from '../ledger/ledger.ts';
import { assemblyIn, dropJoints } from './assembly.ts';
import { freeName } from './free-name.ts';

const Typed = z.string().max(2000);

const jointIn = (own: Assembly, id: string): Joint => {
  const joint = own.joints[id];
  if (!joint) throw new EditRefused('This joint no longer exists.');
  return joint;
};

function refuseLoose(own: Assembly, { a, b }: Pick<Joint, 'a' | 'b'>): void {
  for (const { instance } of [a, b])
    if (instance.length > 0 && !own.instances[instance[0]!])
      throw new EditRefused('A part that this joins is no longer there; pick another.');
  if (a.instance.length > 0 && a.instance.join('/') === b.instance.join('/'))
    throw new EditRefused('Both sides are on one and the same part; pick the other part.');
}

const nameBeside = (own: Assembly, wanted: string) =>
  freeName(wanted, [...Object.values(own.joints), ...Object.values(own.couplings ?? {})]);

const addCommand = declareCommand({
  name: 'add-joint',
  args: z.strictObject({ assembly: Id, id: Id, joint: Joint, homes: z.record(Id, StoredPose) }),
  label: ({ joint }) => `Join: ${joint.name}`,
  run(draft, { assembly, id, joint, homes }) {
    const own = assemblyIn(draft, assembly);
    if (own.joints[id]) throw new EditRefused('A joint of this id is there already.');
    refuseLoose(own, joint);
    own.joints[id] = { ...structuredClone(joint), name: nameBeside(own, joint.name), numbers: {} };
    own.jointOrder.push(id);
    for (const [instance, home] of Object.entries(homes))
      if (own.instances[instance]) own.instances[instance].home = structuredClone(home);
    for (const [key, text] of Object.entries(joint.numbers))
      if (text !== undefined) giveNumber(draft, assembly, id, key, text);
  },
});

/** @param homes where parts come to stand with it: from there they are looked for from now on */
export const addJoint = (
  assembly: string,
  id: string,
  joint: Joint,
  homes: Readonly<Record<string, z.infer<typeof StoredPose>>> = {},
): Edit => addCommand({ assembly, id, joint, homes: { ...homes } });

const Changed = z.strictObject({
  kind: Joint.shape.kind.optional(),
  name: Typed.optional(),
  flip: z.boolean().optional(),
  suppressed: z.boolean().optional(),
  a: JointEnd.optional(),
  b: JointEnd.optional(),
});

const changeCommand = declareCommand({
  name: 'change-joint',
  args: z.strictObject({ assembly: Id, joint: Id, to: Changed }),
  label: ({ to }) => (to.flip !== undefined ? 'Flip a joint' : to.kind ? 'Change what a joint leaves free' : to.name !== undefined ? `Rename a joint to ${to.name}` : to.suppressed === undefined ? 'Pick a joint’s side anew' : to.suppressed ? 'Suppress a joint' : 'Bring a joint back'), // prettier-ignore
  run(draft, { assembly, joint, to }) {
    const own = assemblyIn(draft, assembly);
    const now = jointIn(own, joint);
    if (to.kind) now.kind = to.kind;
    if (to.name !== undefined) {
      if (!to.name.trim()) throw new EditRefused('A joint needs a name.');
      now.name = to.name.trim().slice(0, 80);
    }
    for (const key of ['flip', 'suppressed'] as const) {
      if (to[key] === true) now[key] = true;
      else if (to[key] === false) delete now[key];
    }
    if (to.a) now.a = structuredClone(to.a);
    if (to.b) now.b = structuredClone(to.b);
    refuseLoose(own, plain(now));
  },
});
export const changeJoint = (assembly: string, joint: string, to: z.infer<typeof Changed>): Edit =>
  changeCommand({ assembly, joint, to });

const removeCommand = declareCommand({
  name: 'remove-joints',
  args: z.strictObject({ assembly: Id, joints: z.array(Id).min(1).max(500) }),
  label: ({ joints }) => (joints.length === 1 ? 'Remove a joint' : `Remove ${joints.length} joints`),
  run(draft, { assembly, joints }) {
    const own = assemblyIn(draft, assembly);
    for (const id of joints) jointIn(own, id);
    dropJoints(draft, own, joints);
  },
});
export const removeJoints = (assembly: string, joints: readonly string[]): Edit =>
  removeCommand({ assembly, joints: [...joints] });

const numberCommand = declareCommand({
  name: 'set-joint-number',
  args: z.strictObject({ assembly: Id, joint: Id, key: z.string().max(40), text: Typed.nullable() }),
  label: ({ key, text }) => (text === null ? `Clear ${key} of a joint` : `Set ${key} of a joint to ${text}`),
  run(draft, { assembly, joint, key, text }) {
    giveNumber(draft, assembly, joint, key, text);
  },
});

/** A number of a joint or coupling, as typed; null takes it away. */
export const setJointNumber = (assembly: string, joint: string, key: string, text: string | null): Edit =>
  numberCommand({ assembly, joint, key, text });

export function giveNumber(draft: Design, assembly: string, id: string, key: string, text: string | null): void {
  const own = assemblyIn(draft, assembly);
  const holder = numberedOf(own, id);
  if (!holder) throw new EditRefused('This joint no longer exists.');
  const { numbers, kinds } = holder;
  const kind = Object.hasOwn(kinds, key) ? kinds[key] : undefined;
  if (!kind) throw new EditRefused(`A joint has no number called ${key}.`);
  if (text === null) {
    const ref = `${id}.${key}`;
    const ledger = Ledger.of(plain(draft));
    const user = ledger.usersOf(ref).flatMap((r) => ledger.index.byReference(r) ?? [])[0];
    if (user) throw new EditRefused(`${user.path.join('.')} uses this number; change that first.`);
    delete numbers[key];
    return;
  }
  try {
    numbers[key] = Ledger.of(plain(draft)).bind(text.trim(), { joint: id }, kind);
  } catch (error) {
    if (error instanceof ExpressionError) throw new EditRefused(error.message);
    throw error;
  }
  const value = Ledger.of(plain(draft)).valueOf(`${id}.${key}`);
  if (!value.ok) throw new EditRefused(value.message);
}

const coupleCommand = declareCommand({
  name: 'add-coupling',
  args: z.strictObject({ assembly: Id, id: Id, coupling: Coupling }),
  label: ({ coupling }) => `Couple: ${coupling.name}`,
  run(draft, { assembly, id, coupling }) {
    const own = assemblyIn(draft, assembly);
    if (own.couplings?.[id] || own.joints[id]) throw new EditRefused('A coupling of this id is there already.');
    for (const { joint } of [coupling.a, coupling.b]) jointIn(own, joint);
    (own.couplings ??= {})[id] = { ...structuredClone(coupling), name: nameBeside(own, coupling.name), numbers: {} };
    for (const [key, text] of Object.entries(coupling.numbers))
      if (text !== undefined) giveNumber(draft, assembly, id, key, text);
  },
});
export const addCoupling = (assembly: string, id: string, coupling: Coupling): Edit =>
  coupleCommand({ assembly, id, coupling });

const uncoupleCommand = declareCommand({
  name: 'remove-coupling',
  args: z.strictObject({ assembly: Id, id: Id }),
  label: () => 'Remove a coupling',
  run(draft, { assembly, id }) {
    const own = assemblyIn(draft, assembly);
    if (!own.couplings?.[id]) throw new EditRefused('This coupling no longer exists.');
    delete own.couplings[id];
  },
});
export const removeCoupling = (assembly: string, id: string): Edit => uncoupleCommand({ assembly, id });

const poseCommand = declareCommand({
  name: 'keep-pose',
  args: z.strictObject({ assembly: Id, id: Id, pose: KeptPose.nullable() }),
  label: ({ pose }) => (pose ? `Keep the pose ${pose.name}` : 'Forget a pose'),
  run(draft, { assembly, id, pose }) {
    const own = assemblyIn(draft, assembly);
    if (pose)
      (own.poses ??= {})[id] = { ...structuredClone(pose), name: freeName(pose.name, Object.values(own.poses)) };
    else delete own.poses?.[id];
  },
});

/** Keep where parts have moved under a name, or forget it. */
export const keepPose = (assembly: string, id: string, pose: z.infer<typeof KeptPose> | null): Edit =>
  poseCommand({ assembly, id, pose });
