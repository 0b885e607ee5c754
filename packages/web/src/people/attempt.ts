/** Something asked of the server by a form: under way, or failed with a sentence. */
import { ref } from 'vue';

export function useAttempt() {
  const trouble = ref<string | null>(null);
  const busy = ref(false);
  async function attempt(work: () => Promise<void>): Promise<void> {
    if (busy.value) return;
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

/** What stands in the link by which this page was opened: behind #, where no server's log sees it. */
export const tokenHere = (): string => location.hash.slice(1);
