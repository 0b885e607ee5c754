/** A text for each face that no other face of the part has: its name, and for pieces of one name what lies beside them. */
import { hashText } from '../ids/hash.ts';
import { facesBeside, storedNames, type NamedBody } from './neighbours.ts';

export function faceKeys(bodies: readonly NamedBody[]): string[][] {
  const bearers = new Map<string, number>();
  for (const body of bodies)
    for (const [name] of body.faceNames) bearers.set(name!.text, (bearers.get(name!.text) ?? 0) + 1);
  return bodies.map((body) =>
    body.faceNames.map(([name], face) => {
      if (bearers.get(name!.text) === 1) return name!.text;
      const beside = storedNames(body, facesBeside(body, face));
      return `${name!.text}/${hashText(beside.join()).slice(0, 8)}`;
    }),
  );
}
