/** Changes made here and not yet in the log, run again whenever what lies under them changes. */
import { applyCommand, editOf, EditRefused, inverted, retouched, type Change, type Design, type Touch } from '@helb/core'; // prettier-ignore

/** What a change that is taken back, or made again, once did. */
export interface Known {
  readonly label: string;
  readonly touches: readonly Touch[];
}

export interface Waiting {
  readonly change: Change;
  /** What its maker had before them: this revision, and those of their own changes since. */
  readonly base: number;
  readonly own: readonly string[];
  readonly label: string;
  /** Of an undo or redo: what the change it concerns did. */
  readonly of?: Known;
  /** Its author; who signs in here after them does not send it as their own. */
  readonly by?: string;
}

type Run =
  | { readonly ok: true; readonly design: Design; readonly touches: readonly Touch[] }
  | { readonly ok: false; readonly message: string };

/** The design with a waiting change made. */
export function runWaiting(design: Design, { change, label, of }: Waiting): Run {
  if (change.kind === 'edit' || change.kind === 'follow') return applyCommand(design, change.command, change.args);
  if (change.kind === 'restore' || !of) return { ok: true, design, touches: [] };
  return turn(design, change.kind, { ...of, label });
}

/** Why a command could not be run again as it is stored, as a sentence; better said now than when it is sent. */
export function faultOfStored(command: string, args: unknown): string | null {
  try {
    editOf(command, args);
    return null;
  } catch (error) {
    if (error instanceof EditRefused) return error.message;
    throw error;
  }
}

/** Take a change back, or make it again. */
export function turn(design: Design, kind: 'undo' | 'redo', { label, touches }: Known): Run {
  const outcome = retouched(design, kind === 'undo' ? inverted(touches) : touches);
  if (outcome.ok) return outcome;
  const what = kind === 'undo' ? 'taken back' : 'made again';
  return { ok: false, message: `“${label}” cannot be ${what} any more: what it touches was changed since.` };
}
