/** How the people at work on a design are told apart: each page its own letter, as there are no names without accounts. */
import type { Person } from './live.ts';

/** Beginning after A, which one is oneself. */
export const letterOf = ({ tab }: Person): string => String.fromCharCode(66 + (tab % 25));

export const calledBy = (person: Person): string => (person.mine ? 'You, in another tab' : `Someone else (${letterOf(person)})`); // prettier-ignore
