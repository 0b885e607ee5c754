<script setup lang="ts">
/** What a number is linked with, as a graph over the lower stage; it can be put away. */
import { traceOf } from '@helb/core';
import { computed, useTemplateRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { NODE_HEIGHT, traceGraph } from './trace-graph.ts';

const props = defineProps<{ reference: string }>();
const design = useDesign();
const session = useSession();

const entry = computed(() => design.ledger?.index.byReference(props.reference));
const graph = computed(() => traceGraph(design.ledger!, traceOf(design.ledger!, props.reference)));
/** The traced number in view, with what hangs on it beside it. */
const frame = useTemplateRef<HTMLElement>('frame');
watch(
  [graph, frame],
  () => {
    const own = graph.value.nodes.find((n) => n.ref === props.reference);
    if (!frame.value || !own) return;
    frame.value.scrollLeft = own.x - own.width / 2 - 24;
    frame.value.scrollTop = own.y - frame.value.clientHeight / 2;
  },
  { flush: 'post' },
);
</script>

<template>
  <section
    v-if="entry"
    aria-label="What hangs together"
    class="absolute inset-x-0 bottom-0 z-10 flex max-h-[60%] flex-col border-t border-hairline bg-panel"
    @pointerdown.stop
    @pointerup.stop
    @wheel.stop
  >
    <header class="flex items-baseline gap-2 px-3 pt-1.5">
      <h3 class="text-xs font-medium text-quiet">What {{ entry.name }} comes from, and what follows from it</h3>
      <span class="flex-1" />
      <button class="text-xs font-medium text-link underline" @click="session.showTraceGraph = false">Put away</button>
    </header>
    <div
      ref="frame"
      tabindex="0"
      role="group"
      aria-label="Graph of what it is linked with"
      class="min-h-0 overflow-auto p-2"
    >
      <svg
        role="img"
        :aria-label="`${entry.name} among the numbers it is linked with`"
        :width="Math.max(graph.width, 1)"
        :height="graph.height"
        :viewBox="`0 0 ${Math.max(graph.width, 1)} ${graph.height}`"
        class="mx-auto block"
        data-testid="trace-graph"
      >
        <defs>
          <marker id="trace-end" viewBox="0 0 6 6" refX="6" refY="3" markerWidth="6" markerHeight="6" orient="auto">
            <path d="M0 0.8L6 3L0 5.2z" fill="var(--color-quiet)" />
          </marker>
        </defs>
        <path
          v-for="line in graph.lines"
          :key="line.key"
          :d="line.d"
          fill="none"
          stroke="var(--color-quiet)"
          stroke-width="0.8"
          marker-end="url(#trace-end)"
        />
        <g
          v-for="node in graph.nodes"
          :key="node.ref"
          class="cursor-pointer"
          @click="session.traced = node.ref"
          @pointerenter="session.hoveredDimension = node.ref"
          @pointerleave="session.hoveredDimension = null"
        >
          <rect
            :x="node.x - node.width / 2"
            :y="node.y - NODE_HEIGHT / 2"
            :width="node.width"
            :height="NODE_HEIGHT"
            rx="3"
            :fill="session.hoveredDimension === node.ref ? 'var(--color-signal-soft)' : 'var(--color-field)'"
            :stroke="node.ref === reference ? 'var(--color-signal)' : 'var(--color-hairline)'"
            :stroke-width="node.ref === reference ? 1.6 : 1"
          />
          <text :x="node.x" :y="node.y - 3" text-anchor="middle" class="number" font-size="10" fill="var(--color-ink)">
            {{ node.name }}
          </text>
          <text
            :x="node.x"
            :y="node.y + 10"
            text-anchor="middle"
            class="number"
            font-size="10"
            fill="var(--color-quiet)"
          >
            {{ node.value }}
          </text>
        </g>
      </svg>
      <p v-if="graph.left > 0" class="text-xs text-quiet">and {{ graph.left }} farther away</p>
    </div>
  </section>
</template>
