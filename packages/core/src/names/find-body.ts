/** Finding a referenced body, by what began it and, of its pieces, by the faces only one has. */
import type { BodyRef, Finding } from '../references/references.ts';
import { apart, type Vec3 } from '../space/vector.ts';
import { likeness, readName, type Name } from './name.ts';
import type { NamedBody } from './neighbours.ts';

type WithCenter = NamedBody & { readonly facts: { readonly center: Vec3 } };

/** The role in the name of a body begun by a step. */
export const BODY_ROLE = 'body';
const LEAST_LIKENESS = 0.5;
const SAME_PLACE = 1e-3;

export function findBody<B extends WithCenter>(ref: BodyRef, bodies: readonly B[]): Finding<B> {
  const lost = (why: string): Finding<B> => ({ how: 'lost', why, candidates: bodies.slice(0, 3) });
  const whole = /^[A-Za-z][A-Za-z0-9_]*$/.test(ref.name);
  const name = whole ? null : readName(ref.name);
  if (!whole && !name) return lost('its name cannot be read');
  const named = bodies.filter((b) => (name ? b.name === name : b.name.step === ref.name));
  if (named.length === 1) {
    if (!ref.has || sharedFaces(named[0]!, ref) > 0) return { how: 'one', found: named[0]! };
    return { how: 'probably', found: named[0]!, why: 'it was one of several pieces, and only this one is left' };
  }
  if (named.length > 1) {
    const alike = ref.has ? named.filter((b) => sharedFaces(b, ref) === 1) : [];
    if (alike.length === 1) return { how: 'one', found: alike[0]! };
    const found = closest(alike.length > 1 ? alike : named, ref);
    return found
      ? { how: 'probably', found, why: `it is the nearest of ${named.length} pieces` }
      : lost(`it is in ${named.length} pieces, and nothing tells which was meant`);
  }
  const kin = name ? bodies.filter((b) => likeness(name, b.name) >= LEAST_LIKENESS) : [];
  return kin.length === 1
    ? { how: 'probably', found: kin[0]!, why: 'the region it began from has changed' }
    : lost('what began it is not there any more');
}

function sharedFaces(body: NamedBody, { has = [] }: BodyRef): number {
  if (has.length === 0) return 1;
  const own = new Set(body.faceNames.flat());
  const names = has.map(readName).filter((n): n is Name => n !== null);
  return names.filter((n) => own.has(n)).length / has.length;
}

function closest<B extends WithCenter>(among: readonly B[], { near }: BodyRef): B | null {
  if (!near) return null;
  const [first, second] = [...among].sort((a, b) => apart(a.facts.center, near) - apart(b.facts.center, near));
  if (second && apart(second.facts.center, near) - apart(first!.facts.center, near) < SAME_PLACE) return null;
  return first ?? null;
}

/** What is stored of a picked body. @param all every body it was picked among */
export function refOfBody(body: WithCenter, all: readonly WithCenter[]): BodyRef {
  const others = all.filter((b) => b !== body);
  const ofStep = others.filter((b) => b.name.step === body.name.step);
  const twins = ofStep.filter((b) => b.name === body.name);
  const theirs = new Set(twins.flatMap((b) => b.faceNames.flat()));
  const has = [...new Set(body.faceNames.map((names) => names[0]!))].filter((n) => !theirs.has(n)).map((n) => n.text).sort(); // prettier-ignore
  return {
    name: ofStep.length === 0 ? body.name.step : body.name.text,
    ...(twins.length > 0 ? { has } : {}),
    near: [...body.facts.center] as [number, number, number],
  };
}
