/** The page's side of evaluation: asks the worker, shows what it answers, and replaces it when it dies. */
import { differences, type Design, type PartView, type Unmet } from '@helb/core';
import * as Comlink from 'comlink';
import { defineStore } from 'pinia';
import { markRaw, ref, shallowRef } from 'vue';
import { answersOrFails } from './answers-or-fails.ts';
import type { EvaluationWorker } from './evaluation.worker.ts';
import type { Progress } from './progress.ts';

/** A single kernel call that runs longer than this is ended with its worker. */
const CALL_LIMIT_MS = 20_000;
const SHOW_PROGRESS_AFTER_MS = 300;
/** So long after the last picture assemblies are looked through. */
const UNMET_AFTER_MS = 200;
/** Pictures that come within so long are shown together. */
const GATHER_MS = 60;

interface Request {
  design: Design;
  focus: { part: string; step: string } | null;
  active: string | null;
}

const NONE_LOOKED_AT = { of: null, found: [] };

export const useEvaluation = defineStore('evaluation', () => {
  const parts = shallowRef<ReadonlyMap<string, PartView>>(new Map());
  /** Shown when work takes longer than a moment. */
  const progress = ref<Progress | null>(null);
  const busy = ref(false);
  /** The design last computed to its end, with its parts. */
  const complete = shallowRef<{ readonly design: Design; readonly parts: ReadonlyMap<string, PartView> } | null>(null);
  /** Why there is no evaluation now, as a sentence. */
  const trouble = ref<string | null>(null);

  let worker: Worker | null = null;
  let remote: Comlink.Remote<EvaluationWorker> | null = null;
  /** Lets all that the worker still owes fail. */
  let endAnswers: ((sentence: string) => void) | null = null;
  let running: Request | null = null;
  let waiting: Request | null = null;
  let lastSign = 0;
  let startedAt = 0;
  let doing = '';
  /** What is being computed now, shown once it takes long. */
  let underWay: Progress | null = null;
  let watch: ReturnType<typeof setInterval> | null = null;

  /** Why measured dimensions cannot be read now, each keeping its last reading. */
  const unreadable = shallowRef<ReadonlyMap<string, string>>(new Map());
  /** What does not hold together, of all assemblies of the design that was last looked through. */
  const unmet = shallowRef<{ readonly of: Design | null; readonly found: readonly Unmet[] }>(NONE_LOOKED_AT);
  /** Told what measured dimensions read, where that differs from what the design holds; says why it is not taken over. */
  let hear: ((design: Design, readings: ReadonlyMap<string, string>) => ReadonlyMap<string, string> | null) | null =
    null;
  function onReadings(listener: typeof hear): void {
    hear = listener;
  }

  function start(): Comlink.Remote<EvaluationWorker> {
    if (remote) return remote;
    worker = new Worker(new URL('./evaluation.worker.ts', import.meta.url), { type: 'module', name: 'evaluation' });
    worker.onerror = (event) => {
      event.preventDefault();
      restart('The geometry kernel failed and was started again; the last step may need another look.');
    };
    const answers = answersOrFails(Comlink.wrap<EvaluationWorker>(worker));
    remote = answers.asked;
    endAnswers = answers.end;
    return remote;
  }

  /** The design the worker holds. */
  let handed: Design | null = null;

  /** The worker, with this design in its hands: what it has already is not sent again. */
  function on(design: Design): Comlink.Remote<EvaluationWorker> {
    const own = start();
    if (handed === design) return own;
    const sent = handed ? own.follow(differences(handed, design)) : own.hold(design);
    handed = design;
    // What it could not follow is handed over whole at the next request.
    sent.catch(() => remote === own && (handed = null));
    return own;
  }

  /** End the worker and whatever it was doing. The design itself is not touched. */
  function restart(message: string | null): void {
    if (running) showCame(running.design);
    worker?.terminate();
    worker = null;
    remote = null;
    handed = null;
    running = null;
    underWay = null;
    busy.value = false;
    progress.value = null;
    if (watch) clearInterval(watch);
    watch = null;
    trouble.value = message;
    endAnswers?.('The geometry kernel was stopped and started again; try once more.');
    endAnswers = null;
    if (waiting) void next();
  }

  /** Pictures that came and are not shown yet: each that is shown has an assembly of it put together anew. */
  const came = new Map<string, PartView>();
  let soon: ReturnType<typeof setTimeout> | null = null;

  function showCame(design: Design): void {
    if (soon) clearTimeout(soon);
    soon = null;
    if (came.size === 0) return;
    const known = new Map([...parts.value, ...came]);
    for (const id of known.keys()) if (!design.parts[id]) known.delete(id);
    came.clear();
    parts.value = known;
  }

  function request(design: Design, focus: Request['focus'], active: string | null): void {
    waiting = { design, focus, active };
    trouble.value = null;
    if (!running) void next();
    else void remote?.cancel();
  }

  async function next(): Promise<void> {
    const job = waiting;
    if (!job) return;
    waiting = null;
    running = job;
    busy.value = true;
    startedAt = lastSign = performance.now();
    doing = 'the kernel’s start';
    watch ??= setInterval(check, 250);
    const own = on(job.design);
    const listener = Comlink.proxy({
      part(view: PartView) {
        sign();
        if (remote !== own) return;
        came.set(view.part, markRaw(view));
        if (view.part === job.active) showCame(job.design);
        else soon ??= setTimeout(() => showCame(job.design), GATHER_MS);
      },
      readings(stale: ReadonlyMap<string, string>, unread: ReadonlyMap<string, string>) {
        if (remote !== own) return;
        const refused = stale.size > 0 ? hear?.(job.design, stale) : null;
        unreadable.value = refused ? new Map([...unread, ...refused]) : unread;
      },
      progress(p: Progress | null) {
        sign();
        if (remote !== own) return;
        if (p) doing = `“${p.step}” of ${p.part}`;
        underWay = p;
        progress.value = p && performance.now() - startedAt > SHOW_PROGRESS_AFTER_MS ? p : null;
      },
    });
    // The part being worked on first; the others fill the tray.
    const order = [...job.design.partOrder].sort((a, b) => Number(b === job.active) - Number(a === job.active));
    try {
      const finished = await own.evaluate(job.focus, order, listener);
      if (remote === own) showCame(job.design);
      if (finished && remote === own) complete.value = { design: job.design, parts: parts.value };
    } catch (error) {
      if (remote === own)
        restart(`The geometry kernel failed at ${doing} and was started again (${sentenceOf(error)}).`);
      return;
    }
    if (remote !== own) return;
    running = null;
    underWay = null;
    busy.value = waiting !== null;
    if (waiting) void next();
    else {
      progress.value = null;
      clearInterval(watch!);
      watch = null;
      void findUnmet();
    }
  }

  /** Once nothing has changed for a moment: where a loop does not close it takes long to tell which joint is in the way. */
  async function findUnmet(): Promise<void> {
    const of = complete.value;
    await new Promise((next) => setTimeout(next, UNMET_AFTER_MS));
    if (!of || busy.value || complete.value !== of) return;
    const found = await on(of.design).unmet().catch(() => null); // prettier-ignore
    if (found && complete.value === of) unmet.value = { of: of.design, found };
  }

  /** The kernel is at work and not stuck, be it for the picture or for what the picture waits for. */
  function sign(): void {
    lastSign = performance.now();
  }

  function check(): void {
    if (!running) return;
    // A long last step is told of while it lasts; what came before it was known and took no time.
    if (underWay && performance.now() - startedAt > SHOW_PROGRESS_AFTER_MS) progress.value = underWay;
    if (performance.now() - lastSign < CALL_LIMIT_MS) return;
    restart(
      `${doing.charAt(0).toUpperCase() + doing.slice(1)} took longer than ${CALL_LIMIT_MS / 1000} s and was stopped; change it, or try again.`,
    );
  }

  /** The user's stop: ends the work at once; the last good picture stays. */
  function stop(): void {
    waiting = null;
    restart(`Stopped at ${doing}. The picture shows the state before.`);
  }

  /** Ends a survey of variants under way. */
  const stopSurvey = (): void => void remote?.stopSurvey();

  /** Pictures from before, until the kernel has made its own. */
  function showEarlier(views: readonly PartView[]): void {
    const lacking = views.filter(({ part }) => !parts.value.has(part) && !came.has(part));
    if (lacking.length > 0)
      parts.value = new Map([...parts.value, ...lacking.map((v) => [v.part, markRaw(v)] as const)]);
  }

  function clear(): void {
    came.clear();
    parts.value = new Map();
    complete.value = null;
    unreadable.value = new Map();
    unmet.value = NONE_LOOKED_AT;
    waiting = null;
    restart(null);
  }

  return {
    parts,
    complete,
    progress,
    busy,
    trouble,
    unreadable,
    unmet,
    on,
    stopSurvey,
    onReadings,
    request,
    stop,
    sign,
    showEarlier,
    clear,
  };
});

function sentenceOf(error: unknown): string {
  const message = error instanceof Error ? error.message : String(error);
  return message.split('\n')[0]!.slice(0, 160);
}
