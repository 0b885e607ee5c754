<script setup lang="ts">
/** What a part is made of and how it looks. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import {
  colorOf, deletePart, MATERIAL_KEYS, MATERIALS, PART_COLORS, setAppearance, setMaterial, tellPartsApart, type Edit,
} from '@helb/core'; // prettier-ignore
import { IconDots } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';

const props = defineProps<{ part: string }>();
const design = useDesign();
const session = useSession();
const own = computed(() => design.design!.parts[props.part]!);
const color = computed(() => colorOf(design.design!, props.part));

const edit = (change: Edit) => (session.notice = design.edit(change));
function remove(): void {
  if (edit(deletePart(props.part)) === null && session.activePart === props.part)
    session.openPart(design.design?.partOrder[0] ?? null);
}

const OPACITIES = [1, 0.6, 0.3];
</script>

<template>
  <Menu as="div" class="absolute top-1 right-1" @click.stop @keydown.enter.stop>
    <MenuButton
      class="grid h-6 w-6 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
      :aria-label="`More for ${own.name}`"
      ><IconDots :size="14"
    /></MenuButton>
    <Teleport to="body">
      <MenuItems
        class="fixed bottom-28 left-1/3 z-40 max-h-[32rem] w-60 overflow-y-auto rounded-md border border-hairline bg-panel p-1 text-[13px] shadow-md focus:outline-none"
      >
        <p class="px-2 py-1 text-xs text-quiet">{{ own.name }} looks like</p>
        <div class="flex flex-wrap gap-1 px-2 pb-1">
          <MenuItem v-for="swatch in PART_COLORS" :key="swatch" v-slot="{ active }">
            <button
              class="h-6 w-6 rounded border-2"
              :class="color === swatch ? 'border-ink' : active ? 'border-signal' : 'border-hairline'"
              :style="{ background: swatch }"
              :aria-label="`Colour ${swatch}`"
              :aria-pressed="color === swatch"
              @click="edit(setAppearance(part, { color: swatch }))"
            />
          </MenuItem>
          <label class="flex h-6 items-center gap-1 text-xs text-quiet"
            >another
            <input
              type="color"
              class="h-6 w-8 rounded border border-hairline bg-field"
              :value="color.toLowerCase()"
              aria-label="Another colour"
              @keydown.stop
              @change="edit(setAppearance(part, { color: ($event.target as HTMLInputElement).value }))"
          /></label>
        </div>
        <div class="flex gap-1 px-2 pb-1" role="group" aria-label="How much of it is seen">
          <MenuItem v-for="opacity in OPACITIES" :key="opacity" v-slot="{ active }">
            <button
              class="rounded px-1.5 py-0.5"
              :class="[
                active ? 'bg-signal-soft text-signal' : '',
                (own.opacity ?? 1) === opacity ? 'font-semibold' : '',
              ]"
              :aria-pressed="(own.opacity ?? 1) === opacity"
              @click="edit(setAppearance(part, { opacity }))"
            >
              {{ opacity === 1 ? 'solid' : `${opacity * 100} % seen` }}
            </button>
          </MenuItem>
        </div>
        <MenuItem v-slot="{ active }">
          <button
            class="block w-full rounded px-2 py-1 text-left"
            :class="active ? 'bg-signal-soft text-signal' : ''"
            @click="edit(tellPartsApart())"
          >
            Tell all parts apart by colour
          </button>
        </MenuItem>
        <p class="mt-1 border-t border-hairline px-2 py-1 text-xs text-quiet">and is made of</p>
        <MenuItem v-for="key in [...MATERIAL_KEYS, null]" :key="key ?? 'none'" v-slot="{ active }">
          <button
            class="block w-full rounded px-2 py-0.5 text-left"
            :class="[active ? 'bg-signal-soft text-signal' : '', (own.material ?? null) === key ? 'font-semibold' : '']"
            @click="edit(setMaterial(part, key))"
          >
            {{ key ? MATERIALS[key].label : 'no material' }}
          </button>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <button
            class="mt-1 block w-full rounded border-t border-hairline px-2 py-1 text-left text-bad"
            :class="active ? 'bg-signal-soft' : ''"
            @click="remove"
          >
            Delete part
          </button>
        </MenuItem>
      </MenuItems>
    </Teleport>
  </Menu>
</template>
