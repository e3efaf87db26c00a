import { networkInterfaces } from 'node:os';

/** Where a server listens. */
export interface Listening {
  host: string;
  port: number;
}

const ALL = ['0.0.0.0', '::', 'true'];
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
/** An address by which a browser knows a machine: IPv6 in brackets, as in a URL. */
const named = (address: string) => (address.includes(':') ? `[${address}]` : address);

/** Addresses of this machine in its networks, for the phone; none where the server listens to the machine itself only. */
export function addressesInNetwork(listensOn: string | undefined): string[] {
  if (!listensOn || ['localhost', '127.0.0.1', '::1'].includes(listensOn)) return [];
  const own = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    // an IPv6 address of the link alone needs a zone, which no browser takes
    .filter(
      (n) => !n.internal && (n.family === 'IPv4' || (listensOn === '::' && !n.address.startsWith('fe80'))),
    )
    .map((n) => named(n.address));
  return ALL.includes(listensOn) ? own : [named(listensOn)];
}

/** Where a phone finds the page to follow a round, one line for each address of this machine. */
export const followPages = ({ host, port }: Listening): string[] =>
  addressesInNetwork(host).map((a) => `http://${a}${port === 80 ? '' : `:${port}`}/follow`);

/**
 * Hosts that this server answers to, as they stand in a request: where it listens, and what it was told of (`HOSTS`, with
 * commas; a name without a port stands for the one of here). A name that somebody else points at this machine is not among them.
 */
export function hostsOf({ host, port }: Listening, told = ''): Set<string> {
  const names = told
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
  const own = [...LOOPBACK, named(host), ...addressesInNetwork(host), ...names];
  const withPort = own.flatMap((name) => (/:\d+$/.test(name) ? [name] : [`${name}:${port}`]));
  return new Set([...withPort, ...(port === 80 ? own : []), ...names.filter((n) => !/:\d+$/.test(n))]);
}
