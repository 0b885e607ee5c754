/** Undo and redo, read from the log of changes alone; nothing else is kept. */

export interface LoggedChange {
  readonly id: string;
  readonly kind: 'edit' | 'undo' | 'redo' | 'follow' | 'restore';
  readonly of?: string | undefined;
  readonly label: string;
}

export interface UndoState {
  /** Ids of edits that can be taken back, oldest first. */
  readonly undo: readonly string[];
  /** Ids of edits that were taken back and can be made again, the next one last. */
  readonly redo: readonly string[];
}

/**
 * An edit after an undo drops what could be redone, as everywhere.
 * @param log one author’s changes: each takes back their own
 */
export function undoState(log: readonly LoggedChange[]): UndoState {
  const undo: string[] = [];
  let redo: string[] = [];
  for (const change of log) {
    if (change.kind === 'edit' || change.kind === 'restore') {
      undo.push(change.id);
      redo = [];
    } else if (change.kind === 'undo') {
      const at = undo.lastIndexOf(change.of ?? '');
      if (at >= 0) redo.push(...undo.splice(at, 1));
    } else if (change.kind === 'redo') {
      const at = redo.lastIndexOf(change.of ?? '');
      if (at >= 0) undo.push(...redo.splice(at, 1));
    }
  }
  return { undo, redo };
}
