/** Finding a referenced edge, by the faces it lies between and those its ends run into. */
import type { EdgeRef, Finding } from '../references/references.ts';
import type { Vec3 } from '../space/vector.ts';
import { apart } from '../space/vector.ts';
import { likeness, readName, type Name } from './name.ts';
import { atEnds, edgesBetween, facesAtEnds, storedNames, type NamedBody } from './neighbours.ts';

export interface FoundEdge<B extends NamedBody = NamedBody> {
  readonly body: B;
  /** Index in the body's edges. */
  readonly edge: number;
}

const LEAST_LIKENESS = 0.5;
const MOST_CANDIDATES = 3;
/** Edges nearer alike than this, mm, cannot be told apart by place, and lie where they lay. */
const SAME_PLACE = 1e-3;

export function findEdge<B extends NamedBody>(ref: EdgeRef, bodies: readonly B[]): Finding<FoundEdge<B>> {
  const wanted = ref.faces.map(readName);
  const all: FoundEdge<B>[] = bodies.flatMap((body) => body.facts.edges.map((_, edge) => ({ body, edge })));
  const lost = (why: string): Finding<FoundEdge<B>> => ({
    how: 'lost',
    why,
    candidates: [...all].sort((a, b) => away(a, ref) - away(b, ref)).slice(0, MOST_CANDIDATES),
  });
  if (wanted.includes(null)) return lost('its name cannot be read');
  const names = wanted as Name[];
  const between = all.filter((c) => isBetween(c, names, (own, name) => own.includes(name)));
  if (between.length === 1) return soleOf(between[0]!, ref);
  if (between.length > 1) {
    const whole = ref.ends ? between.filter((c) => sharedEnds(c, ref) === 1) : [];
    // Both mouths of a cross bore lie between the same faces, and end at nothing: where they lay tells them apart.
    const there = ref.ends?.length === 0 ? whole.filter((c) => away(c, ref) < SAME_PLACE) : [];
    const [only] = whole.length === 1 ? whole : there.length === 1 ? there : [];
    if (only) return { how: 'one', found: only };
    const found = closest(whole.length > 1 ? whole : between, ref);
    return found
      ? { how: 'probably', found, why: `it is the nearest of ${between.length} edges between the same faces` }
      : lost(`${between.length} edges lie between the same faces, and nothing tells which was meant`);
  }
  const kin = all.filter((c) =>
    isBetween(c, names, (own, name) => own.some((n) => likeness(name, n) >= LEAST_LIKENESS)),
  );
  const found = closest(kin, ref);
  return found
    ? { how: 'probably', found, why: 'a face beside it has changed' }
    : lost('the faces it lay between no longer meet');
}

/** One edge lies between the faces. It was one of several only if the reference says so: then its ends must agree. */
function soleOf<B extends NamedBody>(found: FoundEdge<B>, ref: EdgeRef): Finding<FoundEdge<B>> {
  if (!ref.piece || sharedEnds(found, ref) === 1) return { how: 'one', found };
  return { how: 'probably', found, why: 'it was one of several edges between these faces, and only this one is left' };
}

/**
 * Do the two faces beside the edge answer to the names, in either order? One name is of a seam, or of an edge between two
 * pieces of one face.
 */
function isBetween(
  { body, edge }: FoundEdge,
  names: readonly Name[],
  fits: (own: readonly Name[], name: Name) => boolean,
) {
  const sides = [...new Set(body.facts.edges[edge]!.faces)].map((f) => body.faceNames[f]!);
  if (sides.length < names.length || sides.length > 2) return false;
  const [one, other] = [sides[0]!, sides.at(-1)!];
  const [first, second] = [names[0]!, names.at(-1)!];
  return (fits(one, first) && fits(other, second)) || (fits(one, second) && fits(other, first));
}

function sharedEnds({ body, edge }: FoundEdge, { ends = [] }: EdgeRef): number {
  if (ends.length === 0) return 1;
  const now = atEnds(body, edge);
  const has = (text: string) => {
    const name = readName(text);
    return name !== null && now.has(name);
  };
  return ends.filter(has).length / ends.length;
}

const away = ({ body, edge }: FoundEdge, { near }: EdgeRef) => apart(body.facts.edges[edge]!.middle, near);

function closest<B extends NamedBody>(among: readonly FoundEdge<B>[], ref: EdgeRef): FoundEdge<B> | null {
  const [first, second] = [...among].sort((a, b) => away(a, ref) - away(b, ref));
  if (first && second && away(second, ref) - away(first, ref) < SAME_PLACE) return null;
  return first ?? null;
}

/** What is stored of a picked edge. @param all every body it was picked among */
export function refOfEdge(body: NamedBody, edge: number, all: readonly NamedBody[] = [body]): EdgeRef {
  const { faces, middle } = body.facts.edges[edge]!;
  const names = storedNames(body, faces);
  return {
    faces: names,
    ends: storedNames(body, facesAtEnds(body, edge)),
    ...(edgesBetween(all, names) > 1 ? { piece: true as const } : {}),
    near: [...middle] as [number, number, number] & Vec3,
  };
}
