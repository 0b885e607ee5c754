<script setup lang="ts">
/** What lies over the stage while a sketch is open: numbers, marks, the stroke being drawn. */
import { isDimension, type RegionMap, type SketchGeometry, type Vec2 } from '@helb/core';
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { regionsFor } from '../stage/visible-sketches.ts';
import { MARKS, markPlaces } from './constraint-marks.ts';
import DimensionLabel from './DimensionLabel.vue';
import { layoutDimension, paintDimension, paintNumber, type DimensionDrawing } from './dimension-layout.ts';
import DrawFields from './DrawFields.vue';
import { fillLoops, INKS, paintAxes, paintGrid, paintSketch, traceCurve, type SketchState } from './painter.ts';
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ editing: SketchEditing; map: PlaneMap; width: number }>();
const session = useSession();

/** Something is being dragged or shown moving. */
const moving = computed(() => props.editing.preview.value !== null);

interface Drawn {
  readonly id: string;
  readonly drawing: DimensionDrawing;
}

function drawn(sketch: SketchGeometry): Drawn[] {
  return Object.entries(sketch.constraints).flatMap(([id, c]) => {
    const drawing = isDimension(c) ? layoutDimension(sketch, c, props.map) : null;
    return drawing ? [{ id, drawing }] : [];
  });
}

/** Numbers as things to click stand still while something moves; the canvas shows them meanwhile. */
const drawings = computed<Drawn[]>((before) => {
  if (moving.value) return before ?? [];
  return props.editing.geometry.value ? drawn(props.editing.geometry.value) : [];
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

/** While something moves, regions are found anew only where that takes less than this. */
const MOVING_REGIONS_MS = 3;
let regionsCost = 0;

function timedRegions(sketch: SketchGeometry): RegionMap {
  const start = performance.now();
  const found = regionsFor(sketch);
  // A remembered answer costs nothing and says nothing of the next one.
  const cost = performance.now() - start;
  if (cost > 0.3) regionsCost = cost;
  return found;
}

/** The numbers as last written, for the canvas. */
const texts = new Map<string, string>();

function paint(ctx: CanvasRenderingContext2D, width: number, height: number): void {
  const { editing, map } = props;
  const sketch = editing.geometry.value;
  if (!sketch || map.edgeOn) return;
  const state: SketchState = {
    loose: editing.solution.value?.loose ?? new Set(),
    clashing: editing.clashing.value,
    picked: new Set(session.entities),
    hovered: editing.hovered.value,
    borrowed: editing.borrowed.value,
  };
  paintGrid(ctx, map, width, height);
  const found = moving.value && regionsCost > MOVING_REGIONS_MS ? null : timedRegions(sketch);
  if (found) {
    for (const region of found.regions) fillLoops(ctx, region.loops, map, 'rgba(17,75,82,0.07)');
    if (!session.tool) paintGaps(ctx, found);
  }
  paintAxes(ctx, map, width, height, state);
  paintSketch(ctx, sketch, map, state);
  for (const { id, drawing } of moving.value ? drawn(sketch) : drawings.value) {
    const lit = session.hoveredDimension === `${session.sketching}.${id}` || session.entities.includes(id);
    paintDimension(ctx, drawing, lit ? INKS.signal : INKS.dimension);
    if (moving.value) paintNumber(ctx, drawing, texts.get(id) ?? '');
  }
  paintStroke(ctx);
}

/** Ends in the open, and ends that nearly meet: a small ring round each, a double one round a gap. */
function paintGaps(ctx: CanvasRenderingContext2D, { openEnds, gaps }: RegionMap): void {
  ctx.setLineDash([]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = INKS.clashing;
  const ring = (at: Vec2, radius: number) => {
    const [x, y] = props.map.toPixel(at);
    ctx.beginPath();
    ctx.arc(x, y, radius, 0, 2 * Math.PI);
    ctx.stroke();
  };
  for (const end of openEnds) ring(end, 7);
  for (const { from, to } of gaps) ring([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2], 11);
}

/** The stroke being drawn, as a click would make it; or the change under way. */
function paintStroke(ctx: CanvasRenderingContext2D): void {
  const { drawing, changing, box } = props.editing;
  const { map } = props;
  ctx.strokeStyle = INKS.signal;
  ctx.fillStyle = INKS.signal;
  ctx.lineWidth = 1.6;
  ctx.setLineDash([6, 4]);
  const shown = session.tool ? drawing.preview.value : changing.preview.value;
  for (const id of shown?.curves ?? []) {
    traceCurve(ctx, shown!.sketch, id, map);
    ctx.stroke();
  }
  if (box.value) {
    const [a, b] = [map.toPixel(box.value.from), map.toPixel(box.value.to)];
    ctx.strokeRect(a[0], a[1], b[0] - a[0], b[1] - a[1]);
  }
  const at = drawing.target.value;
  if (session.tool && at) {
    if (!shown && drawing.clicks.value.length > 0) {
      ctx.beginPath();
      for (const click of [...drawing.clicks.value, at]) ctx.lineTo(...map.toPixel(click.at));
      ctx.stroke();
    }
    const [ex, ey] = map.toPixel(at.at);
    ctx.setLineDash([]);
    ctx.beginPath();
    ctx.arc(ex, ey, at.point || at.on ? 5 : 2.5, 0, 2 * Math.PI);
    ctx.fill();
  }
  ctx.setLineDash([]);
}

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
    <div :class="moving ? 'invisible' : ''">
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
