<script setup lang="ts">
/** Where a number comes from, and all that hangs on it, down to the faces it moves. */
import { linkNumbers, numbersTypedTwice, traceOf, unusedDimensions, type MovedFace, type TraceLink } from '@helb/core';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';

const props = defineProps<{ reference: string }>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();

const ledger = computed(() => design.ledger!);
const entry = computed(() => ledger.value.index.byReference(props.reference));
const trace = computed(() => traceOf(ledger.value, props.reference));
const isUnused = computed(() => unusedDimensions(ledger.value).some((e) => e.ref === props.reference));
const twice = computed(() => numbersTypedTwice(ledger.value).find((s) => s.refs.includes(props.reference)));

const MOST_ROWS = 60;
const lists = computed(() => [
  {
    title: 'Comes from',
    links: trace.value.above,
    none: entry.value?.measured ? 'the model alone' : 'itself: it is typed here',
  },
  { title: 'Moves these numbers', links: trace.value.below, none: 'none' },
]);
const row = (link: TraceLink) => {
  const own = ledger.value.index.byReference(link.ref)!;
  return { name: own.path.join('.'), value: ledger.value.format(ledger.value.valueOfEntry(own)) };
};

/** Faces that move, by part; null where the number cannot be changed to see. */
const moved = shallowRef<ReadonlyMap<string, readonly MovedFace[]> | null>(new Map());
const looking = ref(false);
watch(
  [() => props.reference, () => design.design],
  async ([reference, now]) => {
    if (!now) return;
    looking.value = true;
    const parts = now.partOrder.filter((id) => trace.value.steps.some((s) => s.part === id));
    try {
      const found =
        parts.length > 0 ? await evaluation.on(now).movedBy(reference, parts) : new Map<string, MovedFace[]>();
      if (props.reference !== reference || design.design !== now) return;
      moved.value = found;
    } catch (error) {
      session.notice = `The faces that move could not be found: ${(error as Error).message}`;
    }
    looking.value = false;
  },
  { immediate: true },
);
watch([moved, () => session.activePart], () => {
  const own = moved.value?.get(session.activePart ?? '') ?? [];
  session.litFaces = new Map(own.map((f) => [f.key, f.how === 'reshaped' ? 'reshaped' : 'moved']));
});
onBeforeUnmount(() => (session.litFaces = new Map()));

const movedRows = computed(() =>
  [...(moved.value ?? [])].map(([part, faces]) => ({
    part,
    name: design.design?.parts[part]?.name ?? '',
    moves: faces.filter((f) => f.how !== 'reshaped').length,
    reshapes: faces.filter((f) => f.how === 'reshaped').length,
  })),
);
const count = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;
const stepRows = computed(() =>
  trace.value.steps.map(({ part, step }) => ({
    part,
    step,
    name: `${design.design?.parts[part]?.name}: ${design.design?.parts[part]?.steps[step]?.name}`,
  })),
);

function showPart(part: string): void {
  if (session.activePart !== part) session.openPart(part);
}
function link(): void {
  session.notice = design.edit(linkNumbers(twice.value!.refs, twice.value!.keep));
}
</script>

<template>
  <section v-if="entry" aria-label="Trace" class="flex min-h-0 flex-col border-l border-hairline bg-panel">
    <header class="flex items-baseline gap-2 px-4 pt-2.5 pb-1">
      <h2 class="font-semibold">Trace</h2>
      <span class="flex-1" />
      <button class="text-xs font-medium text-link underline" @click="session.traced = null">Back to the recipe</button>
    </header>
    <div class="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
      <p class="break-words">
        <span class="font-medium">{{ entry.path.join('.') }}</span>
        <span class="number"> = {{ ledger.format(ledger.valueOfEntry(entry)) }}</span>
      </p>
      <p v-if="isUnused" class="text-xs text-warn">Nothing uses this dimension.</p>
      <p v-if="twice" class="text-xs text-warn">
        The same number stands in {{ twice.refs.length }} places.
        <button class="font-medium text-link underline" @click="link">Link them</button>
      </p>
      <button
        v-if="!session.showTraceGraph"
        class="text-xs font-medium text-link underline"
        @click="session.showTraceGraph = true"
      >
        Show the graph
      </button>
      <h3 class="mt-3 text-xs font-medium text-quiet">Moves on the stage</h3>
      <p v-if="looking" class="text-quiet" role="status">looking</p>
      <p v-else-if="moved === null" class="text-quiet">It is read from the drawing and cannot be changed to see.</p>
      <p v-else-if="movedRows.length === 0" class="text-quiet">No face moves with it.</p>
      <ul v-else>
        <li v-for="m in movedRows" :key="m.part">
          <button
            class="text-left hover:text-signal"
            :class="m.part === session.activePart ? 'font-medium' : ''"
            @click="showPart(m.part)"
          >
            {{ m.name }}: {{ count(m.moves, 'face') }} moved<template v-if="m.reshapes > 0"
              >, {{ m.reshapes }} reshaped</template
            >
          </button>
        </li>
        <li class="mt-0.5 flex gap-3 text-xs text-quiet">
          <span class="flex items-center gap-1"><i class="h-2.5 w-2.5 rounded-sm bg-moved" />moved</span>
          <span class="flex items-center gap-1"><i class="h-2.5 w-2.5 rounded-sm bg-reshaped" />reshaped</span>
        </li>
      </ul>
      <template v-if="stepRows.length > 0">
        <h3 class="mt-3 text-xs font-medium text-quiet">Steps that use it</h3>
        <ul>
          <li v-for="s in stepRows" :key="s.step">
            <button class="text-left hover:text-signal" @click="showPart(s.part)">{{ s.name }}</button>
          </li>
        </ul>
      </template>
      <template v-for="list in lists" :key="list.title">
        <h3 class="mt-3 text-xs font-medium text-quiet">{{ list.title }}</h3>
        <p v-if="list.links.length === 0" class="text-quiet">{{ list.none }}</p>
        <ul>
          <li
            v-for="item in list.links.slice(0, MOST_ROWS)"
            :key="item.ref"
            :style="{ paddingLeft: `${(item.away - 1) * 10}px` }"
          >
            <button
              class="flex w-full items-baseline gap-2 text-left hover:text-signal"
              @click="session.traced = item.ref"
              @pointerenter="session.hoveredDimension = item.ref"
              @pointerleave="session.hoveredDimension = null"
            >
              <span class="min-w-0 flex-1 truncate">{{ row(item).name }}</span>
              <span class="number shrink-0 text-quiet">{{ row(item).value }}</span>
            </button>
          </li>
        </ul>
        <p v-if="list.links.length > MOST_ROWS" class="text-xs text-quiet">
          and {{ list.links.length - MOST_ROWS }} more
        </p>
      </template>
    </div>
  </section>
</template>
