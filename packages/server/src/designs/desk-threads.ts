/** Desks in threads of their own: whatever a change or a file costs, requests of others go on being answered. */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Answer, Task } from './desk.ts';

export interface Desks {
  /** Never fails: what cannot be worked out comes back refused, in words. */
  do(task: Task): Promise<Answer>;
  stop(): Promise<void>;
}

/** Longer than the largest design takes; what takes longer would keep others out. */
const LONGEST_MS = 10_000;
const LONGEST_READ_MS = 30_000;
const MEMORY_MB = 1024;
/** Changes make much that is soon forgotten. */
const YOUNG_MEMORY_MB = 64;
/** What is held by a busy thread waits so long for it: to read a design anew elsewhere costs about as much. */
const PATIENCE_MS = 300;
/** So many work as a rule; each takes long to come to its full speed. */
const usualThreads = () => Math.max(1, Math.min(8, Math.ceil(availableParallelism() / 2)));
/** More come when those are held up, so that one long computation leaves room for short ones. */
const MORE_THREADS = 2;

const TOO_MUCH: Answer = { is: 'refused', status: 422, message: 'This takes more time or memory than the server gives; make it in smaller pieces.' }; // prettier-ignore
const STOPPED: Answer = { is: 'refused', status: 503, message: 'The server is stopping; try again in a moment.' };

interface Job {
  readonly task: Task;
  readonly answer: (answer: Answer) => void;
}

class DeskThread {
  private worker: Worker | null = null;
  private job: Job | null = null;
  private timer: NodeJS.Timeout | null = null;
  private since = 0;
  /** Designs it was last asked about. */
  readonly knows = new Set<string>();

  constructor(private readonly idle: () => void) {}

  get isIdle(): boolean {
    return this.job === null;
  }

  /** Its job takes longer than most. */
  get isHeldUp(): boolean {
    return this.job !== null && performance.now() - this.since > PATIENCE_MS;
  }

  begin(job: Job): void {
    this.job = job;
    this.since = performance.now();
    if ('design' in job.task) this.knows.add(job.task.design);
    this.worker ??= this.start();
    const limit = job.task.kind === 'read' ? LONGEST_READ_MS : LONGEST_MS;
    this.timer = setTimeout(() => void this.worker?.terminate(), limit);
    this.worker.postMessage(job.task);
  }

  private start(): Worker {
    const worker = new Worker(new URL('./desk-thread.mjs', import.meta.url), {
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB, maxYoungGenerationSizeMb: YOUNG_MEMORY_MB },
    });
    worker.on('message', (answer: Answer) => this.end(answer));
    worker.on('error', () => {});
    worker.on('exit', () => {
      if (this.worker !== worker) return;
      // What it held went with it.
      this.worker = null;
      this.knows.clear();
      this.end(TOO_MUCH);
    });
    worker.unref();
    return worker;
  }

  private end(answer: Answer): void {
    const job = this.job;
    if (!job) return;
    if (this.timer) clearTimeout(this.timer);
    this.job = null;
    job.answer(answer);
    this.idle();
  }

  async stop(): Promise<void> {
    const { worker } = this;
    this.worker = null;
    this.end(STOPPED);
    await worker?.terminate();
  }
}

export function startDesks(): Desks {
  let waiting: Job[] = [];
  let again: NodeJS.Timeout | null = null;
  /** The thread that holds the design needs nothing sent along; the others share what is left. */
  const threadFor = ({ task }: Job): DeskThread | null => {
    const id = 'design' in task ? task.design : null;
    const own = id === null ? undefined : all.find((t) => t.knows.has(id));
    if (own && (own.isIdle || !own.isHeldUp)) return own.isIdle ? own : null;
    const usual = all.slice(0, usualThreads());
    const among = usual.every((t) => t.isHeldUp) ? all : usual;
    const [thread] = among.filter((t) => t.isIdle).sort((a, b) => a.knows.size - b.knows.size);
    if (thread && id !== null) own?.knows.delete(id);
    return thread ?? null;
  };
  const next = (): void => {
    const still: Job[] = [];
    for (const job of waiting) {
      const thread = threadFor(job);
      if (thread) thread.begin(job);
      else still.push(job);
    }
    waiting = still;
    // A thread may come to be held up without a word.
    if (waiting.length > 0) again ??= setTimeout(() => ((again = null), next()), PATIENCE_MS).unref();
  };
  const all: DeskThread[] = Array.from({ length: usualThreads() + MORE_THREADS }, () => new DeskThread(() => next()));
  return {
    do: (task) =>
      new Promise((answer) => {
        waiting.push({ task, answer });
        next();
      }),
    async stop() {
      for (const { answer } of waiting.splice(0)) answer(STOPPED);
      await Promise.all(all.map((t) => t.stop()));
    },
  };
}
