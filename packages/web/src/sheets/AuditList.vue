<script setup lang="ts">
/** Can the part be remade from this sheet? What is missing, said twice or wrong, one click each. */
import { newId, putSize, removeSize, type AuditFinding } from '@helb/core';
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { useSheets } from './sheet-store.ts';

const sheets = useSheets();
const session = useSession();
const audit = computed(() => sheets.geometry?.audit ?? null);
const count = computed(() => Object.keys(sheets.sheet?.sizes ?? {}).length);
/** Of an assembly only what is wrong with its sizes is told. */
const findings = computed<readonly AuditFinding[]>(() => audit.value?.findings ?? sheets.geometry?.faults ?? []);
const WORDS = { missing: 'missing', twice: 'said twice', wrong: 'not right', lost: 'lost' } as const;
const TONES = { missing: 'text-bad', twice: 'text-warn', wrong: 'text-bad', lost: 'text-bad' } as const;

const toAdd = computed(() => (audit.value?.findings ?? []).flatMap((f) => (f.kind === 'missing' && f.cure ? [f.cure] : []))); // prettier-ignore

const addAll = (): void => void sheets.edit(putSize(session.activeSheet!, toAdd.value.map((size) => [newId('z'), size] as const))); // prettier-ignore
function cure({ sizes: [of], cure: size }: AuditFinding): void {
  sheets.offered = null;
  if (size) sheets.edit(putSize(session.activeSheet!, [[of ?? newId('z'), size]]));
}
function show({ sizes }: AuditFinding): void {
  sheets.letGo();
  sheets.pickedSize = sizes[0] ?? null;
}
</script>

<template>
  <section aria-label="Findings" class="flex flex-col gap-2">
    <h2><strong>Audit</strong> <span class="text-quiet">can it be remade from this sheet?</span></h2>
    <p v-for="says in sheets.geometry?.says ?? []" :key="says" class="text-warn" role="alert">{{ says }}</p>
    <p v-if="!sheets.geometry" class="text-quiet">
      {{ sheets.trouble ? 'Nothing is drawn, so nothing is judged.' : 'The sheet is being drawn.' }}
    </p>
    <template v-else>
      <p v-if="!audit" class="text-quiet">
        Assemblies are shown by their sheets, not remade from them; whether sizes are missing is not judged.
      </p>
      <button v-if="toAdd.length > 1" class="button self-start" @click="addAll">
        Add all {{ toAdd.length }} that are missing
      </button>
      <article
        v-for="(finding, i) in findings"
        :key="i"
        class="rounded-lg border border-hairline p-2"
        :data-finding="finding.kind"
        @pointerenter="sheets.offered = finding.kind === 'missing' ? finding.cure : null"
        @pointerleave="sheets.offered = null"
        @focusin="sheets.offered = finding.kind === 'missing' ? finding.cure : null"
        @focusout="sheets.offered = null"
      >
        <p class="flex items-baseline justify-between">
          <span :class="TONES[finding.kind]">{{ WORDS[finding.kind] }}</span>
          <span class="flex gap-2">
            <button v-if="finding.sizes.length > 0" class="min-h-6 text-link hover:underline" @click="show(finding)">
              show
            </button>
            <button
              v-if="finding.kind === 'lost' || finding.kind === 'twice'"
              class="min-h-6 text-link hover:underline"
              @click="sheets.edit(removeSize(session.activeSheet!, finding.sizes[0]!))"
            >
              remove
            </button>
            <button
              v-if="finding.cure"
              class="min-h-6 text-link hover:underline"
              :aria-label="`${finding.kind === 'missing' ? 'Add' : 'Mend'}: ${finding.says}`"
              @click="cure(finding)"
            >
              {{ finding.kind === 'missing' ? 'add' : 'mend' }}
            </button>
          </span>
        </p>
        <p>{{ finding.says }}</p>
      </article>
      <template v-if="audit">
        <p v-if="findings.length === 0 && audit.unjudged === 0" class="text-good">Everything is settled.</p>
        <p v-else-if="findings.length === 0" class="text-warn">
          What is judged is settled; not all of the shape is judged.
        </p>
        <p class="text-quiet">
          {{ audit.settled }} of {{ audit.freedoms }} freedoms of the shape are settled by
          {{ count === 1 ? '1 size' : `${count} sizes` }}.
        </p>
        <p v-for="says in audit.taken" :key="says" class="text-quiet">{{ says }}</p>
      </template>
    </template>
  </section>
</template>
