import type { Design } from '../document/schema.ts';

/** A part or assembly of another design was deleted here: it is not asked for again. @param id as it was here */
export function forgetGuest(draft: Design, key: string | undefined, id: string): void {
  const guest = key === undefined ? undefined : draft.guests?.[key];
  if (!guest) return;
  const there = Object.entries(guest.renamed ?? {}).find(([, here]) => here === id)?.[0] ?? id;
  guest.parts = guest.parts.filter((other) => other !== there);
  guest.assemblies = guest.assemblies.filter((other) => other !== there);
  if (guest.parts.length + guest.assemblies.length === 0 && ![...Object.values(draft.parts), ...Object.values(draft.assemblies ?? {})].some((own) => own.guest === key)) delete draft.guests![key!]; // prettier-ignore
}
