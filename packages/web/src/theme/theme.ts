/** Light or dark, as the system is or as chosen; and the colours of now for what is painted rather than styled. */
import { useColorMode } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, watch } from 'vue';

export const CHOICES = ['auto', 'light', 'dark'] as const;

/** Colours by token, as last read from the page's style; dropped when the theme changes. */
const read = new Map<string, string>();

export const useTheme = defineStore('theme', () => {
  const mode = useColorMode({ attribute: 'data-theme', storageKey: 'helb-theme', disableTransition: false });
  watch(mode.state, () => read.clear(), { flush: 'sync' });
  return {
    /** What was chosen; auto follows the system. */
    choice: computed({ get: () => mode.store.value, set: (choice) => (mode.store.value = choice) }),
    /** What is shown. */
    shown: computed(() => mode.state.value),
  };
});

/**
 * Colours to paint with, by the token they have in the page's style. What is
 * read of them is the colour of now, so read them anew at each painting.
 */
export function inks<K extends string>(tokens: Readonly<Record<K, string>>): Readonly<Record<K, string>> {
  const own = {} as Record<K, string>;
  for (const [name, token] of Object.entries(tokens) as [K, string][])
    Object.defineProperty(own, name, { enumerable: true, get: () => inkOf(token) });
  return own;
}

function inkOf(token: string): string {
  let color = read.get(token);
  if (color === undefined) {
    color = getComputedStyle(document.documentElement).getPropertyValue(`--color-${token}`).trim();
    read.set(token, color);
  }
  return color;
}
