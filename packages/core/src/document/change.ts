/** Every edit of a design is a named command, run on the document by the same core wherever it is made. */
import { freeze, produce, type Draft } from 'immer';
import { z } from 'zod';
import { Given } from './given.ts';
import type { Design } from './schema.ts';
import { touchesBetween, type Touch } from './touches.ts';

/** A named command ready to run. Throws EditRefused when the document does not allow it. */
export interface Edit {
  /** The command's name, in the log. */
  readonly command: string;
  /** With its name, all that is needed to run it again; what is only tried and never kept has none. */
  readonly args?: unknown;
  /** What it does, for history and undo: “Set plate_thk to 8 mm”. */
  readonly label: string;
  run(draft: Draft<Design>): void;
  /** Of an edit done by hand: the command it comes to on this design. @throws EditRefused */
  readonly on?: (design: Design) => Edit;
  /** The same edit with what typed names meant, read from what came of it. */
  readonly bound?: (after: Design) => Edit;
}

/** An edit that cannot be made; the message is for the user. */
export class EditRefused extends Error {}

/** A design that nothing changes by accident. Made so when it is opened, it need not be at the first edit. */
export const frozen = (design: Design): Design => freeze(design, true);

const change = { id: z.string().regex(/^[A-Za-z0-9_-]{8,40}$/) };
const command = { ...change, command: z.string().max(60), args: Given };
const turn = { ...change, of: z.string().max(40).describe('The change that is taken back, or made again.') };

/** What is sent. A command says what is wanted; what it did is found by running it. */
export const Change = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('edit'), ...command }),
  z
    .strictObject({ kind: z.literal('follow'), ...command })
    .describe('What the model reads after an edit; it is not taken back by itself.'),
  z.strictObject({ kind: z.literal('undo'), ...turn }),
  z.strictObject({ kind: z.literal('redo'), ...turn }),
  z
    .strictObject({ kind: z.literal('restore'), ...change, to: z.number().int().min(0) })
    .describe('The design as it was at this revision, as a new edit.'),
]);
export type Change = z.infer<typeof Change>;

export type Applied =
  | {
      readonly ok: true;
      readonly design: Design;
      readonly touches: readonly Touch[];
      /** The edit as it can be stored and run again. */
      readonly edit: Edit;
    }
  | { readonly ok: false; readonly message: string };

/** Edits that bring guests, renew them and let them go. */
const OF_GUESTS: ReadonlySet<string> = new Set(['take-guests', 'loosen-guests']);
/** What is decided here of a part of another design: how it looks, not what it is. */
const OWN_OF_GUEST: ReadonlySet<string> = new Set(['color', 'opacity', 'sections', 'cells']);

/** What is of another design is changed there. @throws EditRefused */
function refuseInGuests(before: Design, after: Design, touches: readonly Touch[], command: string): void {
  if (!before.guests || OF_GUESTS.has(command)) return;
  for (const { path, loose } of touches) {
    const [map, id, field] = path;
    if (loose || (map !== 'parts' && map !== 'assemblies') || field === undefined || OWN_OF_GUEST.has(field)) continue;
    const own = before[map]?.[id!];
    const guest = own?.guest === undefined ? undefined : before.guests[own.guest];
    if (guest && after[map]?.[id!])
      throw new EditRefused(`${own!.name} is of the design ${guest.name}; change it there, or cut it loose here.`);
  }
}

/** Run an edit. Nothing is changed in `design` itself; a refused edit leaves nothing behind. */
export function applyEdit(design: Design, asked: Edit): Applied {
  try {
    const edit = asked.on ? asked.on(design) : asked;
    const next = produce(design, (draft) => edit.run(draft));
    const touches = touchesBetween(design, next);
    refuseInGuests(design, next, touches, edit.command);
    return { ok: true, design: next, touches, edit: edit.bound?.(next) ?? edit };
  } catch (error) {
    if (error instanceof EditRefused) return { ok: false, message: error.message };
    throw error;
  }
}

/** The first thing zod found, as a sentence with its place. */
export function firstIssue(error: z.ZodError): string {
  const issue = error.issues[0];
  if (!issue) return 'it does not follow the format.';
  const place = issue.path.map(String).join(' › ');
  return `${place ? `${place}: ` : ''}${issue.message.replace(/\.$/, '')}.`;
}
