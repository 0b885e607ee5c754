/** The guide through a first part: begun from the list of projects, left and taken up again at any time, kept in this browser. */
import { useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { ServerRefusal, server } from '../server.ts';
import { failing, MOVES, numbersIn, type Remembered, type Standing } from './moves.ts';

interface Progress {
  /** The design it is done in. */
  readonly design: string;
  /** How many moves are done. */
  readonly done: number;
  readonly away: boolean;
  readonly before: Remembered;
}

const PROJECT = 'First parts';
const NOTHING: Remembered = { numbers: '[]', failed: false };

export const useGuide = defineStore('guide', () => {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const progress = useStorage<Progress | null>('helb.first-part', null, undefined, {
    serializer: { read: (text) => JSON.parse(text) as Progress | null, write: (value) => JSON.stringify(value) },
  });

  /** It is shown beside the design it is done in. */
  const shown = computed(() => progress.value !== null && !progress.value.away && progress.value.design === design.id);
  const move = computed(() => (shown.value ? (MOVES[progress.value!.done] ?? null) : null));

  const standing = computed<Standing | null>(() => {
    const part = session.activePart ? design.kept?.parts[session.activePart] : undefined;
    if (!shown.value || !part || !design.kept) return null;
    const steps = part.stepOrder.map((id) => part.steps[id]!);
    const view = evaluation.parts.get(session.activePart!);
    return { design: design.kept, steps, view, showFlex: session.showFlex, before: progress.value!.before };
  });

  function next(): void {
    const now = progress.value;
    if (!now) return;
    const before = { numbers: numbersIn(standing.value?.steps ?? []), failed: false };
    progress.value = { ...now, done: Math.min(MOVES.length, now.done + 1), before };
  }

  watch(standing, (now) => {
    if (!now || !move.value) return;
    if (move.value.isDone(now)) next();
    else if (failing(now) && !now.before.failed)
      progress.value = { ...progress.value!, before: { ...now.before, failed: true } };
  });

  /** Begin anew in a design of its own, or go on with the one begun. @returns its design. @throws ServerAway, ServerRefusal */
  async function begin(): Promise<string> {
    const now = progress.value;
    if (now && now.done < MOVES.length && (await isThere(now.design))) {
      progress.value = { ...now, away: false };
      return now.design;
    }
    const projects = await server.projects();
    const project =
      projects.find((p) => p.name === PROJECT && p.role !== 'reads') ?? (await server.createProject(PROJECT));
    const { id } = await server.createDesign(project.id, 'My first part');
    progress.value = { design: id, done: 0, away: false, before: NOTHING };
    return id;
  }

  async function isThere(id: string): Promise<boolean> {
    try {
      await server.open(id);
      return true;
    } catch (error) {
      if (error instanceof ServerRefusal) return false;
      throw error;
    }
  }

  const leave = () => progress.value && (progress.value = { ...progress.value, away: true });

  return { progress, shown, move, begin, leave, skip: next, moves: MOVES.length };
});
