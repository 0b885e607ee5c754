/**
 * Every edit of a design is a change: a named command run through immer, which
 * yields what it did as patches and how to take it back.
 */
import { applyPatches, enablePatches, freeze, produceWithPatches, type Draft, type Patch } from 'immer';
import { z } from 'zod';
import { checkConsistency } from './consistency.ts';
import { applyGiven, Given, PatchSchema } from './patches.ts';
import { Design } from './schema.ts';

enablePatches();

/** A named command ready to run. Throws EditRefused when the document does not allow it. */
export interface Edit {
  /** The command's name, in the log. */
  readonly command: string;
  /** With its name, enough to run it again; commands that cannot be run again yet have none. */
  readonly args?: unknown;
  /** What it does, for history and undo: “Set plate_thk to 8 mm”. */
  readonly label: string;
  run(draft: Draft<Design>): void;
}

/** An edit that cannot be made; the message is for the user. */
export class EditRefused extends Error {}

/** A design that nothing changes by accident. Made so when it is opened, it need not be at the first edit. */
export const frozen = (design: Design): Design => freeze(design, true);

/** What is sent and logged. `of` names the change that an undo or redo concerns. */
export const Change = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9_-]{8,40}$/),
  kind: z
    .enum(['edit', 'undo', 'redo', 'follow'])
    .describe('follow: what the model reads after an edit; it is not taken back by itself.'),
  of: z.string().max(40).optional(),
  command: z.string().max(60),
  args: Given.optional().describe('What the command was given, where it can be run again.'),
  label: z.string().max(300),
  patches: z.array(PatchSchema).max(20_000),
});
export type Change = z.infer<typeof Change>;

export type Applied =
  | { readonly ok: true; readonly design: Design; readonly patches: Patch[]; readonly inverse: Patch[] }
  | { readonly ok: false; readonly message: string };

/** Run an edit. Nothing is changed in `design` itself; a refused edit leaves nothing behind. */
export function applyEdit(design: Design, edit: Edit): Applied {
  try {
    const [next, patches, inverse] = produceWithPatches(design, (draft) => edit.run(draft));
    return { ok: true, design: next, patches, inverse };
  } catch (error) {
    if (error instanceof EditRefused) return { ok: false, message: error.message };
    throw error;
  }
}

/**
 * Apply patches that came from elsewhere (the log, another tab, a client), and
 * check that the outcome is a sound design.
 */
export function applyChange(design: Design, patches: readonly Patch[]): Applied {
  let outcome: readonly [Design, Patch[], Patch[]];
  try {
    outcome = produceWithPatches(design, (draft) => {
      applyGiven(draft, patches);
    });
  } catch {
    return { ok: false, message: 'What this change touches is no longer there; the design has moved on.' };
  }
  const parsed = Design.safeParse(outcome[0]);
  if (!parsed.success) {
    return { ok: false, message: `This change would leave the design unsound: ${firstIssue(parsed.error)}` };
  }
  const faults = checkConsistency(outcome[0]);
  if (faults.length > 0) return { ok: false, message: `This change would leave the design unsound: ${faults[0]}` };
  return { ok: true, design: outcome[0], patches: outcome[1], inverse: outcome[2] };
}

/** Apply patches the server has already found sound. */
export function applyAccepted(design: Design, patches: readonly Patch[]): Design {
  return applyPatches(design, patches as Patch[]);
}

/** The first thing zod found, as a sentence with its place. */
export function firstIssue(error: z.ZodError): string {
  const issue = error.issues[0];
  if (!issue) return 'it does not follow the format.';
  const place = issue.path.map(String).join(' › ');
  return `${place ? `${place}: ` : ''}${issue.message.replace(/\.$/, '')}.`;
}
