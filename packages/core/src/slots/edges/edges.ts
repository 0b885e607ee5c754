/** Edges of the part: picked one by one, or by a rule that finds them anew. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { StepFailure, type Body } from '../../names/body.ts';
import { findEdge, refOfEdge, type FoundEdge } from '../../names/find-edge.ts';
import { findFace, refOfFace, type FoundFace } from '../../names/find-face.ts';
import { readName, stepsIn, type Name } from '../../names/name.ts';
import { EdgeRef, FaceRef, type Finding } from '../../references/references.ts';
import { faceRewritten } from '../faces/faces.ts';
import { foundOrFail } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type Rewriting, type SlotKind } from '../slot.ts';

const MOST_CHOICES = 2000;
/** Faces that meet at less than this, rad, run on smoothly into each other. */
const SHARP = 0.01;

const EdgeChoice = z.union([
  EdgeRef,
  z.strictObject({ around: FaceRef }).describe('All sharp edges of a face.'),
  z.strictObject({ loop: EdgeRef, of: FaceRef }).describe('The closed run of edges of a face in which this edge is.'),
  z.strictObject({ made_by: Id }).describe('All sharp edges of faces that this step made.'),
]);
export type EdgeChoice = z.infer<typeof EdgeChoice>;

export function edgeRewritten(ref: EdgeRef, { name, place }: Rewriting): EdgeRef {
  return {
    faces: ref.faces.map(name),
    ...(ref.ends ? { ends: ref.ends.map(name) } : {}),
    near: [...place(ref.near)],
  };
}

type Edge = FoundEdge<Body>;

/** @param what as the subject of a sentence: “An edge this step rounds” */
export function edges(what: string): SlotKind<readonly EdgeChoice[], readonly Edge[]> {
  return slotKind<readonly EdgeChoice[], readonly Edge[]>({
    kind: 'edges',
    schema: z.array(EdgeChoice).min(1).max(MOST_CHOICES),
    steps: (stored) => stored.flatMap(stepsOf),
    rewritten: (stored, change) => stored.map((choice) => choiceRewritten(choice, change)),
    resolve(stored, slot, context) {
      const all = stored.flatMap((_, index) => chosenEdges(stored, index, slot, what, context));
      const byKey = new Map(all.map((f) => [`${f.body.key}/${f.edge}`, f]));
      return { value: [...byKey.values()], digest: [...byKey.keys()].join() };
    },
    label: (stored, _, reading) => ({
      label: wordsOf(stored, (id) => reading.stepName(id) ?? 'a deleted step'),
    }),
    take(stored, pick) {
      if (pick.kind === 'face') return toggled(stored ?? [], { around: pick.ref });
      return pick.kind === 'edge' ? toggled(stored ?? [], pick.ref) : null;
    },
  });
}

function stepsOf(choice: EdgeChoice): string[] {
  if ('made_by' in choice) return [choice.made_by];
  if ('around' in choice) return stepsIn(choice.around.name);
  if ('loop' in choice) return [...choice.loop.faces.flatMap(stepsIn), ...stepsIn(choice.of.name)];
  return choice.faces.flatMap(stepsIn);
}

function choiceRewritten(choice: EdgeChoice, change: Rewriting): EdgeChoice {
  if ('made_by' in choice) return { made_by: maker(choice.made_by, change) };
  if ('around' in choice) return { around: faceRewritten(choice.around, change) };
  if ('loop' in choice) return { loop: edgeRewritten(choice.loop, change), of: faceRewritten(choice.of, change) };
  return edgeRewritten(choice, change);
}

/** In a member of a pattern, what the step made bears the member's name. */
function maker(step: string, change: Rewriting): string {
  const made = change.name(`${step}:${ANYTHING}`);
  return made.endsWith(`:${ANYTHING}`) ? change.step(step) : made;
}
const ANYTHING = 'anything';

/** @param maker a step, or in a member the name of anything it made there */
function isMadeBy(name: Name | string | undefined, maker: Name | string): boolean {
  if (typeof name !== 'object') return false;
  if (typeof maker === 'string') return name.step === maker;
  if (maker.role === ANYTHING) return name.step === maker.step;
  return name.step === maker.step && name.role === maker.role && isMadeBy(name.parents[0], maker.parents[0]!);
}

/** Of the choice at this place in the list. @throws StepFailure when it finds nothing */
function chosenEdges(
  stored: readonly EdgeChoice[],
  index: number,
  slot: string,
  what: string,
  context: Resolving,
): readonly Edge[] {
  const choice = stored[index]!;
  const { bodies } = context;
  const instead = (other: EdgeChoice) => stored.map((c, i) => (i === index ? other : c));
  const edgeOf = (ref: EdgeRef, put: (ref: EdgeRef) => EdgeChoice) =>
    found(findEdge(ref, bodies), what, (f: Edge) => put(refOfEdge(f.body, f.edge, bodies)));
  const faceOf = (ref: FaceRef, put: (ref: FaceRef) => EdgeChoice) =>
    found(findFace(ref, bodies), 'A face whose edges this step takes', (f: FoundFace<Body>) =>
      put(refOfFace(f.body, f.face, bodies)),
    );
  function found<T>(finding: Finding<T>, subject: string, put: (found: T) => EdgeChoice): T {
    return foundOrFail(finding, { slot, index, what: subject, stored: (f) => instead(put(f)) }, context);
  }

  if ('made_by' in choice) {
    const made = readName(choice.made_by) ?? choice.made_by;
    const own = bodies.flatMap((body) => sharpEdges(body, (f) => body.faceNames[f]!.some((n) => isMadeBy(n, made))));
    if (own.length === 0) {
      const step = stepsIn(choice.made_by).at(-1)!;
      throw new StepFailure(`No sharp edge made by ${context.stepName(step)} is there; choose other edges.`);
    }
    return own;
  }
  if ('around' in choice) {
    const { body, face } = faceOf(choice.around, (around) => ({ around }));
    const own = sharpEdges(body, (f) => f === face);
    if (own.length === 0)
      throw new StepFailure('A face whose edges this step takes has no sharp edge; choose other edges.');
    return own;
  }
  if ('loop' in choice) {
    const { edge, body: other } = edgeOf(choice.loop, (loop) => ({ ...choice, loop }));
    const { body, face } = faceOf(choice.of, (of) => ({ ...choice, of }));
    if (body !== other || !body.facts.edges[edge]!.faces.includes(face))
      throw new StepFailure('The edge and the face of a loop of edges no longer belong together; pick the loop again.');
    return loopThrough(body, face, edge).map((e) => ({ body, edge: e }));
  }
  return [edgeOf(choice, (ref) => ref)];
}

function sharpEdges(body: Body, ofFace: (face: number) => boolean): Edge[] {
  const { edges, bends } = body.facts;
  return edges.flatMap(({ faces }, edge) =>
    Math.abs(bends[edge]!) > SHARP && faces.some(ofFace) ? [{ body, edge }] : [],
  );
}

/** Edges of a face that hang together with one of them. */
function loopThrough({ facts }: Body, face: number, start: number): number[] {
  const own = facts.edges.flatMap((e, i) => (e.faces.includes(face) ? [i] : []));
  const reached = new Set([start]);
  for (const at of reached)
    for (const other of own)
      if (facts.edges[other]!.ends.some((v) => facts.edges[at]!.ends.includes(v))) reached.add(other);
  return [...reached];
}

function keyOf(choice: EdgeChoice): string {
  if ('made_by' in choice) return `made by ${choice.made_by}`;
  if ('around' in choice) return `around ${choice.around.name} ${choice.around.near?.join() ?? ''}`;
  if ('loop' in choice) return `loop ${choice.of.name} ${keyOf(choice.loop)}`;
  return `${[...choice.faces].sort().join()} ${choice.near.join()}`;
}

/** With the choice added, or taken away where it was there; never emptied. */
function toggled(stored: readonly EdgeChoice[], choice: EdgeChoice): readonly EdgeChoice[] {
  const rest = stored.filter((c) => keyOf(c) !== keyOf(choice));
  return rest.length < stored.length && rest.length > 0 ? rest : [...rest, choice];
}

function wordsOf(stored: readonly EdgeChoice[], stepName: (id: string) => string): string {
  const counted = (n: number, one: string, many: string) => (n === 0 ? [] : [n === 1 ? one : many]);
  const single = stored.filter((c) => 'faces' in c).length;
  const around = stored.filter((c) => 'around' in c).length;
  const loops = stored.filter((c) => 'loop' in c).length;
  return [
    ...counted(single, '1 edge', `${single} edges`),
    ...counted(around, 'the sharp edges of a face', `the sharp edges of ${around} faces`),
    ...counted(loops, 'a loop of edges', `${loops} loops of edges`),
    ...stored.flatMap((c) => ('made_by' in c ? [`all edges made by ${stepName(c.made_by)}`] : [])),
  ].join(', ');
}
