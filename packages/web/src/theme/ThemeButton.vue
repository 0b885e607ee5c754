<script setup lang="ts">
/** Light, dark, or as the system is: one press goes to the next. */
import { IconBrightness, IconMoon, IconSun } from '@tabler/icons-vue';
import { computed } from 'vue';
import { CHOICES, useTheme } from './theme.ts';

const theme = useTheme();
const WORDS = { auto: 'as the system', light: 'light', dark: 'dark' } as const;
const ICONS = { auto: IconBrightness, light: IconSun, dark: IconMoon } as const;
const choice = computed(() => (theme.choice in WORDS ? (theme.choice as keyof typeof WORDS) : 'auto'));
const next = () => (theme.choice = CHOICES[(CHOICES.indexOf(choice.value) + 1) % CHOICES.length]!);
</script>

<template>
  <button
    class="button grid h-7 w-7 place-items-center !p-0"
    :title="`Colours: ${WORDS[choice]}`"
    :aria-label="`Colours: ${WORDS[choice]}`"
    @click="next"
  >
    <component :is="ICONS[choice]" :size="15" />
  </button>
</template>
