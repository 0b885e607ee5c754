/** What of an assembly can still move, found beside the page; only what is asked last is answered. */
import { jointedData, type Assembled, type Freedoms } from '@helb/core';
import * as Comlink from 'comlink';
import type { FreedomsWorker } from './freedoms.worker.ts';

export class FindingFreedoms {
  private worker: Worker | null = null;
  private remote: Comlink.Remote<FreedomsWorker> | null = null;
  /** Ends the wait for what nobody wants any more. */
  private dropped: (() => void) | null = null;

  /** Null when something else was asked meanwhile. @throws Error when the worker cannot be had */
  async of(it: Assembled): Promise<Freedoms | null> {
    this.drop();
    this.worker ??= new Worker(new URL('./freedoms.worker.ts', import.meta.url), { type: 'module', name: 'freedoms' });
    this.remote ??= Comlink.wrap<FreedomsWorker>(this.worker);
    const { worker, remote } = this;
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = (event) => {
        event.preventDefault();
        reject(new Error('What can still move could not be found; change something to try again.'));
      };
    });
    const superseded = new Promise<null>((done) => (this.dropped = () => done(null)));
    try {
      return await Promise.race([remote.find(jointedData(it)), failed, superseded]);
    } catch (error) {
      this.end();
      throw error;
    } finally {
      if (this.worker === worker) this.dropped = null;
    }
  }

  /** A question still under way is given up, and its worker with it. */
  private drop(): void {
    if (!this.dropped) return;
    const { dropped } = this;
    this.end();
    dropped();
  }

  private end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.dropped = null;
  }
}
