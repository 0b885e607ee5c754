/** Which faces lie beside which, in terms of names. */
import type { EdgeFacts, FaceFacts } from '../solid/kernel.ts';
import type { Name } from './name.ts';

/** What finding needs of a body: its faces with their names, and how they meet. */
export interface NamedBody {
  readonly name: Name;
  readonly faceNames: readonly (readonly Name[])[];
  readonly facts: {
    readonly faces: readonly FaceFacts[];
    readonly edges: readonly EdgeFacts[];
  };
}

interface Adjacency {
  /** Of each face, the faces it shares an edge with. */
  readonly beside: readonly (readonly number[])[];
  /** Of each edge, the faces that touch its ends but not itself. */
  readonly ends: readonly (readonly number[])[];
  /** How many edges, and corners, have the same names of faces stored of them. */
  readonly edgesOf: ReadonlyMap<string, number>;
  readonly cornersOf: ReadonlyMap<string, number>;
}

const known = new WeakMap<object, Adjacency>();

function adjacencyOf(body: NamedBody): Adjacency {
  const own = known.get(body.faceNames);
  if (own) return own;
  const { edges } = body.facts;
  const beside = body.faceNames.map(() => new Set<number>());
  const atVertex = new Map<number, Set<number>>();
  for (const { faces, ends } of edges) {
    for (const a of faces) for (const b of faces) if (a !== b) beside[a]?.add(b);
    for (const v of ends) {
      const there = atVertex.get(v) ?? new Set();
      faces.forEach((f) => there.add(f));
      atVertex.set(v, there);
    }
  }
  const ends = edges.map((e) => {
    const touching = new Set(e.ends.flatMap((v) => [...(atVertex.get(v) ?? [])]));
    return [...touching].filter((f) => !e.faces.includes(f));
  });
  const edgesOf = counted(edges.map((e) => storedNames(body, e.faces)));
  const cornersOf = counted([...atVertex.values()].map((faces) => storedNames(body, [...faces])));
  const adjacency = { beside: beside.map((s) => [...s]), ends, edgesOf, cornersOf };
  known.set(body.faceNames, adjacency);
  return adjacency;
}

function counted(all: readonly (readonly string[])[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const names of all) {
    const key = names.join(' ');
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return counts;
}

const namesOf = (body: NamedBody, faces: readonly number[]) => new Set(faces.flatMap((f) => body.faceNames[f] ?? []));

/** Every name of every face beside this one. */
export const besideFace = (body: NamedBody, face: number): ReadonlySet<Name> =>
  namesOf(body, adjacencyOf(body).beside[face]!);

/** Every name of every face an edge's ends run into. */
export const atEnds = (body: NamedBody, edge: number): ReadonlySet<Name> =>
  namesOf(body, adjacencyOf(body).ends[edge]!);

/** The first name of each, for storing: enough to know them again, and short. */
export function storedNames(body: NamedBody, faces: readonly number[]): string[] {
  return [...new Set(faces.flatMap((f) => body.faceNames[f]?.[0]?.text ?? []))].sort();
}

/** How many edges of these bodies lie between faces of these names, and at how many corners they meet; names as stored. */
export const edgesBetween = (bodies: readonly NamedBody[], names: readonly string[]): number =>
  countIn(bodies, names, (own) => own.edgesOf);
export const cornersBetween = (bodies: readonly NamedBody[], names: readonly string[]): number =>
  countIn(bodies, names, (own) => own.cornersOf);

function countIn(
  bodies: readonly NamedBody[],
  names: readonly string[],
  counts: (own: Adjacency) => ReadonlyMap<string, number>,
): number {
  const key = names.join(' ');
  return bodies.reduce((sum, body) => sum + (counts(adjacencyOf(body)).get(key) ?? 0), 0);
}

/** The faces that meet at a corner, by the number that its edges' ends give. */
export const facesAtCorner = ({ facts }: Pick<NamedBody, 'facts'>, corner: number): number[] => [
  ...new Set(facts.edges.flatMap((e) => (e.ends.includes(corner) ? e.faces : []))),
];

export const facesBeside = (body: NamedBody, face: number): readonly number[] => adjacencyOf(body).beside[face]!;
export const facesAtEnds = (body: NamedBody, edge: number): readonly number[] => adjacencyOf(body).ends[edge]!;
