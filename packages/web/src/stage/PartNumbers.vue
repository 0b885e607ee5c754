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

const props = defineProps<{ scene: StageScene; view: PartView | undefined; frame: number }>();
const design = useDesign();
const session = useSession();
const openField = useOpenField();

interface Shown {
  readonly ref: string;
  readonly text: string;
  readonly at: readonly [number, number];
}

const numbers = computed<Shown[]>(() => {
  void props.frame;
  const ledger = design.ledger;
  const asking = openField.field?.reference;
  if (!ledger || !asking) return [];
  return (props.view?.steps ?? []).flatMap(({ id, sketch }) => {
    if (!sketch) return [];
    const map = new PlaneMap(props.scene.planeView(sketch.frame));
    if (map.edgeOn) return [];
    return Object.entries(sketch.geometry.constraints).flatMap(([key, c]): Shown[] => {
      const entry = ledger.index.byReference(`${id}.${key}`);
      const drawing = isDimension(c) ? layoutDimension(sketch.geometry, c, map) : null;
      if (!entry || !drawing || entry.ref === asking) return [];
      const value = ledger.format(ledger.valueOfEntry(entry));
      return [{ ref: entry.ref, text: `${entry.name} ${value}`, at: drawing.text.at }];
    });
  });
});
</script>

<template>
  <div class="pointer-events-none absolute inset-0 overflow-hidden">
    <button
      v-for="n in numbers"
      :key="n.ref"
      class="number pointer-events-auto absolute min-h-6 -translate-x-1/2 -translate-y-1/2 rounded border border-hairline bg-panel/90 px-1 text-[11px] whitespace-nowrap text-petrol hover:border-signal hover:text-signal"
      :class="session.hoveredDimension === n.ref ? '!border-signal !text-signal' : ''"
      :style="{ left: `${n.at[0]}px`, top: `${n.at[1]}px` }"
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
