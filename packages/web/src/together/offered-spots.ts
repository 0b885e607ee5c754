/** Frames that a part offers under the pointer: on a face, a round edge, an edge or its ends. */
import { frameOrNull, namedBody, poseOfEdge, poseOfFace, refOfEdge, refOfFace, type BodyView, type Member, type PartView, type Vec3 } from '@helb/core'; // prettier-ignore
import type { Hit } from '../stage/scene.ts';
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
  const found = hit.kind === 'face' ? onFace(body, hit.index, view) : onEdge(body, hit.index, at);
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

function onEdge(body: BodyView, edge: number, at: Vec3 | null): Found | null {
  const facts = body.edges[edge]!;
  const ends = facts.ends.map((v) => body.corners[v]!);
  const away = (p: Vec3) => (at ? Math.hypot(p[0] - at[0], p[1] - at[1], p[2] - at[2]) : Infinity);
  const near = facts.axis ? -1 : ends.findIndex((p) => away(p) < END_SHARE * facts.length);
  const end = near < 0 ? undefined : near === 0 ? ('one' as const) : ('other' as const);
  const frame = frameOrNull(() => poseOfEdge(namedBody(body), edge, end));
  if (!frame) return null;
  return {
    spot: { edge: refOfEdge(namedBody(body), edge), ...(end ? { end } : {}) },
    frame,
    label: facts.axis ? 'rim' : end ? 'end of an edge' : 'edge',
    round: facts.axis !== null,
  };
}
