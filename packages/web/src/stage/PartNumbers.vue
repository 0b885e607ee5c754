<script setup lang="ts">
/** While an expression is typed, the part's sketch dimensions stand on the stage; one clicked puts its name in. */
import { isDimension, type PartView } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useOpenField } from '../fields/open-field.ts';
import { layoutDimension } from '../sketch/dimension-layout.ts';
import { PlaneMap } from '../sketch/plane-map.ts';
import type { StageScene } from './scene.ts';
import { spreadLabels } from './spread-labels.ts';

const props = defineProps<{ scene: StageScene; view: PartView | undefined; frame: number }>();
const design = useDesign();
const session = useSession();
const openField = useOpenField();

interface Shown {
  readonly ref: string;
  readonly text: string;
  readonly at: readonly [number, number];
  /** Where it stands: there, or beside it where that is taken. */
  readonly stands: readonly [number, number];
}

/** Width of a character, and of a label without one, px. */
const [CHARACTER, PADDING] = [6.7, 12];

const numbers = computed<Shown[]>(() => {
  void props.frame;
  const ledger = design.ledger;
  const asking = openField.field?.reference;
  if (!ledger || !asking) return [];
  const found = (props.view?.steps ?? []).flatMap(({ id, sketch }) => {
    if (!sketch) return [];
    const map = new PlaneMap(props.scene.planeView(sketch.frame));
    if (map.edgeOn) return [];
    return Object.entries(sketch.geometry.constraints).flatMap(([key, c]): Omit<Shown, 'stands'>[] => {
      const entry = ledger.index.byReference(`${id}.${key}`);
      const drawing = isDimension(c) ? layoutDimension(sketch.geometry, c, map) : null;
      if (!entry || !drawing || entry.ref === asking) return [];
      const value = ledger.format(ledger.valueOfEntry(entry));
      return [{ ref: entry.ref, text: `${entry.name} ${value}`, at: drawing.text.at }];
    });
  });
  const places = spreadLabels(found.map(({ at, text }) => ({ at, width: text.length * CHARACTER + PADDING })));
  return found.flatMap((shown, i) => (places[i] ? [{ ...shown, stands: places[i] }] : []));
});
</script>

<template>
  <div class="pointer-events-none absolute inset-0 overflow-hidden">
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      <line
        v-for="n in numbers"
        :key="n.ref"
        :x1="n.at[0]"
        :y1="n.at[1]"
        :x2="n.stands[0]"
        :y2="n.stands[1]"
        stroke="var(--color-quiet)"
        stroke-width="0.8"
      />
    </svg>
    <button
      v-for="n in numbers"
      :key="n.ref"
      class="number pointer-events-auto absolute min-h-6 -translate-x-1/2 -translate-y-1/2 rounded border border-hairline bg-panel px-1 text-[11px] whitespace-nowrap text-petrol hover:border-signal hover:text-signal"
      :class="session.hoveredDimension === n.ref ? '!border-signal !text-signal' : ''"
      :style="{ left: `${n.stands[0]}px`, top: `${n.stands[1]}px` }"
      :aria-label="`Use ${n.text}`"
      tabindex="-1"
      @mousedown.prevent
      @pointerdown.stop="openField.take(n.ref)"
      @pointerup.stop
      @pointerenter="session.hoveredDimension = n.ref"
      @pointerleave="session.hoveredDimension = null"
    >
      {{ n.text }}
    </button>
  </div>
</template>
