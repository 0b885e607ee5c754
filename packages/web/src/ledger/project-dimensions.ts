/** Dimensions that the project's designs share: kept by the project, followed by the open design. */
import {
  editShared,
  EditRefused,
  followProject,
  giveToProject,
  NOTHING_SHARED,
  withShared,
  type Edit,
  type Shared,
} from '@helb/core';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { server } from '../server.ts';

export const useProjectDimensions = defineStore('project-dimensions', () => {
  const design = useDesign();
  const now = shallowRef<{ project: string; revision: number; shared: Shared } | null>(null);

  /** Ask the project, and let the open design follow. Silent while the server is away: the copy holds. */
  async function load(): Promise<void> {
    const project = design.project?.id;
    // What is known of another project must not be written into this one, or back into that.
    if (now.value?.project !== project) now.value = null;
    if (!project) return;
    const found = await server.sharedDimensions(project).catch(() => null);
    if (!found || design.project?.id !== project) return;
    now.value = { project, ...found };
    if (found.revision > 0) design.follow(followProject(found.shared));
  }

  async function put(shared: Shared): Promise<string | null> {
    const before = now.value;
    if (!before) return 'The project’s dimensions cannot be reached now; try again when the server is back.';
    try {
      now.value = {
        project: before.project,
        ...(await server.shareDimensions(before.project, before.revision, shared)),
      };
    } catch (error) {
      void load();
      return (error as Error).message;
    }
    return null;
  }

  /** Change them as one would change a design's own. Returns why it could not be, or null. */
  async function change(edit: Edit): Promise<string | null> {
    if (now.value?.project !== design.project?.id) await load();
    const edited = editShared(now.value?.shared ?? NOTHING_SHARED, edit);
    if ('message' in edited) return edited.message;
    const refusal = await put(edited.shared);
    return refusal ?? design.follow(followProject(now.value!.shared));
  }

  /** Share one of the open design's dimensions; what used it still does. */
  async function give(id: string): Promise<string | null> {
    if (!design.kept) return null;
    if (now.value?.project !== design.project?.id) await load();
    try {
      const refusal = await put(withShared(now.value?.shared ?? NOTHING_SHARED, design.kept, id));
      return refusal ?? design.edit(giveToProject(id));
    } catch (error) {
      if (error instanceof EditRefused) return error.message;
      throw error;
    }
  }

  return { now, load, change, give };
});
