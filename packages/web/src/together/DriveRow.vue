<script setup lang="ts">
/** One motion: its value now, moved by a slider, a number, or played through its range. */
import { formatQuantity, valueAt, type JointMotion, type JointState } from '@helb/core';
import { IconChartLine, IconPlayerPause, IconPlayerPlay } from '@tabler/icons-vue';
import { computed, onBeforeUnmount, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { MOTION_NAMES } from './joint-words.ts';
import { rangeOfMotion, useTogether } from './together-store.ts';

const props = defineProps<{ joint: JointState; motion: JointMotion }>();
const design = useDesign();
const together = useTogether();

const isTurn = computed(() => props.motion.key === 'turn');
const unit = computed(() => (isTurn.value ? Math.PI / 180 : 1));
const value = computed(() =>
  together.it && together.now ? valueAt(together.it.mechanism, together.now, props.motion) : 0,
);
const range = computed(() => rangeOfMotion(together.it!, props.motion));
const least = computed(() => range.value[0]);
const most = computed(() => range.value[1]);
const shown = computed(() => formatQuantity(value.value, isTurn.value ? 'angle' : 'length', design.design!.units));

const PLAY_SECONDS = 4;
let playing = 0;
const isPlaying = ref(false);

function to(goal: number): boolean {
  together.stopShowing();
  return together.driveTo([{ motion: props.motion, to: goal }]);
}

function slide(event: Event): void {
  stop();
  to(Number((event.target as HTMLInputElement).value) * unit.value);
}

/** There and back through its range; without limits once round. */
function play(): void {
  if (isPlaying.value) return stop();
  isPlaying.value = true;
  const round = isTurn.value && props.motion.least === null && props.motion.most === null;
  const start = value.value;
  const began = performance.now();
  const tick = () => {
    const t = (performance.now() - began) / 1000 / PLAY_SECONDS;
    const goal = round ? start + 2 * Math.PI * Math.min(t, 1) : swing(t, start);
    const went = to(goal);
    if (went && t < 1) playing = requestAnimationFrame(tick);
    else stop();
  };
  playing = requestAnimationFrame(tick);
}

/** From where it stands up to the most, down to the least, and back. */
function swing(t: number, start: number): number {
  const [low, high] = [least.value, most.value];
  const legs = [high - start, high - low, start - low].map(Math.abs);
  const whole = legs[0]! + legs[1]! + legs[2]!;
  const way = Math.min(t, 1) * whole;
  if (way < legs[0]!) return start + way;
  return way < legs[0]! + legs[1]! ? high - (way - legs[0]!) : low + (way - legs[0]! - legs[1]!);
}

function stop(): void {
  cancelAnimationFrame(playing);
  isPlaying.value = false;
}
onBeforeUnmount(stop);
</script>

<template>
  <li class="text-xs" :data-motion="`${joint.joint.name} ${MOTION_NAMES[motion.key]}`">
    <div class="flex items-baseline gap-2">
      <span class="min-w-0 flex-1 truncate">{{ joint.joint.name }}, {{ MOTION_NAMES[motion.key] }}</span>
      <span class="number">{{ shown }}</span>
    </div>
    <div class="flex items-center gap-2">
      <button
        class="grid h-6 w-6 shrink-0 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
        :aria-label="isPlaying ? 'Stop' : `Play ${joint.joint.name}`"
        @click="play"
      >
        <component :is="isPlaying ? IconPlayerPause : IconPlayerPlay" :size="14" />
      </button>
      <input
        type="range"
        class="h-1 min-w-0 flex-1 accent-[var(--color-petrol)]"
        :aria-label="`${joint.joint.name}, ${MOTION_NAMES[motion.key]}`"
        :min="least / unit"
        :max="most / unit"
        step="any"
        :value="value / unit"
        @input="slide"
      />
      <button
        class="grid h-6 w-6 shrink-0 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
        :aria-label="`Chart ${joint.joint.name}, ${MOTION_NAMES[motion.key]}`"
        @click="together.charted = { joint: joint.key, motion: motion.key }"
      >
        <IconChartLine :size="14" />
      </button>
    </div>
  </li>
</template>
