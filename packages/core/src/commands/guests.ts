/** Edits that bring parts and assemblies of other designs, renew them, and let them go. */
import { z } from 'zod';
import { Assembly } from '../document/assembly.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { Guest } from '../document/guest.ts';
import { plain } from '../document/plain.ts';
import { Part, type Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { freeName } from './free-name.ts';
import type { GuestBundle } from './guest-bundle.ts';

const takeCommand = declareCommand({
  name: 'take-guests',
  args: z.strictObject({
    key: Id,
    guest: Guest,
    parts: z.array(z.tuple([Id, Part])).max(500),
    assemblies: z.array(z.tuple([Id, Assembly])).max(200),
  }),
  label: ({ guest }) => `Take ${guest.name} as of its revision ${guest.revision}`,
  run(draft, { key, guest, parts, assemblies }) {
    if (parts.length + assemblies.length === 0) throw new EditRefused(`${guest.name} has nothing of that any more.`);
    const coming = new Set([...parts, ...assemblies].map(([id]) => id));
    dropAbsent(draft, key, coming, guest.name);
    for (const [id, part] of parts) {
      const was = draft.parts[id];
      if (was && was.guest !== key) throw new EditRefused(`An id of ${part.name} is taken here already.`);
      const { color, opacity, sections, cells } = was ?? {};
      const others = Object.entries(draft.parts).filter(([other]) => other !== id).map(([, p]) => p); // prettier-ignore
      draft.parts[id] = {
        ...structuredClone(part),
        guest: key,
        name: was && was.name === part.name ? was.name : freeName(part.name, others),
        ...(color ? { color } : {}),
        ...(opacity ? { opacity } : {}),
        ...(sections ? { sections: plain(sections) } : {}),
        ...(cells ? { cells: plain(cells) } : {}),
      };
      if (!was) draft.partOrder.push(id);
    }
    for (const [id, own] of assemblies) {
      const was = draft.assemblies?.[id];
      if (was && was.guest !== key) throw new EditRefused(`An id of ${own.name} is taken here already.`);
      const others = Object.entries(draft.assemblies ?? {}).filter(([other]) => other !== id).map(([, a]) => a); // prettier-ignore
      (draft.assemblies ??= {})[id] = { ...structuredClone(own), guest: key, name: freeName(own.name, others) };
      if (!was) (draft.assemblyOrder ??= []).push(id);
    }
    (draft.guests ??= {})[key] = structuredClone(guest);
  },
});

/** What is not there any more goes, unless it stands somewhere here. */
function dropAbsent(draft: Design, key: string, coming: ReadonlySet<string>, name: string): void {
  const standing = new Map<string, string>();
  for (const [id, a] of Object.entries(draft.assemblies ?? {}))
    if (a.guest !== key || coming.has(id))
      for (const { of } of Object.values(a.instances)) standing.set('part' in of ? of.part : of.assembly, a.name);
  for (const [map, order] of [
    ['assemblies', draft.assemblyOrder],
    ['parts', draft.partOrder],
  ] as const)
    for (const [id, own] of Object.entries(draft[map] ?? {})) {
      if (own.guest !== key || coming.has(id)) continue;
      const where = standing.get(id);
      if (where) throw new EditRefused(`${own.name} is no longer in ${name}, and stands in ${where}; remove it there, or cut ${name} loose.`); // prettier-ignore
      delete draft[map]![id];
      order!.splice(order!.indexOf(id), 1);
    }
}

/** Parts and assemblies of another design come to stand here, or are renewed. @param key its id here */
export const takeGuests = (key: string, { guest, parts, assemblies }: GuestBundle): Edit =>
  takeCommand({ key, guest, parts: parts.map(([id, p]) => [id, p]), assemblies: assemblies.map(([id, a]) => [id, a]) });

const loosenCommand = declareCommand({
  name: 'loosen-guests',
  args: z.strictObject({ key: Id }),
  label: () => 'Cut parts of another design loose',
  run(draft, { key }) {
    if (!draft.guests?.[key]) throw new EditRefused('Nothing of that design stands here any more.');
    for (const own of [...Object.values(draft.parts), ...Object.values(draft.assemblies ?? {})])
      if (own.guest === key) delete own.guest;
    delete draft.guests[key];
  },
});

/** All that came from another design is from now on this design’s own. */
export const loosenGuests = (key: string): Edit => loosenCommand({ key });

const followCommand = declareCommand({
  name: 'follow-guest',
  args: z.strictObject({ key: Id, follows: Guest.shape.follows }),
  label: ({ follows }) => (follows === 'newest' ? 'Follow the newest of another design' : 'Stay with what was taken'),
  run(draft, { key, follows }) {
    if (!draft.guests?.[key]) throw new EditRefused('Nothing of that design stands here any more.');
    draft.guests[key].follows = follows;
  },
});
export const followGuest = (key: string, follows: Guest['follows']): Edit => followCommand({ key, follows });
