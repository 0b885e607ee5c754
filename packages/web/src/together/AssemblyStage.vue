<script setup lang="ts">
/** The assembly: parts are picked, dragged and joined here; dragging never edits the design. */
import { placedAt, poseBack, poseWithin, standingBox, turned, type Instance, type Pose, type Vec3 } from '@helb/core';
import { useElementSize, useEventListener } from '@vueuse/core';
import { Box3, Vector3 } from 'three';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { colorOfPart, opacityOfPart } from '../stage/colors.ts';
import SectionBar from '../stage/SectionBar.vue';
import StackList from '../stage/StackList.vue';
import { StageScene, type Hit, type ShownBody, type ViewDirection } from '../stage/scene.ts';
import { Sheet } from '../stage/sheet.ts';
import UnfoldedBox from '../stage/UnfoldedBox.vue';
import { useTheme } from '../theme/theme.ts';
import { memberOfStage, stageId } from './offered-spots.ts';
import { paintFrames, paintRings, paintTrace } from './paint-frames.ts';
import { DRAGGED, usePlacing } from './placing.ts';
import { useSpotPicking } from './spot-picking.ts';
import HomeHandles from './HomeHandles.vue';
import WeighTogether from './WeighTogether.vue';
import { useTogether, type PickedSpot } from './together-store.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const together = useTogether();
const theme = useTheme();
const { place } = usePlacing();

const surface = useTemplateRef<HTMLElement>('surface');
const glCanvas = useTemplateRef<HTMLCanvasElement>('gl');
const overCanvas = useTemplateRef<HTMLCanvasElement>('over');
const scene = shallowRef<StageScene | null>(null);
let sheet: Sheet | null = null;
const { width, height } = useElementSize(surface);
const direction = shallowRef<ViewDirection>([0.5, -0.8, 0.4]);
const frame = ref(0);

onMounted(() => {
  scene.value = new StageScene(glCanvas.value!, surface.value!, () => {
    direction.value = scene.value?.direction() ?? direction.value;
    frame.value++;
    paint();
  });
  sheet = new Sheet(overCanvas.value!, scene.value.isSoftware);
});
onBeforeUnmount(() => {
  together.stopShowing();
  scene.value?.dispose();
});

const members = computed(() => together.it?.members ?? []);
const spotPicking = useSpotPicking(scene, members);
const stack = useTemplateRef<InstanceType<typeof StackList>>('stack');
const shown = computed<ShownBody[]>(() =>
  members.value.flatMap((member) => {
    const view = evaluation.parts.get(member.part);
    if (!view || member.hidden || (together.alone && !together.alone.has(member.key))) return [];
    const color = colorOfPart(design.design, member.part);
    const opacity = opacityOfPart(design.design, member.part);
    return view.bodies.map((body) => ({
      view: body,
      id: stageId(member.key, body.id),
      color,
      opacity,
      look: 'solid' as const,
    }));
  }),
);
/** Where each body stands, by its id on the stage. */
const standing = computed(() => {
  const at = new Map<string, Pose>();
  for (const { id } of shown.value) {
    const pose = together.poses.get(memberOfStage(id!));
    if (pose) at.set(id!, pose);
  }
  return at;
});

/** Round each member, where it stands. */
const boxes = computed(() =>
  members.value.flatMap(({ key, part }) => {
    const pose = together.poses.get(key);
    const bodies = (evaluation.parts.get(part)?.bodies ?? []).map((facts) => ({ facts }));
    return pose && bodies.length > 0 ? [standingBox({ bodies, pose })] : [];
  }),
);

let fitted = '';
watch([shown, scene, () => session.drawing], () => {
  if (!scene.value) return;
  scene.value.setBodies(
    shown.value.map((s) => ({ ...s, ...(standing.value.has(s.id!) ? { pose: standing.value.get(s.id!)! } : {}) })),
    session.drawing,
  );
  // What has come to stand here is brought into view; what is only changed leaves the view as it is.
  const key = `${session.activeAssembly} ${members.value.filter((m) => evaluation.parts.has(m.part)).length}`;
  if (key !== fitted && width.value > 0) fit(fitted !== '' && key.startsWith(`${session.activeAssembly} `));
  if (width.value > 0) fitted = key;
});
watch(standing, () => {
  scene.value?.placeBodies(standing.value);
  scene.value?.invalidateOverlay();
});
// What is taken apart reaches farther than what stands together.
watch(
  () => together.spread === 1 && together.apart !== null,
  (open) => open && fit(),
);
watch([() => theme.shown, scene], () => scene.value?.recolor(), { flush: 'post' });
watch([() => session.section, scene], () => scene.value?.setSection(session.section));
watch([width, height, scene], () => {
  if (!scene.value || width.value === 0) return;
  scene.value.resize(width.value, height.value);
  if (fitted === '') fit(false);
});

const hitsOf = (spots: readonly (PickedSpot | null)[]): Hit[] => spots.flatMap((s) => (s?.hit ? [s.hit] : []));
watch(
  [
    () => together.picked,
    () => together.pointed,
    spotPicking.held,
    shown,
    () => together.lit,
    () => together.trace,
    () => theme.shown,
  ],
  () => {
    scene.value?.light([...hitsOf(together.picked), ...together.lit], together.pointed?.hit ?? null);
    scene.value?.invalidateOverlay();
  },
);

function fit(animate = true): void {
  if (!scene.value || width.value === 0) return;
  const box = scene.value.bounds() ?? new Box3().setFromCenterAndSize(new Vector3(), new Vector3(120, 120, 120));
  scene.value.fit(box, animate);
}

function paint(): void {
  if (!sheet || !scene.value) return;
  sheet.cover([0, 0, width.value, height.value]);
  sheet.show(false);
  const spots = [...together.picked, ...(together.pointed ? [together.pointed] : [])];
  if (spots.length === 0 && together.trace.length === 0 && !together.offsets && !spotPicking.held.value) return;
  const ctx = sheet.begin();
  if (ctx) for (const path of paths()) paintTrace(ctx, scene.value, path);
  if (ctx) paintTrace(ctx, scene.value, together.trace);
  if (ctx) paintRings(ctx, scene.value, (spotPicking.held.value ?? []).map((s) => poseWithin(together.poseOf(s.member), s.frame).at)); // prettier-ignore
  if (ctx) paintFrames(ctx, scene.value, spots.map((s) => poseWithin(together.poseOf(s.member), s.frame))); // prettier-ignore
}

/** From where each part stands at home to where it is drawn off. */
function paths(): [Vec3, Vec3][] {
  const own = together.it;
  if (!own || !together.offsets) return [];
  return members.value.flatMap(({ part, link, within }): [Vec3, Vec3][] => {
    const center = evaluation.parts.get(part)?.bodies[0]?.center;
    const [x, y, z] = together.offsets![link]!;
    if (!center || Math.hypot(x, y, z) < 1e-6) return [];
    const home = placedAt(poseWithin(own.home.poses[link]!, within), center);
    return [[home, [home[0] + x, home[1] + y, home[2] + z]]];
  });
}

function at(event: MouseEvent): [number, number] {
  const box = surface.value!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}

interface Held {
  readonly link: number;
  readonly local: Vec3;
  readonly from: Vec3;
  readonly start: readonly [number, number];
  /** Where it was drawn last. */
  last: Vec3;
}
let down: [number, number] | null = null;
let held: Held | null = null;
let dragging = false;
const CLICK_MOVES_AT_MOST = 4;

// Before the camera hears of it: what is pressed on a part drags the part.
function onDown(event: PointerEvent): void {
  if (event.button !== 0 || !scene.value) return;
  down = at(event);
  dragging = false;
  const point = scene.value.pointAt(...down);
  const member = point && members.value.find((m) => m.key === memberOfStage(point.body));
  const link = member && together.it?.links[member.link];
  held = null;
  if (!point || !member || !link || (link.held && !together.apart) || together.joining !== null) return;
  const pose = together.now?.poses[member.link];
  if (!pose) return;
  held = { link: member.link, local: placedAt(poseBack(pose), point.at), from: point.at, start: down, last: point.at };
  scene.value.controls.enabled = false;
  surface.value!.setPointerCapture(event.pointerId);
}

function onMove(event: PointerEvent): void {
  const p = at(event);
  if (held && down && scene.value) {
    dragging ||= Math.hypot(p[0] - down[0], p[1] - down[1]) > CLICK_MOVES_AT_MOST;
    if (!dragging) return;
    const { right, up, scale } = scene.value.screen();
    const [dx, dy] = [(p[0] - held.start[0]) / scale, -(p[1] - held.start[1]) / scale];
    const to = [0, 1, 2].map((i) => held!.from[i]! + dx * right[i]! + dy * up[i]!) as unknown as Vec3;
    if (together.apart) {
      together.drawOff(held.link, to.map((n, i) => n - held!.last[i]!) as unknown as Vec3);
      held.last = to;
    } else together.pull(held.link, held.local, to, [right, up]);
  } else if (event.buttons === 0) spotPicking.hover(...p);
}

function letGo(): void {
  held = null;
  if (scene.value) scene.value.controls.enabled = true;
}

function onUp(event: PointerEvent): void {
  const wasHeld = held !== null && dragging;
  letGo();
  if (event.button !== 0 || !down) return;
  const p = at(event);
  const still = Math.hypot(p[0] - down[0], p[1] - down[1]) <= CLICK_MOVES_AT_MOST;
  down = null;
  if (wasHeld || !still || together.joining !== null) return;
  spotPicking.take(spotPicking.spotUnder(...p), event.shiftKey);
}

function dropped(event: DragEvent): void {
  const text = event.dataTransfer?.getData(DRAGGED);
  if (!text || !scene.value) return;
  const [x, y] = at(event);
  const { right, up, scale } = scene.value.screen();
  const [cx, cy] = scene.value.pixelOf([0, 0, 0]);
  const [dx, dy] = [(x - cx) / scale, -(y - cy) / scale];
  place(JSON.parse(text) as Instance['of'], [0, 1, 2].map((i) => dx * right[i]! + dy * up[i]!) as unknown as Vec3); // prettier-ignore
}

/** How parts stand, for whoever looks at the page without a picture. */
const told = computed(() => {
  void frame.value;
  return members.value
    .map(({ key, name }) => {
      const pose = together.poses.get(key);
      if (!pose || !scene.value) return '';
      const z = turned(pose.turn, [0, 0, 1]);
      return `${name}: ${[...pose.at, ...z].map((n) => n.toFixed(3)).join(' ')}`;
    })
    .join('; ');
});
const spaceView = computed(() => {
  void frame.value;
  const corners = [[0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1]] as const; // prettier-ignore
  return scene.value && corners.map((p) => scene.value!.pixelOf(p).map((n) => n.toFixed(4))).join(' ');
});

useEventListener(surface, 'contextmenu', (event) => event.preventDefault());
defineExpose({ fit, openStack: () => stack.value?.openHere() });
</script>

<template>
  <div
    ref="surface"
    class="stage-ground relative h-full min-h-0 overflow-hidden"
    data-testid="assembly-stage"
    tabindex="0"
    role="application"
    aria-label="Stage"
    :data-poses="told"
    :data-space="spaceView"
    @pointerdown="onDown"
    @pointermove="onMove"
    @pointerup="onUp"
    @pointercancel="letGo"
    @pointerleave="spotPicking.leave"
    @dragover.prevent
    @drop.prevent="dropped"
  >
    <canvas ref="gl" class="absolute inset-0 h-full w-full" aria-hidden="true" />
    <canvas ref="over" class="pointer-events-none absolute" aria-hidden="true" />
    <p
      v-if="together.it && together.it.members.length === 0"
      class="pointer-events-none absolute inset-x-0 top-1/3 text-center text-quiet"
    >
      Nothing stands here yet. Drag a part from the tray, or press Place on it; the first one is held fast.
    </p>
    <p
      v-if="together.apart"
      role="status"
      class="absolute top-3 left-4 flex items-center gap-3 rounded-md border border-hairline bg-panel/95 px-3 py-1.5 text-xs text-quiet"
      @pointerdown.stop
      @pointerup.stop
    >
      <span>Taken apart, only to be looked at; drag a part to draw it off farther.</span>
      <input
        v-model.number="together.spread"
        type="range"
        min="0"
        max="1"
        step="any"
        class="h-1 w-24 accent-[var(--color-petrol)]"
        aria-label="How far it is taken apart"
      />
      <button class="font-medium text-link underline" @click="together.putTogether()">Put together</button>
    </p>
    <p
      v-else-if="together.stopped || together.moved"
      role="status"
      class="absolute top-3 left-4 flex items-center gap-3 rounded-md border border-hairline bg-panel/95 px-3 py-1.5 text-xs text-quiet"
    >
      <span :class="together.stopped ? 'text-warn' : ''">{{
        together.stopped ?? 'Moved, only to be looked at; the design stands as it is.'
      }}</span>
      <button class="font-medium text-link underline" @click="together.goHome()">Home</button>
    </p>
    <HomeHandles
      v-if="scene && together.movingHome !== null"
      :scene="scene"
      :frame="frame"
      :instance="together.movingHome"
    />
    <WeighTogether v-if="together.weighing" />
    <SectionBar
      v-if="session.section.length > 0 && shown.length > 0"
      class="absolute inset-x-3 top-12 mx-auto w-fit"
      :boxes="boxes"
      :part="null"
    />
    <StackList v-if="surface" ref="stack" :rows-at="spotPicking.rowsAt" :surface="surface" />
    <div class="absolute right-4 bottom-4 flex items-end gap-3" @pointerdown.stop @pointerup.stop>
      <UnfoldedBox :direction="direction" @look="(from) => (scene?.look(from), fit())" />
    </div>
  </div>
</template>
