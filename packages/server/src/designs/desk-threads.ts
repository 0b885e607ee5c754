/** Desks in threads of their own: whatever a change or a file costs, requests of others go on being answered. */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { atMost } from '../at-most.ts';
import type { Answer, Task } from './desk.ts';

export interface Desks {
  /** Never fails: what cannot be worked out comes back refused, in words. */
  do(task: Task): Promise<Answer>;
  /** A change from reading the log to writing it, when its turn comes: what it read is old the sooner the longer it waits. */
  turn<T>(design: string, work: () => Promise<T>): Promise<T>;
  stop(): Promise<void>;
}

/** Longer than the largest design takes; what takes longer would keep others out. */
const LONGEST_MS = 10_000;
const LONGEST_READ_MS = 30_000;
const MEMORY_MB = 1024;
/** Changes make much that is soon forgotten. */
const YOUNG_MEMORY_MB = 64;
/** Larger designs, and files, are worked on apart, so that the many small ones need not wait for them. */
const LIGHT_CHARS = 250_000;
const MOST_HEAVY = 1000;
/** So many threads for small designs as a rule; each takes long to come to its full speed. */
const lightThreads = () => Math.max(1, Math.min(8, Math.ceil(availableParallelism() / 2)));
const HEAVY_THREADS = 1;
/** So many changes are under way for each thread: while one is worked out, others are read and written. */
const UNDER_WAY = 16;
/** What is held by a busy thread waits so long for it: to read a design anew elsewhere costs as much. Then one more helps out. */
const PATIENCE_MS = 300;

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
    this.start();
    const limit = job.task.kind === 'read' ? LONGEST_READ_MS : LONGEST_MS;
    this.timer = setTimeout(() => void this.worker?.terminate(), limit);
    this.worker!.postMessage(job.task);
  }

  /** Ahead of the first job, or after it has ended. */
  start(): void {
    if (this.worker) return;
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
    this.worker = worker;
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

/** Threads that share one kind of work. */
class Room {
  private waiting: Job[] = [];
  private again: NodeJS.Timeout | null = null;
  private readonly all: DeskThread[];

  /** @param usual so many work as a rule; one more comes when all of them are held up */
  constructor(private readonly usual: number) {
    this.all = Array.from({ length: usual + 1 }, () => new DeskThread(() => this.next()));
    for (const thread of this.all.slice(0, usual)) thread.start();
  }

  add(job: Job): void {
    this.waiting.push(job);
    this.next();
  }

  /** Another room works on this design now. */
  forget(design: string): void {
    for (const thread of this.all) thread.knows.delete(design);
  }

  private next(): void {
    const still: Job[] = [];
    for (const job of this.waiting) {
      const thread = this.threadFor(job);
      if (thread) thread.begin(job);
      else still.push(job);
    }
    this.waiting = still;
    // A thread may come to be held up without a word.
    if (still.length > 0) this.again ??= setTimeout(() => ((this.again = null), this.next()), PATIENCE_MS).unref();
  }

  /** The thread that holds the design needs nothing sent along; the others share what is left. */
  private threadFor({ task }: Job): DeskThread | null {
    const id = 'design' in task ? task.design : null;
    const own = id === null ? undefined : this.all.find((t) => t.knows.has(id));
    if (own && (own.isIdle || !own.isHeldUp)) return own.isIdle ? own : null;
    const usual = this.all.slice(0, this.usual);
    const among = usual.every((t) => t.isHeldUp) ? this.all : usual;
    const [thread] = among.filter((t) => t.isIdle).sort((a, b) => a.knows.size - b.knows.size);
    if (thread && id !== null) own?.knows.delete(id);
    return thread ?? null;
  }

  async stop(): Promise<void> {
    for (const { answer } of this.waiting.splice(0)) answer(STOPPED);
    await Promise.all(this.all.map((t) => t.stop()));
  }
}

export function startDesks(): Desks {
  const [light, heavy] = [new Room(lightThreads()), new Room(HEAVY_THREADS)];
  const [lightTurns, heavyTurns] = [atMost(UNDER_WAY * lightThreads()), atMost(UNDER_WAY * HEAVY_THREADS)];
  const large = new Set<string>();
  /** A design is known to be large from when it was sent along. */
  function isHeavy(task: Task): boolean {
    if (!('design' in task)) return true;
    if ((task.stored?.document?.length ?? 0) > LIGHT_CHARS && !large.has(task.design)) {
      if (large.size >= MOST_HEAVY) large.clear();
      large.add(task.design);
      light.forget(task.design);
    }
    return large.has(task.design);
  }
  return {
    do: (task) => new Promise((answer) => (isHeavy(task) ? heavy : light).add({ task, answer })),
    turn: (design, work) => (large.has(design) ? heavyTurns : lightTurns)(work),
    async stop() {
      await Promise.all([light.stop(), heavy.stop()]);
    },
  };
}
