<script setup lang="ts">
/** Links by which anyone may look at the design until they end. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { ref, shallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import { people, type Share } from '../server.ts';

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
const LASTS = [
  { days: 1, text: 'a day' },
  { days: 7, text: 'a week' },
  { days: 30, text: 'a month' },
  { days: 365, text: 'a year' },
];
const design = useDesign();
const shares = shallowRef<Share[]>([]);
const days = ref(7);
const link = ref<string | null>(null);
const copied = ref(false);
const { trouble, busy, attempt } = useAttempt();

const read = async () => void (shares.value = await people.shares(design.id!));
function begin(): void {
  link.value = null;
  void attempt(read);
}
const make = () =>
  attempt(async () => {
    copied.value = false;
    link.value = (await people.share(design.id!, days.value)).link;
    await read();
  });
const end = (id: string) =>
  attempt(async () => {
    await people.endShare(design.id!, id);
    link.value = null;
    await read();
  });
/** Where the browser does not let a page copy, the link can be marked and copied by hand. */
async function copy(): Promise<void> {
  copied.value = await navigator.clipboard.writeText(link.value!).then(
    () => true,
    () => false,
  );
}
</script>

<template>
  <Popover class="relative" @keydown.stop>
    <PopoverButton class="button h-7 px-2 !py-0" @click="begin">Share</PopoverButton>
    <PopoverPanel
      class="absolute right-0 z-40 mt-1 grid w-80 gap-2 rounded-md border border-hairline bg-panel p-3 shadow-md"
    >
      <p class="text-xs text-quiet">
        Whoever has the link may look at this design, without an account, until it ends. Who works on it is said in the
        project.
      </p>
      <form class="flex items-center gap-2" @submit.prevent="make">
        <label class="flex flex-1 items-center gap-2"
          >for
          <select v-model="days" class="field" aria-label="How long the link serves">
            <option v-for="l in LASTS" :key="l.days" :value="l.days">{{ l.text }}</option>
          </select>
        </label>
        <button class="button-primary" :disabled="busy">Make a link</button>
      </form>
      <div v-if="link" class="grid gap-1">
        <input
          class="field number text-xs"
          readonly
          :value="link"
          aria-label="Link to look at the design"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <p class="flex items-baseline gap-3 text-xs">
          <button class="underline" @click="copy">{{ copied ? 'Copied' : 'Copy it' }}</button>
          <span class="text-quiet">It is shown only now.</span>
        </p>
      </div>
      <p v-if="trouble" role="alert" class="text-bad">{{ trouble }}</p>
      <ul v-if="shares.length > 0" class="divide-y divide-hairline text-xs" aria-label="Links there are">
        <li v-for="s in shares" :key="s.id" class="flex items-center py-1">
          <span class="flex-1">made {{ WHEN.format(new Date(s.made)) }}, ends {{ WHEN.format(new Date(s.ends)) }}</span>
          <button class="text-quiet hover:text-bad" @click="end(s.id)">end now</button>
        </li>
      </ul>
    </PopoverPanel>
  </Popover>
</template>
