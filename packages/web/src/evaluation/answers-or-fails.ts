/** A worker of which every question is answered, or fails: one that was ended would let its askers wait for ever. */
import type { Remote } from 'comlink';

type Question = (...args: unknown[]) => Promise<unknown>;
interface Owed {
  readonly answer: Promise<unknown>;
  readonly fail: (reason: Error) => void;
}

/** @returns the worker to be asked from now on, and `end`, to be called when it is ended: all it still owes fails */
export function answersOrFails<T extends object>(remote: Remote<T>): { asked: Remote<T>; end(sentence: string): void } {
  const owed = new Set<Owed>();
  function ask(name: keyof Remote<T>, args: unknown[]): Promise<unknown> {
    let fail!: Owed['fail'];
    const answer = new Promise((resolve, reject) => {
      fail = reject;
      (remote[name] as Question)(...args)
        .then(resolve, reject)
        .finally(() => owed.delete(own));
    });
    const own = { answer, fail };
    owed.add(own);
    return answer;
  }
  return {
    // Not a promise itself, though every other name is a question.
    asked: new Proxy(remote, { get: (_, name) => name === 'then' ? undefined : (...args: unknown[]) => ask(name as keyof Remote<T>, args) }), // prettier-ignore
    end(sentence) {
      for (const { answer, fail } of owed) {
        // Who only told the worker something does not wait for it.
        answer.catch(() => undefined);
        fail(new Error(sentence));
      }
      owed.clear();
    },
  };
}
