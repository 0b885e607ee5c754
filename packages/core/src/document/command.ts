/** Commands: edits with a name and arguments, which can be stored and run again on another state of the design. */
import type { Draft } from 'immer';
import type { z } from 'zod';
import { EditRefused, type Edit } from './change.ts';
import type { Design } from './schema.ts';

interface Command<A> {
  /** Its name in the log. */
  readonly name: string;
  readonly args: z.ZodType<A>;
  /** What it does, for history and undo. */
  label(args: A): string;
  /** @throws EditRefused when the document does not allow it */
  run(draft: Draft<Design>, args: A): void;
}

const commands = new Map<string, (args: unknown) => Edit>();

/** Declare a command. @returns what makes an edit of its arguments */
export function declareCommand<A>({ name, args: schema, label, run }: Command<A>): (args: A) => Edit {
  const edit = (args: A): Edit => ({ command: name, args, label: label(args).slice(0, 300), run: (draft) => run(draft, args) }); // prettier-ignore
  commands.set(name, (given) => {
    const read = schema.safeParse(given);
    if (!read.success) throw new EditRefused(`The arguments of “${name}” cannot be read.`);
    return edit(read.data);
  });
  return edit;
}

/** The edit that a stored name and arguments stand for. @throws EditRefused when there is no such command, or it cannot read them */
export function editOf(name: string, args: unknown): Edit {
  const make = commands.get(name);
  if (!make) throw new EditRefused(`There is no command called “${name}”.`);
  return make(args);
}
