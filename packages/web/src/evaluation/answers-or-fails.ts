/** A worker of which every question is answered, or fails: one that was ended would let its askers wait for ever. */
import type { Remote } from 'comlink';

type Question = (...args: unknown[]) => Promise<unknown>;

/** @returns the worker to be asked from now on, and `end`, to be called when it is ended: all it still owes fails */
export function answersOrFails<T extends object>(remote: Remote<T>): { asked: Remote<T>; end(sentence: string): void } {
  const owed = new Set<(reason: Error) => void>();
  const asked = new Proxy(remote, {
    get: (_, name) =>
      // Not a promise itself, though every other name is a question.
      name === 'then'
        ? undefined
        : (...args: unknown[]) =>
            new Promise((resolve, reject) => {
              owed.add(reject);
              (remote[name as keyof Remote<T>] as Question)(...args)
                .then(resolve, reject)
                .finally(() => owed.delete(reject));
            }),
  });
  return {
    asked,
    end(sentence) {
      for (const fail of owed) fail(new Error(sentence));
      owed.clear();
    },
  };
}
