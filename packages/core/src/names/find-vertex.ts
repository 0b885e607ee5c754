/** Finding a referenced corner, by the faces that meet there. */
import type { Finding, VertexRef } from '../references/references.ts';
import { apart, type Vec3 } from '../space/vector.ts';
import { likeness, readName, type Name } from './name.ts';
import { cornersBetween, facesAtCorner, storedNames, type NamedBody } from './neighbours.ts';

/** What finding needs of a body: also where its corners are. */
export interface CorneredBody extends NamedBody {
  readonly facts: NamedBody['facts'] & { readonly corners: readonly Vec3[] };
}

export interface FoundVertex<B extends CorneredBody = CorneredBody> {
  readonly body: B;
  /** Index in the body's corners. */
  readonly vertex: number;
}

const LEAST_LIKENESS = 0.5;
const MOST_CANDIDATES = 3;
/** Corners nearer alike than this, mm, cannot be told apart by place. */
const SAME_PLACE = 1e-3;

export function findVertex<B extends CorneredBody>(ref: VertexRef, bodies: readonly B[]): Finding<FoundVertex<B>> {
  const all = bodies.flatMap((body) => body.facts.corners.map((_, vertex) => ({ body, vertex })));
  const away = ({ body, vertex }: FoundVertex<B>) => apart(body.facts.corners[vertex]!, ref.near);
  const nearest = (among: readonly FoundVertex<B>[]) => [...among].sort((a, b) => away(a) - away(b));
  const lost = (why: string): Finding<FoundVertex<B>> => ({
    how: 'lost',
    why,
    candidates: nearest(all).slice(0, MOST_CANDIDATES),
  });
  const names = ref.faces.map(readName);
  if (names.includes(null)) return lost('its name cannot be read');
  const wanted = names as Name[];
  const meets = (c: FoundVertex<B>, fits: (own: readonly Name[], name: Name) => boolean) => {
    const there = facesAtCorner(c.body, c.vertex).map((f) => c.body.faceNames[f]!);
    return wanted.every((name) => there.some((own) => fits(own, name)));
  };
  const exact = all.filter((c) => meets(c, (own, name) => own.includes(name)));
  // Of all corners where these faces meet the one where no other does.
  const fewest = Math.min(...exact.map((c) => facesAtCorner(c.body, c.vertex).length));
  const sole = exact.filter((c) => facesAtCorner(c.body, c.vertex).length === fewest);
  if (sole.length === 1) {
    // Corners have nothing to tell them apart but their place.
    if (!ref.piece || away(sole[0]!) < SAME_PLACE) return { how: 'one', found: sole[0]! };
    return { how: 'probably', found: sole[0]!, why: 'it was one of several such corners, and only this one is left' };
  }
  if (sole.length > 1) {
    const [first, second] = nearest(sole);
    return away(second!) - away(first!) < SAME_PLACE
      ? lost(`the same faces meet at ${sole.length} corners, and nothing tells which was meant`)
      : { how: 'probably', found: first!, why: `it is the nearest of ${sole.length} corners of the same faces` };
  }
  const kin = all.filter((c) => meets(c, (own, name) => own.some((n) => likeness(name, n) >= LEAST_LIKENESS)));
  const [first, second] = nearest(kin);
  return first && !(second && away(second) - away(first) < SAME_PLACE)
    ? { how: 'probably', found: first, why: 'a face beside it has changed' }
    : lost('the faces that met there no longer meet');
}

/** What is stored of a picked corner. @param all every body it was picked among */
export function refOfVertex(body: CorneredBody, vertex: number, all: readonly CorneredBody[] = [body]): VertexRef {
  const faces = storedNames(body, facesAtCorner(body, vertex));
  return {
    faces,
    ...(cornersBetween(all, faces) > 1 ? { piece: true as const } : {}),
    near: [...body.facts.corners[vertex]!] as [number, number, number],
  };
}
