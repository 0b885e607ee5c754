/** What an edit does, in words people read. */
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';

/** @param design as it was before the edit @returns the label with numbers by name where it has references */
export function shownLabel(label: string, design: Design): string {
  if (!label.includes('$')) return label;
  const { index } = Ledger.of(design);
  return label.replace(
    /\$([A-Za-z][A-Za-z0-9_.]*)/g,
    (_, ref: string) => index.byReference(ref)?.name ?? 'a dimension',
  );
}
