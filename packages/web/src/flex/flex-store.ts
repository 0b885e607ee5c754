/** Every dial moved through its range, beside the work of the page, with progress and a stop. */
import {
  countOfCorners,
  dialRanges,
  flexDial,
  flexPairs,
  type Attempt,
  type Design,
  type DialFlex,
  type Fault,
  type PairFault,
  type Tried,
} from '@helb/core';
import * as Comlink from 'comlink';
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import type { FlexWorker } from './flex.worker.ts';

/** A kernel call that runs longer is ended with its worker, and told as a fault of the numbers tried. */
const CALL_LIMIT_S = 20;

interface Hand {
  readonly worker: Worker;
  readonly remote: Comlink.Remote<FlexWorker>;
}

class Stopped extends Error {}

export const useFlex = defineStore('flex', () => {
  const store = useDesign();
  /** The design that was moved. */
  const of = shallowRef<Design | null>(null);
  const dials = shallowRef<readonly DialFlex[]>([]);
  const pairs = shallowRef<readonly PairFault[]>([]);
  /** What does not stand as the design is, whatever the dials. */
  const present = shallowRef<readonly Fault[]>([]);
  /** Dials that were not moved, and why. */
  const left = shallowRef<readonly string[]>([]);
  const progress = shallowRef<{ readonly doing: string; readonly done: number; readonly total: number | null } | null>(
    null,
  );
  /** Was everything looked at? */
  const whole = ref(false);
  /** The design has changed since. */
  const stale = computed(() => of.value !== null && of.value !== store.kept);

  let hand: Hand | null = null;
  let run = 0;

  function letGo(): void {
    hand?.worker.terminate();
    hand = null;
  }

  /** A worker that holds the design. */
  async function handFor(design: Design): Promise<Hand> {
    if (hand) return hand;
    const worker = new Worker(new URL('./flex.worker.ts', import.meta.url), { type: 'module', name: 'flex' });
    hand = { worker, remote: Comlink.wrap<FlexWorker>(worker) };
    const own = hand;
    await new Promise<void>((resolve, reject) => {
      worker.onerror = (event) => {
        event.preventDefault();
        reject(new Error('the kernel does not start'));
      };
      own.remote.hold(design).then(resolve, reject);
    });
    return own;
  }

  /** Try numbers; a call that hangs, or a kernel that dies, is a fault of these numbers and of nothing else. */
  async function trying(design: Design, tried: Tried, own: number): Promise<Attempt> {
    if (own !== run) throw new Stopped();
    const { remote, worker } = await handFor(design);
    let lastSign = performance.now();
    const outcome = await new Promise<Attempt | string>((resolve, reject) => {
      const gaveUp = (message: string) => {
        clearInterval(watch);
        if (own !== run) return reject(new Stopped());
        letGo();
        resolve(message);
      };
      const watch = setInterval(() => {
        if (own !== run) gaveUp('');
        else if (performance.now() - lastSign > CALL_LIMIT_S * 1000)
          gaveUp(`A step took longer than ${CALL_LIMIT_S} s and was stopped.`);
      }, 100);
      worker.onerror = (event) => {
        event.preventDefault();
        gaveUp('The geometry kernel failed with these numbers.');
      };
      remote
        .attempt(
          tried,
          Comlink.proxy(() => void (lastSign = performance.now())),
        )
        .then((found) => {
          clearInterval(watch);
          resolve(found);
        })
        .catch(() => gaveUp('The geometry kernel failed with these numbers.'));
    });
    if (own !== run) throw new Stopped();
    return typeof outcome === 'string' ? { faults: [{ how: 'slow', message: outcome }], numbers: {} } : outcome;
  }

  async function compute(): Promise<void> {
    const design = store.kept;
    if (!design) return;
    stop();
    const own = run;
    const found = dialRanges(design);
    of.value = markRaw(design);
    left.value = found.left;
    dials.value = [];
    pairs.value = [];
    present.value = [];
    whole.value = false;
    const attempts = (tried: Tried) => trying(design, tried, own);
    try {
      progress.value = { doing: 'as it is', done: 0, total: found.dials.length };
      const { faults } = await attempts([]);
      present.value = faults;
      for (const [i, dial] of found.dials.entries()) {
        const before = dials.value;
        const tell = () => (progress.value = { doing: dial.name, done: i, total: found.dials.length });
        tell();
        const flexed = await flexDial(dial, attempts, faults, (flex) => (dials.value = [...before, markRaw(flex)]));
        dials.value = [...before, markRaw(flexed)];
      }
      const total = countOfCorners(dials.value);
      let done = 0;
      progress.value = { doing: 'pairs', done, total };
      await flexPairs(dials.value, attempts, faults, (pair) => {
        if (pair) pairs.value = [...pairs.value, markRaw(pair)];
        progress.value = { doing: 'pairs', done: ++done, total };
      });
      whole.value = true;
    } catch (error) {
      if (!(error instanceof Stopped))
        toast.error('Moving the dials failed; compute again, or tell what you changed last.');
    } finally {
      if (own === run) {
        progress.value = null;
        letGo();
      }
    }
  }

  /** End what is under way; what was found so far stays. */
  function stop(): void {
    run++;
    progress.value = null;
    letGo();
  }

  function clear(): void {
    stop();
    of.value = null;
    dials.value = [];
    pairs.value = [];
    left.value = [];
    present.value = [];
  }

  return { of, dials, pairs, present, left, progress, whole, stale, compute, stop, clear };
});
