import { current, isDraft } from 'immer';

/** The plain document, or part of one, behind a draft, for reading whole. */
export function plain<T extends object>(draft: T): T {
  return isDraft(draft) ? (current(draft as never) as T) : draft;
}
