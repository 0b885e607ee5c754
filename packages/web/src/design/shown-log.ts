/** The design's log as far as the page has it, and what its reader may take back of it. */
import { undoState } from '@helb/core';
import { computed, ref, shallowRef, type Ref, type ShallowRef } from 'vue';
import { server, type Listed } from '../server.ts';
import type { Waiting } from './waiting.ts';

/**
 * @param id of the open design
 * @param pending one's own changes that are not in the log yet
 */
export function useShownLog(id: Ref<string | null>, pending: ShallowRef<readonly Waiting[]>) {
  /** The newest changes the server has, oldest first. */
  const log = shallowRef<Listed[]>([]);
  /** There are earlier ones than those. */
  const hasEarlier = ref(false);
  /** Who this browser is among the authors. */
  const you = ref('');

  /** Each takes back their own; of some old changes nobody knows whose they are. */
  const own = computed(() => [
    ...log.value.filter((c) => c.author === null || c.author === you.value),
    ...pending.value.map(({ change, label }) => ({ ...change, label })),
  ]);
  const undoable = computed(() => undoState(own.value));
  const undoCount = computed(() => undoable.value.undo.length);
  /** The change that would be taken back, or made again, next. */
  const nextOf = (kind: 'undo' | 'redo') => undoable.value[kind].at(-1);
  const nextLabel = (kind: 'undo' | 'redo') => own.value.find((c) => c.id === nextOf(kind))?.label ?? '';

  async function loadEarlier(): Promise<void> {
    const design = id.value;
    const first = log.value[0]?.revision;
    if (!design || first === undefined || !hasEarlier.value) return;
    const page = await server.earlier(design, first);
    if (id.value !== design) return;
    log.value = [...page.log, ...log.value];
    hasEarlier.value = page.more;
  }

  /** A state was given a name, or lost it. */
  function named(at: number, name: string | null): void {
    log.value = log.value.map((c) => (c.revision === at ? { ...c, named: name } : c));
  }

  /** Names given at other servers are not told to open pages. */
  async function readNames(): Promise<void> {
    const design = id.value;
    const newest = log.value.at(-1)?.revision;
    if (!design || newest === undefined) return;
    const page = await server.earlier(design, newest + 1);
    if (id.value !== design) return;
    const names = new Map(page.log.map((c) => [c.revision, c.named]));
    log.value = log.value.map((c) => ({ ...c, named: names.has(c.revision) ? names.get(c.revision)! : c.named }));
  }

  return { log, hasEarlier, you, undoCount, nextOf, nextLabel, loadEarlier, named, readNames };
}
