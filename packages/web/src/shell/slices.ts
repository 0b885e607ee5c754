/** Long work in short slices, so that the page stays awake; it ends when no longer wanted. */
const SLICE_MS = 10;

/**
 * Run a generator to its end.
 * @param wanted asked between slices; false stops the work
 * @param told hears what the generator yields, where that is something
 * @returns its result, or null when it was stopped
 */
export async function inSlices<T, R>(
  work: Generator<T | undefined, R>,
  wanted: () => boolean,
  told?: (value: T) => void,
): Promise<R | null> {
  for (;;) {
    const until = performance.now() + SLICE_MS;
    do {
      const step = work.next();
      if (step.done) return step.value;
      if (step.value !== undefined) told?.(step.value);
    } while (performance.now() < until);
    await new Promise((next) => setTimeout(next));
    if (!wanted()) return null;
  }
}
