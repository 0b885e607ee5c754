<script setup lang="ts">
/** What lies over the stage while a sketch is open: numbers, marks, the stroke being drawn. */
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { MARKS, markPlaces } from './constraint-marks.ts';
import DimensionLabel from './DimensionLabel.vue';
import DrawFields from './DrawFields.vue';
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';
import { drawnDimensions, numberBox, type DrawnDimension } from './dimension-places.ts';
import { useSketchPicture } from './sketch-picture.ts';

const props = defineProps<{ editing: SketchEditing; map: PlaneMap; width: number; height: number }>();
const session = useSession();

/** Something is being dragged or shown moving. */
const moving = computed(() => props.editing.preview.value !== null);

/** Numbers as things to click stand still while something moves; the canvas shows them meanwhile. */
const drawings = computed<DrawnDimension[]>((before) => {
  if (moving.value) return before ?? [];
  return props.editing.geometry.value
    ? drawnDimensions(props.editing.geometry.value, props.map, { stage: [props.width, props.height] })
    : [];
});
const numbers = () => drawings.value.map((d) => numberBox(d.drawing));
const marks = computed(() => {
  const sketch = props.editing.geometry.value;
  if (!sketch) return [];
  const near = new Set([...session.entities, ...(props.editing.hovered.value ? [props.editing.hovered.value] : [])]);
  return props.editing.allMarks.value
    ? markPlaces(sketch, props.map, null, numbers())
    : near.size > 0
      ? markPlaces(sketch, props.map, near, numbers())
      : [];
});

/** The numbers as last written, for the canvas. */
const texts = new Map<string, string>();
const { paint } = useSketchPicture(
  props.editing,
  () => props.map,
  () => drawings.value,
  texts,
);

/** What the click would tie down, as the mark it would leave. */
const inferenceMark = computed(() => {
  const end = props.editing.drawing.end.value;
  if (!end || !session.tool) return null;
  const kind = end.point ? 'coincident' : end.middle ? 'midpoint' : end.on ? 'coincident' : end.inferred?.kind;
  const [x, y] = props.map.toPixel(end.at);
  return kind ? { ...MARKS[kind]!, on: end.on && !end.middle, x: x + 12, y: y - 30 } : null;
});

defineExpose({ paint });
</script>

<template>
  <div class="pointer-events-none absolute inset-0 overflow-hidden">
    <div v-memo="[drawings, moving, map]" :class="moving ? 'invisible' : ''">
      <DimensionLabel
        v-for="d in drawings"
        :id="d.id"
        :key="d.id"
        :drawing="d.drawing"
        :map="map"
        :editing="editing"
        @text="(text) => texts.set(d.id, text)"
      />
    </div>
    <button
      v-for="m in marks"
      :key="m.constraint"
      class="pointer-events-auto absolute grid h-6 w-6 -translate-x-1/2 -translate-y-1/2 place-items-center rounded border text-sm leading-none"
      :class="
        session.entities.includes(m.constraint)
          ? 'border-signal bg-signal-soft text-signal'
          : 'border-hairline bg-panel/90 text-petrol hover:border-signal hover:text-signal'
      "
      :style="{ left: `${m.x}px`, top: `${m.y}px` }"
      :title="`${m.label}: click, then Delete removes it`"
      :aria-label="m.label"
      @pointerdown.stop
      @pointerup.stop
      @click="session.entities = [m.constraint]"
    >
      {{ m.mark }}
    </button>
    <span
      v-if="inferenceMark"
      class="absolute flex items-center gap-1 rounded border border-signal/40 bg-panel/90 px-1 text-xs text-signal"
      :style="{ left: `${inferenceMark.x}px`, top: `${inferenceMark.y}px` }"
      ><span aria-hidden="true">{{ inferenceMark.mark }}</span
      >{{ inferenceMark.on ? 'on curve' : inferenceMark.label.toLowerCase() }}</span
    >
    <DrawFields
      v-if="session.tool && editing.drawing.clicks.value.length > 0 && editing.drawing.end.value"
      :editing="editing"
      :map="map"
      :width="width"
    />
  </div>
</template>
