/** Runs gone through ahead of being played, so that they can be scrubbed: what touches decides by the way there. */
import { courseOf, travelOf, wayOfRun, type Assembled, type Course, type Run, type Travel } from '@helb/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { breather } from './breather.ts';
import { useTogether } from './together-store.ts';

/** Positions a second, and no more than so many in all. */
const RATE = 30;
const MOST_SAMPLES = 901;

interface Gone {
  readonly of: Assembled;
  readonly run: Run;
  /** As numbers stood. */
  readonly key: string;
  readonly travel: Travel;
}

export const useRuns = defineStore('runs', () => {
  const design = useDesign();
  const together = useTogether();

  const gone = shallowRef<ReadonlyMap<string, Gone>>(new Map());
  /** The run that is being gone through, and how far. */
  const going = ref<{ readonly id: string; readonly done: number; readonly total: number } | null>(null);
  const playing = ref<string | null>(null);
  const time = ref<{ readonly id: string; readonly at: number } | null>(null);

  const courses = computed<ReadonlyMap<string, Course>>(() => {
    const { it } = together;
    if (!it || !design.ledger) return new Map();
    return new Map(Object.entries(together.assembly?.runs ?? {}).map(([id, run]) => [id, courseOf(run, it, design.ledger!)])); // prettier-ignore
  });
  const keyOf = (course: Course) => JSON.stringify(course.drives.map((d) => [d.id, d.points, d.drive.between]));

  let asked = 0;
  /** @returns null where it cannot be gone through, or another was asked for meanwhile */
  async function travel(id: string): Promise<Travel | null> {
    const { it } = together;
    const run = together.assembly?.runs?.[id];
    const course = courses.value.get(id);
    if (!it?.closed || !run || !course?.at) return null;
    const key = keyOf(course);
    const known = gone.value.get(id);
    if (known && known.of === it && known.run === run && known.key === key) return known.travel;
    const own = ++asked;
    const count = Math.max(2, Math.min(MOST_SAMPLES, Math.ceil(course.seconds * RATE) + 1));
    const way = wayOfRun(course.at, course.seconds, count);
    going.value = { id, done: 0, total: count };
    const breathe = breather(() => own === asked);
    let done = 0;
    try {
      const found = await travelOf(it, it.home, way, {
        advance: together.advancing({ push: run.push === true, sprung: run.sprung === true }),
        async breathe() {
          done++;
          if (await breathe()) going.value = { id, done, total: count };
        },
      });
      gone.value = new Map(gone.value).set(id, { of: it, run, key, travel: found });
      return found;
    } catch (error) {
      if (own === asked) throw error;
      return null;
    } finally {
      if (own === asked) going.value = null;
    }
  }

  function cancel(): void {
    asked++;
    going.value = null;
  }

  async function showAt(id: string, seconds: number): Promise<boolean> {
    const found = await travel(id);
    if (!found || found.samples.length === 0) return false;
    const { samples } = found;
    let i = samples.findIndex((s) => s.value >= seconds - 1e-9);
    if (i < 0) i = samples.length - 1;
    together.show(samples[i]!.placed);
    time.value = { id, at: samples[i]!.value };
    return true;
  }

  let frame = 0;
  function pause(): void {
    cancelAnimationFrame(frame);
    playing.value = null;
  }

  /** On from where it stands, from the beginning where it is at its end. */
  async function play(id: string): Promise<void> {
    pause();
    const found = await travel(id);
    const last = found?.samples.at(-1)?.value ?? 0;
    if (!found || last <= 0) return;
    const start = time.value?.id === id && time.value.at < last ? time.value.at : 0;
    playing.value = id;
    const began = performance.now();
    const tick = () => {
      if (playing.value !== id) return;
      const at = start + (performance.now() - began) / 1000;
      void showAt(id, Math.min(at, last));
      if (at < last) frame = requestAnimationFrame(tick);
      else playing.value = null;
    };
    frame = requestAnimationFrame(tick);
  }

  watch(() => together.assembly === null, pause);
  watch(() => together.it, pause);
  watch(
    () => together.moved === null,
    (home) => {
      if (!home) return;
      pause();
      time.value = null;
    },
  );
  return { courses, going, playing, time, travel, cancel, showAt, play, pause };
});
