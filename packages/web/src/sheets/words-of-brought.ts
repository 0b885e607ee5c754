/** What came of bringing the model’s dimensions to a sheet, in a sentence or three. */
import type { Brought } from '@helb/core';

const MOST_NAMED = 6;

export function wordsOfBrought({ sizes, known, missed }: Brought): string {
  const count = (n: number, one: string, more: string) => (n === 1 ? `One ${one}` : `${n} ${more}`);
  const named = missed.slice(0, MOST_NAMED).join(', ');
  const more = missed.length > MOST_NAMED ? ` and ${missed.length - MOST_NAMED} more` : '';
  return [
    sizes.length === 0 ? 'No dimension of the model was brought.' : `${count(sizes.length, 'dimension of the model stands', 'dimensions of the model stand')} on the sheet now.`, // prettier-ignore
    ...(known > 0 ? [`${count(known, 'more was', 'more were')} said there already.`] : []),
    ...(missed.length > 0 ? [`No view shows ${named}${more}.`] : []),
  ].join(' ');
}
