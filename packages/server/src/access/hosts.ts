/**
 * Only pages of Helb itself may ask: a page elsewhere must not write through its reader's browser, nor a name of
 * someone else's that leads to this machine be served as if it were ours.
 */
import type { IncomingMessage } from 'node:http';

/** Without a port; a name is served at any port the server has. */
export type HostList = ReadonlySet<string>;

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/** @param more names under which the server is reached, through a balancer for one */
export const hostList = (more: readonly string[]): HostList => new Set([...LOOPBACK, ...more.map((h) => h.toLowerCase())]); // prettier-ignore

const nameIn = (host: string): string => host.toLowerCase().replace(/:\d*$/, '');

/** Why a request is not answered, as a sentence; null when it is. */
export function hostFault(request: Pick<IncomingMessage, 'headers' | 'method'>, hosts: HostList): string | null {
  const { host, origin } = request.headers;
  if (!host || !hosts.has(nameIn(host)))
    return 'This server does not answer under this name; open it at its own address, or add the name to HELB_HOSTS.';
  if (origin !== undefined && originOf(origin) !== originOf(`http://${host}`))
    return 'Only pages of Helb itself may ask this of the server.';
  const site = request.headers['sec-fetch-site'];
  if (origin === undefined && site === 'cross-site' && request.method !== 'GET')
    return 'Only pages of Helb itself may ask this of the server.';
  return null;
}

function originOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
