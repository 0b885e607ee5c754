/** What can be done with the boards, or with the piece picked on them. */
import { BOARD_FORMATS } from '@helb/core';
import { computed } from 'vue';
import type { Verb } from '../verbs/verbs.ts';
import { useCutting } from './cutting-store.ts';

export function useCuttingVerbs() {
  const cutting = useCutting();

  /** Turned about the middle of its box, so that it stays where it is looked at. */
  function turn(by: number): void {
    const at = cutting.picked;
    const place = at === null ? undefined : cutting.laid[at];
    const size = place && cutting.geometry?.pieces.get(place.piece)?.drawing.size;
    if (at === null || !place || !size) return;
    const middle = (degrees: number) => {
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      return [(c * size[0] - s * size[1]) / 2, (s * size[0] + c * size[1]) / 2] as const;
    };
    const to = (place.turn + by) % 360;
    const [from, next] = [middle(place.turn), middle(to)];
    cutting.move(at, { turn: to, x: place.x + from[0] - next[0], y: place.y + from[1] - next[1] });
    cutting.picked = at;
  }

  const verbs = computed<Verb[]>(() => {
    if (!cutting.outlines) return [];
    if (cutting.picked !== null)
      return [
        { id: 'turn', label: 'Turn a quarter', key: 't', run: () => turn(90) },
        { id: 'turn-little', label: 'Turn by 15°', run: () => turn(15) },
      ];
    const search: Verb = cutting.searching
      ? { id: 'stop', label: 'Stop looking', run: () => cutting.stop() }
      : {
          id: 'search',
          label: cutting.laid.length === 0 ? 'Lay the pieces' : 'Look for a better layout',
          run: () => cutting.searchOn(),
        };
    return [
      ...(cutting.kept || cutting.ask === null ? [] : [search]),
      ...(cutting.kept || cutting.laid.length === 0 ? [] : [{ id: 'keep', label: 'Keep this layout', run: () => cutting.keep(cutting.laid) }]), // prettier-ignore
      ...(cutting.kept ? [{ id: 'anew', label: 'Lay all anew', run: () => cutting.keep(null) }] : []),
      ...BOARD_FORMATS.map((format): Verb => ({ id: format, label: `Write ${format.toUpperCase()}`, run: () => void cutting.write(format) })), // prettier-ignore
    ];
  });

  const subject = computed(() => {
    const place = cutting.picked === null ? undefined : cutting.laid[cutting.picked];
    return place ? (cutting.geometry?.pieces.get(place.piece)?.name ?? 'piece') : '';
  });
  const hint = computed(() => (cutting.laid.length > 0 && cutting.picked === null && !cutting.kept ? 'Pieces can be dragged.' : '')); // prettier-ignore
  return { verbs, subject, hint };
}
