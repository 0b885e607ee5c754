/** Keys of the workplace. Typing in a field is never taken for a command. */
import { useEventListener } from '@vueuse/core';
import { useClashOffer } from '../sketch/clash-offer.ts';
import { copyPicked, pasteCopied } from '../sketch/clipboard.ts';
import type { SketchEditing } from '../sketch/sketch-editing.ts';
import { useTrial } from '../trial/trial-store.ts';
import { useVerbs, type Verb } from '../verbs/verbs.ts';
import { useDesign } from './design-store.ts';
import { useSession } from './session.ts';

interface Wiring {
  readonly editing: SketchEditing;
  verbs(): readonly Verb[];
  openList(): void;
  openHelp(): void;
  fit(): void;
}

export function useKeys({ editing, verbs, openList, openHelp, fit }: Wiring): void {
  const design = useDesign();
  const session = useSession();
  const clash = useClashOffer();
  const trial = useTrial();
  const { keepStep, dropStep } = useVerbs();

  /** One level back, never more. */
  function stepBack(): void {
    if (session.notice || clash.rows.length > 0) {
      session.notice = null;
      clash.drop();
    } else if (trial.on) trial.drop();
    else if (editing.drawing.clicks.value.length > 0) editing.drawing.drop();
    else if (session.tool) session.tool = null;
    else if (session.changing) session.changing = null;
    else if (session.pickingFor) session.pickingFor = null;
    else if (session.entities.length > 0) session.entities = [];
    // With nothing in hand a sketch stays open: Enter and Finish leave it.
    else if (session.inSketch) return;
    else if (design.attempt) dropStep();
    else if (session.editing) session.editing = null;
    else if (session.picks.length > 0) session.picks = [];
    else if (session.traced) session.traced = null;
    else if (trial.variant) trial.look(null);
  }

  async function history(event: KeyboardEvent): Promise<void> {
    event.preventDefault();
    editing.drawing.drop();
    // What is only tried is the last thing done.
    if (trial.on) {
      trial.drop();
      return;
    }
    const redo = event.key.toLowerCase() === 'y' || event.shiftKey;
    session.notice = await (redo ? design.redo() : design.undo());
  }

  useEventListener(window, 'keydown', (event) => {
    const target = event.target as HTMLElement;
    if (target.closest('input, textarea, select, [role="menu"], [role="dialog"]')) return;
    if ((event.ctrlKey || event.metaKey) && /^[zy]$/i.test(event.key)) {
      void history(event);
      return;
    }
    if ((event.ctrlKey || event.metaKey) && session.inSketch && /^[cv]$/i.test(event.key)) {
      if (event.key.toLowerCase() === 'c') copyPicked(editing);
      else pasteCopied(editing);
      event.preventDefault();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const onButton = target.closest('button, a, [role="button"]') !== null;
    if (event.key === 'Escape') stepBack();
    else if (event.key === '?') openHelp();
    else if (event.key === 'f') fit();
    else if (event.key === 'm') editing.allMarks.value = true;
    else if (event.key === ' ' && !onButton) openList();
    else if ((event.key === 'Delete' || event.key === 'Backspace') && session.inSketch) editing.removePicked();
    else if (event.key === 'Enter' && !onButton) enter();
    else {
      // In a chain of lines, the key of the arc bends the chain.
      const bent = event.key === 'a' && editing.drawing.bendChain();
      const verb = bent ? undefined : verbs().find((v) => v.key === event.key);
      if (!verb && !bent) return;
      verb?.run();
    }
    event.preventDefault();
  });

  useEventListener(window, 'keyup', (event) => {
    if (event.key === 'm') editing.allMarks.value = false;
  });

  function enter(): void {
    if (trial.holds) {
      void trial.keep();
      return;
    }
    const { drawing } = editing;
    if (session.tool && drawing.clicks.value.length > 0) {
      if (drawing.tool.value?.clicks === 'open') drawing.finish();
      else drawing.click();
    } else if (session.changing) {
      if (editing.changing.atClick.value) session.changing = null;
      else editing.changing.keep();
    } else if (session.pickingFor) session.pickingFor = null;
    else if (design.attempt || session.editing) keepStep();
    else if (session.inSketch) session.leaveSketch();
  }
}
