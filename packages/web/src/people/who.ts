/** How the people at work on a design are told apart: by name, and without accounts each page by a letter of its own. */
import type { Person } from './live.ts';

/** Letters begin after A, which one is oneself. */
export const letterOf = ({ tab, name }: Person): string =>
  name ? [...name.trim()][0]!.toLocaleUpperCase() : String.fromCharCode(66 + (tab % 25));

export const calledBy = (person: Person): string =>
  person.mine ? 'You, in another tab' : (person.name ?? `Someone else (${letterOf(person)})`);
