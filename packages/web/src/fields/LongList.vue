<script setup lang="ts" generic="T">
/** The rows of a list; of a long one only those in sight are there. It scrolls with what it stands in. */
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';

const props = defineProps<{
  items: readonly T[];
  keyOf: (item: T) => string;
  /** About how high a row is, with the gap to the next, px. */
  rowHeight: number;
  scroller: HTMLElement | null;
}>();

/** All of so many are there: rows may then be as high as they like. */
const FEW = 80;
const isLong = computed(() => props.items.length > FEW);
const list = useTemplateRef<HTMLElement>('list');
/** How far below the beginning of what scrolls the list begins, px. */
const from = ref(0);
function measure(): void {
  if (isLong.value && list.value && props.scroller)
    from.value = list.value.getBoundingClientRect().top - props.scroller.getBoundingClientRect().top + props.scroller.scrollTop; // prettier-ignore
}
onMounted(measure);
watch([() => props.items, () => props.scroller], () => void nextTick(measure));

const virtual = useVirtualizer(
  computed(() => ({
    count: isLong.value ? props.items.length : 0,
    getScrollElement: () => props.scroller,
    getItemKey: (i: number) => props.keyOf(props.items[i]!),
    estimateSize: () => props.rowHeight,
    scrollMargin: from.value,
    overscan: 12,
  })),
);
const seen = computed(() => virtual.value.getVirtualItems());
const shown = computed(() =>
  isLong.value ? seen.value.flatMap(({ index }) => props.items[index] ?? []) : props.items,
);
const room = computed(() => {
  if (!isLong.value) return undefined;
  const [first, last] = [seen.value[0]?.start ?? from.value, seen.value.at(-1)?.end ?? from.value];
  return {
    paddingTop: `${first - from.value}px`,
    paddingBottom: `${virtual.value.getTotalSize() - (last - from.value)}px`,
  };
});
</script>

<template>
  <ul ref="list" class="flex shrink-0 flex-col" :style="room">
    <slot v-for="item in shown" :key="keyOf(item)" :item="item" />
  </ul>
</template>
