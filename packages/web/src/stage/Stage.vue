<script setup lang="ts">
/** The model, and in a sketch the sketch. */
import { DATUM_FRAMES, type BodyView } from '@helb/core';
import { refThrottled, useElementSize, useEventListener } from '@vueuse/core';
import { Box3, Vector3 } from 'three';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import UnderlayPicture from '../brief/UnderlayPicture.vue';
import SketchLayer from '../sketch/SketchLayer.vue';
import type { SketchEditing } from '../sketch/sketch-editing.ts';
import { PlaneMap } from '../sketch/plane-map.ts';
import type { useSketchPicture } from '../sketch/sketch-picture.ts';
import { useTheme } from '../theme/theme.ts';
import InPlaceBar from '../together/InPlaceBar.vue';
import { useInPlace } from '../together/in-place.ts';
import { useTrial } from '../trial/trial-store.ts';
import { colorOfPart, opacityOfPart } from './colors.ts';
import DatumPlanes from './DatumPlanes.vue';
import { useOpenField } from '../fields/open-field.ts';
import PartCaption from './PartCaption.vue';
import PartNumbers from './PartNumbers.vue';
import { useStagePicking } from './picking.ts';
import { StageScene, type ShownBody, type ViewDirection } from './scene.ts';
import SectionBar from './SectionBar.vue';
import { Sheet } from './sheet.ts';
import ShowMenu from './ShowMenu.vue';
import { isBorrowedBody, useShownBodies } from './shown-bodies.ts';
import StackList from './StackList.vue';
import TurningHandles from './TurningHandles.vue';
import { regionsCame } from './sketch-regions.ts';
import WeightSheet from './WeightSheet.vue';
import UnfoldedBox from './UnfoldedBox.vue';

const props = defineProps<{ editing: SketchEditing }>();

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const openField = useOpenField();
const trial = useTrial();

const surface = useTemplateRef<HTMLElement>('surface');
const glCanvas = useTemplateRef<HTMLCanvasElement>('gl');
const stillCanvas = useTemplateRef<HTMLCanvasElement>('still');
const movingCanvas = useTemplateRef<HTMLCanvasElement>('moving');
const stack = useTemplateRef<InstanceType<typeof StackList>>('stack');
/** For what stands still, and for what a drag moves, over it. */
let sheets: [Sheet, Sheet] | null = null;
const scene = shallowRef<StageScene | null>(null);
const { width, height } = useElementSize(surface);
/** Counts drawn frames, so that everything laid over the stage follows the view. */
const frame = ref(0);
const direction = shallowRef<ViewDirection>([0.5, -0.8, 0.4]);

const view = computed(() => (session.activePart ? evaluation.parts.get(session.activePart) : undefined));
const sketchView = computed(() => view.value?.steps.find((s) => s.id === session.sketching)?.sketch ?? null);
/** The step that is worked on, where it has something to be turned. */
const turning = computed(() => view.value?.steps.find((s) => s.id === session.editing && s.handles.length > 0));
const sketchFrame = computed(() => {
  const plane = props.editing.step.value?.plane;
  return sketchView.value?.frame ?? (plane && 'datum' in plane ? DATUM_FRAMES[plane.datum] : null);
});
/** Kept as it is while the view stands still, so that what is laid out by it is not laid out anew. */
let lastMap: PlaneMap | null = null;
const sketchMap = computed(() => {
  void frame.value;
  if (!scene.value || !sketchFrame.value) return (lastMap = null);
  const now = new PlaneMap(scene.value.planeView(sketchFrame.value));
  if (lastMap?.shows(now)) return lastMap;
  return (lastMap = now);
});
/** Where the part's origin and the ends of its unit axes are seen, px: the view is parallel, so that tells all. */
const spaceView = computed(() => {
  void frame.value;
  const corners = [[0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1]] as const; // prettier-ignore
  return scene.value && corners.map((p) => scene.value!.pixelOf(p).map((n) => n.toFixed(4))).join(' ');
});
const { bodies, own, ofPart, visible, ghosts, datums } = useShownBodies(view);
const inPlace = useInPlace();
/** The pointer's place on the plane, not written anew more often than it can be read. */
const readablePosition = refThrottled(props.editing.position, 100);
const picking = useStagePicking(scene, view, bodies, frame);

onMounted(() => {
  scene.value = new StageScene(glCanvas.value!, surface.value!, () => {
    frame.value++;
    direction.value = scene.value?.direction() ?? direction.value;
    paint();
  });
  const { isSoftware } = scene.value;
  sheets = [new Sheet(stillCanvas.value!, isSoftware), new Sheet(movingCanvas.value!, isSoftware)];
});
onBeforeUnmount(() => scene.value?.dispose());

watch([width, height, scene], () => {
  if (!scene.value || width.value === 0) return;
  scene.value.resize(width.value, height.value);
  if (!fitted) fit(false);
});

// Borrowing looks through the sketch at the bodies behind it.
watch(scene, (now) =>
  props.editing.changing.borrowing.look(
    now && {
      hit: (x, y) => (sketchFrame.value ? now.hitBehind(x, y, sketchFrame.value) : now.hitAt(x, y)),
      body: (id) => bodies.value.find((b) => b.id === id),
      bodies: () => bodies.value,
      pixelOf: (p) => now.pixelOf(p),
      async bringIn(hit) {
        const beside = inPlace.besideAt(hit.body);
        if (!beside || !session.sketching || !(await inPlace.bringIn(beside, session.sketching))) return false;
        await nextTick();
        return true;
      },
    },
  ),
);
/** While borrowing, what a click would take lights up. */
function hoverBehind(x: number, y: number): void {
  const now = scene.value;
  if (!now) return;
  const borrowing = session.changing?.startsWith('borrow') ?? false;
  if (borrowing || litBehind)
    now.light([], borrowing ? (sketchFrame.value ? now.hitBehind(x, y, sketchFrame.value) : now.hitAt(x, y)) : null);
  litBehind = borrowing;
}
let litBehind = false;

let fitted = false;
/** The part shown last; a new one is fitted into view when it first appears. */
let shownPart: string | null = null;
let wasEmpty = true;
/** A variant may be of quite another size. */
let refit = false;
watch(
  () => trial.variant,
  () => (refit = true),
);
const look = computed(() => ({ color: colorOfPart(design.design, session.activePart), opacity: opacityOfPart(design.design, session.activePart) })); // prettier-ignore
/** The part’s own in its colour; what is borrowed in its own part’s, as faint as what only stands beside it. */
function lookOf(body: BodyView): Omit<ShownBody, 'view'> {
  if (isBorrowedBody(body)) return { color: colorOfPart(design.design, ofPart(body)), opacity: 1, look: 'faint' };
  return { ...look.value, look: session.inSketch ? 'faint' : 'solid' };
}
watch([visible, ghosts, scene, () => session.drawing, () => JSON.stringify(look.value), () => inPlace.shown], () => {
  if (!scene.value) return;
  scene.value.setBodies(
    [
      ...visible.value.map((b) => ({ view: b, ...lookOf(b) })),
      ...inPlace.shown,
      ...ghosts.value.map((b) => ({ view: b, ...look.value, look: 'ghost' as const })),
    ],
    session.drawing,
  );
  const empty = bodies.value.length + inPlace.shown.length === 0;
  if (view.value && width.value > 0 && (refit || shownPart !== session.activePart || (wasEmpty && !empty)))
    fit(shownPart === session.activePart);
  refit = false;
  if (view.value) shownPart = session.activePart;
  wasEmpty = empty;
});
watch([() => session.section, scene], () => scene.value?.setSection(session.section));
const theme = useTheme();
watch([() => theme.shown, scene], () => scene.value?.recolor(), { flush: 'post' });
watch(
  [picking.selectedHits, picking.hoverHit, () => session.litFaces, visible, () => theme.shown, () => session.drawing],
  () => scene.value?.light(picking.selectedHits.value, picking.hoverHit.value, session.litFaces),
);

watch(
  () => session.sketching,
  (now) => {
    if (!scene.value) return;
    scene.value.controls.mouseButtons.left = now ? 0 : 1;
    if (now && sketchFrame.value) lookAtSketch();
    else scene.value.look([0.5, -0.8, 0.45]);
    fit(true);
  },
);
watch(sketchFrame, (now, before) => now && !before && lookAtSketch());
watch(
  [
    props.editing.geometry,
    props.editing.hovered,
    props.editing.drawing.target,
    props.editing.drawing.preview,
    props.editing.changing.preview,
    props.editing.box,
    props.editing.clashing,
    () => session.entities,
    picking.hoverRegion,
    picking.hoverSmall,
    regionsCame,
    () => session.picks,
    picking.sketches,
  ],
  () => scene.value?.invalidateOverlay(),
);

function lookAtSketch(): void {
  scene.value!.look(sketchFrame.value!.normal as ViewDirection);
  fit(true);
}

function lookFrom(from: ViewDirection): void {
  scene.value?.look(from);
  fit();
}

const EMPTY_EXTENT_MM = 60;

function fit(animate = true): void {
  if (!scene.value || width.value === 0) return;
  const box = scene.value.bounds() ?? new Box3();
  for (const p of picking.sketchExtent()) box.expandByPoint(new Vector3(...p));
  if (box.isEmpty()) box.setFromCenterAndSize(new Vector3(), new Vector3(1, 1, 1).multiplyScalar(EMPTY_EXTENT_MM * 2));
  fitted = true;
  scene.value.fit(box, animate);
}

function paint(): void {
  const [still, moving] = sheets ?? [];
  if (!still || !moving) return;
  still.cover([0, 0, width.value, height.value]);
  if (session.inSketch && layer.value) {
    layer.value.paint(still, moving, { width: width.value, height: height.value });
    return;
  }
  moving.show(false);
  still.show(false);
  const ctx = still.begin();
  if (ctx) picking.paint(ctx);
}

const layer = useTemplateRef<Pick<ReturnType<typeof useSketchPicture>, 'paint'>>('layer');

function at(event: PointerEvent): [number, number] {
  const box = surface.value!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}

let down: [number, number] | null = null;
const CLICK_MOVES_AT_MOST = 4;

function onDown(event: PointerEvent): void {
  if (event.button !== 0) return;
  down = at(event);
  if (session.inSketch && sketchMap.value) {
    surface.value!.setPointerCapture(event.pointerId);
    props.editing.press(sketchMap.value, ...down);
  }
}

function onMove(event: PointerEvent): void {
  const p = at(event);
  if (session.inSketch) {
    if (sketchMap.value) props.editing.move(sketchMap.value, ...p, event.altKey);
    hoverBehind(...p);
  } else if (event.buttons === 0) picking.hover(...p);
}

function onUp(event: PointerEvent): void {
  if (event.button !== 0 || !down) return;
  const p = at(event);
  const still = Math.hypot(p[0] - down[0], p[1] - down[1]) <= CLICK_MOVES_AT_MOST;
  down = null;
  if (session.inSketch) {
    if (sketchMap.value) props.editing.release(sketchMap.value, ...p, event.shiftKey, event.altKey);
  } else if (still) void clickAt(p, event.shiftKey);
}

/** What stands beside the part is pointed out; a slot that waits takes from it once it is borrowed. */
async function clickAt(p: readonly [number, number], add: boolean): Promise<void> {
  const hit = session.inPlace ? scene.value?.hitAt(...p) : null;
  const beside = hit && inPlace.besideAt(hit.body);
  session.beside = null;
  if (!beside) return picking.click(...p, add);
  const step = session.pickingFor?.step;
  if (step === undefined) {
    session.picks = [];
    session.notice = null;
    session.beside = beside.member.key;
  } else if (await inPlace.bringIn(beside, step)) {
    await nextTick();
    // The slot may have been left meanwhile.
    if (session.pickingFor?.step === step) picking.click(...p, add);
  }
}

useEventListener(surface, 'contextmenu', (event) => event.preventDefault());
defineExpose({ fit, openStack: () => stack.value?.openHere() });
</script>

<template>
  <div
    ref="surface"
    class="stage-ground relative h-full min-h-0 overflow-hidden"
    data-testid="stage"
    tabindex="0"
    role="application"
    aria-label="Stage"
    :data-plane="sketchMap ? [...sketchMap.view.origin, sketchMap.scale].map((n) => n.toFixed(3)).join(' ') : undefined"
    :data-space="spaceView"
    :style="{ cursor: session.tool || session.changing ? 'crosshair' : 'default' }"
    @pointerdown="onDown"
    @pointermove="onMove"
    @pointerup="onUp"
    @pointerleave="picking.leave"
    @dblclick="session.inSketch && editing.changing.pickChain([editing.hovered.value])"
  >
    <canvas ref="gl" class="absolute inset-0 h-full w-full" aria-hidden="true" />
    <canvas ref="still" class="pointer-events-none absolute" aria-hidden="true" />
    <canvas ref="moving" class="pointer-events-none absolute" aria-hidden="true" />
    <UnderlayPicture v-if="session.inSketch && sketchMap" :map="sketchMap" />
    <SketchLayer
      v-if="session.inSketch && sketchMap"
      ref="layer"
      :editing="editing"
      :map="sketchMap"
      :width="width"
      :height="height"
    />
    <DatumPlanes
      v-if="scene && !session.inSketch && (picking.showDatums.value || datums.length > 0)"
      :scene="scene"
      :frame="frame"
      :built-in="picking.showDatums.value"
      :datums="datums"
    />
    <TurningHandles
      v-if="scene && !session.inSketch && turning"
      :scene="scene"
      :frame="frame"
      :part="session.activePart!"
      :step="turning.id"
      :handles="turning.handles"
    />
    <PartNumbers v-if="openField.field && !session.inSketch && scene" :scene="scene" :view="view" :frame="frame" />
    <WeightSheet
      v-if="session.weighing && session.activePart && !session.inSketch && own.length > 0"
      :part="session.activePart"
      :bodies="own"
    />
    <PartCaption
      v-else
      class="absolute bottom-4 left-4"
      :part="session.activePart"
      :bodies="own"
      :position="session.inSketch ? readablePosition : null"
    />
    <SectionBar
      v-if="session.section.length > 0 && !session.inSketch && bodies.length > 0"
      class="absolute inset-x-3 top-10 mx-auto w-fit"
      :boxes="own.map((b) => b.box)"
      :part="session.activePart"
    />
    <InPlaceBar v-if="inPlace.words" class="absolute top-3 left-4" :where="inPlace.words" />
    <StackList v-if="surface && !session.inSketch" ref="stack" :rows-at="picking.stackUnder" :surface="surface" />
    <div class="absolute right-4 bottom-4 flex items-end gap-3" @pointerdown.stop @pointerup.stop>
      <ShowMenu v-if="!session.inSketch && bodies.length > 0" />
      <UnfoldedBox :direction="direction" @look="lookFrom" />
    </div>
  </div>
</template>
