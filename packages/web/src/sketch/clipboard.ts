/** Copying parts of sketches, within a sketch and between them. */
import { clip, paste, type SketchClip } from '@helb/core';
import { toast } from 'vue-sonner';
import { useSession } from '../design/session.ts';
import type { SketchEditing } from './sketch-editing.ts';

let copied: SketchClip | null = null;
/** mm; a copy stands beside its original until it is moved. */
const BESIDE = 10;

export function copyPicked(editing: SketchEditing): void {
  const session = useSession();
  const sketch = editing.geometry.value;
  if (!sketch) return;
  copied = clip(sketch, session.entities);
  const n = Object.keys(copied.curves).length;
  toast(
    n === 0
      ? 'Nothing picked that can be copied.'
      : `Copied ${n} ${n === 1 ? 'curve' : 'curves'}; paste here or in another sketch.`,
  );
}

export function pasteCopied(editing: SketchEditing): void {
  const session = useSession();
  if (!copied || Object.keys(copied.points).length === 0) {
    session.notice = 'There is nothing to paste yet; pick curves and copy them first.';
    return;
  }
  const what = copied;
  let made: string[] = [];
  const placement = { about: [0, 0], turn: 0, scale: 1, shift: [BESIDE, BESIDE] } as const;
  if (editing.change('Paste', (sketch) => (made = paste(sketch, what, placement)))) session.entities = made;
}
