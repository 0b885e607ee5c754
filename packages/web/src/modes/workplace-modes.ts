/** What Escape, Enter and keys mean in each mode of the workplace. */
import { useEventListener } from '@vueuse/core';
import { watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { copyPicked, pasteCopied } from '../sketch/clipboard.ts';
import type { SketchEditing } from '../sketch/sketch-editing.ts';
import { useTrial } from '../trial/trial-store.ts';
import { useGuests } from '../guests/guests-store.ts';
import { useTogether } from '../together/together-store.ts';
import { useVerbs } from '../verbs/verbs.ts';
import { useModes } from './mode-stack.ts';

export function useWorkplaceModes(editing: SketchEditing): void {
  const modes = useModes();
  const design = useDesign();
  const session = useSession();
  const trial = useTrial();
  const together = useTogether();
  const guests = useGuests();
  const { keepStep, dropStep, beginSaid } = useVerbs();
  const { drawing, changing } = editing;

  /** True when something was there to be put down. */
  function letGoOfPicks(): boolean {
    const some = session.picks.length > 0;
    if (some) session.picks = [];
    return some;
  }
  modes.handle('sketch', {
    // With nothing in hand a sketch stays open: Enter and Finish leave it.
    escape: () => void (session.entities = []),
    enter: () => session.leaveSketch(),
    key(event) {
      const held = event.ctrlKey || event.metaKey;
      if (held && event.key.toLowerCase() === 'c') copyPicked(editing);
      else if (held && event.key.toLowerCase() === 'v') pasteCopied(editing);
      else if (held) return false;
      else if (event.key === 'm') editing.allMarks.value = true;
      else if (event.key === 'Delete' || event.key === 'Backspace') editing.removePicked();
      else return false;
      return true;
    },
  });
  useEventListener(window, 'keyup', (event) => {
    if (event.key === 'm') editing.allMarks.value = false;
  });

  modes.handle('tool', {
    escape: () => (drawing.clicks.value.length > 0 ? drawing.drop() : modes.leave('tool')),
    enter() {
      if (drawing.clicks.value.length === 0) return false;
      return drawing.tool.value?.clicks === 'open' ? drawing.finish() : drawing.click();
    },
    undo() {
      drawing.drop();
      return false;
    },
    // In a chain of lines, the key of the arc bends the chain.
    key: (event) => event.key === 'a' && !event.ctrlKey && !event.metaKey && drawing.bendChain(),
  });

  modes.handle('change', {
    enter: () => (changing.atClick.value ? modes.leave('change') : changing.keep()),
  });

  modes.handle('fill', {
    escape: () => (design.attempt ? dropStep() : modes.leave('fill')),
    enter: keepStep,
  });
  modes.handle('join', { escape: together.dropJoint, enter: together.keepJoint });
  modes.handle('guest', { escape: guests.dropNewest, enter: guests.keepNewest });
  modes.handle('say', {
    escape: () => {
      session.picks = [];
      session.said = null;
    },
    enter: beginSaid,
  });
  modes.handle('pick', { enter: () => modes.leave('pick') });
  modes.handle('trace', { escape: () => letGoOfPicks() || modes.leave('trace') });

  modes.handle('try', {
    escape: trial.drop,
    enter() {
      if (trial.holds) void trial.keep();
      return trial.holds;
    },
    // What is only tried is the last thing done.
    undo: trial.drop,
  });
  watch(
    () => trial.on,
    (on) => (on ? modes.enter('try', true) : modes.leave('try')),
    { immediate: true },
  );

  modes.handle('variant', { escape: () => letGoOfPicks() || void trial.look(null) });
  watch(
    () => trial.variant,
    (variant) => (variant === null ? modes.leave('variant') : modes.enter('variant', variant)),
    { immediate: true },
  );
}
