<script setup lang="ts">
/** Says in which assembly the part is worked on, and leads back there. */
import { useSession } from '../design/session.ts';

defineProps<{ where: { readonly assembly: string; readonly name: string } }>();
const session = useSession();
</script>

<template>
  <p
    role="status"
    class="flex items-center gap-3 rounded-md border border-hairline bg-panel/95 px-3 py-1.5 text-xs text-quiet"
    @pointerdown.stop
    @pointerup.stop
  >
    <span>
      <span class="font-semibold text-ink">{{ where.name }}</span> in its place in {{ where.assembly }}; pick a part
      beside it to borrow from it.
    </span>
    <button class="font-medium text-link underline" @click="session.openAssembly(session.inPlace!.assembly)">
      Back to {{ where.assembly }}
    </button>
  </p>
</template>
