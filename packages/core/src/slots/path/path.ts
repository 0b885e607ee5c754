/** A path to go along: a sketch's outline, edges of the part, or a helix. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { StepFailure, type Body } from '../../names/body.ts';
import { findEdge, refOfEdge, type FoundEdge } from '../../names/find-edge.ts';
import { stepsIn } from '../../names/name.ts';
import { EdgeRef } from '../../references/references.ts';
import { orderedChain, type ChainLink } from '../../sketch/change/chain.ts';
import { ChangeRefused } from '../../sketch/change/ends.ts';
import { pieceOf, type LoopPiece } from '../../sketch/regions/piece.ts';
import { primitivesOfCurve } from '../../sketch/regions/primitives.ts';
import { endsOf, type SketchGeometry } from '../../sketch/schema.ts';
import type { PathPiece } from '../../solid/kernel.ts';
import { edgeRewritten } from '../edges/edges.ts';
import { foundEach } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_EDGES = 500;

export const PathRef = z.union([
  z.strictObject({ sketch: Id }).describe('All that is drawn in a sketch, as one chain.'),
  z.strictObject({ edges: z.array(EdgeRef).min(1).max(MOST_EDGES) }).describe('Edges that run on from each other.'),
  z.strictObject({ step: Id }).describe('A helix that a step sets up.'),
]);
export type PathRef = z.infer<typeof PathRef>;

export interface PathFound {
  /** In order, from its beginning. */
  readonly pieces: readonly PathPiece[];
  /** What it is, as people know it. */
  readonly of: string;
}

export function path(): SlotKind<PathRef, PathFound> {
  return slotKind<PathRef, PathFound>({
    kind: 'path',
    schema: PathRef,
    steps(stored) {
      if ('edges' in stored) return stored.edges.flatMap((e) => e.faces.flatMap(stepsIn));
      return ['sketch' in stored ? stored.sketch : stored.step];
    },
    rewritten(stored, change) {
      if ('edges' in stored) return { edges: stored.edges.map((e) => edgeRewritten(e, change)) };
      return 'sketch' in stored ? { sketch: change.step(stored.sketch) } : { step: change.step(stored.step) };
    },
    resolve(stored, slot, context) {
      if ('step' in stored) {
        const { helix } = context.datum(stored.step, 'curve');
        return { value: { pieces: [helix], of: context.stepName(stored.step) }, digest: JSON.stringify(helix) };
      }
      if ('sketch' in stored) {
        const { name, outcome } = context.sketch(stored.sketch);
        const own = chainIn(outcome.solution.geometry, name);
        const pieces = own.map((piece): PathPiece => ({ kind: 'curve', frame: outcome.frame, piece }));
        return { value: { pieces, of: name }, digest: JSON.stringify([outcome.frame, own]) };
      }
      if (stored.edges.length === 0) throw new StepFailure('No path is chosen yet; choose a sketch or pick edges.');
      const found = inOrder(edgesOf(stored.edges, slot, context));
      return {
        value: {
          pieces: found.map((f): PathPiece => ({ kind: 'edge', solid: f.body.solid, index: f.edge })),
          of: 'the edges',
        },
        digest: found.map((f) => `${f.body.key}/${f.edge}`).join(),
      };
    },
    label(stored, _, reading) {
      if ('edges' in stored && stored.edges.length === 0) return { label: 'no path yet' };
      if ('edges' in stored) return { label: stored.edges.length === 1 ? '1 edge' : `${stored.edges.length} edges` };
      return { label: reading.stepName('sketch' in stored ? stored.sketch : stored.step) ?? 'a deleted path' };
    },
    take(stored, pick) {
      if (pick.kind === 'line' || pick.kind === 'sketch_point') return { sketch: pick.sketch };
      if (pick.kind === 'step' && pick.is === 'sketch') return { sketch: pick.step };
      if (pick.kind === 'step' && pick.is === 'curve') return { step: pick.step };
      if (pick.kind !== 'edge') return null;
      const before = stored && 'edges' in stored ? stored.edges : [];
      const key = (e: EdgeRef) => `${[...e.faces].sort().join()} ${e.near.join()}`;
      const rest = before.filter((e) => key(e) !== key(pick.ref));
      return { edges: rest.length < before.length && rest.length > 0 ? rest : [...rest, pick.ref] };
    },
  });
}

/**
 * What is drawn, in walking order.
 * @param among these curves alone; else all but construction
 * @throws StepFailure when it is not one chain
 */
export function chainIn(sketch: SketchGeometry, name: string, among?: readonly string[]): LoopPiece[] {
  const ids = among ?? Object.keys(sketch.curves).filter((id) => !sketch.curves[id]!.construction);
  if (ids.length === 0) throw new StepFailure(`${name} has nothing drawn in it to go along; draw the path.`);
  const alone = ids.length === 1 && !endsOf(sketch.curves[ids[0]!]!);
  let links: readonly ChainLink[] = [{ id: ids[0]!, forward: true }];
  try {
    if (!alone) ({ links } = orderedChain(sketch, ids));
  } catch (error) {
    if (error instanceof ChangeRefused) throw new StepFailure(`${name} is no path: ${error.message}`);
    throw error;
  }
  return links.flatMap(({ id, forward }) => {
    const own = primitivesOfCurve(sketch, id, sketch.curves[id]!);
    const walked = forward ? own : [...own].reverse();
    return walked.map((primitive) => pieceOf({ primitive, t0: forward ? 0 : 1, t1: forward ? 1 : 0 }));
  });
}

function edgesOf(stored: readonly EdgeRef[], slot: string, context: Resolving): FoundEdge<Body>[] {
  const edges = foundEach(
    stored,
    { slot, what: 'An edge of the path', ref: (f: FoundEdge<Body>) => refOfEdge(f.body, f.edge, context.bodies) },
    (ref) => findEdge(ref, context.bodies),
    context,
  );
  if (edges.some((e) => e.body !== edges[0]!.body))
    throw new StepFailure('The edges of the path are of different bodies; pick edges that run on from each other.');
  return edges;
}

/** From an end of the chain, each beginning where the one before ends. @throws StepFailure */
function inOrder(edges: readonly FoundEdge<Body>[]): FoundEdge<Body>[] {
  const ends = ({ body, edge }: FoundEdge<Body>) => body.facts.edges[edge]!.ends;
  const left = new Set(edges);
  const loose = edges.find((e) => ends(e).some((v) => edges.every((o) => o === e || !ends(o).includes(v))));
  const ordered = [loose ?? edges[0]!];
  left.delete(ordered[0]!);
  while (left.size > 0) {
    const next = [...left].find((e) => ends(e).some((v) => ends(ordered.at(-1)!).includes(v)));
    if (!next)
      throw new StepFailure('The edges of the path do not run on from each other; pick those between them too.');
    ordered.push(next);
    left.delete(next);
  }
  return ordered;
}
