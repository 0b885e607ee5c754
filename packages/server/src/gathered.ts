/** What it costs to ask somebody is paid once for all that came together. */

interface Waiting<I, O> {
  readonly item: I;
  readonly done: (answer: O) => void;
  readonly failed: (error: unknown) => void;
}

/** An asking that takes longer than this is held up by something that need not hold up the others. */
const PATIENCE_MS = 50;
/** So many askings at once, however long they take. */
const MOST_LANES = 3;

/**
 * Whoever comes while nobody is under way goes at once; who comes meanwhile waits and goes with the others.
 * @param most so many go together at most
 * @param work answers of all, in their order; when it fails, all of them fail
 */
export function gathered<I, O>(
  most: number,
  work: (items: readonly I[]) => Promise<readonly O[]>,
): (item: I) => Promise<O> {
  const waiting: Waiting<I, O>[] = [];
  let going = 0;
  let patience: NodeJS.Timeout | null = null;

  async function go(): Promise<void> {
    going++;
    while (waiting.length > 0) {
      const all = waiting.splice(0, most);
      try {
        const answers = await work(all.map((w) => w.item));
        all.forEach((w, i) => w.done(answers[i]!));
      } catch (error) {
        for (const w of all) w.failed(error);
      }
    }
    going--;
  }

  function another(): void {
    patience = null;
    if (waiting.length === 0) return;
    if (going < MOST_LANES) void go();
    if (waiting.length > 0) patience = setTimeout(another, PATIENCE_MS);
  }

  return (item) =>
    new Promise((done, failed) => {
      waiting.push({ item, done, failed });
      if (going === 0) void go();
      else patience ??= setTimeout(another, PATIENCE_MS);
    });
}
