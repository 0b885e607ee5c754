/** Something asked of the server: under way, or failed with a sentence. */
import { ref } from 'vue';

export function useAttempt() {
  const trouble = ref<string | null>(null);
  const busy = ref(false);
  async function attempt(work: () => Promise<void>): Promise<void> {
    trouble.value = null;
    busy.value = true;
    try {
      await work();
    } catch (error) {
      trouble.value = (error as Error).message;
    } finally {
      busy.value = false;
    }
  }
  return { trouble, busy, attempt };
}
