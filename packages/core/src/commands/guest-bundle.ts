/**
 * Parts and assemblies of another design made ready to stand in this one. Their recipes come whole; numbers of the
 * other design that they use come with them as numbers of the part, as they stand there now, written out.
 */
import type { Quantity } from '../dimensions/evaluate.ts';
import type { Assembly } from '../document/assembly.ts';
import type { Guest } from '../document/guest.ts';
import { numberedIn } from '../document/numbered.ts';
import type { Design, Part } from '../document/schema.ts';
import { hashText } from '../ids/hash.ts';
import { wordOf } from '../ledger/entries.ts';
import { Ledger } from '../ledger/ledger.ts';
import { withSteps } from '../names/name.ts';
import type { EdgeRef, FaceRef } from '../references/references.ts';
import type { Source } from '../references/source.ts';
import { edgeRewritten } from '../slots/edges/edges.ts';
import { faceRewritten } from '../slots/faces/faces.ts';
import type { Rewriting } from '../slots/slot.ts';
import type { Step } from '../steps/schema.ts';
import { outsideOf, rewrittenStep } from '../steps/slots-of.ts';

export interface GuestBundle {
  readonly guest: Guest;
  /** By their ids here. */
  readonly parts: readonly (readonly [string, Part])[];
  readonly assemblies: readonly (readonly [string, Assembly])[];
}

export interface GuestWanted {
  /** The other design, as its server calls it, and its revision. */
  readonly design: string;
  readonly revision: number;
  readonly follows: Guest['follows'];
  readonly parts: readonly string[];
  readonly assemblies: readonly string[];
}

/** @param key under which the guest stands in the host, and stood before where it is renewed */
export function guestBundle(host: Design, source: Design, wanted: GuestWanted, key: string): GuestBundle {
  const { parts, assemblies } = needed(source, wanted);
  const ledger = Ledger.of(source);
  const names = new Renaming(host, wanted.design, key);
  const bundle = {
    parts: [...parts].map((id) => [names.of(id), new PartTaken(source, ledger, id, names, key).part] as const),
    assemblies: [...assemblies].map((id) => [names.of(id), assemblyTaken(source.assemblies![id]!, ledger, names, key)] as const), // prettier-ignore
  };
  const renamed = Object.fromEntries(names.renamed);
  return {
    ...bundle,
    guest: {
      design: wanted.design,
      name: source.name,
      revision: wanted.revision,
      follows: wanted.follows,
      parts: wanted.parts.filter((id) => source.parts[id]),
      assemblies: wanted.assemblies.filter((id) => source.assemblies?.[id]),
      ...(names.renamed.size > 0 ? { renamed } : {}),
    },
  };
}

/** What was asked for, and all that it is made of or borrows from. */
function needed(source: Design, wanted: GuestWanted) {
  const parts = new Set<string>();
  const assemblies = new Set<string>();
  const addPart = (id: string): void => {
    const own = source.parts[id];
    if (!own || parts.has(id)) return;
    parts.add(id);
    for (const step of Object.values(own.steps))
      for (const { part, assembly } of outsideOf(step)) {
        addPart(part);
        if (assembly) addAssembly(assembly);
      }
  };
  const addAssembly = (id: string): void => {
    const own = source.assemblies?.[id];
    if (!own || assemblies.has(id)) return;
    assemblies.add(id);
    for (const { of } of Object.values(own.instances)) {
      if ('part' in of) addPart(of.part);
      else addAssembly(of.assembly);
    }
  };
  wanted.parts.forEach(addPart);
  wanted.assemblies.forEach(addAssembly);
  return { parts, assemblies };
}

/** Ids as they are there, where they are free here; what was renamed once stays so. */
class Renaming {
  readonly renamed: Map<string, string>;
  private readonly taken: ReadonlySet<string>;

  constructor(
    host: Design,
    private readonly design: string,
    key: string,
  ) {
    this.renamed = new Map(Object.entries(host.guests?.[key]?.renamed ?? {}));
    const own = (of: { guest?: string | undefined }) => of.guest === key;
    this.taken = new Set([
      ...Object.keys(host.dimensions),
      ...Object.keys(host.shared?.dimensions ?? {}),
      ...Object.entries(host.parts).flatMap(([id, p]) => (own(p) ? [] : [id, ...Object.keys(p.steps), ...Object.keys(p.dimensions)])),
      ...Object.entries(host.assemblies ?? {}).flatMap(([id, a]) => (own(a) ? [] : [id, ...numberedIn(a).map((n) => n.id)])),
    ]); // prettier-ignore
  }

  of = (id: string): string => {
    const known = this.renamed.get(id);
    if (known) return known;
    if (!this.taken.has(id)) return id;
    const fresh = `g${hashText(`${this.design} ${id}`)}`.slice(0, 30);
    this.renamed.set(id, fresh);
    return fresh;
  };

  /** Of a number that comes with a part. */
  number = (part: string, ref: string): string => `g${hashText(`${this.design} ${part} ${ref}`)}`.slice(0, 30);
}

const REFERENCE = /\$([A-Za-z]\w*(?:\.\w+)?)/g;

/** A value as it can be written; core units, every digit. */
function written({ value, powers: { length, angle } }: Quantity): string {
  const units = [...Array<string>(Math.abs(length)).fill('mm'), ...Array<string>(Math.abs(angle)).fill('rad')];
  if (length === 1 && angle === 0) return `${value} mm`;
  if (length === 0 && angle === 1) return `${value} rad`;
  const over = length < 0 || angle < 0;
  return units.length === 0 ? String(value) : `${value}${units.map((u) => ` ${over ? '/' : '*'} (1 ${u})`).join('')}`;
}

/** What an expression refers to outside, written out; null where that has no value either. */
function outside(ledger: Ledger, ref: string): string | null {
  const value = ledger.index.byReference(ref) ? ledger.valueOf(ref) : null;
  return value?.ok ? written(value.quantity) : null;
}

class PartTaken {
  readonly part: Part;
  private readonly came = new Map<string, string>();

  constructor(
    source: Design,
    private readonly ledger: Ledger,
    private readonly id: string,
    private readonly names: Renaming,
    key: string,
  ) {
    const own = source.parts[id]!;
    const expression = (text: string) => text.replace(REFERENCE, (_, ref: string) => this.reference(own, ref));
    const steps = Object.fromEntries(
      own.stepOrder.map((step) => [names.of(step), this.step(own.steps[step]!, expression)]),
    );
    const dimensions = Object.fromEntries(
      own.dimensionOrder.map((d) => {
        const { measured, ...rest } = own.dimensions[d]!;
        const dial = rest.dial && Object.fromEntries(Object.entries(rest.dial).map(([k, v]) => [k, v && expression(v)]));
        // What is measured there is as it was read there.
        return [names.of(d), { ...rest, value: measured ? rest.value : expression(rest.value), ...(dial ? { dial } : {}) }];
      }),
    ); // prettier-ignore
    const order = own.dimensionOrder.map(names.of);
    for (const [ref, as] of this.came) {
      const entry = ledger.index.byReference(ref)!;
      const used = new Set(Object.values(dimensions).map((d) => d.name));
      let name = ref.includes('.') ? entry.path.map(wordOf).join('_').slice(0, 60) : entry.name;
      while (used.has(name)) name += '_';
      dimensions[as] = { name, value: outside(ledger, ref) ?? '0', note: `From ${source.name}.`.slice(0, 500) };
      order.push(as);
    }
    this.part = {
      ...own,
      steps,
      stepOrder: own.stepOrder.map(names.of),
      dimensions,
      dimensionOrder: order,
      guest: key,
    };
  }

  private reference(own: Part, ref: string): string {
    const [first, key] = ref.split('.') as [string, string | undefined];
    if (own.steps[first]) return `$${this.names.of(first)}.${key}`;
    if (own.dimensions[first]) return `$${this.names.of(first)}`;
    // Without a value there it has none here: it must not come to mean a number of this design that has its id.
    if (outside(this.ledger, ref) === null) return `$${this.names.number(this.id, ref)}`;
    if (!this.came.has(ref)) this.came.set(ref, this.names.number(this.id, ref));
    return `$${this.came.get(ref)!}`;
  }

  private step(step: Step, expression: (text: string) => string): Step {
    const { of } = this.names;
    const fresh = rewrittenStep(step, { step: of, name: (text) => withSteps(text, of), place: (at) => at, direction: (along) => along, expression }); // prettier-ignore
    if (fresh.kind === 'borrow' && fresh.from !== undefined) {
      const from = (fresh as unknown as { from: Source }).from;
      const at = from.at && 'assembly' in from.at ? { at: { ...from.at, assembly: of(from.at.assembly) } } : {};
      (fresh as unknown as { from: Source }).from = { ...from, part: of(from.part), ...(from.sketch ? { sketch: of(from.sketch) } : {}), ...at }; // prettier-ignore
    }
    return fresh;
  }
}

function assemblyTaken(own: Assembly, ledger: Ledger, { of }: Renaming, key: string): Assembly {
  const fresh = structuredClone(own);
  const expression = (text: string) => text.replace(REFERENCE, (whole, ref: string) => outside(ledger, ref)?.replace(/^.*$/, '($&)') ?? whole); // prettier-ignore
  for (const { numbers } of numberedIn(fresh))
    for (const [k, text] of Object.entries(numbers)) if (text !== undefined) numbers[k] = expression(text);
  for (const instance of Object.values(fresh.instances))
    instance.of = 'part' in instance.of ? { part: of(instance.of.part) } : { assembly: of(instance.of.assembly) };
  const spots = Object.values(fresh.joints).flatMap((j) => [j.a, j.b]);
  for (const end of spots) end.on = spotWith(end.on, of);
  const joints = Object.fromEntries(Object.entries(fresh.joints).map(([id, j]) => [of(id), j]));
  const keyed = (joint: string) => [...joint.split('/').slice(0, -1), of(joint.split('/').at(-1)!)].join('/');
  for (const c of Object.values(fresh.couplings ?? {}))
    [c.a, c.b] = [c.a, c.b].map((e) => ({ ...e, joint: of(e.joint) })) as [typeof c.a, typeof c.b];
  for (const run of Object.values(fresh.runs ?? {})) {
    for (const d of Object.values(run.drives)) d.joint = keyed(d.joint);
    run.drives = Object.fromEntries(Object.entries(run.drives).map(([id, d]) => [of(id), d]));
  }
  return {
    ...fresh,
    joints,
    jointOrder: fresh.jointOrder.map(of),
    ...(fresh.couplings
      ? { couplings: Object.fromEntries(Object.entries(fresh.couplings).map(([id, c]) => [of(id), c])) }
      : {}),
    guest: key,
  };
}

type Spot = Assembly['joints'][string]['a']['on'];
/** A frame on a part of which steps have other ids here. */
function spotWith(spot: Spot, of: (id: string) => string): Spot {
  const change: Rewriting = { step: of, name: (text) => withSteps(text, of), place: (at) => at, direction: (along) => along, expression: (text) => text }; // prettier-ignore
  const [face, edge] = [(ref: FaceRef) => faceRewritten(ref, change), (ref: EdgeRef) => edgeRewritten(ref, change)];
  if ('face' in spot) return { face: face(spot.face) };
  if ('edge' in spot) return { ...spot, edge: edge(spot.edge) };
  if ('vertex' in spot) return { vertex: { ...spot.vertex, faces: spot.vertex.faces.map(change.name) } };
  if ('between' in spot) return { between: [face(spot.between[0]), face(spot.between[1])] };
  if ('crossing' in spot) return { crossing: [edge(spot.crossing[0]), edge(spot.crossing[1])] };
  if ('sketch' in spot) return { ...spot, sketch: of(spot.sketch) };
  return 'step' in spot ? { step: of(spot.step) } : spot;
}
