<script setup lang="ts">
/** Datum planes, axes and points: hairlines with a label tab each; the tab is what is clicked. */
import { DATUM_FRAMES, DATUM_PLANES, helixPlaces, toSpace, type Datum, type Frame, type Vec3 } from '@helb/core';
import { computed } from 'vue';
import { useSession, type Pick } from '../design/session.ts';
import { useFilling } from '../slots/filling.ts';
import { useVerbs } from '../verbs/verbs.ts';
import type { StageScene } from './scene.ts';

const props = defineProps<{
  scene: StageScene;
  frame: number;
  /** The part's own three planes are shown too. */
  builtIn: boolean;
  datums: readonly { readonly step: string; readonly name: string; readonly datum: Datum }[];
}>();
const session = useSession();
const verbs = useVerbs();
const { give } = useFilling();

const HALF_MM = 40;
/** However near one looks, the frames stay this far inside the stage, px. */
const MOST_HALF_PX = 190;

const planes = computed(() => {
  void props.frame;
  const [a, b] = [props.scene.pixelOf([0, 0, 0]), props.scene.pixelOf([0, 0, 1])];
  const [c, d] = [props.scene.pixelOf([1, 0, 0]), props.scene.pixelOf([0, 1, 0])];
  const scale = Math.max(...[b, c, d].map((p) => Math.hypot(p[0] - a[0], p[1] - a[1])));
  const half = Math.min(HALF_MM, MOST_HALF_PX / Math.max(scale, 1e-9));
  const corner = (frame: Frame, u: number, v: number) => props.scene.pixelOf(toSpace(frame, u * half, v * half));
  const square = (frame: Frame) => [
    corner(frame, -1, -1),
    corner(frame, 1, -1),
    corner(frame, 1, 1),
    corner(frame, -1, 1),
  ];
  const own = props.builtIn
    ? DATUM_PLANES.map((datum) => {
        const outline = closed(square(DATUM_FRAMES[datum]));
        // The tab stands at the corner farthest from the others' tabs.
        const tab = outline[datum === 'floor' ? 1 : datum === 'wall' ? 3 : 2]!;
        return { key: datum, label: `${datum} plane`, outline, tab, choose: () => choose({ kind: 'datum', datum }) };
      })
    : [];
  const set = props.datums.map(({ step, name, datum }) => {
    const outline = outlineOf(datum, square, half);
    const pick = { kind: 'step', step, is: datum.kind } as const;
    return {
      key: step,
      label: name,
      outline,
      tab: tabOf(datum, outline),
      choose: () => choose(pick),
    };
  });
  return [...own, ...set].map((p) => ({ ...p, tab: onStage(p.tab), points: p.outline.map((c) => c.join()).join(' ') }));
});

/** However far away a datum lies, its tab can be clicked: px kept from the stage's edges. */
const FROM_SIDE_PX = 48;
const FROM_TOP_PX = 20;

function onStage([x, y]: readonly [number, number]): readonly [number, number] {
  const [wide, high] = props.scene.extent();
  const within = (value: number, margin: number, size: number) => Math.max(margin, Math.min(size - margin, value));
  return [within(x, FROM_SIDE_PX, wide), within(y, FROM_TOP_PX, high)];
}

/** A cross so large, and its tab so far above it, px: what lies at the point is not covered. */
const CROSS_PX = 5;
const TAB_ABOVE_PX = 24;

function tabOf(datum: Datum, outline: readonly (readonly [number, number])[]): readonly [number, number] {
  if (datum.kind !== 'point') return outline[outline.length > 2 ? 2 : 1]!;
  const [x, y] = outline[2]!;
  return [x, y - TAB_ABOVE_PX];
}

function outlineOf(
  datum: Datum,
  square: (frame: Frame) => (readonly [number, number])[],
  half: number,
): (readonly [number, number])[] {
  if (datum.kind === 'plane') return closed(square(datum.frame));
  if (datum.kind === 'point') {
    const [x, y] = props.scene.pixelOf(datum.at);
    return [[x - CROSS_PX, y], [x + CROSS_PX, y], [x, y], [x, y - CROSS_PX], [x, y + CROSS_PX]]; // prettier-ignore
  }
  if (datum.kind === 'curve') return helixPlaces(datum.helix).map((p) => props.scene.pixelOf(p));
  const { origin, direction } = datum.axis;
  const at = (t: number): Vec3 => [
    origin[0] + t * direction[0],
    origin[1] + t * direction[1],
    origin[2] + t * direction[2],
  ];
  return [props.scene.pixelOf(at(-half)), props.scene.pixelOf(at(half))];
}

const closed = <T,>(corners: readonly T[]): T[] => [...corners, corners[0]!];

function choose(pick: Pick): void {
  if (session.pickingFor) give(pick);
  else if (pick.kind === 'datum' && session.picks.length === 0 && session.said === null) verbs.sketchOn(pick.datum);
  else {
    const same = (p: Pick) => JSON.stringify(p) === JSON.stringify(pick);
    session.picks = session.picks.some(same)
      ? session.picks.filter((p) => !same(p))
      : [...session.picks.filter((p) => p.kind !== 'region'), pick];
    verbs.beginSaid();
  }
}
</script>

<template>
  <div class="pointer-events-none absolute inset-0">
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      <polyline
        v-for="p in planes"
        :key="p.key"
        :points="p.points"
        fill="none"
        stroke="var(--color-quiet)"
        stroke-width="1"
        opacity="0.6"
      />
    </svg>
    <button
      v-for="p in planes"
      :key="p.key"
      class="pointer-events-auto absolute -translate-x-1/2 -translate-y-1/2 whitespace-nowrap rounded border border-hairline bg-panel px-2 py-1 text-xs font-medium text-link hover:border-signal hover:text-signal"
      :style="{ left: `${p.tab[0]}px`, top: `${p.tab[1]}px` }"
      @pointerdown.stop
      @click="p.choose()"
    >
      {{ p.label }}
    </button>
  </div>
</template>
