<script setup lang="ts">
/** Handles on one part: its home is drawn along the axes of space, or turned about them; by pointer or by arrow keys. */
import { formatQuantity, moveInstances, placedAt, turned, turnedBy, turnOf, type Pose, type Vec3 } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { StageScene } from '../stage/scene.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{ scene: StageScene; frame: number; instance: string }>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const together = useTogether();

/** Of the arrows and of the rings, pixels. */
const ARROW = 76;
const RING = 58;
/** By an arrow key, mm and degrees; a tenth with Shift. */
const MOVE_BY_KEY = 1;
const TURN_BY_KEY = 15;
const AXES: readonly { readonly name: 'x' | 'y' | 'z'; readonly way: Vec3 }[] = [
  { name: 'x', way: [1, 0, 0] },
  { name: 'y', way: [0, 1, 0] },
  { name: 'z', way: [0, 0, 1] },
];

const own = computed(() => together.assembly?.instances[props.instance]);
/** The middle of its first body, in the instance. */
const middle = computed<Vec3>(() => {
  const member = together.it?.members.find((m) => m.path[0] === props.instance);
  const [body] = (member && evaluation.parts.get(member.part)?.bodies) ?? [];
  return body ? placedAt(member!.within, body.center) : [0, 0, 0];
});
const link = computed(() => together.it?.linkOf.get(props.instance));
const stands = computed(() => (link.value === undefined ? null : (together.it?.home.poses[link.value] ?? null)));
const center = computed<Vec3 | null>(() => (stands.value ? placedAt(stands.value, middle.value) : null));

type Grip = { readonly axis: number; readonly turns: boolean };
const held = ref<(Grip & { readonly from: Pose; readonly about: Vec3; readonly start: readonly [number, number]; by: number }) | null>(null); // prettier-ignore

const shown = computed(() => {
  void props.frame;
  if (!center.value) return null;
  const c = props.scene.pixelOf(center.value);
  const { scale } = props.scene.screen();
  const at = (way: Vec3, pixels: number) => props.scene.pixelOf(center.value!.map((x, k) => x + (way[k]! * pixels) / scale) as unknown as Vec3); // prettier-ignore
  return {
    center: c,
    axes: AXES.map(({ name, way }, i) => {
      // Handles that turn lie away from the arrows, each square to its axis.
      const across = AXES[(i + 1) % 3]!.way;
      const beside = AXES[(i + 2) % 3]!.way;
      const between = [0, 1, 2].map((k) => -(across[k]! + beside[k]!) * Math.SQRT1_2) as unknown as Vec3;
      return { name, tip: at(way, ARROW), turn: at(between, RING) };
    }),
  };
});

/** Where the home goes: from where it was, moved along an axis, or turned about one through the middle of the part. */
function homeOf({ axis, turns }: Grip, from: Pose, about: Vec3, by: number): Pose {
  const { way } = AXES[axis]!;
  if (!turns) return { at: from.at.map((x, k) => x + by * way[k]!) as unknown as Vec3, turn: from.turn };
  const spin = turnOf(way, by);
  const arm = from.at.map((x, k) => x - about[k]!) as unknown as Vec3;
  return { at: turned(spin, arm).map((x, k) => x + about[k]!) as unknown as Vec3, turn: turnedBy(spin, from.turn) };
}

function tried({ at, turn }: Pose): void {
  design.dropAttempt();
  session.notice = design.tryOut(moveInstances(session.activeAssembly!, { [props.instance]: { at: [...at], turn: [...turn] } })); // prettier-ignore
}

function take(event: PointerEvent, grip: Grip): void {
  // What is being tried otherwise is kept or dropped first.
  if (!stands.value || !center.value || design.attempt !== null) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  held.value = { ...grip, from: stands.value, about: center.value, start: [event.clientX, event.clientY], by: 0 };
}

function drag(event: PointerEvent): void {
  const now = held.value;
  if (!now || !shown.value) return;
  const [dx, dy] = [event.clientX - now.start[0], event.clientY - now.start[1]];
  const { way } = AXES[now.axis]!;
  const a = props.scene.pixelOf(now.about);
  const b = props.scene.pixelOf(now.about.map((x, k) => x + way[k]!) as unknown as Vec3);
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  if (now.turns) {
    const box = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect();
    const angle = (x: number, y: number) => Math.atan2(y - box.top - a[1], x - box.left - a[0]);
    const swept = angle(event.clientX, event.clientY) - angle(...now.start);
    // Against the clock on the screen when the axis looks at the viewer.
    const towards = props.scene.direction().reduce((sum, x, k) => sum + x * way[k]!, 0) >= 0 ? -1 : 1;
    const whole = Math.atan2(Math.sin(swept), Math.cos(swept)) * towards;
    now.by = event.shiftKey ? whole : (Math.round((whole * 180) / Math.PI) * Math.PI) / 180;
  } else {
    const length2 = ux * ux + uy * uy;
    if (length2 < 1e-6) return;
    const mm = (dx * ux + dy * uy) / length2;
    now.by = event.shiftKey ? mm : Math.round(mm * 2) / 2;
  }
  tried(homeOf(now, now.from, now.about, now.by));
}

function drop(): void {
  const now = held.value;
  held.value = null;
  if (!now) return;
  if (now.by === 0) design.dropAttempt();
  else session.notice = design.keepAttempt();
}

function giveUp(): void {
  if (held.value) design.dropAttempt();
  held.value = null;
}

function key(event: KeyboardEvent, grip: Grip): void {
  const sign = ['ArrowUp', 'ArrowRight'].includes(event.key)
    ? 1
    : ['ArrowDown', 'ArrowLeft'].includes(event.key)
      ? -1
      : 0;
  if (sign === 0 || !stands.value || !center.value || design.attempt !== null) return;
  event.preventDefault();
  event.stopPropagation();
  const fine = event.shiftKey ? 0.1 : 1;
  const by = sign * fine * (grip.turns ? (TURN_BY_KEY * Math.PI) / 180 : MOVE_BY_KEY);
  tried(homeOf(grip, stands.value, center.value, by));
  session.notice = design.keepAttempt();
}

const told = computed(() => {
  const now = held.value;
  if (!now) return null;
  return formatQuantity(now.by, now.turns ? 'angle' : 'length', design.design!.units);
});
</script>

<template>
  <div v-if="shown && own" class="pointer-events-none absolute inset-0" data-testid="home-handles">
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      <template v-for="a in shown.axes" :key="a.name">
        <line
          :x1="shown.center[0]"
          :y1="shown.center[1]"
          :x2="a.tip[0]"
          :y2="a.tip[1]"
          stroke="var(--color-signal)"
          stroke-width="1.5"
        />
        <line
          :x1="shown.center[0]"
          :y1="shown.center[1]"
          :x2="a.turn[0]"
          :y2="a.turn[1]"
          stroke="var(--color-signal)"
          stroke-width="1"
          stroke-dasharray="2 3"
        />
      </template>
    </svg>
    <template v-for="(a, i) in shown.axes" :key="a.name">
      <button
        class="number pointer-events-auto absolute grid size-6 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none place-items-center rounded-sm border border-signal bg-panel text-[11px] text-signal"
        :style="{ left: `${a.tip[0]}px`, top: `${a.tip[1]}px` }"
        :aria-label="`Move its home along ${a.name}: drag, or arrow keys`"
        :title="`Along ${a.name}; with Shift not by halves of a millimetre`"
        @pointerdown.stop="take($event, { axis: i, turns: false })"
        @pointermove="drag"
        @pointerup.stop="drop"
        @pointercancel="giveUp"
        @keydown="key($event, { axis: i, turns: false })"
      >
        {{ a.name }}
      </button>
      <button
        class="number pointer-events-auto absolute grid size-6 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none place-items-center rounded-full border border-signal bg-panel text-[11px] text-signal"
        :style="{ left: `${a.turn[0]}px`, top: `${a.turn[1]}px` }"
        :aria-label="`Turn its home about ${a.name}: drag round, or arrow keys`"
        :title="`About ${a.name}; with Shift not by whole degrees`"
        @pointerdown.stop="take($event, { axis: i, turns: true })"
        @pointermove="drag"
        @pointerup.stop="drop"
        @pointercancel="giveUp"
        @keydown="key($event, { axis: i, turns: true })"
      >
        {{ a.name }}
      </button>
    </template>
    <p
      v-if="told"
      class="number absolute rounded bg-panel/95 px-1.5 text-xs"
      :style="{ left: `${shown.center[0] + 12}px`, top: `${shown.center[1] + 12}px` }"
    >
      {{ told }}
    </p>
  </div>
</template>
