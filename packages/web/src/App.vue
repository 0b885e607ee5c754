<script setup lang="ts">
import { Toaster } from 'vue-sonner';
import 'vue-sonner/style.css';
import { useTheme } from './theme/theme.ts';

// From the first page on.
useTheme();
</script>

<template>
  <RouterView />
  <Toaster
    position="bottom-center"
    :toast-options="{
      style: {
        fontFamily: 'inherit',
        color: 'var(--color-ink)',
        background: 'var(--color-panel)',
        borderColor: 'var(--color-hairline)',
      },
    }"
  />
</template>
