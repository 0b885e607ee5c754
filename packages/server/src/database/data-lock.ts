/** One server a data directory: the second is told, and touches nothing. */
import { createHash } from 'node:crypto';
import { mkdirSync, realpathSync } from 'node:fs';
import { createServer, type Server } from 'node:net';

/** The data directory is in use by another server; the message is a sentence. */
export class DirectoryInUse extends Error {}

/**
 * Hold the directory until `release`, or until this process ends in whatever way: the
 * lock is a socket name without a file, which the system gives to one process and takes back itself.
 * @throws DirectoryInUse
 */
export async function lockDirectory(directory: string): Promise<{ release(): void }> {
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  const name = createHash('sha256').update(realpathSync(directory)).digest('hex').slice(0, 32);
  const holder = createServer((socket) => socket.destroy());
  await listen(holder, `\0helb-data-${name}`, directory);
  holder.unref();
  return { release: () => void holder.close() };
}

function listen(holder: Server, path: string, directory: string): Promise<void> {
  return new Promise((done, fail) => {
    holder.once('error', (error: NodeJS.ErrnoException) =>
      fail(
        error.code === 'EADDRINUSE'
          ? new DirectoryInUse(
              `Another Helb is running on ${directory}; use that one, stop it first, or set HELB_DATA to another directory.`,
            )
          : error,
      ),
    );
    holder.listen({ path }, done);
  });
}
