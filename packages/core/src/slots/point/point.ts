/** A place: of the part, of a sketch, a corner, or the middle of an edge or face. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { curveOfEdge, StepFailure, type Body } from '../../names/body.ts';
import { findEdge, refOfEdge } from '../../names/find-edge.ts';
import { findFace, refOfFace } from '../../names/find-face.ts';
import { findVertex, refOfVertex } from '../../names/find-vertex.ts';
import { stepsIn, type Name } from '../../names/name.ts';
import { EdgeRef, FaceRef, VertexRef, type Finding } from '../../references/references.ts';
import { toSpace } from '../../space/planes.ts';
import { dot, opposite, type Vec3 } from '../../space/vector.ts';
import { edgeRewritten } from '../edges/edges.ts';
import { faceRewritten } from '../faces/faces.ts';
import { foundOrFail } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type Picked, type Rewriting, type SlotKind } from '../slot.ts';

export const PointRef = z.union([
  z.strictObject({ origin: z.literal(true) }).describe('The origin of the part.'),
  z.strictObject({ sketch: Id, point: z.string().max(200) }).describe('A point of a sketch.'),
  z.strictObject({ vertex: VertexRef }).describe('A corner of a body.'),
  z.strictObject({ edge: EdgeRef }).describe('The centre of a round edge, or the middle of another.'),
  z.strictObject({ face: FaceRef }).describe('The centre of a face.'),
  z.strictObject({ step: Id }).describe('A datum point that a step sets up.'),
]);
export type PointRef = z.infer<typeof PointRef>;

export interface PlaceFound {
  readonly at: Vec3;
  /** Straight into the material, or off the sketch against its normal, where the place tells. */
  readonly into: Vec3 | null;
  /** What tells it from other places in names. */
  readonly parents: readonly (Name | string)[];
}

export function point(): SlotKind<PointRef, PlaceFound> {
  return slotKind<PointRef, PlaceFound>({
    kind: 'point',
    schema: PointRef,
    steps: stepsOfPoint,
    rewritten: pointRewritten,
    resolve(stored, slot, context) {
      const value = placeOf(stored, { slot, index: 0, instead: (ref) => ref }, context);
      return { value, digest: digestOfPlace(value) };
    },
    label: (stored, _, reading) => ({ label: wordsOfPoint(stored, (id) => reading.stepName(id)) }),
    take: (_, pick) => pointOfPick(pick),
  });
}

export const digestOfPlace = ({ at, into, parents }: PlaceFound): string =>
  JSON.stringify([at, into, parents.map((p) => (typeof p === 'string' ? p : p.text))]);

export function pointOfPick(pick: Picked): PointRef | null {
  if (pick.kind === 'sketch_point') return { sketch: pick.sketch, point: pick.point };
  if (pick.kind === 'vertex') return { vertex: pick.ref };
  if (pick.kind === 'edge') return { edge: pick.ref };
  if (pick.kind === 'face') return { face: pick.ref };
  return pick.kind === 'step' && pick.is === 'point' ? { step: pick.step } : null;
}

export function stepsOfPoint(stored: PointRef): string[] {
  if ('sketch' in stored) return [stored.sketch];
  if ('step' in stored) return [stored.step];
  if ('vertex' in stored) return stored.vertex.faces.flatMap(stepsIn);
  if ('edge' in stored) return stored.edge.faces.flatMap(stepsIn);
  return 'face' in stored ? stepsIn(stored.face.name) : [];
}

export function pointRewritten(stored: PointRef, change: Rewriting): PointRef {
  if ('sketch' in stored) return { ...stored, sketch: change.step(stored.sketch) };
  if ('step' in stored) return { step: change.step(stored.step) };
  if ('vertex' in stored)
    return { vertex: { faces: stored.vertex.faces.map(change.name), near: [...change.place(stored.vertex.near)] } };
  if ('edge' in stored) return { edge: edgeRewritten(stored.edge, change) };
  return 'face' in stored ? { face: faceRewritten(stored.face, change) } : stored;
}

export function wordsOfPoint(stored: PointRef, stepName: (id: string) => string | null): string {
  if ('origin' in stored) return 'the origin';
  if ('sketch' in stored) return `a point of ${stepName(stored.sketch) ?? 'a deleted sketch'}`;
  if ('step' in stored) return stepName(stored.step) ?? 'a deleted point';
  if ('vertex' in stored) return 'a corner';
  return 'edge' in stored ? 'the centre of an edge' : 'the centre of a face';
}

interface Sought {
  readonly slot: string;
  readonly index: number;
  /** What the slot would store with this in its place. */
  readonly instead: (ref: PointRef) => unknown;
}

/** @throws StepFailure when it is not there */
export function placeOf(stored: PointRef, sought: Sought, context: Resolving): PlaceFound {
  const { bodies } = context;
  function found<T>(finding: Finding<T>, what: string, ref: (found: T) => PointRef): T {
    const { slot, index, instead } = sought;
    return foundOrFail(finding, { slot, index, what, stored: (f) => instead(ref(f)) }, context);
  }
  if ('origin' in stored) return { at: [0, 0, 0], into: null, parents: ['origin'] };
  if ('step' in stored) {
    const { at, into } = context.datum(stored.step, 'point');
    return { at, into, parents: [stored.step] };
  }
  if ('sketch' in stored) return pointInSketch(stored.sketch, stored.point, context);
  if ('vertex' in stored) {
    const { body, vertex } = found(findVertex(stored.vertex, bodies), 'The corner this uses', (f) => ({
      vertex: refOfVertex(f.body, f.vertex, bodies),
    }));
    return { at: body.facts.corners[vertex]!, into: null, parents: ['corner'] };
  }
  if ('edge' in stored) {
    const { body, edge } = found(findEdge(stored.edge, bodies), 'The edge whose centre this uses', (f) => ({
      edge: refOfEdge(f.body, f.edge, bodies),
    }));
    return centreOfEdge(body, edge, context);
  }
  const { body, face } = found(findFace(stored.face, bodies), 'The face whose centre this uses', (f) => ({
    face: refOfFace(f.body, f.face, bodies),
  }));
  const { center, normal } = body.facts.faces[face]!;
  return { at: center, into: normal && opposite(normal), parents: [body.faceNames[face]![0]!] };
}

function centreOfEdge(body: Body, edge: number, { kernel }: Resolving): PlaceFound {
  const curve = curveOfEdge(body, edge, kernel);
  const { faces } = body.facts.edges[edge]!;
  const parents = faces.map((f) => body.faceNames[f]![0]!);
  if (curve.kind !== 'ellipse') return { at: curve.middle, into: null, parents };
  // Of the two faces the flat one square to its axis tells which way is in.
  const flat = faces.map((f) => body.facts.faces[f]!.normal).find((n) => n && Math.abs(dot(n, curve.normal)) > 0.999);
  return { at: curve.center, into: flat ? opposite(flat) : null, parents };
}

export function pointInSketch(sketch: string, id: string, context: Resolving): PlaceFound {
  const { name, outcome } = context.sketch(sketch);
  const place = outcome.solution.geometry.points[id];
  if (!place) throw new StepFailure(`A point of ${name} that this uses is gone; pick another.`);
  return { at: toSpace(outcome.frame, ...place), into: opposite(outcome.frame.normal), parents: [id] };
}
