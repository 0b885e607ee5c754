/** Finding a referenced face: the one, probably this one and why, or lost with what lies nearest. */
import type { FaceRef, Finding } from '../references/references.ts';
import { apart, dot } from '../space/vector.ts';
import { likeness, readName, type Name } from './name.ts';
import { besideFace, facesBeside, storedNames, type NamedBody } from './neighbours.ts';

export interface FoundFace<B extends NamedBody = NamedBody> {
  readonly body: B;
  /** Index in the body's faces. */
  readonly face: number;
}

/** Largest distance, mm, at which a remembered spot still means the same place. */
const SAME_PLACE = 1e-3;
/** Names less alike than this are of different things. */
const LEAST_LIKENESS = 0.5;
const MOST_CANDIDATES = 3;

export function findFace<B extends NamedBody>(ref: FaceRef, bodies: readonly B[]): Finding<FoundFace<B>> {
  const name = readName(ref.name);
  const all = bodies.flatMap((body) => body.faceNames.map((names, face) => ({ body, face, names })));
  const lost = (why: string): Finding<FoundFace<B>> => ({
    how: 'lost',
    why,
    candidates: nearestFirst(all, ref)
      .slice(0, MOST_CANDIDATES)
      .map(({ body, face }) => ({ body, face })),
  });
  if (!name) return lost('its name cannot be read');
  const named = all.filter((c) => c.names.includes(name));
  if (named.length === 1) return soleOf(named[0]!, ref);
  if (named.length > 1) return pieceOf(named, ref) ?? lost('it was split, and nothing tells which piece was meant');
  const kin = kinOf(name, all);
  if (kin.length === 1) {
    const found = kin[0]!;
    // A shorter name says all that was known; a longer one says something that is no longer so.
    return name.parents.length === 0
      ? { how: 'one', found }
      : { how: 'probably', found, why: 'what it was made from has changed' };
  }
  if (kin.length > 1) {
    const best = closest(kin, ref);
    return best
      ? { how: 'probably', found: best, why: `it is the nearest of ${kin.length} that came from the same` }
      : lost(`${kin.length} faces came from the same, and nothing tells which was meant`);
  }
  const there = atPlace(all, ref);
  return there.length === 1
    ? { how: 'probably', found: there[0]!, why: 'it lies where the face was, but another step made it' }
    : lost('nothing that made it is there any more');
}

/** One face bears the name. It was one of several only if the reference says so: then its neighbours must agree. */
function soleOf<B extends NamedBody>(found: FoundFace<B>, ref: FaceRef): Finding<FoundFace<B>> {
  const kind = found.body.facts.faces[found.face]!.normal;
  if (ref.normal && !kind) return { how: 'probably', found, why: 'it was flat and is not any more' };
  if (!ref.piece || sharedWith(found, ref) === 1) return { how: 'one', found };
  return { how: 'probably', found, why: 'it was one of several pieces, and only this one is left' };
}

/** Several pieces bear the name: the one with all the neighbours is the one; else the likest, and it is said. */
function pieceOf<B extends NamedBody>(named: readonly FoundFace<B>[], ref: FaceRef): Finding<FoundFace<B>> | null {
  if (ref.beside) {
    const whole = named.filter((c) => sharedWith(c, ref) === 1);
    if (whole.length === 1) return { how: 'one', found: whole[0]! };
    const among = whole.length > 1 ? whole : named;
    const most = Math.max(...among.map((c) => sharedWith(c, ref)));
    const likest = among.filter((c) => sharedWith(c, ref) === most);
    const found = likest.length === 1 ? likest[0]! : closest(likest, ref);
    return found ? { how: 'probably', found, why: `it was split into ${named.length} pieces` } : null;
  }
  const found = closest(named, ref);
  return found ? { how: 'probably', found, why: `it is the nearest of ${named.length} pieces` } : null;
}

/** The share of the remembered neighbours that are still there. */
function sharedWith({ body, face }: FoundFace, { beside = [] }: FaceRef): number {
  if (beside.length === 0) return 1;
  const now = besideFace(body, face);
  return beside.filter((text) => hasName(now, text)).length / beside.length;
}

const hasName = (names: ReadonlySet<Name>, text: string) => {
  const name = readName(text);
  return name !== null && names.has(name);
};

function kinOf<B extends NamedBody>(name: Name, all: readonly (FoundFace<B> & { names: readonly Name[] })[]) {
  const score = (names: readonly Name[]) => Math.max(0, ...names.map((n) => likeness(name, n)));
  const kin = all.map((c) => ({ ...c, score: score(c.names) })).filter((c) => c.score >= LEAST_LIKENESS);
  const best = Math.max(...kin.map((c) => c.score));
  return kin.filter((c) => c.score === best);
}

const away = ({ body, face }: FoundFace, near: FaceRef['near']) =>
  near ? apart(body.facts.faces[face]!.center, near) : Infinity;

/** The nearest by the remembered spot; null when there is none, or two are as near. */
function closest<B extends NamedBody>(among: readonly FoundFace<B>[], ref: FaceRef): FoundFace<B> | null {
  if (!ref.near) return null;
  const [first, second] = nearestFirst(among, ref);
  if (second && away(second, ref.near) - away(first!, ref.near) < SAME_PLACE) return null;
  return first ?? null;
}

function nearestFirst<F extends FoundFace>(all: readonly F[], { near, normal }: FaceRef): F[] {
  const turned = (f: F) => {
    const own = f.body.facts.faces[f.face]!.normal;
    return normal && own ? (dot(own, normal) > 0.99 ? 0 : 1) : normal || own ? 2 : 0;
  };
  return [...all].sort((a, b) => turned(a) - turned(b) || away(a, near) - away(b, near));
}

function atPlace<B extends NamedBody>(all: readonly FoundFace<B>[], { near, normal }: FaceRef): FoundFace<B>[] {
  if (!near || !normal) return [];
  return all.filter(({ body, face }) => {
    const facts = body.facts.faces[face]!;
    return facts.normal !== null && dot(facts.normal, normal) > 0.999 && apart(facts.center, near) < SAME_PLACE;
  });
}

/** What is stored of a picked face. @param all every body it was picked among */
export function refOfFace(body: NamedBody, face: number, all: readonly NamedBody[] = [body]): FaceRef {
  const facts = body.facts.faces[face]!;
  const name = body.faceNames[face]![0]!;
  const bearers = all.reduce((n, b) => n + b.faceNames.filter((names) => names.includes(name)).length, 0);
  return {
    name: name.text,
    beside: storedNames(body, facesBeside(body, face)),
    ...(bearers > 1 ? { piece: true as const } : {}),
    near: [...facts.center],
    ...(facts.normal ? { normal: [...facts.normal] } : {}),
  };
}
