/** Frames that a part offers: under the pointer, all those of a face, between two of its own, and its datums and sketch points. */
import {
  crossing, frameOn, frameOrNull, lookOfView, midway, namedBody, poseOfEdge, poseOfFace, refOfEdge, refOfFace, refOfVertex, HERE,
  type BodyView, type Design, type FaceRef, type Member, type PartView, type Pose, type Spot, type Vec3,
} from '@helb/core'; // prettier-ignore
import type { Hit } from '../stage/scene.ts';
import { isCorner } from '../stage/small-things.ts';
import type { PickedSpot } from './together-store.ts';

/** Nearer to an end of an edge than this share of it, the end is meant. */
const END_SHARE = 0.2;

/** Bodies on the stage of an assembly are called by member and body. */
export const stageId = (member: string, body: string): string => `${member} ${body}`;
export const memberOfStage = (id: string): string => id.slice(0, id.indexOf(' '));
const bodyOfStage = (id: string): string => id.slice(id.indexOf(' ') + 1);

/**
 * @param at where the pointer meets it, in the part’s own space; null where that is not known
 * @returns null where nothing fit for a joint lies there
 */
export function spotAt(hit: Hit, member: Member, view: PartView, at: Vec3 | null): PickedSpot | null {
  const body = view.bodies.find((b) => b.id === bodyOfStage(hit.body));
  if (!body) return null;
  const found = hit.kind === 'face' ? onFace(body, hit.index, view) : onEdge(body, hit.index, at, view);
  return found && { member: member.key, path: member.path, hit, ...found, label: `${member.name}, ${found.label}` };
}

type Found = Pick<PickedSpot, 'spot' | 'frame' | 'label' | 'round'>;

function onFace(body: BodyView, face: number, view: PartView): Found | null {
  const facts = body.faces[face]!;
  const frame = frameOrNull(() => poseOfFace(namedBody(body), face));
  if (!frame) return null;
  return {
    spot: { face: refOfFace(namedBody(body), face, view.bodies.map(namedBody)) },
    frame,
    label: facts.normal ? 'face' : facts.hollow ? 'bore' : 'shank',
    round: facts.axis !== null,
  };
}

function onEdge(body: BodyView, edge: number, at: Vec3 | null, view: PartView): Found | null {
  const facts = body.edges[edge]!;
  const ends = facts.ends.map((v) => body.corners[v]!);
  const away = (p: Vec3) => (at ? Math.hypot(p[0] - at[0], p[1] - at[1], p[2] - at[2]) : Infinity);
  const near = facts.axis ? -1 : ends.findIndex((p) => away(p) < END_SHARE * facts.length);
  const end = near < 0 ? undefined : near === 0 ? ('one' as const) : ('other' as const);
  const frame = frameOrNull(() => poseOfEdge(namedBody(body), edge, end));
  if (!frame) return null;
  return {
    spot: { edge: refOfEdge(namedBody(body), edge, view.bodies.map(namedBody)), ...(end ? { end } : {}) },
    frame,
    label: facts.axis ? 'rim' : end ? 'end of an edge' : 'edge',
    round: facts.axis !== null,
  };
}

/** The face that was picked, or the round one of which the rim was; and whether it is a bore. Null for anything else. */
export function faceMeant(
  { hit }: PickedSpot,
  view: PartView,
): { readonly face: FaceRef; readonly hollow: boolean } | null {
  const body = hit && bodyOf(view, hit);
  if (!body) return null;
  const rim = hit.kind === 'edge' && body.edges[hit.index]!.axis !== null;
  const face = rim ? body.edges[hit.index]!.faces.find((f) => body.faces[f]!.radius !== null) : hit.kind === 'face' ? hit.index : undefined; // prettier-ignore
  if (face === undefined) return null;
  const ref = refOfFace(namedBody(body), face, view.bodies.map(namedBody));
  return { face: ref, hollow: body.faces[face]!.hollow === true };
}

const bodyOf = (view: PartView, hit: Hit) => view.bodies.find((b) => b.id === bodyOfStage(hit.body));

/** All frames on a face: its own, those of its edges, their ends where these are no corners, and its corners. */
export function spotsOfFace(hit: Hit, member: Member, view: PartView): PickedSpot[] {
  const body = bodyOf(view, hit);
  if (!body || hit.kind !== 'face') return [];
  const edges = body.edges.flatMap((e, index) => (e.faces.includes(hit.index) ? [index] : []));
  const corners = [...new Set(edges.flatMap((e) => body.edges[e]!.ends))].filter((v) => isCorner(body, v));
  const at = (kind: 'face' | 'edge', index: number): Hit => ({ body: hit.body, kind, index });
  const found: PickedSpot[] = [];
  const own = spotAt(hit, member, view, null);
  if (own) found.push(own);
  for (const e of edges) {
    const spot = spotAt(at('edge', e), member, view, null);
    if (spot) found.push(spot);
  }
  for (const v of corners) found.push(cornerSpot(body, v, hit, member, view));
  return found;
}

const cornerSpot = (body: BodyView, vertex: number, hit: Hit, member: Member, view: PartView): PickedSpot => ({
  ...shared(member, 'corner'),
  spot: { vertex: refOfVertex(namedBody(body), vertex, view.bodies.map(namedBody)) },
  frame: { at: body.corners[vertex]!, turn: HERE.turn },
  hit,
});

const shared = (member: Member, label: string) => ({
  member: member.key,
  path: member.path,
  label: `${member.name}, ${label}`,
  round: false,
  hit: null,
});

/** What a part has that is no body: its origin, the datums of its steps, and the points of its sketches. */
export function spotsBesideBodies(member: Member, view: PartView, design: Design): PickedSpot[] {
  const look = lookOfView(view);
  const steps = design.parts[member.part]?.steps ?? {};
  const offer = (spot: Spot, label: string): PickedSpot[] => {
    const frame = frameOrNull(() => frameOn(spot, look).frame);
    return frame ? [{ ...shared(member, label), spot, frame }] : [];
  };
  return [
    ...offer({ origin: true }, 'origin'),
    ...view.steps.flatMap(({ id, datum }) => (datum && datum.kind !== 'curve' ? offer({ step: id }, steps[id]?.name ?? datum.kind) : [])), // prettier-ignore
    ...view.steps.flatMap(({ id, sketch }) =>
      Object.keys(sketch?.geometry.points ?? {}).flatMap((point) =>
        offer({ sketch: id, point }, `point of ${steps[id]?.name ?? 'a sketch'}`),
      ),
    ),
  ];
}

/**
 * One frame of two on the same part: midway between parallel faces, where straight edges cross.
 * @returns null where the two make none
 */
export function spotOfTwo(one: PickedSpot, other: PickedSpot): PickedSpot | null {
  if (one.member !== other.member) return null;
  const [a, b] = [one.spot, other.spot];
  const name = one.label.slice(0, one.label.indexOf(','));
  const of = (spot: Spot, frame: Pose | null, what: string): PickedSpot | null =>
    frame && { ...one, spot, frame, label: `${name}, ${what}` };
  if ('face' in a && 'face' in b)
    return of({ between: [a.face, b.face] }, frameOrNull(() => midway(one.frame, other.frame)), 'between its faces'); // prettier-ignore
  if ('edge' in a && 'edge' in b && !one.round && !other.round)
    return of({ crossing: [a.edge, b.edge] }, frameOrNull(() => crossing(one.frame, other.frame)), 'crossing of its edges'); // prettier-ignore
  return null;
}
