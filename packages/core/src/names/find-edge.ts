/** Finding a referenced edge, by the faces it lies between and those its ends run into. */
import type { EdgeRef, Finding } from '../references/references.ts';
import type { Vec3 } from '../space/vector.ts';
import { apart } from '../space/vector.ts';
import { likeness, readName, type Name } from './name.ts';
import { atEnds, facesAtEnds, storedNames, type NamedBody } from './neighbours.ts';

export interface FoundEdge<B extends NamedBody = NamedBody> {
  readonly body: B;
  /** Index in the body's edges. */
  readonly edge: number;
}

const LEAST_LIKENESS = 0.5;
const MOST_CANDIDATES = 3;
/** Edges nearer alike than this, mm, cannot be told apart by place. */
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
  if (between.length === 1) return { how: 'one', found: between[0]! };
  if (between.length > 1) {
    const whole = ref.ends ? between.filter((c) => sharedEnds(c, ref) === 1) : [];
    if (whole.length === 1) return { how: 'one', found: whole[0]! };
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

/** Do the two faces beside the edge answer to the names, in either order? A seam has one face. */
function isBetween(
  { body, edge }: FoundEdge,
  names: readonly Name[],
  fits: (own: readonly Name[], name: Name) => boolean,
) {
  const sides = [...new Set(body.facts.edges[edge]!.faces)].map((f) => body.faceNames[f]!);
  if (sides.length !== names.length) return false;
  return names.length === 1
    ? fits(sides[0]!, names[0]!)
    : (fits(sides[0]!, names[0]!) && fits(sides[1]!, names[1]!)) ||
        (fits(sides[0]!, names[1]!) && fits(sides[1]!, names[0]!));
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

/** What is stored of a picked edge. */
export function refOfEdge(body: NamedBody, edge: number): EdgeRef {
  const { faces, middle } = body.facts.edges[edge]!;
  return {
    faces: storedNames(body, faces),
    ends: storedNames(body, facesAtEnds(body, edge)),
    near: [...middle] as [number, number, number] & Vec3,
  };
}
