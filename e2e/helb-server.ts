/** A Helb of the test's own: its own database directory and port, killable and restartable. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const ROOT = resolve(import.meta.dirname, '..');
const START_LIMIT_MS = 60_000;

export class HelbServer {
  readonly data = mkdtempSync(join(tmpdir(), 'helb-e2e-'));
  private process: ChildProcess | null = null;
  private port = 0;
  /** What it said at its start. */
  said = '';

  /** @param settings environment variables of its own */
  constructor(private readonly settings: Readonly<Record<string, string>> = {}) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Start, on the same port as before if it ran before. */
  async start(): Promise<void> {
    const child = spawn(process.execPath, ['packages/server/dist/main.mjs'], {
      cwd: ROOT,
      env: { ...process.env, HELB_DATA: this.data, HELB_PORT: String(this.port), ...this.settings },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.process = child;
    this.port = await new Promise<number>((done, fail) => {
      const limit = setTimeout(() => fail(new Error('the server did not start in time')), START_LIMIT_MS);
      let said = '';
      child.stdout!.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        this.said = said;
        const found = /http:\/\/127\.0\.0\.1:(\d+)/.exec(said);
        if (!found) return;
        clearTimeout(limit);
        done(Number(found[1]));
      });
      child.once('exit', () => fail(new Error(`the server ended at its start: ${said}`)));
    });
  }

  /** End it as a power cut would, leaving its database running or not as it may. */
  async kill(): Promise<void> {
    await this.end('SIGKILL');
  }

  async stop(): Promise<void> {
    await this.end('SIGTERM');
    rmSync(this.data, { recursive: true, force: true });
  }

  private async end(signal: NodeJS.Signals): Promise<void> {
    const child = this.process;
    if (!child || child.exitCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill(signal);
    await gone;
    this.process = null;
  }
}
