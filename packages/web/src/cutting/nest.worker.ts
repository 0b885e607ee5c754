/** Lays pieces on boards, better as long as it may; and looks whether kept ones lie well. */
import { faultsOfLaid, Nesting, type CutGeometry, type LaidFaults, type LaidPlace, type Nest, type NestAsk, type Outlines } from '@helb/core'; // prettier-ignore
import * as Comlink from 'comlink';

/** Work done between two looks at the messages, ms. */
const TURN_MS = 20;

let nesting: Nesting | null = null;
/** Counts searches, so that a newer one, or stopping, ends the one before. */
let searches = 0;

const messagesIn = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

export interface NestListener {
  found(nest: Nest): void;
}

const api = {
  /** @param ask what is to be laid; null goes on with what was. @param ms for so long at most, but until all is laid once */
  async search(ask: NestAsk | null, ms: number, listener: NestListener): Promise<void> {
    const own = ++searches;
    const until = performance.now() + ms;
    await messagesIn();
    if (own !== searches) return;
    if (ask) nesting = new Nesting(ask);
    let turn = performance.now() + TURN_MS;
    while (nesting && (nesting.found === null || performance.now() < until)) {
      const work = nesting.once();
      let step = work.next();
      while (!step.done && (nesting.found === null || performance.now() < until)) {
        if (performance.now() > turn) {
          await messagesIn();
          if (own !== searches) return;
          turn = performance.now() + TURN_MS;
        }
        step = work.next();
      }
      if (step.done && step.value) listener.found(nesting.found!);
    }
  },
  stop(): void {
    searches++;
  },
  check(
    own: Outlines,
    geometry: CutGeometry,
    counts: ReadonlyMap<string, number>,
    laid: readonly LaidPlace[],
  ): LaidFaults {
    // prettier-ignore
    return faultsOfLaid(own, geometry, counts, laid);
  },
};
export type NestWork = typeof api;

Comlink.expose(api);
