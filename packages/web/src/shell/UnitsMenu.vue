<script setup lang="ts">
/** The units numbers are shown in. They can change at any time; the geometry does not. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { ANGLE_UNITS, FRACTIONS, LENGTH_UNITS, setUnits, type DisplayUnits } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';

const design = useDesign();
const session = useSession();
const units = computed(() => design.design?.units);
const label = computed(() => {
  const u = units.value;
  if (!u) return '';
  return u.length === 'in' && u.fractions
    ? `in, 1/${u.fractions}`
    : `${u.length}, ${(10 ** -u.decimals).toFixed(u.decimals)}`;
});

function change(part: Partial<DisplayUnits>): void {
  const { fractions, ...rest } = { ...units.value!, ...part };
  session.notice = design.edit(setUnits(rest.length === 'in' && fractions ? { ...rest, fractions } : rest));
}
const valueOf = (event: Event) => (event.target as HTMLSelectElement).value;
</script>

<template>
  <Popover v-if="units" class="relative" @keydown.stop>
    <PopoverButton class="button number py-1 text-xs leading-5" :aria-label="`Units: ${label}`">{{
      label
    }}</PopoverButton>
    <PopoverPanel
      class="absolute right-0 z-40 mt-1 grid w-64 grid-cols-[auto_minmax(0,1fr)] items-center gap-x-3 gap-y-1.5 rounded-md border border-hairline bg-panel p-3 shadow-md"
    >
      <label class="contents"
        ><span class="text-quiet">lengths in</span>
        <select
          class="field"
          aria-label="Unit of lengths"
          :value="units.length"
          @change="change({ length: valueOf($event) as DisplayUnits['length'] })"
        >
          <option v-for="u in LENGTH_UNITS" :key="u">{{ u }}</option>
        </select></label
      >
      <label class="contents"
        ><span class="text-quiet">angles in</span>
        <select
          class="field"
          aria-label="Unit of angles"
          :value="units.angle"
          @change="change({ angle: valueOf($event) as DisplayUnits['angle'] })"
        >
          <option v-for="u in ANGLE_UNITS" :key="u">{{ u }}</option>
        </select></label
      >
      <label class="contents"
        ><span class="text-quiet">decimals</span>
        <select
          class="field"
          aria-label="Number of decimals"
          :value="units.decimals"
          @change="change({ decimals: Number(valueOf($event)) })"
        >
          <option v-for="n in 9" :key="n" :value="n - 1">{{ n - 1 }}</option>
        </select></label
      >
      <label v-if="units.length === 'in'" class="contents"
        ><span class="text-quiet">fractions</span>
        <select
          class="field"
          aria-label="Smallest fraction"
          :value="units.fractions ?? ''"
          @change="change({ fractions: (Number(valueOf($event)) || undefined) as DisplayUnits['fractions'] })"
        >
          <option value="">none, decimals</option>
          <option v-for="n in FRACTIONS" :key="n" :value="n">down to 1/{{ n }}</option>
        </select></label
      >
      <p class="col-span-2 text-xs text-quiet">
        Only what is shown changes. Numbers typed before keep the unit they were typed in.
        <template v-if="units.fractions">A length that is no such fraction is shown in decimals.</template>
      </p>
    </PopoverPanel>
  </Popover>
</template>
