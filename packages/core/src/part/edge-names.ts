/**
 * Durable names of edges: an edge is named by the faces it lies between; of
 * several between the same two, the one nearest to where it was is meant.
 */
import type { EdgeCurve, SolidKernel, Vec3 } from '../solid/kernel.ts';
import type { EdgeRef } from '../sketch/schema.ts';
import type { Body } from './body.ts';
import { kinOf } from './face-names.ts';

export interface FoundEdge {
  readonly body: Body;
  readonly edge: number;
  readonly curve: EdgeCurve;
  /** `name`: between the very faces. `kin`: between faces of the same origin. */
  readonly how: 'name' | 'kin';
}

const far = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Names of the faces an edge lies between, in a fixed order; one for a seam. */
export function facesBeside(body: Body, edge: number): string[] {
  return [...new Set(body.facts.edges[edge]!.faces.map((f) => body.faceNames[f]!))].sort();
}

export function refOfEdge(faceNames: readonly string[], faces: readonly number[], middle: Vec3): EdgeRef {
  return { faces: [...new Set(faces.map((f) => faceNames[f]!))].sort(), near: [...middle] };
}

export function findEdge(ref: EdgeRef, bodies: readonly Body[], kernel: SolidKernel): FoundEdge | null {
  const all = bodies.flatMap((body) =>
    body.facts.edges.map((_, edge) => ({ body, edge, names: facesBeside(body, edge) })),
  );
  const key = (names: readonly string[]) => [...names].sort().join('|');
  const named = all.filter((c) => key(c.names) === key(ref.faces));
  const kin = named.length > 0 ? named : all.filter((c) => key(c.names.map(kinOf)) === key(ref.faces.map(kinOf)));
  if (kin.length === 0) return null;
  const found = kin.map((c) => ({ ...c, curve: kernel.curves(c.body.solid)[c.edge]! }));
  const best = found.reduce((a, b) => (far(b.curve.middle, ref.near) < far(a.curve.middle, ref.near) ? b : a));
  return { body: best.body, edge: best.edge, curve: best.curve, how: named.length > 0 ? 'name' : 'kin' };
}
