<script setup lang="ts">
/** What stands here of other designs, and what of them could. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { followGuest, loosenGuests, type Comparison, type Edit } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useGuests } from './guests-store.ts';

const design = useDesign();
const session = useSession();
const guests = useGuests();
const edit = (made: Edit) => void (session.notice = design.edit(made));

const partsOf = (key: string) =>
  [...Object.values(design.kept?.parts ?? {}), ...Object.values(design.kept?.assemblies ?? {})]
    .filter((own) => own.guest === key)
    .map((own) => own.name)
    .join(', ');

/** The closed dialog gives the focus back to the button that opened it, which Enter would press again. */
const FOCUS_BACK_MS = 60;
function see(key: string): void {
  guests.tryNewest(key);
  if (guests.trying !== null) setTimeout(() => (document.activeElement as HTMLElement | null)?.blur(), FOCUS_BACK_MS);
}

const HOW = { added: 'new', removed: 'gone', changed: 'changed' } as const;
const lines = ({ numbers, steps, parts }: Comparison): string[] => [
  ...numbers.filter((n) => !n.follows).map((n) => `${n.name}: ${n.before ?? 'nothing'} → ${n.after ?? 'nothing'}`),
  ...steps.map((s) => `${s.part}, step ${s.name}: ${HOW[s.how]}`),
  ...parts.map((p) => `${p.name}: ${HOW[p.how]}`),
];

/** What of the looked-at design is not here yet. */
const offered = computed(() => {
  const from = guests.looked;
  if (!from) return [];
  const here = guests.guests.find(([, g]) => g.design === from.id)?.[1];
  return [
    ...from.design.partOrder.map((id) => ({ of: { part: id }, name: from.design.parts[id]!.name, what: 'part', here: here?.parts.includes(id) })),
    ...(from.design.assemblyOrder ?? []).map((id) => ({ of: { assembly: id }, name: from.design.assemblies![id]!.name, what: 'assembly', here: here?.assemblies.includes(id) })),
  ]; // prettier-ignore
});
</script>

<template>
  <Dialog :open="guests.shown" class="relative z-50" @close="guests.shown = false">
    <div class="fixed inset-0 bg-ink/10" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-6">
      <DialogPanel
        class="flex max-h-[36rem] w-[34rem] flex-col gap-3 overflow-y-auto rounded-lg border border-hairline bg-panel p-5 shadow-lg"
      >
        <DialogTitle class="text-base font-semibold">From other designs</DialogTitle>
        <section v-for="[key, guest] in guests.guests" :key="key" class="text-sm" :data-guest="guest.name">
          <p>
            <span class="font-semibold">{{ guest.name }}</span>
            <span class="text-quiet"
              >, as of revision <span class="number">{{ guest.revision }}</span>: {{ partsOf(key) }}</span
            >
          </p>
          <template v-if="guests.standing.get(key)?.kind === 'newer' && guest.follows === 'newest'">
            <p class="text-warn">It was changed there since:</p>
            <ul class="max-h-32 overflow-y-auto pl-4">
              <li
                v-for="line in lines((guests.standing.get(key) as { changes: Comparison }).changes)"
                :key="line"
                class="number text-xs"
              >
                {{ line }}
              </li>
            </ul>
          </template>
          <p v-else-if="guests.standing.get(key)?.kind === 'away'" class="text-warn">
            {{ (guests.standing.get(key) as { why: string }).why }}
          </p>
          <p v-else-if="guest.follows === 'fixed'" class="text-quiet">It stays as it is, whatever changes there.</p>
          <p v-else-if="guests.standing.get(key)?.kind === 'newest'" class="text-quiet">This is its newest.</p>
          <p class="flex flex-wrap gap-3 text-xs">
            <button
              v-if="guests.standing.get(key)?.kind === 'newer' && guest.follows === 'newest'"
              class="button-primary py-0.5"
              @click="see(key)"
            >
              See it with the newest
            </button>
            <button
              class="text-link underline"
              @click="edit(followGuest(key, guest.follows === 'newest' ? 'fixed' : 'newest'))"
            >
              {{ guest.follows === 'newest' ? 'Stay with this revision' : 'Follow its newest' }}
            </button>
            <button class="text-link underline" @click="edit(loosenGuests(key))">Cut loose</button>
          </p>
        </section>
        <section aria-label="Designs of the project">
          <h3 class="mb-1 text-xs font-medium text-quiet">Bring a part or an assembly of</h3>
          <p v-if="guests.busy" role="status" class="text-quiet">Looking</p>
          <p v-else-if="guests.others.length === 0" class="text-quiet">
            This project has no other design yet; make one on the project’s page.
          </p>
          <p class="flex flex-wrap gap-2">
            <button
              v-for="other in guests.others"
              :key="other.id"
              class="button py-0.5"
              :aria-pressed="guests.looked?.id === other.id"
              @click="guests.look(other.id)"
            >
              {{ other.name }}
            </button>
          </p>
          <ul
            v-if="guests.looked"
            class="mt-2 grid grid-cols-2 gap-x-4"
            :aria-label="`In ${guests.looked.design.name}`"
          >
            <li v-for="one in offered" :key="one.name + one.what" class="flex min-h-7 items-center gap-2">
              <span class="min-w-0 flex-1 truncate"
                >{{ one.name }}<span v-if="one.what === 'assembly'" class="text-quiet">, assembly</span></span
              >
              <span v-if="one.here" class="text-xs text-quiet">is here</span>
              <button
                v-else
                class="text-xs text-link underline"
                :aria-label="`Bring ${one.name}`"
                @click="guests.bring(one.of)"
              >
                Bring
              </button>
            </li>
            <li v-if="offered.length === 0" class="text-quiet">It has no part yet.</li>
          </ul>
        </section>
        <p><button class="button" @click="guests.shown = false">Close</button></p>
      </DialogPanel>
    </div>
  </Dialog>
</template>
