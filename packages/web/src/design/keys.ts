/** Keys of the workplace. Typing in a field is never taken for a command. */
import { useEventListener } from '@vueuse/core';
import { useModes } from '../modes/mode-stack.ts';
import { useWorkplaceModes } from '../modes/workplace-modes.ts';
import { useTogether } from '../together/together-store.ts';
import { useSheets } from '../sheets/sheet-store.ts';
import { useClashOffer } from '../sketch/clash-offer.ts';
import type { SketchEditing } from '../sketch/sketch-editing.ts';
import type { Verb } from '../verbs/verbs.ts';
import { useDesign } from './design-store.ts';
import { useSession } from './session.ts';

interface Wiring {
  readonly editing: SketchEditing;
  verbs(): readonly Verb[];
  openList(): void;
  openHelp(): void;
  fit(): void;
  /** What lies under the pointer, one behind the other. */
  openStack(): void;
}

const FOCUS_BACK_MS = 800;

export function useKeys({ editing, verbs, openList, openHelp, fit, openStack }: Wiring): void {
  const design = useDesign();
  const session = useSession();
  const clash = useClashOffer();
  const modes = useModes();
  const together = useTogether();
  const sheets = useSheets();
  useWorkplaceModes(editing);

  /** One level back, never more. */
  function stepBack(): void {
    if (session.notice || clash.rows.length > 0) {
      session.notice = null;
      clash.drop();
    } else if (!modes.escape() && !sheets.letGo()) {
      session.picks = [];
      together.picked = [];
    }
  }

  async function history(event: KeyboardEvent): Promise<void> {
    if (modes.undo()) return;
    const redo = event.key.toLowerCase() === 'y' || event.shiftKey;
    session.notice = await (redo ? design.redo() : design.undo());
  }

  // What was pressed with the pointer lets go of the keys, so that Space opens the verbs and Enter keeps the step.
  let letGoUntil = 0;
  useEventListener(window, 'click', (event) => {
    const pressed = (event.target as HTMLElement).closest<HTMLElement>('button, [role="menuitem"]');
    if (event.detail === 0 || !pressed || pressed.closest('[role="dialog"]')) return;
    if (pressed.role !== 'menuitem') {
      if (!pressed.hasAttribute('aria-haspopup')) pressed.blur();
      return;
    }
    // A menu gives the focus back to its button, at once or after a moment.
    letGoUntil = performance.now() + FOCUS_BACK_MS;
    if (document.activeElement instanceof HTMLButtonElement) document.activeElement.blur();
  });
  useEventListener(window, 'focusin', ({ target }) => {
    if (performance.now() < letGoUntil && target instanceof HTMLButtonElement) target.blur();
  });

  useEventListener(window, 'keydown', (event) => {
    letGoUntil = 0;
    const target = event.target as HTMLElement;
    if (target.closest('input:not([type="range"]), textarea, select, [role="menu"], [role="dialog"]')) return;
    const held = event.ctrlKey || event.metaKey;
    const onButton = target.closest('button, a, [role="button"]') !== null;
    if (held && /^[zy]$/i.test(event.key)) void history(event);
    else if (modes.key(event)) {
      // The mode did it.
    } else if (held || event.altKey) return;
    else if (event.key === 'Escape') stepBack();
    else if (event.key === '?') openHelp();
    else if (event.key === 'f') fit();
    else if (event.key === 'u') openStack();
    else if (event.key === ' ' && !onButton) openList();
    else if (event.key === 'Enter' && !onButton) modes.confirm();
    else {
      const verb = verbs().find((v) => v.key === event.key);
      if (!verb) return;
      verb.run();
    }
    event.preventDefault();
  });
}
