/** What a project shares with its designs, as its page reads and changes it: one for all of the page, so that its revision is one. */
import { NOTHING_SHARED, type Shared } from '@helb/core';
import { onMounted, ref, shallowRef } from 'vue';
import { server } from '../server.ts';

export function useSharedOfProject(project: () => string) {
  const now = shallowRef<{ revision: number; shared: Shared }>({ revision: 0, shared: NOTHING_SHARED });
  const trouble = ref<string | null>(null);

  async function load(): Promise<void> {
    try {
      now.value = await server.sharedDimensions(project());
    } catch (error) {
      trouble.value = (error as Error).message;
    }
  }
  onMounted(load);

  /** Was it taken? If not, why is told, and what holds is shown again. */
  async function put(shared: Shared): Promise<boolean> {
    trouble.value = null;
    try {
      now.value = await server.shareDimensions(project(), now.value.revision, shared);
      return true;
    } catch (error) {
      await load();
      trouble.value = (error as Error).message;
      return false;
    }
  }
  return { now, trouble, put };
}
export type SharedOfProject = ReturnType<typeof useSharedOfProject>;
