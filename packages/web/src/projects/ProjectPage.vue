<script setup lang="ts">
import { MAX_FILE_BYTES } from '@helb/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useAccount } from '../people/account-store.ts';
import { server, ServerRefusal, type DeletedDesign, type DesignSummary, type Role } from '../server.ts';
import { useAttempt } from '../fields/attempt.ts';
import NameField from '../fields/NameField.vue';
import DesignPicture from './DesignPicture.vue';
import PageFrame from './PageFrame.vue';
import ProjectPeople from './ProjectPeople.vue';
import SharedDimensions from './SharedDimensions.vue';
import { useSharedOfProject } from './shared-of-project.ts';
import TitleBlockFields from './TitleBlockFields.vue';

const props = defineProps<{ project: string }>();
/** In the reader's own form. */
const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const router = useRouter();
const account = useAccount();
const role = ref<Role>('reads');
const mayEdit = computed(() => role.value !== 'reads');
const title = ref('');
const designs = ref<DesignSummary[] | null>(null);
const deleted = ref<DeletedDesign[]>([]);
const name = ref('');
const confirming = ref<string | null>(null);
const { trouble, attempt } = useAttempt();
const shared = useSharedOfProject(() => props.project);
const fileInput = useTemplateRef<HTMLInputElement>('fileInput');

const load = () =>
  attempt(async () => {
    const found = await server.designs(props.project);
    title.value = found.project.name;
    role.value = found.project.role;
    designs.value = found.designs;
    deleted.value = found.deleted;
  });

function rename(to: string): string | null {
  if (!to) return 'A project needs a name.';
  const before = title.value;
  title.value = to;
  void server.renameProject(props.project, to).catch((error: Error) => {
    title.value = before;
    trouble.value = error.message;
  });
  return null;
}

const create = () =>
  attempt(async () => {
    if (!name.value.trim()) throw new Error('Give the design a name first.');
    const { id } = await server.createDesign(props.project, name.value);
    await router.push(`/designs/${id}`);
  });

const openFile = (event: Event) =>
  attempt(async () => {
    const input = event.target as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    try {
      if (file.size > MAX_FILE_BYTES)
        throw new Error(
          `${file.name} is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB, the most a design file can be.`,
        );
      // Read by the server, so that a large one does not hold up the page.
      const { id } = await server.importDesign(props.project, file).catch((error: unknown) => {
        throw error instanceof ServerRefusal ? new Error(`${file.name}: ${error.message}`) : error;
      });
      await router.push(`/designs/${id}`);
    } finally {
      input.value = '';
    }
  });

const remove = (id: string) =>
  attempt(async () => {
    await server.deleteDesign(id);
    confirming.value = null;
    await load();
  });

const bringBack = (id: string) =>
  attempt(async () => {
    await server.restoreDesign(id);
    await load();
  });

onMounted(load);
</script>

<template>
  <PageFrame>
    <p class="text-quiet"><RouterLink to="/" class="hover:underline">Projects</RouterLink> /</p>
    <h1 class="text-xl font-semibold">
      <NameField
        v-if="title"
        class="inline-block"
        :name="title"
        label="Name of the project"
        :rename="rename"
        :fixed="!mayEdit"
      />
    </h1>
    <p v-if="trouble" role="alert" class="mt-4 text-bad">{{ trouble }}</p>
    <ul class="mt-5 divide-y divide-hairline overflow-hidden rounded-lg border border-hairline bg-panel">
      <li v-for="d in designs ?? []" :key="d.id" class="flex items-center hover:bg-signal-soft">
        <RouterLink :to="`/designs/${d.id}`" class="flex flex-1 items-center gap-4 px-4 py-2">
          <DesignPicture :design="d" />
          <span class="flex-1 font-semibold">{{ d.name }}</span>
          <span class="text-quiet">changed {{ WHEN.format(new Date(d.changed)) }}</span>
        </RouterLink>
        <span v-if="confirming === d.id" class="flex gap-2 pr-3">
          <button class="font-medium text-bad underline" @click="remove(d.id)">Delete it</button>
          <button class="underline" @click="confirming = null">Keep it</button>
        </span>
        <button
          v-else-if="mayEdit"
          class="px-3 text-quiet hover:text-bad"
          :aria-label="`Delete ${d.name}`"
          @click="confirming = d.id"
        >
          delete
        </button>
      </li>
      <li v-if="designs?.length === 0" class="px-4 py-3 text-quiet">
        No designs yet.<template v-if="mayEdit"> Name one below, or open a design file.</template>
      </li>
    </ul>
    <div v-if="mayEdit" class="mt-4 flex items-center gap-2">
      <form class="flex flex-1 gap-2" @submit.prevent="create">
        <input
          v-model="name"
          class="field max-w-xs"
          placeholder="Name of a new design"
          aria-label="Name of a new design"
          maxlength="80"
        />
        <button class="button-primary">Make design</button>
      </form>
      <input
        ref="fileInput"
        type="file"
        accept=".json,.helb.json,application/json"
        class="hidden"
        aria-label="Design file"
        @change="openFile"
      />
      <button class="button" @click="fileInput?.click()">Open a design file</button>
    </div>
    <p v-if="shared.trouble.value" role="alert" class="mt-8 text-bad">{{ shared.trouble.value }}</p>
    <SharedDimensions :shared="shared" :fixed="!mayEdit" />
    <TitleBlockFields :shared="shared" :fixed="!mayEdit" />
    <section v-if="deleted.length > 0" class="mt-8" aria-label="Deleted">
      <h2 class="font-semibold">Deleted</h2>
      <p class="text-quiet">Kept for 30 days, then gone for good.</p>
      <ul class="mt-2 divide-y divide-hairline overflow-hidden rounded-lg border border-hairline bg-panel">
        <li v-for="d in deleted" :key="d.id" class="flex items-center gap-4 px-4 py-2">
          <span class="flex-1">{{ d.name }}</span>
          <span class="text-quiet">deleted {{ WHEN.format(new Date(d.deleted)) }}</span>
          <button v-if="mayEdit" class="underline" :aria-label="`Bring back ${d.name}`" @click="bringBack(d.id)">
            bring back
          </button>
        </li>
      </ul>
    </section>
    <ProjectPeople v-if="account.accounts && designs" :project="project" :role="role" />
  </PageFrame>
</template>
