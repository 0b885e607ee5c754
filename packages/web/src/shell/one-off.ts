/** Work in a worker of its own that ends with it. */
import * as Comlink from 'comlink';

/**
 * @param thread begun for this work alone; it is ended however the work ends
 * @param failure said where the worker breaks
 * @throws Error with a sentence
 */
export async function oneOff<A, R>(
  thread: Worker,
  failure: string,
  work: (api: Comlink.Remote<A>) => Promise<R>,
): Promise<R> {
  const broken = new Promise<never>((_, reject) => {
    thread.onerror = (event) => {
      event.preventDefault();
      reject(new Error(failure));
    };
  });
  try {
    return await Promise.race([work(Comlink.wrap<A>(thread)), broken]);
  } finally {
    thread.terminate();
  }
}
