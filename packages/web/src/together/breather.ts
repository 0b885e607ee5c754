/** Long work on the page’s thread, let go of every few milliseconds. */
const BREATHE_MS = 12;

/** @param wanted no longer so: the work is given up by an error. @returns whether it let go just now */
export function breather(wanted: () => boolean): () => Promise<boolean> {
  let breathed = performance.now();
  return async () => {
    if (performance.now() - breathed < BREATHE_MS) return false;
    await new Promise((next) => setTimeout(next));
    breathed = performance.now();
    if (!wanted()) throw new Error('superseded');
    return true;
  };
}
