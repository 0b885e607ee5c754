/** Assemblies as the file holds them: instances of parts that stand somewhere, and joints between frames on them. */
import { isDraft } from 'immer';
import { z } from 'zod';
import { Expr } from '../dimensions/expression.ts';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';
import { JOINT_KINDS, MATE_KINDS } from '../mechanism/kinds.ts';
import { EdgeRef, FaceRef, VertexRef } from '../references/references.ts';
import { StoredPose } from '../references/stored-pose.ts';
import { MATERIAL_KEYS } from '../standards/materials.ts';
import type { QuantityKind } from '../units/units.ts';
import { Run } from './run.ts';

export const MAX_ASSEMBLIES = 200;
export const MAX_INSTANCES = 2000;
export const MAX_JOINTS = 4000;
/** Assemblies stand in each other so deep. */
export const MAX_NESTED = 8;

export const Instance = z
  .strictObject({
    of: z.union([z.strictObject({ part: Id }), z.strictObject({ assembly: Id })]),
    name: Name.optional().describe('Left out, it is called as its part, with a number.'),
    home: StoredPose.describe('The modelled position, or where joints begin to look for it.'),
    fixed: z.literal(true).optional().describe('It stands still, and others move against it.'),
    hidden: z.literal(true).optional(),
    suppressed: z.literal(true).optional().describe('As if it were not there, with its joints.'),
    moves: z.literal(true).optional().describe('Of an assembly: its own joints move in it; left out, it moves as one.'),
    material: z.enum(MATERIAL_KEYS).optional().describe('In place of its part’s.'),
  })
  .describe('A part, or another assembly, standing in an assembly.');
export type Instance = z.infer<typeof Instance>;

export const Spot = z
  .union([
    z.strictObject({ origin: z.literal(true) }).describe('Its own origin and directions.'),
    z
      .strictObject({ face: FaceRef })
      .describe('Flat: its centre, z outward. Round: the middle of its axis, z along it.'),
    z
      .strictObject({ edge: EdgeRef, end: z.enum(['one', 'other']).optional() })
      .describe('Round: its centre, z along its axis. Straight: its middle or an end, z along it.'),
    z.strictObject({ vertex: VertexRef }).describe('A corner, directions as its part’s.'),
    z.strictObject({ sketch: Id, point: z.string().min(1).max(200) }).describe('A point of a sketch, z off its plane.'),
    z.strictObject({ step: Id }).describe('A datum that a step sets up.'),
    z.strictObject({ between: z.tuple([FaceRef, FaceRef]) }).describe('Midway between two parallel faces.'),
    z
      .strictObject({ crossing: z.tuple([EdgeRef, EdgeRef]) })
      .describe('Where two straight edges cross, made longer if need be; z square to both.'),
    z.strictObject({ stands: StoredPose }).describe('A fixed frame in the instance: where the other side stood.'),
  ])
  .describe('What a frame sits on.');
export type Spot = z.infer<typeof Spot>;

export const JointEnd = z.strictObject({
  instance: z
    .array(Id)
    .max(MAX_NESTED)
    .describe('The instance, outermost first where it stands in an assembly; none: the space of the assembly itself.'),
  on: Spot,
});
export type JointEnd = z.infer<typeof JointEnd>;

/** Numbers a joint may have, each an expression, and what kind each is. */
export const JOINT_NUMBERS = {
  offset: 'length', angle: 'angle', pitch: 'length',
  rest_slide: 'length', rest_across: 'length', rest_turn: 'angle',
  least_slide: 'length', least_across: 'length', least_turn: 'angle',
  most_slide: 'length', most_across: 'length', most_turn: 'angle',
} as const satisfies Record<string, QuantityKind>; // prettier-ignore
export type JointNumber = keyof typeof JOINT_NUMBERS;
export const JOINT_NUMBER_KEYS = Object.keys(JOINT_NUMBERS) as JointNumber[];

const numbersOf = <K extends string>(keys: readonly K[]) =>
  z.strictObject(
    Object.fromEntries(keys.map((k) => [k, Expr.optional()])) as unknown as Record<K, z.ZodOptional<typeof Expr>>,
  );

export const Joint = z
  .strictObject({
    kind: z.enum([...JOINT_KINDS, ...MATE_KINDS]),
    name: Name,
    a: JointEnd,
    b: JointEnd,
    flip: z.literal(true).optional().describe('z axes look the same way; left out, against each other.'),
    numbers: numbersOf(JOINT_NUMBER_KEYS).describe(
      'offset along z; angle about z, or between; pitch a turn; rest, least and most of what it leaves free.',
    ),
    suppressed: z.literal(true).optional(),
  })
  .describe('A joint, or a mate, between frames on two instances.');
export type Joint = z.infer<typeof Joint>;

export const COUPLING_KINDS = ['gear', 'belt', 'rack'] as const;
const CoupledEnd = z.strictObject({ joint: Id, motion: z.enum(['slide', 'across', 'turn']) });

export const COUPLING_NUMBERS = { first: 'number', second: 'number', lead: 'length' } as const satisfies Record<string, QuantityKind>; // prettier-ignore
export type CouplingNumber = keyof typeof COUPLING_NUMBERS;

export const Coupling = z
  .strictObject({
    kind: z.enum(COUPLING_KINDS),
    name: Name,
    a: CoupledEnd,
    b: CoupledEnd,
    numbers: numbersOf(Object.keys(COUPLING_NUMBERS) as CouplingNumber[]).describe(
      'Gears and belts: teeth or sizes of the first and the second. Racks: how far b slides at one turn of a.',
    ),
    suppressed: z.literal(true).optional(),
  })
  .describe('Motions that go together: gears against each other, a belt’s wheels alike, a rack with its pinion.');
export type Coupling = z.infer<typeof Coupling>;

export const KeptPose = z
  .strictObject({
    name: Name,
    at: z.record(z.string().max(400), StoredPose).describe('Where instances stand, by their ids joined with /.'),
    exploded: z.literal(true).optional().describe('Taken apart to be seen: joints do not hold.'),
  })
  .describe('A position of the moving parts, kept to be looked at again.');
export type KeptPose = z.infer<typeof KeptPose>;

export const Assembly = z
  .strictObject({
    name: Name,
    instances: mapOf(Id, Instance, MAX_INSTANCES),
    instanceOrder: z.array(Id).max(MAX_INSTANCES),
    joints: mapOf(Id, Joint, MAX_JOINTS),
    jointOrder: z.array(Id).max(MAX_JOINTS),
    couplings: mapOf(Id, Coupling, MAX_JOINTS).optional(),
    poses: mapOf(Id, KeptPose, 200).optional(),
    runs: mapOf(Id, Run, 100).optional(),
    guest: Id.optional().describe('It is of another design, and changed there.'),
  })
  .describe('Parts standing together.');
export type Assembly = z.infer<typeof Assembly>;

export const Assemblies = mapOf(Id, Assembly, MAX_ASSEMBLIES);

export const emptyAssembly = (name: string): Assembly => ({
  name,
  instances: {},
  instanceOrder: [],
  joints: {},
  jointOrder: [],
});

type HasAssemblies = { readonly assemblies?: Readonly<Record<string, Assembly>> | undefined };

/** Assemblies in which this one stands, or that it is, through any depth. */
export function assembliesWith({ assemblies = {} }: HasAssemblies, id: string): ReadonlySet<string> {
  const found = new Set([id]);
  for (let grew = true; grew;) {
    grew = false;
    for (const [own, { instances }] of Object.entries(assemblies))
      if (!found.has(own) && Object.values(instances).some((i) => 'assembly' in i.of && found.has(i.of.assembly)))
        grew = !!found.add(own);
  }
  return found;
}

type Named = HasAssemblies & { readonly parts: Readonly<Record<string, { readonly name: string }>> };

/** Names of what stands in an assembly, as long as nothing is called otherwise. */
const called = new WeakMap<Assembly, { readonly design: Named; readonly names: ReadonlyMap<string, string> }>();

/** What an instance is called: by its own name, or its part’s with a number where several are alike. */
export function instanceName(design: Named, assembly: Assembly, id: string): string {
  // A draft changes under its own name.
  if (isDraft(design) || isDraft(assembly)) return namesIn(design, assembly).get(id) ?? DELETED;
  let known = called.get(assembly);
  if (known?.design !== design) called.set(assembly, (known = { design, names: namesIn(design, assembly) }));
  return known.names.get(id) ?? DELETED;
}
const DELETED = 'a deleted instance';

/** All at once, as their numbers depend on each other. */
function namesIn(design: Named, { instances, instanceOrder }: Assembly): ReadonlyMap<string, string> {
  const names = new Map<string, string>();
  const alike = new Map<string, string[]>();
  const listed = new Set(instanceOrder);
  for (const id of [...instanceOrder, ...Object.keys(instances).filter((other) => !listed.has(other))]) {
    const own = instances[id];
    if (!own) continue;
    if (own.name) names.set(id, own.name);
    else {
      const of = 'part' in own.of ? `part ${own.of.part}` : `assembly ${own.of.assembly}`;
      const others = alike.get(of);
      if (others) others.push(id);
      else alike.set(of, [id]);
    }
  }
  for (const [of, ids] of alike) {
    const [kind, id] = of.split(' ') as [string, string];
    const word = kind === 'part' ? (design.parts[id]?.name ?? 'a deleted part') : (design.assemblies?.[id]?.name ?? 'a deleted assembly'); // prettier-ignore
    ids.forEach((own, i) => names.set(own, ids.length > 1 ? `${word} ${i + 1}` : word));
  }
  return names;
}
