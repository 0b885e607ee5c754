/** Curves joined end to end. */
import { endsOf, type SketchGeometry } from '../schema.ts';
import { ChangeRefused } from './ends.ts';

/** One name for points that coincidence makes one. */
function placeNames(sketch: SketchGeometry): (point: string) => string {
  const parent = new Map<string, string>();
  const find = (p: string): string => {
    let root = p;
    while (parent.has(root)) root = parent.get(root)!;
    return root;
  };
  for (const c of Object.values(sketch.constraints)) {
    if (c.kind !== 'coincident' || !c.of.every((e) => e in sketch.points || e === 'origin')) continue;
    const [a, b] = c.of.map(find);
    if (a !== b) parent.set(a!, b!);
  }
  return find;
}

/** All curves that hang together with one, end to end, itself among them. */
export function chainOf(sketch: SketchGeometry, curve: string): string[] {
  const place = placeNames(sketch);
  const at = new Map<string, string[]>();
  for (const [id, c] of Object.entries(sketch.curves)) {
    for (const e of endsOf(c) ?? []) at.set(place(e), [...(at.get(place(e)) ?? []), id]);
  }
  const found = new Set([curve]);
  const construction = sketch.curves[curve]?.construction === true;
  for (const id of found) {
    for (const e of endsOf(sketch.curves[id]!) ?? [])
      for (const next of at.get(place(e)) ?? [])
        if ((sketch.curves[next]!.construction === true) === construction) found.add(next);
  }
  return [...found];
}

export interface ChainLink {
  readonly id: string;
  readonly forward: boolean;
}

/** Curves in walking order. @throws ChangeRefused when they fork or fall apart */
export function orderedChain(
  sketch: SketchGeometry,
  curves: readonly string[],
): { links: ChainLink[]; closed: boolean } {
  const place = placeNames(sketch);
  const ends = new Map(
    curves.map((id) => {
      const pair = endsOf(sketch.curves[id]!);
      if (!pair) throw new ChangeRefused('Lettering and closed curves do not join into a chain.');
      return [id, pair.map(place) as [string, string]];
    }),
  );
  const at = new Map<string, string[]>();
  for (const [id, pair] of ends) for (const e of pair) at.set(e, [...(at.get(e) ?? []), id]);
  if ([...at.values()].some((list) => list.length > 2))
    throw new ChangeRefused('More than two of these curves meet in a point; pick a chain that does not fork.');
  const startEnd = [...at].find(([, list]) => list.length === 1);
  const first = startEnd ? startEnd[1][0]! : curves[0]!;
  const links: ChainLink[] = [];
  let here = startEnd ? startEnd[0] : ends.get(first)![0];
  for (let id: string | undefined = first; id !== undefined;) {
    const pair: [string, string] = ends.get(id)!;
    const forward: boolean = pair[0] === here;
    links.push({ id, forward });
    here = pair[forward ? 1 : 0];
    id = at.get(here)!.find((next) => !links.some((l) => l.id === next));
  }
  if (links.length !== curves.length)
    throw new ChangeRefused('These curves do not hang together; pick one chain at a time.');
  return { links, closed: !startEnd };
}
