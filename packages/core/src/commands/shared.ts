/** Edits that keep a design and its project's shared dimensions in step. */
import { Ledger } from '../ledger/ledger.ts';
import { z } from 'zod';
import { applyEdit, EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { emptyDesign, type Design } from '../document/schema.ts';
import { NOTHING_SHARED, Shared, type TitleBlock, type TitleField } from '../document/shared.ts';
import { Id } from '../ids/ids.ts';
import { nameFault } from './dimensions.ts';
import { plain } from '../document/plain.ts';
import { resolveSketches } from './sketch.ts';

/** The project's dimensions as a design of nothing else, so that they are edited and read like any. */
export function ledgerDesign(project: string, shared: Shared): Design {
  const { dimensions, dimensionOrder } = shared;
  return { ...emptyDesign(project), dimensions, dimensionOrder };
}

/** The project’s dimensions after an edit as one would make to a design’s own; or why it is refused, as a sentence. */
export function editShared(shared: Shared, edit: Edit): { readonly shared: Shared } | { readonly message: string } {
  const outcome = applyEdit(ledgerDesign('Project', shared), edit);
  if (!outcome.ok) return { message: outcome.message };
  const { dimensions, dimensionOrder } = outcome.design;
  return { shared: { ...shared, dimensions, dimensionOrder } };
}

/** The project with another text in the title block of its sheets; an empty one takes it off. */
export function withTitleField(shared: Shared, field: TitleField, text: string): Shared {
  const { [field]: _, ...rest } = shared.titleBlock ?? {};
  const titleBlock: TitleBlock = text.trim() === '' ? rest : { ...rest, [field]: text.trim() };
  const { titleBlock: __, ...others } = shared;
  return Object.keys(titleBlock).length > 0 ? { ...others, titleBlock } : others;
}

/** Why these cannot be a project's dimensions, as a sentence; null when they can. */
export function faultOfShared(shared: Shared): string | null {
  const ledger = Ledger.fresh(ledgerDesign('Project', shared));
  for (const [i, entry] of ledger.entries.entries()) {
    if (entry.measured) return `${entry.name} is measured on a part, and a project has none; keep it in its design.`;
    const fault = nameFault(
      entry.name,
      ledger.entries.slice(0, i).map((e) => e.name),
    );
    if (fault) return fault;
    const value = ledger.valueOfEntry(entry);
    if (!value.ok) return `${entry.name}: ${value.message}`;
  }
  return null;
}

const followCommand = declareCommand({
  name: 'follow-project',
  args: z.strictObject({ shared: Shared }),
  label: () => 'Follow the project’s dimensions',
  run(draft, { shared }) {
    const before = Ledger.of(plain(draft));
    const was = plain(draft).shared ?? NOTHING_SHARED;
    // What the project dropped but this design uses stays, or its numbers would have no value.
    const kept = was.dimensionOrder.filter(
      (id) => !(id in shared.dimensions) && !(id in draft.dimensions) && before.usersOf(id).length > 0,
    );
    const now: Shared = {
      ...shared,
      dimensions: { ...shared.dimensions, ...Object.fromEntries(kept.map((id) => [id, was.dimensions[id]!])) },
      dimensionOrder: [...shared.dimensionOrder, ...kept],
    };
    if (JSON.stringify(was) === JSON.stringify(now)) return;
    draft.shared = now;
    resolveSketches(draft, before, null);
  },
});

/** Take over what the project has now. Follows the project, and is not an edit of its own. */
export const followProject = (shared: Shared): Edit => followCommand({ shared });

/** The project with one of the design's own dimensions added. @throws EditRefused when it cannot stand there */
export function withShared(shared: Shared, design: Design, id: string): Shared {
  const own = design.dimensions[id];
  if (!own) throw new EditRefused('Only a dimension of the design itself can be shared.');
  const next: Shared = {
    ...shared,
    dimensions: { ...shared.dimensions, [id]: own },
    dimensionOrder: [...shared.dimensionOrder.filter((other) => other !== id), id],
  };
  const fault = faultOfShared(next);
  if (fault) throw new EditRefused(`${own.name} cannot be shared as it is: ${fault}`);
  return next;
}

const giveCommand = declareCommand({
  name: 'give-to-project',
  args: z.strictObject({ id: Id }),
  label: () => 'Share a dimension with the project',
  run(draft, { id }) {
    const own = draft.dimensions[id];
    if (!own) return;
    draft.shared ??= { dimensions: {}, dimensionOrder: [] };
    draft.shared.dimensions[id] = own;
    if (!draft.shared.dimensionOrder.includes(id)) draft.shared.dimensionOrder.push(id);
    delete draft.dimensions[id];
    draft.dimensionOrder = draft.dimensionOrder.filter((other) => other !== id);
  },
});

/** The design's own dimension becomes the project's; what used it still does. */
export const giveToProject = (id: string): Edit => giveCommand({ id });
