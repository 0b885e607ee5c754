/** From what finding says to what a slot does about it. */
import { StepFailure } from '../names/body.ts';
import type { Finding } from '../references/references.ts';
import type { Resolving } from './resolving.ts';

/** What is being looked for, in words: “a face of its axis”, and what to store if what was found is meant. */
export interface Sought<T> {
  readonly slot: string;
  readonly index: number;
  /** As the subject of a sentence: “The face this sketch lies on”. */
  readonly what: string;
  readonly stored: (found: T) => unknown;
}

/**
 * What was found, the uncertain told to the user.
 * @returns null when it is lost, which is told as well
 */
export function foundOrNull<T>(finding: Finding<T>, sought: Sought<T>, context: Resolving): T | null {
  const { slot, index, what } = sought;
  if (finding.how === 'one') return finding.found;
  if (finding.how === 'probably') {
    context.doubt({
      slot,
      index,
      how: 'probably',
      says: `${what} is probably the right one: ${finding.why}; look, and keep it or pick again.`,
      proposed: sought.stored(finding.found),
    });
    return finding.found;
  }
  const [nearest] = finding.candidates;
  context.doubt({
    slot,
    index,
    how: 'lost',
    says: lostSentence(what, finding.why),
    ...(nearest === undefined ? {} : { proposed: sought.stored(nearest) }),
  });
  return null;
}

export function lostSentence(what: string, why: string): string {
  return `${what} is no longer found: ${why}; pick it again.`;
}

/** The same for what a step cannot be made without. @throws StepFailure */
export function foundOrFail<T>(finding: Finding<T>, sought: Sought<T>, context: Resolving): T {
  const found = foundOrNull(finding, sought, context);
  if (found === null) throw new StepFailure(lostSentence(sought.what, finding.how === 'lost' ? finding.why : ''));
  return found;
}

/** Each of a list that a slot stores; what is found afresh takes the place of the one it was found for. @throws StepFailure */
export function foundEach<R, T>(
  stored: readonly R[],
  { slot, what, ref }: { readonly slot: string; readonly what: string; readonly ref: (found: T) => R },
  find: (ref: R) => Finding<T>,
  context: Resolving,
): T[] {
  return stored.map((own, index) =>
    foundOrFail(
      find(own),
      { slot, index, what, stored: (found) => stored.map((r, i) => (i === index ? ref(found) : r)) },
      context,
    ),
  );
}
