/** Commands: edits with a name and arguments, which can be stored and run again on another state of the design. */
import type { Draft } from 'immer';
import { z } from 'zod';
import { applyEdit, EditRefused, type Applied, type Edit } from './change.ts';
import { Given } from './given.ts';
import type { Design } from './schema.ts';

const LONGEST_LABEL = 300;
const MOST_AT_ONCE = 500;

interface Command<A> {
  /** Its name in the log. */
  readonly name: string;
  readonly args: z.ZodType<A>;
  /** What it does, for history and undo. */
  label(args: A): string;
  /** The same arguments with what typed names meant, read from what came of them: names may change meanwhile. */
  bound?(args: A, after: Design): A;
  /** What it takes over as it stands, as paths: of two people, one may not change that meanwhile. */
  reads?(args: A): readonly (readonly string[])[];
  /** @throws EditRefused when the document does not allow it */
  run(draft: Draft<Design>, args: A): void;
}

const commands = new Map<string, (args: unknown) => Edit>();
const readers = new Map<string, (args: unknown) => readonly (readonly string[])[]>();

/** Declare a command. @returns what makes an edit of its arguments */
export function declareCommand<A>({ name, args: schema, label, bound, reads, run }: Command<A>): (args: A) => Edit {
  const edit = (args: A): Edit => ({ command: name, args, label: label(args).slice(0, LONGEST_LABEL), run: (draft) => run(draft, args), ...(bound ? { bound: (after: Design) => ({ ...edit(bound(args, after)), label: label(args).slice(0, LONGEST_LABEL) }) } : {}) }); // prettier-ignore
  commands.set(name, (given) => {
    const read = schema.safeParse(given);
    if (!read.success) throw new EditRefused(`The arguments of “${name}” cannot be read.`);
    return edit(read.data);
  });
  if (reads) readers.set(name, (given) => reads(schema.parse(given)));
  return edit;
}

/** What a stored command takes over as it stands. */
export const readsOf = (name: string, args: unknown): readonly (readonly string[])[] => readers.get(name)?.(args) ?? [];

/** The edit that a stored name and arguments stand for. @throws EditRefused when there is no such command, or it cannot read them */
export function editOf(name: string, args: unknown): Edit {
  const make = commands.get(name);
  if (!make) throw new EditRefused(`There is no command called “${name}”.`);
  return make(args);
}

/** Run a stored command. */
export function applyCommand(design: Design, name: string, args: unknown): Applied {
  try {
    return applyEdit(design, editOf(name, args));
  } catch (error) {
    if (error instanceof EditRefused) return { ok: false, message: error.message };
    throw error;
  }
}

const one = z.strictObject({ command: z.string().max(60), args: Given });
const severalCommand = declareCommand({
  name: 'several',
  args: z.strictObject({ label: z.string().max(LONGEST_LABEL), edits: z.array(one).min(1).max(MOST_AT_ONCE) }),
  label: ({ label }) => label,
  reads: ({ edits }) => edits.flatMap(({ command, args }) => readsOf(command, args)),
  run(draft, { edits }) {
    for (const { command, args } of edits) {
      if (command === 'several') throw new EditRefused('Several edits at once cannot hold several again.');
      editOf(command, args).run(draft);
    }
  },
});

/** Edits that are made, and taken back, as one. @param edits as they can be stored */
export const severalEdits = (label: string, edits: readonly Edit[]): Edit =>
  severalCommand({ label, edits: edits.map(({ command, args }) => ({ command, args })) });
