/** Bodies of an assembly’s members where they stand, under names of their own: of the same part, each is another. */
import { MovedFacts } from '../names/moved-facts.ts';
import type { Body } from '../names/body.ts';
import { nameOf, type Name } from '../names/name.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import type { Transform } from '../space/transform.ts';

const ROLE = 'of';

/** @param member its key: ids of instances, joined with /. The solid is the caller’s to free. @throws KernelError */
export function placedBody(body: Body, member: string, to: Transform, kernel: SolidKernel): Body {
  const within = member.replaceAll('/', '-');
  const own = (name: Name): Name => nameOf(within, ROLE, [name]);
  const { solid } = kernel.placed(body.solid, to);
  return {
    name: own(body.name),
    solid,
    faceNames: body.faceNames.map((names) => names.map(own)),
    key: `${body.key} ${member} ${to.flat().join()}`,
    facts: new MovedFacts(body.facts, to, solid, kernel),
  };
}

/** The step a face was made by, whichever member it is of. */
export function stepOfName({ step, role, parents: [of] }: Name): string {
  return role === ROLE && of && typeof of !== 'string' ? of.step : step;
}
