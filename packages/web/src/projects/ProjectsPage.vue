<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useGuide } from '../guide/guide-store.ts';
import { server, type ProjectSummary } from '../server.ts';
import PageFrame from './PageFrame.vue';

const router = useRouter();
const projects = ref<ProjectSummary[] | null>(null);
const trouble = ref<string | null>(null);
const name = ref('');

async function load(): Promise<void> {
  trouble.value = null;
  try {
    projects.value = await server.projects();
  } catch (error) {
    trouble.value = (error as Error).message;
  }
}

async function create(): Promise<void> {
  if (!name.value.trim()) {
    trouble.value = 'Give the project a name first.';
    return;
  }
  try {
    const { id } = await server.createProject(name.value);
    await router.push(`/projects/${id}`);
  } catch (error) {
    trouble.value = (error as Error).message;
  }
}

const guide = useGuide();
const underWay = computed(() => guide.progress !== null && guide.progress.done < guide.moves);

async function beginGuide(): Promise<void> {
  try {
    await router.push(`/designs/${await guide.begin()}`);
  } catch (error) {
    trouble.value = (error as Error).message;
  }
}

onMounted(load);
</script>

<template>
  <PageFrame>
    <h1 class="text-xl font-semibold">Projects</h1>
    <p class="mt-1 text-quiet">A project keeps the designs that belong together.</p>
    <section class="mt-4 flex items-center gap-4 rounded-lg border border-hairline bg-panel px-4 py-3">
      <div class="flex-1">
        <h2 class="font-semibold">A first part</h2>
        <p class="text-quiet">
          Ten moves with your own hands, from an empty sketch to a solid that follows its numbers.
        </p>
      </div>
      <button class="button" @click="beginGuide">
        {{ underWay ? `Go on at move ${guide.progress!.done + 1} of ${guide.moves}` : 'Begin' }}
      </button>
    </section>
    <p v-if="trouble" role="alert" class="mt-4 text-bad">
      {{ trouble }} <button class="underline" @click="load">Try again</button>
    </p>
    <ul class="mt-5 divide-y divide-hairline overflow-hidden rounded-lg border border-hairline bg-panel">
      <li v-for="p in projects ?? []" :key="p.id">
        <RouterLink
          :to="`/projects/${p.id}`"
          class="flex items-baseline justify-between px-4 py-3 hover:bg-signal-soft"
        >
          <span class="font-semibold">{{ p.name }}</span>
          <span class="text-quiet"
            ><template v-if="p.role === 'reads'">to look at · </template>{{ p.designs }} design{{
              p.designs === 1 ? '' : 's'
            }}</span
          >
        </RouterLink>
      </li>
      <li v-if="projects?.length === 0" class="px-4 py-3 text-quiet">No projects yet. Name one below to begin.</li>
    </ul>
    <form class="mt-4 flex gap-2" @submit.prevent="create">
      <input
        v-model="name"
        class="field max-w-xs"
        placeholder="Name of a new project"
        aria-label="Name of a new project"
        maxlength="80"
      />
      <button class="button-primary">Make project</button>
    </form>
  </PageFrame>
</template>
