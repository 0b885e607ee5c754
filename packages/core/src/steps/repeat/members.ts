/** The names of what a member of a pattern has, and what the pattern's steps refer to in it. */
import { nameOf, readName, stepsIn, type Name } from '../../names/name.ts';
import type { Rewriting } from '../../slots/slot.ts';
import { followedBy, movedDirection, movedPoint } from '../../space/transform.ts';
import type { Placed } from '../step.ts';

export type Member = Placed;

/** What people call it. */
export const shown = ({ key, called }: Member): string => called ?? key;

const roleOf = (member: Member) => `m${member.key}`;

/** The name of what bears this name in the original. */
export function inMember(pattern: string, member: Member, name: Name): Name {
  return nameOf(pattern, roleOf(member), [name]);
}

/** The member a thing belongs to by its name; null when to none. */
export function memberOfName(pattern: string, name: Name): string | null {
  if (name.step === pattern) return name.role.slice(1);
  for (const parent of name.parents) {
    const own = typeof parent === 'string' ? null : memberOfName(pattern, parent);
    if (own !== null) return own;
  }
  return null;
}

/** The same name without the pattern in it. */
function inOriginal(pattern: string, name: Name): Name {
  if (name.step === pattern && typeof name.parents[0] === 'object') return name.parents[0];
  return nameOf(
    name.step,
    name.role,
    name.parents.map((p) => (typeof p === 'string' ? p : inOriginal(pattern, p))),
  );
}

/** What a repeated step made afresh of a member's things, named as the member's own. */
export function namedAfresh(pattern: string, step: string, members: readonly Member[], name: Name): Name {
  if (name.step !== step) return name;
  const key = memberOfName(pattern, name);
  const member = members.find((m) => m.key === key);
  return member ? inMember(pattern, member, inOriginal(pattern, name)) : name;
}

/** In a member, what the repeated steps made means the member's own; all else stays what it is. */
export function meaningIn(pattern: string, member: Member, repeated: ReadonlySet<string>): Rewriting {
  return {
    step: (id) => id,
    name(text) {
      const name = readName(text);
      return name && stepsIn(text).some((s) => repeated.has(s)) ? inMember(pattern, member, name).text : text;
    },
    place: (at) => movedPoint(member.to, at),
    direction: (along) => movedDirection(member.to, along),
    expression: (text) => text,
  };
}

/** Every member of an inner pattern at every member of an outer one, and the originals of the inner at them. */
export function within(outer: readonly Member[], inner: readonly Member[]): Member[] {
  return outer.flatMap((at) =>
    inner.map((own) => ({
      key: `${own.key}x${at.key}`,
      called: `${shown(own)} of ${shown(at)}`,
      to: followedBy(own.to, at.to),
    })),
  );
}
