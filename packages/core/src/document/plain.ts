import { current, isDraft } from 'immer';
import type { Design } from './schema.ts';

/** The plain document behind a draft, for reading whole. */
export function plain(draft: Design): Design {
  return isDraft(draft) ? current(draft) : draft;
}
