/** Bodies of other parts on their way through a recipe: drawn to, cut with, never changed and never part of what comes out. */
import { nameOf, type Name } from './name.ts';

const ROLE = 'borrowed';

/** A name of another part, as the step that borrows it knows it. */
export const borrowedName = (step: string, name: Name): Name => nameOf(step, ROLE, [name]);

/** Is it another part’s? What is made of such a body keeps its name. */
export const isBorrowed = ({ name }: { readonly name: Pick<Name, 'role'> }): boolean => name.role === ROLE;
