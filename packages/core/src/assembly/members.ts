/** What stands in an assembly, down to the parts, and which of it moves as one. */
import { instanceName, MAX_NESTED, type Assembly, type Instance } from '../document/assembly.ts';
import type { Design } from '../document/schema.ts';
import { HERE, poseWithin, type Pose } from '../space/pose.ts';

/** A part standing somewhere in the assembly. */
export interface Member {
  /** Ids of instances from the outermost in, joined with /. */
  readonly key: string;
  readonly path: readonly string[];
  readonly part: string;
  readonly name: string;
  readonly instance: Instance;
  /** Place among the links that move. */
  readonly link: number;
  /** In its link. */
  readonly within: Pose;
  /** It, or what it stands in, is not to be seen. */
  readonly hidden: boolean;
}

/** What moves as one: an instance of a part, or of an assembly taken whole. */
export interface Moved {
  readonly key: string;
  readonly path: readonly string[];
  readonly name: string;
  readonly home: Pose;
  readonly held: boolean;
}

export interface Members {
  readonly members: readonly Member[];
  readonly links: readonly Moved[];
  /** Links by the key of what stands for them. */
  readonly linkOf: ReadonlyMap<string, number>;
  /** Links that are held together as the inner assembly they come from holds them: carrier first. */
  readonly welds: readonly (readonly [number, number])[];
  /** Assemblies whose joints move in it, with the path they stand at. */
  readonly inner: readonly { readonly path: readonly string[]; readonly assembly: string }[];
  /** What cannot stand there, as sentences. */
  readonly faults: readonly string[];
}

/** Where the instances of an assembly stand at home, by their ids. */
export type HomeOf = (assembly: string) => ReadonlyMap<string, Pose>;

/** @param homeOf used for assemblies that move as one */
export function membersOf(design: Design, assembly: string, homeOf: HomeOf): Members {
  const members: Member[] = [];
  const links: Moved[] = [];
  const linkOf = new Map<string, number>();
  const welds: [number, number][] = [];
  const inner: { path: readonly string[]; assembly: string }[] = [];
  const faults: string[] = [];

  function parts(
    id: string,
    path: readonly string[],
    within: Pose,
    link: number,
    seen: readonly string[],
    hidden: boolean,
  ): void {
    const own = design.assemblies?.[id];
    if (!own || seen.includes(id) || path.length >= MAX_NESTED) return void faults.push(faultOf(design, id, seen));
    const homes = homeOf(id);
    for (const [child, instance] of standing(own)) {
      const at = poseWithin(within, homes.get(child) ?? instance.home);
      const down = [...path, child];
      const away = hidden || instance.hidden === true;
      if ('part' in instance.of) add(own, child, instance, down, link, at, away);
      else parts(instance.of.assembly, down, at, link, [...seen, id], away);
    }
  }

  function add(
    own: Assembly,
    id: string,
    instance: Instance,
    path: readonly string[],
    link: number,
    within: Pose,
    hidden: boolean,
  ): void {
    if (!('part' in instance.of)) return;
    const { part } = instance.of;
    if (!design.parts[part])
      return void faults.push('A part that stands here was deleted; remove it, or bring the part back.');
    members.push({
      key: path.join('/'),
      path,
      part,
      name: instanceName(design, own, id),
      instance,
      link,
      within,
      hidden,
    });
  }

  /** @returns the links of what is fixed in it */
  function spread(
    id: string,
    path: readonly string[],
    home: Pose,
    seen: readonly string[],
    hidden: boolean,
    outer: boolean,
  ): number[] {
    const own = design.assemblies?.[id];
    if (!own || seen.includes(id) || path.length >= MAX_NESTED) {
      faults.push(faultOf(design, id, seen));
      return [];
    }
    inner.push({ path, assembly: id });
    const fixed: number[] = [];
    for (const [child, instance] of standing(own)) {
      const down = [...path, child];
      const at = poseWithin(home, instance.home);
      const away = hidden || instance.hidden === true;
      const first = links.length;
      if ('assembly' in instance.of && instance.moves) {
        const carried = spread(instance.of.assembly, down, at, [...seen, id], away, false);
        const carrier = carried[0] ?? (links.length > first ? first : -1);
        if (carrier < 0) continue;
        for (const other of carried.slice(1)) welds.push([carrier, other]);
        linkOf.set(down.join('/'), carrier);
        if (instance.fixed) fixed.push(carrier);
        continue;
      }
      const key = down.join('/');
      links.push({
        key,
        path: down,
        name: instanceName(design, own, child),
        home: at,
        held: outer && instance.fixed === true,
      });
      linkOf.set(key, first);
      if (instance.fixed) fixed.push(first);
      if ('part' in instance.of) add(own, child, instance, down, first, HERE, away);
      else parts(instance.of.assembly, down, HERE, first, [...seen, id], away);
    }
    return fixed;
  }

  const fixed = spread(assembly, [], HERE, [], false, true);
  for (const link of fixed) if (!links[link]!.held) links[link] = { ...links[link]!, held: true };
  return { members, links, linkOf, welds, inner, faults };
}

const standing = ({ instances, instanceOrder }: Assembly): [string, Instance][] =>
  instanceOrder.flatMap((id): [string, Instance][] =>
    instances[id] && !instances[id].suppressed ? [[id, instances[id]]] : [],
  );

function faultOf(design: Design, id: string, seen: readonly string[]): string {
  const own = design.assemblies?.[id];
  if (!own) return 'An assembly that stands here was deleted; remove it, or bring the assembly back.';
  const around = seen.map((s) => design.assemblies?.[s]?.name ?? '').join(' in ');
  return `${own.name} stands in itself (${around}); remove it where it does.`;
}
