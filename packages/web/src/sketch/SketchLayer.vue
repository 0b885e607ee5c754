<script setup lang="ts">
/** What lies over the stage while a sketch is open: numbers, marks, the stroke being drawn. */
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { regionsFor } from '../stage/visible-sketches.ts';
import { markPlaces } from './constraint-marks.ts';
import DimensionLabel from './DimensionLabel.vue';
import { layoutDimension, paintDimension } from './dimension-layout.ts';
import DrawFields from './DrawFields.vue';
import { placeWithTyped, type Typed } from './draw-tool.ts';
import { fillLoops, INKS, paintAxes, paintGrid, paintSketch, type SketchState } from './painter.ts';
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ editing: SketchEditing; map: PlaneMap; width: number }>();
const session = useSession();

const drawings = computed(() => {
  const sketch = props.editing.geometry.value;
  if (!sketch) return [];
  return props.editing.dimensions.value.flatMap(({ id, constraint }) => {
    const drawing = layoutDimension(sketch, constraint, props.map);
    return drawing ? [{ id, constraint, drawing }] : [];
  });
});
const marks = computed(() => {
  const sketch = props.editing.geometry.value;
  if (!sketch) return [];
  const near = new Set([...session.entities, ...(props.editing.hovered.value ? [props.editing.hovered.value] : [])]);
  return props.editing.allMarks.value
    ? markPlaces(sketch, props.map, null)
    : near.size > 0
      ? markPlaces(sketch, props.map, near)
      : [];
});

const MOST_REGIONS_WHILE_DRAWING = 300;

function paint(ctx: CanvasRenderingContext2D, width: number, height: number): void {
  const { editing, map } = props;
  const sketch = editing.geometry.value;
  if (!sketch || map.edgeOn) return;
  const state: SketchState = {
    loose: editing.solution.value?.loose ?? new Set(),
    clashing: editing.clashing.value,
    picked: new Set(session.entities),
    hovered: editing.hovered.value,
  };
  paintGrid(ctx, map, width, height);
  if (Object.keys(sketch.curves).length <= MOST_REGIONS_WHILE_DRAWING) {
    for (const region of regionsFor(sketch).regions) fillLoops(ctx, region.loops, map, 'rgba(17,75,82,0.07)');
  }
  paintAxes(ctx, map, width, height, state);
  paintSketch(ctx, sketch, map, state);
  for (const { id, drawing } of drawings.value) {
    const lit = session.hoveredDimension === `${session.sketching}.${id}` || session.entities.includes(id);
    paintDimension(ctx, drawing, lit ? INKS.signal : INKS.dimension);
  }
  paintStroke(ctx);
}

/** The stroke being drawn, as a click would make it. */
function paintStroke(ctx: CanvasRenderingContext2D): void {
  const { start, end, typed } = props.editing;
  const tool = session.tool;
  if (!tool || !end.value) return;
  const { map } = props;
  const [ex, ey] = map.toPixel(end.value.at);
  ctx.setLineDash([]);
  ctx.fillStyle = INKS.signal;
  ctx.beginPath();
  ctx.arc(ex, ey, end.value.point || end.value.on ? 5 : 2.5, 0, 2 * Math.PI);
  ctx.fill();
  if (!start.value) return;
  const from = start.value.at;
  const to = placeWithTyped(tool, from, end.value.at, typed.value as Typed);
  ctx.strokeStyle = INKS.signal;
  ctx.lineWidth = 1.6;
  ctx.setLineDash([6, 4]);
  ctx.beginPath();
  if (tool === 'circle') {
    ctx.save();
    map.apply(ctx);
    ctx.arc(from[0], from[1], Math.hypot(to[0] - from[0], to[1] - from[1]), 0, 2 * Math.PI);
    ctx.restore();
  } else if (tool === 'line') {
    ctx.moveTo(...map.toPixel(from));
    ctx.lineTo(...map.toPixel(to));
  } else if (tool !== 'point') {
    const first = tool === 'centred rectangle' ? ([2 * from[0] - to[0], 2 * from[1] - to[1]] as const) : from;
    const corners = [first, [to[0], first[1]], to, [first[0], to[1]]] as const;
    corners.forEach((c, i) => (i === 0 ? ctx.moveTo(...map.toPixel(c)) : ctx.lineTo(...map.toPixel(c))));
    ctx.closePath();
  }
  ctx.stroke();
  ctx.setLineDash([]);
}

const levelMark = computed(() => {
  const end = props.editing.end.value;
  if (!end || !session.tool) return null;
  const text = end.point ? 'on point' : end.on ? 'on line' : (end.level ?? null);
  const [x, y] = props.map.toPixel(end.at);
  return text ? { text, x: x + 12, y: y + 10 } : null;
});

defineExpose({ paint });
</script>

<template>
  <div class="pointer-events-none absolute inset-0 overflow-hidden">
    <DimensionLabel v-for="d in drawings" :key="d.id" :id="d.id" :drawing="d.drawing" :map="map" :editing="editing" />
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
      v-if="levelMark"
      class="absolute rounded bg-panel/90 px-1 text-xs text-signal"
      :style="{ left: `${levelMark.x}px`, top: `${levelMark.y}px` }"
      >{{ levelMark.text }}</span
    >
    <DrawFields
      v-if="session.tool && editing.start.value && editing.end.value"
      :editing="editing"
      :map="map"
      :width="width"
    />
  </div>
</template>
