/** Edits of the sections that are kept of a part. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import type { Design, Part } from '../document/schema.ts';
import { KeptSection } from '../document/sections.ts';
import { Id } from '../ids/ids.ts';

function partOf(draft: Design, id: string): Part {
  const part = draft.parts[id];
  if (!part) throw new EditRefused('This part no longer exists.');
  return part;
}

const keepSectionCommand = declareCommand({
  name: 'keep-section',
  args: z.strictObject({ part: Id, id: Id, section: KeptSection }),
  label: ({ section }) => `Keep ${section.name}`,
  run(draft, { part: home, id, section }) {
    const part = partOf(draft, home);
    part.sections ??= { rows: {}, order: [] };
    if (!part.sections.rows[id]) part.sections.order.push(id);
    part.sections.rows[id] = section;
  },
});

/** A section under a name, new or in place of the one of this id. */
export const keepSection = (part: string, id: string, section: KeptSection): Edit =>
  keepSectionCommand({ part, id, section });

const deleteSectionCommand = declareCommand({
  name: 'delete-section',
  args: z.strictObject({ part: Id, id: Id }),
  label: () => 'Forget a section',
  run(draft, { part: home, id }) {
    const part = partOf(draft, home);
    if (!part.sections?.rows[id]) throw new EditRefused('This section no longer exists.');
    delete part.sections.rows[id];
    part.sections.order.splice(part.sections.order.indexOf(id), 1);
    if (part.sections.order.length === 0) delete part.sections;
  },
});

export const deleteSection = (part: string, id: string): Edit => deleteSectionCommand({ part, id });
